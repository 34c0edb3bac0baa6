/** Parses tables, with or without a header, separated by commas, semicolons, tabs, bars or blanks. */
import Papa from "papaparse";
import { decimalColumns, withPoint } from "./decimal-commas";
import { leafOf, numberOf } from "./leaf";
import type { Tree } from "./tree";

/** How a table is split. */
export const TABLE = {
  skipEmptyLines: "greedy",
  comments: "#",
  delimitersToGuess: [",", ";", "\t", "|"],
} as const satisfies Papa.ParseConfig;

const LONGEST = 8 * 1_048_576; // characters
/** A table with more columns than this is some other text in one line. */
const MOST_COLUMNS = 400;

const isNumber = (cell: string) => numberOf(cell) !== null || /^[+-]?\d+,\d+$/.test(cell.trim());

/** What a table's columns are called, and which row is the first that is no head. */
export function tableHeads(rows: readonly (readonly string[])[]): { heads: readonly string[]; first: 0 | 1 } {
  const [first = [], second] = rows;
  const isHead = first.every((cell) => !isNumber(cell)) && (second?.some(isNumber) ?? false);
  return { heads: first.map((cell, k) => (isHead && cell.trim()) || String(k)), first: isHead ? 1 : 0 };
}

/** Rows of a table as records by their heads; without heads the columns are called 0, 1, 2 … Null if there are no two columns. */
export function fromTable(text: string): Tree | null {
  if (text.length > LONGEST || hasLongLine(text)) return null;
  const { data, meta } = Papa.parse<string[]>(text, TABLE);
  const rows = data.filter((row) => row.some((cell) => cell.trim() !== "") && !isRule(row));
  const columns = rows[0]?.length ?? 0;
  if (columns >= 2 && columns <= MOST_COLUMNS) return recordsOf(rows, meta.delimiter);
  return null;
}

/** As `fromTable`, for columns that blanks part and for tables with lines of other kinds above them; null if most lines differ in length. */
export function fromBlankTable(text: string): Tree | null {
  if (text.length > LONGEST / 4 || hasLongLine(text)) return null;
  const config = { ...TABLE, delimiter: " " } as const;
  const lines = text.split(/\r?\n/).map((line) => line.trim().replace(/[ \t]+/g, " "));
  const rows = Papa.parse<string[]>(lines.join("\n"), config).data.filter((row) => row.some((cell) => cell.trim() !== ""));
  const counts = new Map<number, number>();
  for (const { length } of rows) counts.set(length, (counts.get(length) ?? 0) + 1);
  const [usual = 0, count = 0] = [...counts].sort((a, b) => b[1] - a[1])[0] ?? [];
  // Two or three columns are a table only if one of them holds a whole rectangle.
  const holdsLists = usual >= 2 && rows.some((row) => row.some((cell) => Array.isArray(leafOf(cell))));
  if ((usual < 4 && !holdsLists) || usual > MOST_COLUMNS || count < 2 || count < rows.length * 0.6) return null;
  const like = rows.filter(({ length }) => length === usual);
  // Words that every row has are labels: such lines are no table.
  const labels = like[0]?.filter((cell, k) => !isNumber(cell) && like.every((row) => row[k] === cell)).length ?? 0;
  if (labels >= 2) return null;
  return recordsOf(
    like.map((row) => row.map((cell) => cell.replace(/[,;]$/, ""))),
    " ",
  );
}

/** Checked before splitting: a single line of many megabytes is not a table. */
function hasLongLine(text: string): boolean {
  for (let from = 0; from < text.length; ) {
    const end = text.indexOf("\n", from);
    if ((end < 0 ? text.length : end) - from > 100_000) return true;
    if (end < 0) return false;
    from = end + 1;
  }
  return false;
}

/** A row of dashes between the header and the rows. */
function isRule(row: readonly string[]): boolean {
  return row.every((cell) => /^\s*:?-*:?\s*$/.test(cell));
}

function recordsOf(rows: readonly (readonly string[])[], delimiter: string): Tree {
  const table = tableHeads(rows);
  // A repeated heading would hide the earlier column.
  const seen = new Map<string, number>();
  const heads = table.heads.map((head) => {
    const count = (seen.get(head) ?? 0) + 1;
    seen.set(head, count);
    return count === 1 ? head : `${head} ${count}`;
  });
  const records = rows.slice(table.first);
  const decimal = decimalColumns(heads, records, delimiter);
  const leaf = (cell: string, k: number) => leafOf(decimal.has(k) ? withPoint(cell) : cell);
  return records.map((row) => Object.fromEntries(heads.map((head, k) => [head, leaf(row[k] ?? "", k)])));
}
