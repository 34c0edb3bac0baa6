/** Files that only came along with art: a licence, a sound, a program's code. */
import { pathKey } from "../model";
import { fileOf } from "./drop-contents";
import { mentionsIn } from "./mentions";
import { isArtFile, withoutEnding } from "./names";

/** A whole game may be given: of more texts than this, those that seem to have only come along are not read. */
export const MOST_TRIED = 60;

/**
 * Whether a file that could not be used only came along with `pictures`, so that nobody misses it: it is called neither as a picture nor as
 * data are, does not look like a list of numbers, and has no picture's name, outside or inside. `text` is null if it is none.
 */
export function onlyCameAlong(path: string, text: string | null, pictures: readonly string[]): boolean {
  if (pictures.length === 0 || isArtFile(path)) return false;
  if (text === null) return true;
  return isProse(path) || !(isDataFile(path) || isMostlyNumbers(text) || goesWithPictures(path, text, pictures));
}

/** Whether a text says by its own name or within that it is about one of the pictures. */
function goesWithPictures(path: string, text: string, pictures: readonly string[]): boolean {
  const stem = pathKey(withoutEnding(path));
  const mentions = mentionsIn(text);
  return pictures.some((picture) => mentions(fileOf(picture)) || pathKey(withoutEnding(picture)) === stem);
}

function isDataFile(path: string): boolean {
  return /\.(json|xml|ya?ml|toml|csv|tsv|atlas|plist|ini|cfg)$/i.test(path);
}

/** Whether most lines have several numbers. */
function isMostlyNumbers(text: string): boolean {
  const lines = text
    .slice(0, LOOKED_AT)
    .split("\n")
    .filter((line) => line.trim() !== "");
  return lines.filter((line) => /\d\D+\d\D+\d/.test(line)).length * 2 > lines.length;
}

const LOOKED_AT = 20_000; // characters

/** Read by people, even where it names pictures. */
function isProse(path: string): boolean {
  return (
    /\.(md|rtf|html?)$/i.test(path) ||
    /^(read.?me|licen[cs]e|copying|credits|authors|attribution|change.?log|notes?|terms|about)\b[^.]*(\.txt)?$/i.test(fileOf(path))
  );
}
