/** Finds the file of a picture in a project's folder. */
import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";

/**
 * The file's path, null if there is none. Letters and their accents may be apart in the name on disk and joined in the document, or the other
 * way round: archives and repositories change that between systems.
 */
export function artPath(folder: string, file: string): string | null {
  const path = join(folder, file);
  if (existsSync(path)) return path;
  if (!/[^\0-\x7f]/.test(file)) return null;
  const found = file.split("/").reduce<string | null>((below, part) => below && entryCalled(below, part), folder);
  return found !== null && existsSync(found) ? found : null;
}

function entryCalled(folder: string, part: string): string | null {
  try {
    const name = readdirSync(folder).find((each) => each.normalize("NFC") === part.normalize("NFC"));
    return name === undefined ? null : join(folder, name);
  } catch {
    return null;
  }
}
