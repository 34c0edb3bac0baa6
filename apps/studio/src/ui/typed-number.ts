/** Numbers as people type them: with a point or a comma before the decimals, in digits of either width, with any minus. */

/** `NaN` if it is no number. */
export function typedNumber(text: string): number {
  const trimmed = plain(text);
  return trimmed === "" ? Number.NaN : Number(trimmed.replace(",", "."));
}

/** What `1,000` may mean, which is one in some countries and a thousand in others; null for texts with one meaning. */
export function twoMeanings(text: string): { readonly small: number; readonly large: number } | null {
  const trimmed = plain(text);
  return /^-?[1-9]\d{0,2},\d{3}$/.test(trimmed) ? { small: typedNumber(trimmed), large: Number(trimmed.replace(",", "")) } : null;
}

/**
 * A list of numbers between blanks, commas, semicolons or slashes; empty if one of them is none. Null if some commas stand between numbers
 * and others before decimals, as in `33,3 33,3`, so that it is not known which.
 */
export function typedNumbers(text: string): number[] | null {
  const words = plain(text).split(/[;/]|,?\s+/);
  if (words.length > 1 && words.some((word) => /\d,\d/.test(word))) return null;
  const numbers = words.flatMap((word) => word.split(",")).flatMap((word) => (word === "" ? [] : [Number(word)]));
  return numbers.every(Number.isFinite) ? numbers : [];
}

/** Keyboards for Chinese and Japanese may type digits of full width. */
function plain(text: string): string {
  return text.normalize("NFKC").replace("\u2212", "-").trim();
}
