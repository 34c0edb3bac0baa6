/** Paths as arguments: patterns are expanded here where the shell did not, as those of Windows do not. */
import { existsSync, readdirSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { matchesOne } from "@caravan/core/delivery-plan";
import { CaravanError, naturalOrder } from "@caravan/core/model";

/**
 * Adds to `before` a path, or in natural order all files that its last part, such as `walk-*.png`, is a pattern of. Throws `not-found` if
 * there are none.
 */
export function givenPaths(path: string, before: readonly string[] = []): string[] {
  const [folder, pattern] = [dirname(path), basename(path)];
  if (!/[*?]/.test(pattern) || existsSync(path)) return [...before, path];
  const found = namesIn(folder)
    .filter((name) => !name.startsWith(".") && matchesOne(comparable(pattern), comparable(name)))
    .sort(naturalOrder);
  if (found.length === 0) throw new CaravanError("not-found", path, `No file in ${folder} is called so.`, "Check the path.");
  return [...before, ...found.map((name) => join(folder, name))];
}

function namesIn(folder: string): string[] {
  try {
    return readdirSync(folder);
  } catch {
    return [];
  }
}

/** Windows does not tell capitals apart. */
function comparable(name: string): string {
  return process.platform === "win32" ? name.toLowerCase() : name;
}
