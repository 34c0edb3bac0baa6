/** Follows pictures whose files have other names now. Pure, and tested. */
import { allPictures, naturalOrder, type Picture, type Source } from "@caravan/core/model";
import type { Matches } from "./match";

/** A file as read: its path in the folder, and its hash. */
export interface HashedFile {
  readonly path: string;
  readonly sha256: string;
}

/**
 * Pictures that the folder has under another name now: by a picture's path in the project the path there. `missing` are pictures whose files
 * are gone, `found` files that no picture has. Of several with the same content the first is the first, in their natural order, if there are
 * as many files as pictures; otherwise nothing says which is which.
 */
export function renamedFiles(missing: readonly Pick<Picture, "file" | "sha256">[], found: readonly HashedFile[]): Map<string, string> {
  const renamed = new Map<string, string>();
  for (const sha256 of new Set(missing.map((picture) => picture.sha256))) {
    const gone = [...new Set(missing.filter((picture) => picture.sha256 === sha256).map(({ file }) => file))].sort(naturalOrder);
    const there = found.flatMap((file) => (file.sha256 === sha256 ? [file.path] : [])).sort(naturalOrder);
    if (gone.length === there.length) for (const [k, file] of gone.entries()) renamed.set(file, there[k] as string);
  }
  return renamed;
}

/** Pictures of which the folder has no file. */
export function missingFrom(sources: readonly Source[], matches: Matches): Picture[] {
  return sources.flatMap((source) => {
    const match = matches.get(source.id);
    if (match?.from === "one") return [];
    return allPictures(source).filter((_, k) => !match?.paths[k]);
  });
}

/** A picture's path in the project, with the name that its file has in the folder. */
export function withNameOf(file: string, path: string): string {
  return file.slice(0, file.lastIndexOf("/") + 1) + path.slice(path.lastIndexOf("/") + 1);
}
