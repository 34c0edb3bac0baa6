/** Finds the columns of a table that write numbers with a comma before the decimals, as spreadsheets do in half of the world. */

const PLAIN = /^[+-]?\d+$/;
const COMMA = /^[+-]?\d+,\d+$/;
/** What only a single number is called; `0,5` under another name may be two. */
const SINGLE = /(^|[^a-z])[xy]$|[a-z][XY]$|(ms|seconds?|durations?|times?|fps|scale|angle|rotation)$/;

/**
 * The positions of those columns. Only where something else than a comma parts columns; and only if some cells show that these are decimals
 * and not two numbers: a whole number in the same column, a digit that no second number begins with (`0,05`), or the column's name. A program
 * writes numbers in one way, so one such column speaks for all. Cost: O(cells).
 */
export function decimalColumns(heads: readonly string[], rows: readonly (readonly string[])[], delimiter: string): ReadonlySet<number> {
  if (delimiter === "," || delimiter === " ") return new Set();
  const columns = heads.flatMap((head, at) => {
    const cells = rows.map((row) => (row[at] ?? "").trim()).filter((cell) => cell !== "");
    return cells.some((cell) => COMMA.test(cell)) && cells.every((cell) => COMMA.test(cell) || PLAIN.test(cell))
      ? [{ head, at, cells }]
      : [];
  });
  const shows = columns.some(({ head, cells }) => SINGLE.test(head) || cells.some((cell) => PLAIN.test(cell) || /,0\d/.test(cell)));
  return new Set(shows ? columns.map(({ at }) => at) : []);
}

/** A cell of such a column with a point. */
export function withPoint(cell: string): string {
  return cell.replace(",", ".");
}
