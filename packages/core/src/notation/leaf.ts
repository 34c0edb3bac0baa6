/** Parses single values: numbers, yes or no, and short lists written as text, such as `{{1,2},{3,4}}`. */
import type { Tree } from "./tree";

const NUMBER = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d{1,3})?$/i;

/** `0001` is a name, not the number 1: as a number it would be written back differently. */
const PADDED = /^[+-]?0\d/;

/** A number with a unit of length, parsed as the plain number. */
const PIXELS = /^([+-]?(?:\d+\.?\d*|\.\d+))\s?px$/i;

/** The number that a text spells, null if it spells none. */
export function numberOf(text: string): number | null {
  const trimmed = text.trim();
  if (NUMBER.test(trimmed)) return Number(trimmed);
  const pixels = PIXELS.exec(trimmed)?.[1];
  if (pixels !== undefined) return Number(pixels);
  const share = /^([+-]?(?:\d+\.?\d*|\.\d+))\s?%$/.exec(trimmed)?.[1];
  return share === undefined ? null : Number(share) / 100;
}

/** A quoted value: text stays text, except plain numbers, which many writers quote. */
export function leafOfQuoted(text: string): Tree {
  return /^(yes|no)$/i.test(text.trim()) ? text.trim() : leafOf(text);
}

/** Longer texts are no single values, and looking for numbers in them would cost time. */
const LONGEST = 400;

/** A value from text: a number, yes or no, several numbers, or the text itself. */
export function leafOf(text: string): Tree {
  const trimmed = text.trim();
  if (trimmed.length > LONGEST) return trimmed;
  if (PADDED.test(trimmed) && NUMBER.test(trimmed)) return trimmed;
  if (NUMBER.test(trimmed)) return Number(trimmed);
  if (/^(true|yes)$/i.test(trimmed)) return true;
  if (/^(false|no)$/i.test(trimmed)) return false;
  return numbersOf(trimmed) ?? trimmed;
}

/** `2, 4`, `{{1,2},{3,4}}`, `(0.5 1)`, `32x40`, `2px 4px`: nothing but numbers, brackets and what parts them. `x0 2` is a name. */
function numbersOf(text: string): number[] | null {
  if (!/\d/.test(text)) return null;
  const plain = text.replace(/(\d)px\b/gi, "$1");
  // `Rect(0, 0, 16, 16)`: a word in front of numbers in brackets says what they are.
  const called = /^[A-Za-z_][\w.]*\s?[({[](.*)[)}\]]$/.exec(plain)?.[1];
  const inner = called ?? plain;
  if (!/^(?![x×])[\d\s.,;:|+\-(){}[\]x×/]+$/i.test(inner)) return null;
  const parts = inner
    .replace(/[(){}[\]]/g, " ")
    .split(/[\s,;:|x×]+/i)
    .filter((part) => part !== "");
  if (parts.length > 1 && parts.every((part) => NUMBER.test(part))) return parts.map(Number);
  // `20x34+2+2` and `2/2/20/34`. Fewer than four may be a date or a name.
  const signed = inner.split(/[\s,;:|x×/+]+/i).filter((part) => part !== "");
  return signed.length === 4 && signed.every((part) => NUMBER.test(part)) ? signed.map(Number) : null;
}
