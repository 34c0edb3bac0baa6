/** Compares the files of a linked folder with what the project has. */
import { allPictures, type Source } from "@caravan/core/model";
import { storage } from "../storage";
import { isPng, type Match } from "./match";
import { hashOfStill, isOtherArt } from "./one-file";

/** When a file was written and how large it is: equal stamps are not read again. */
export function stampOf(file: File): string {
  return `${file.lastModified} ${file.size}`;
}

/** Hashes of files that were read already, by link, path and stamp: another folder may have another file there. */
const hashes = new Map<string, string>();

/** What a source's files are compared with. */
export interface Known {
  readonly files: ReadonlyMap<string, File>;
  /** Stamps of files that a person has decided on, by path. */
  readonly ignored: Readonly<Record<string, string>>;
  /** Hashes of what the last save left there, by path. */
  readonly left: Readonly<Record<string, string>>;
  readonly link: string;
  readonly project: string;
}

export async function hasChanged(source: Source, match: Match, { files, ignored, left, link }: Known): Promise<boolean> {
  if (match.from === "one") {
    const file = files.get(match.path);
    return (
      file !== undefined && ignored[match.path] !== stampOf(file) && isOtherArt(source, file, `${link} ${match.path} ${stampOf(file)}`)
    );
  }
  for (const [k, path] of match.paths.entries()) {
    const file = path === null ? undefined : files.get(path);
    if (path === null || !file || ignored[path] === stampOf(file)) continue;
    const sha256 = await pictureHash(file, path, link);
    if (sha256 !== null && sha256 !== allPictures(source)[k]?.sha256 && !(Object.hasOwn(left, path) && left[path] === sha256)) return true;
  }
  return false;
}

/** Whether a metadata file says something else than when it cut the source, as far as this browser knows what it said. */
export async function saysOther(source: Source, path: string, { files, ignored, project }: Known): Promise<boolean> {
  const file = files.get(path);
  if (!file || source.cut?.by !== "metadata" || ignored[path] === stampOf(file)) return false;
  const stored = await storage.texts.get([project, source.id]);
  return stored !== undefined && stored.file === source.cut.file && (await file.text()) !== stored.text;
}

/** The hash of a file's picture as it is stored; null if it cannot be read, which a drawing program may just be writing. */
function pictureHash(file: File, path: string, link: string): Promise<string | null> {
  return isPng(path) ? hashOf(file, path, link) : hashOfStill(file, `${link} ${path} ${stampOf(file)}`);
}

export async function hashOf(file: File, path: string, link: string): Promise<string> {
  const key = `${link} ${path} ${stampOf(file)}`;
  const known = hashes.get(key);
  if (known !== undefined) return known;
  const digest = await crypto.subtle.digest("SHA-256", await file.arrayBuffer());
  const sha256 = [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  hashes.set(key, sha256);
  return sha256;
}
