/** Reads JSON up to the place where it is damaged or cut off. */

export interface ReadableJson {
  readonly value: unknown;
  /** False if something follows that could not be read; then the last list or record may be a part of what it was. */
  readonly isWhole: boolean;
}

/**
 * The text as far as it is JSON, with what was open closed; null if not even a first list or record can be read. Cuts only after a closing
 * bracket, so that no word or number is half of what it was. Searches for the last cut that is valid, because all before it are.
 */
export function readableJson(text: string): ReadableJson | null {
  try {
    return { value: JSON.parse(text), isWhole: true };
  } catch {
    // Up to the damage.
  }
  const cuts = cutsIn(text);
  const isValid = (k: number) => valueUpTo(text, cuts[k] as Cut) !== undefined;
  let [valid, invalid] = [-1, cuts.length];
  while (invalid - valid > 1) {
    const middle = (valid + invalid) >> 1;
    if (isValid(middle)) valid = middle;
    else invalid = middle;
  }
  return valid < 0 ? null : { value: valueUpTo(text, cuts[valid] as Cut), isWhole: false };
}

/** A place after a closing bracket, and the brackets that would close what is open there. */
interface Cut {
  readonly end: number;
  readonly closing: string;
}

/** Behind the damage they may be wrong, and are not valid then. */
function cutsIn(text: string): Cut[] {
  const cuts: Cut[] = [];
  const open: string[] = [];
  for (const token of text.matchAll(/"(?:[^"\\]|\\.)*"|[[\]{}]/gs)) {
    if (token[0] === "[") open.push("]");
    else if (token[0] === "{") open.push("}");
    else if (token[0] === open.at(-1)) {
      open.pop();
      cuts.push({ end: token.index + 1, closing: open.toReversed().join("") });
    }
  }
  return cuts;
}

/** Undefined if it is no JSON. */
function valueUpTo(text: string, { end, closing }: Cut): unknown {
  try {
    return JSON.parse(text.slice(0, end) + closing);
  } catch {
    return undefined;
  }
}
