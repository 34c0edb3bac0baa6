import * as z from "zod";
import { t } from "../words";
import { CaravanError } from "./error";

/** Longest name, in UTF-16 units. */
const LONGEST = 200;

/** Control characters, and lone halves of surrogate pairs, which no file can hold. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: finding them is its purpose
const UNFIT = /[\u0000-\u001f\u007f-\u009f\u2028\u2029]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

const ALL_UNFIT = new RegExp(UNFIT, "g");

/** A name as people type it: Unicode without control characters, not blank, at most 200 UTF-16 units. */
export const Name = z
  .string()
  .min(1)
  .max(LONGEST)
  .refine((text) => isFitName(text), "A name is text without control characters, and not blank.");

/** `__proto__` is refused too: as a key in a file it would be lost in half of the languages that read it. */
export function isFitName(text: string): boolean {
  return text !== "__proto__" && text.length > 0 && text.length <= LONGEST && text.trim().length > 0 && !UNFIT.test(text);
}

/** `text` trimmed. Throws `bad-name` if the rest cannot be a name. */
export function checkedName(text: string, where: string): string {
  const name = text.trim();
  if (name === "__proto__")
    throw new CaravanError("bad-name", where, t("Half of the languages that read the file would lose this name."), t("Type another name."));
  if (!isFitName(name))
    throw new CaravanError("bad-name", where, t("A name needs 1 to 200 characters and no control characters."), t("Type another name."));
  return name;
}

/**
 * `wanted`, or `wanted-2`, `wanted-3`, …: the first free one. One that is too long, by itself or for its number, is shortened. `sign`
 * precedes the number if a dash would mean something else.
 */
export function freeName(wanted: string, taken: ReadonlySet<string> | ((name: string) => boolean), sign = "-"): string {
  const isTaken = typeof taken === "function" ? taken : (name: string) => taken.has(name);
  const whole = wanted.length > LONGEST ? shortened(wanted, LONGEST).trimEnd() : wanted;
  if (!isTaken(whole)) return whole;
  for (let number = 2; ; number++) {
    const suffix = `${sign}${number}`;
    const candidate = `${shortened(wanted, LONGEST - suffix.length)}${suffix}`;
    if (!isTaken(candidate)) return candidate;
  }
}

/**
 * Any text as a name: control characters and halves of split characters become `-`, the text is trimmed and shortened. Null if nothing
 * usable is left.
 */
export function fittedName(text: string, longest = LONGEST): string | null {
  const fit = shortened(text.replace(ALL_UNFIT, "-").trim(), longest).trim();
  return isFitName(fit) ? fit : null;
}

/** Any text without what some file system refuses in a name: each such character becomes a dash. */
export function fitFileName(text: string): string {
  return text.replace(/[\\/:*?"<>|\p{Cc}\u2028\u2029]/gu, "-").replace(/[. ]+$/u, "");
}

/** At most `longest` UTF-16 units of a text, never half of a character. */
export function shortened(text: string, longest: number): string {
  if (text.length <= longest) return text;
  const cut = text.slice(0, Math.max(0, longest));
  return /[\ud800-\udbff]$/.test(cut) ? cut.slice(0, -1) : cut;
}
