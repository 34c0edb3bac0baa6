import * as z from "zod";
import { CaravanError } from "./error";

/** Control characters, and lone halves of surrogate pairs, which no file can hold. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: finding them is its purpose
const UNFIT = /[\u0000-\u001f\u007f-\u009f\u2028\u2029]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

/** A name as people type it: Unicode without control characters, not blank, at most 200 UTF-16 units. */
export const Name = z
  .string()
  .min(1)
  .max(200)
  .refine((text) => isFitName(text), "A name is text without control characters and not blank.");

/** `__proto__` is refused too: as a key in a file it would be lost in half of the languages that read it. */
export function isFitName(text: string): boolean {
  return text !== "__proto__" && text.length > 0 && text.length <= 200 && text.trim().length > 0 && !UNFIT.test(text);
}

/** `text` without blanks around it. Throws `bad-name` if what is left cannot be a name. */
export function checkedName(text: string, where: string): string {
  const name = text.trim();
  if (!isFitName(name))
    throw new CaravanError("bad-name", where, "A name needs 1 to 200 characters and no control characters.", "Type another name.");
  return name;
}

/** `wanted`, or `wanted-2`, `wanted-3`, … : the first that `taken` does not hold. */
export function freeName(wanted: string, taken: ReadonlySet<string>): string {
  if (!taken.has(wanted)) return wanted;
  for (let number = 2; ; number++) {
    const candidate = `${wanted}-${number}`;
    if (!taken.has(candidate)) return candidate;
  }
}
