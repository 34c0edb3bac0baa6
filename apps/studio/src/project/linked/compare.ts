/** Compares the files of a linked folder with what the project has. */
import { allPictures, type Source } from "@caravan/core/model";
import { keepTextOf, textOf } from "../kept-texts";
import { useOpenProject } from "../open-project";
import { textOfFile } from "../text-of-file";
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

/** Whether a metadata file says something else than when it cut the source, as far as that is known. */
export async function saysOther(source: Source, path: string, { files, ignored, link }: Known): Promise<boolean> {
  const file = files.get(path);
  if (!file || source.cut?.by !== "metadata" || ignored[path] === stampOf(file)) return false;
  const { sha256 } = source.cut;
  if (sha256 !== undefined) {
    const there = await textHash(file, path, link);
    if (there !== null && there !== sha256) return true;
    if (there !== null) await learnText(source, file);
    return false;
  }
  const stored = await textOf(source);
  const text = stored && (await unlessUnreadable(textOfFile(file)));
  return stored !== null && text !== null && text !== stored.text;
}

/** Sources whose text was looked for, by project, source and hash. */
const learned = new Set<string>();

/** A file that is just what cut the source is kept, if this browser does not have it: then its next version can be followed. */
async function learnText(source: Source, file: File): Promise<void> {
  const { id } = useOpenProject.getState();
  const key = `${id} ${source.id} ${JSON.stringify(source.cut)}`;
  if (learned.has(key)) return;
  if (await textOf(source)) {
    learned.add(key);
    return;
  }
  const text = await unlessUnreadable(textOfFile(file));
  if (text === null || useOpenProject.getState().id !== id) return;
  learned.add(key);
  await keepTextOf(source, text);
}

/** Null for a file that cannot be read now: another program is just writing it, or keeps it for itself. That is no reason not to look at the others. */
function unlessUnreadable<Content>(reading: Promise<Content>): Promise<Content | null> {
  return reading.catch(() => null);
}

/** The hash of a file's picture as it is stored; null if it cannot be read, which a drawing program may just be writing. */
function pictureHash(file: File, path: string, link: string): Promise<string | null> {
  return isPng(path) ? hashOf(file, path, link) : hashOfStill(file, `${link} ${path} ${stampOf(file)}`);
}

/** The hash of a file's content; null if it cannot be read now. */
export function hashOf(file: File, path: string, link: string): Promise<string | null> {
  return hashOnce(`${link} ${path} ${stampOf(file)}`, () => file.arrayBuffer());
}

/** The hash of a file's text, as that of the text that cut a source. */
function textHash(file: File, path: string, link: string): Promise<string | null> {
  return hashOnce(`${link} ${path} ${stampOf(file)} as text`, async () => new TextEncoder().encode(await textOfFile(file)));
}

async function hashOnce(key: string, content: () => Promise<BufferSource>): Promise<string | null> {
  const known = hashes.get(key);
  if (known !== undefined) return known;
  const bytes = await unlessUnreadable(content());
  if (bytes === null) return null;
  const digest = await crypto.subtle.digest("SHA-256", bytes);
  const sha256 = [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  hashes.set(key, sha256);
  return sha256;
}
