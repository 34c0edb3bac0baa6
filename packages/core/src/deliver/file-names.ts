/** Whether delivered files can be called as they are, on every system that a game is built on. */
import type { NamedFile } from "../codec";
import { CaravanError } from "../model";

/** Names that one widespread system keeps for its devices, with any ending. */
const KEPT = /^(con|prn|aux|nul|com\d|lpt\d)(\.|$)/iu;

/** Throws `bad-name` for a file that some system refuses, `name-collision` for two that differ at most in small and capital letters. */
export function checkFileNames(files: readonly Pick<NamedFile, "path">[], where: string): void {
  const seen = new Map<string, string>();
  for (const { path } of files) {
    for (const part of path.split("/"))
      if (part === "" || /[\\:*?"<>|\p{Cc}]/u.test(part) || /[. ]$/u.test(part) || KEPT.test(part) || part.length > 200)
        throw new CaravanError(
          "bad-name",
          where,
          `A file cannot be called "${path}" on every system.`,
          'Rename the clip or frame: no \\ : * ? " < > |, no dot or blank at the end, no empty part.',
        );
    const key = path.normalize("NFC").toLowerCase();
    const twin = seen.get(key);
    if (twin !== undefined)
      throw new CaravanError(
        "name-collision",
        where,
        `Two files would be called ${path}${twin === path ? "" : ` and ${twin}, which some systems take for one`}.`,
        "Rename one of the two, or one of the deliveries.",
      );
    seen.set(key, path);
  }
}
