/** What a reading and an example are called: after the file that they were made from. */
import { fittedName, shortened } from "../model";

const LONGEST = 200;
const LONGEST_ENDING = 20;

/**
 * The name of a file without its folders, fit to be a name: of one that is too long the end of the stem is left out, so that the ending still
 * says what it is. "metadata" if nothing usable is left.
 */
export function readingName(where: string): string {
  const name = (where.split(/[\\/]/).pop() ?? where).replace(/\p{Cc}/gu, "");
  const ending = /\.[^.]*$/.exec(name)?.[0] ?? "";
  if (name.length <= LONGEST || ending.length > LONGEST_ENDING) return fittedName(name) ?? "metadata";
  return fittedName(shortened(name, LONGEST - ending.length) + ending) ?? "metadata";
}
