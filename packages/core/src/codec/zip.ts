import { strFromU8, strToU8, type UnzipFileInfo, unzipSync, type Zippable, zipSync } from "fflate";
import { CaravanError } from "../model";
import { t } from "../words";
import { meantNames } from "./zip-names";

/** One file of an archive; the path uses `/`. */
export interface NamedFile {
  readonly path: string;
  readonly bytes: Uint8Array;
}

/** More than any project has: its document, and for each picture its file and perhaps a metadata file. */
const MOST_FILES = 50_000;
/** bytes, unpacked: all of it is held in memory. */
export const MOST_UNPACKED = 1_000 * 1_048_576;

/**
 * A ZIP of the files in the given order. Holds: same files, same bytes, on every machine and in every time zone. PNG data is stored
 * uncompressed, because it is already compressed; so is a `mimetype`, which identifies the archive.
 */
export function writeZip(files: readonly NamedFile[]): Uint8Array {
  // ZIP stores local time without a zone; a fixed local date gives the same bytes everywhere.
  const mtime = new Date(1980, 0, 1);
  const entries: Zippable = {};
  for (const { path, bytes } of files)
    entries[path] = [bytes, { level: path.endsWith(".png") || path === "mimetype" ? 0 : 9, mtime, os: 0 }];
  return zipSync(entries);
}

/**
 * Unpacks a ZIP in memory. Refused are archives of more than 50,000 files or 1,000 MB, and paths that climb out.
 * Names are read as `meantNames` says. Only files that are `wanted`, by path and unpacked size in bytes, are unpacked. `where` names the archive in errors. Throws `empty-file` or `damaged-project`.
 */
export function readZip(bytes: Uint8Array, where: string, wanted: (path: string, size: number) => boolean = () => true): NamedFile[] {
  const refuse = (what: string, remedy = t("Use an undamaged copy of the file."), cause?: unknown) =>
    new CaravanError("damaged-project", where, what, remedy, { cause });
  const fewer = t("Pack fewer of its files, or use them unpacked.");
  if (bytes.length === 0) throw new CaravanError("empty-file", where, t("The file is empty (0 bytes)."), t("Use another copy of it."));
  let files = 0;
  let total = 0;
  const { names: meant } = meantNames(bytes);
  // Some programs part folders as their system does.
  const pathOf = (name: string) => (meant.get(name) ?? name).replaceAll("\\", "/");
  const filter = (entry: UnzipFileInfo) => {
    const path = pathOf(entry.name);
    if (path.endsWith("/")) return false;
    files++;
    if (!wanted(path, entry.originalSize)) return false;
    total += entry.originalSize;
    if (files > MOST_FILES) throw refuse(t("The archive contains more than {mostFiles} files.", { mostFiles: MOST_FILES }), fewer);
    if (total > MOST_UNPACKED)
      throw refuse(t("The archive would unpack to more than {mostBytes} MB.", { mostBytes: MOST_UNPACKED / 1_048_576 }), fewer);
    if (/^\/|^[A-Za-z]:|(^|\/)\.\.(\/|$)/.test(path))
      throw refuse(t("The archive contains a path outside itself: {name}.", { name: path }));
    return true;
  };
  try {
    const unpacked = unzipSync(bytes, { filter });
    return Object.entries(unpacked).map(([name, content]) => ({ path: pathOf(name), bytes: content }));
  } catch (error) {
    if (error instanceof CaravanError) throw error;
    throw refuse(t("The archive is damaged or cut off and cannot be unpacked."), undefined, error);
  }
}

/** Whose letters the names in an archive were taken for, in words, if nothing in it says so; otherwise null. */
export function lettersOfNames(archive: Uint8Array): string | null {
  return meantNames(archive).guessed;
}

/** Text as UTF-8 bytes. */
export function utf8(text: string): Uint8Array {
  return strToU8(text);
}

/** UTF-8 bytes as text; bytes that are no UTF-8 become replacement characters. */
export function textFromUtf8(bytes: Uint8Array): string {
  return strFromU8(bytes);
}
