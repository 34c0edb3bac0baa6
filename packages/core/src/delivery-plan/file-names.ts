/** Checks that delivered files have names that every system accepts. */
import { CaravanError, isDeviceName, pathKey } from "../model";
import { t } from "../words";

/** A path that some system refuses, or one that differs from an earlier one at most in small and capital letters. `at` is its place in the list. */
export type PathTrouble =
  | { readonly kind: "unfit"; readonly at: number; readonly path: string }
  | { readonly kind: "alike"; readonly at: number; readonly path: string; readonly twin: string };

/** Everything wrong with a set of paths, in their order. Cost: O(characters). */
export function troubleWithPaths(paths: readonly string[]): PathTrouble[] {
  const seen = new Map<string, string>();
  return paths.flatMap((path, at): PathTrouble[] => {
    if (path.split("/").some(isUnfit)) return [{ kind: "unfit", at, path }];
    const key = pathKey(path);
    const twin = seen.get(key);
    if (twin !== undefined) return [{ kind: "alike", at, path, twin }];
    seen.set(key, path);
    return [];
  });
}

function isUnfit(part: string): boolean {
  return part === "" || /[\\:*?"<>|\p{Cc}]/u.test(part) || /[. ]$/u.test(part) || isDeviceName(part) || part.length > 200;
}

function pathTroubleInWords(trouble: PathTrouble): { what: string; remedy: string } {
  if (trouble.kind === "unfit")
    return {
      what: t('Some systems do not allow the file name "{path}".', { path: trouble.path }),
      remedy: t('Rename the clip or frame: no \\ : * ? " < > |, no dot or space at the end, no empty part.'),
    };
  const { path, twin } = trouble;
  return {
    what:
      twin === path
        ? t("Two files would be named {path}.", { path })
        : t("Two files would be named {path} and {twin}, which some systems do not distinguish.", { path, twin }),
    remedy: t("Rename one of the two, or one of the deliveries."),
  };
}

/** Throws `bad-name` or `name-collision` for the first path that is in trouble. `where` names whose files they are. */
export function checkFileNames(files: readonly { readonly path: string }[], where: string): void {
  const [trouble] = troubleWithPaths(files.map(({ path }) => path));
  if (!trouble) return;
  const { what, remedy } = pathTroubleInWords(trouble);
  throw new CaravanError(trouble.kind === "unfit" ? "bad-name" : "name-collision", where, what, remedy);
}
