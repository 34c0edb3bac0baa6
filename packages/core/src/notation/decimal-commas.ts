/** Finds values that are written with a comma before the decimals, as spreadsheets and programs do in half of the world. */

const PLAIN = /^[+-]?\d+$/;
const COMMA = /^[+-]?\d+,\d+$/;
/** What only a single number is called; `0,5` under another name may be two. */
const SINGLE = /(^|[^a-z])[xy]$|[a-z][XY]$|(ms|seconds?|durations?|times?|fps|angle|rotation)$/;
/** What several numbers are called, perhaps of one member. */
const SEVERAL =
  /(frames?|steps|ind(ex|ic)es|ids|cells|tiles|sprites|sequence|order|list|layers|events|tags|size|pos|position|offset|origin|pivot|anchor|points?|rect|bounds|margin|padding|spacing|xy|wh)$/i;

/** Texts that are called alike, such as the cells of a column. */
export interface Called {
  readonly name: string;
  readonly texts: readonly string[];
}

/**
 * Those of `all` whose texts are such decimals. Only if some show that these are decimals and not two numbers: a whole number among them, a
 * digit that no second number begins with (`0,05`), or what they are called. A program writes numbers in one way, so one speaks for all.
 * Cost: O(texts).
 */
export function withDecimalCommas<Each extends Called>(all: readonly Each[]): Each[] {
  const found = all.filter(({ name, texts }) => {
    const said = texts.map((text) => text.trim()).filter((text) => text !== "");
    return !SEVERAL.test(name) && said.some((text) => COMMA.test(text)) && said.every((text) => COMMA.test(text) || PLAIN.test(text));
  });
  const shows = ({ name, texts }: Called) => SINGLE.test(name) || texts.some((text) => PLAIN.test(text.trim()) || /,0\d/.test(text));
  return found.some(shows) ? found : [];
}

/** The positions of such columns in a table, if something else than a comma parts its columns. */
export function decimalColumns(heads: readonly string[], rows: readonly (readonly string[])[], delimiter: string): ReadonlySet<number> {
  if (delimiter === "," || delimiter === " ") return new Set();
  const columns = heads.map((name, at) => ({ name, at, texts: rows.map((row) => row[at] ?? "") }));
  return new Set(withDecimalCommas(columns).map(({ at }) => at));
}

/** Such a text with a point. */
export function withPoint(text: string): string {
  return text.replace(",", ".");
}
