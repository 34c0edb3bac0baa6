/**
 * Chooses paths for pictures in a project's folder: valid on every system, and distinct.
 *
 * Systems differ in what they refuse and in what they take for one: `Run.png` and `run.png` are one file on most desktops. So paths are
 * distinct without regard to case, in the whole project.
 */
import { fitFileName, shortened } from "./name";
import type { Picture } from "./picture";
import type { Project } from "./project";
import { allPictures, type Source } from "./source";

/** Names that one widespread system keeps for its devices, with any ending. */
const DEVICES = /^(con|prn|aux|nul|com\d|lpt\d)(\.|$)/iu;

/** Whether some widespread system refuses a file of this name for what it is called. `part` is one part of a path. */
export function isDeviceName(part: string): boolean {
  return DEVICES.test(part);
}

/** The form in which two paths are equal if any common system treats them as one file. */
export function pathKey(path: string): string {
  return path.normalize("NFC").toLowerCase();
}

/** Most bytes of a file's name on common disks are 255; this leaves room for a number and an ending. */
const LONGEST_STEM = 120; // UTF-8 bytes

/** Any text as a path segment that every system accepts; `picture` if nothing of it is left. */
export function pathStem(text: string): string {
  const fit = fitFileName(text).replace(/[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g, "-");
  const stem = inBytes(fit.trim(), LONGEST_STEM).replace(/^[. ]+|[. ]+$/gu, "");
  if (stem === "") return "picture";
  if (stem === "__proto__") return "proto";
  return isDeviceName(stem) ? `_${stem}` : stem;
}

/** The start of a text that takes at most `most` bytes as UTF-8. */
function inBytes(text: string, most: number): string {
  const size = (code: number) => (code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4);
  let bytes = 0;
  let kept = "";
  for (const character of text) {
    bytes += size(character.codePointAt(0) as number);
    if (bytes > most) break;
    kept += character;
  }
  return kept;
}

/** Picture paths in use, complete and as folders. */
export interface TakenPaths {
  readonly files: ReadonlySet<string>;
  readonly folders: ReadonlySet<string>;
}

/** Such paths while sources are added to them, one after the other. */
export interface GrowingPaths extends TakenPaths {
  readonly files: Set<string>;
  readonly folders: Set<string>;
}

export function takenPaths(sources: readonly Pick<Source, "pictures" | "layers">[]): GrowingPaths {
  const taken = { files: new Set<string>(), folders: new Set<string>() };
  for (const source of sources) addTakenPaths(taken, source);
  return taken;
}

export function addTakenPaths({ files, folders }: GrowingPaths, source: Pick<Source, "pictures" | "layers">): void {
  for (const { file } of allPictures(source)) {
    const key = pathKey(file);
    files.add(key);
    for (let at = key.indexOf("/"); at >= 0; at = key.indexOf("/", at + 1)) folders.add(key.slice(0, at));
  }
}

/**
 * The paths for a new source's pictures: `art/stem.png`, or for several `art/stem/000.png` and on, in a folder of their own, named by
 * `numbers` if given. A stem in use gets a number.
 */
export function freePicturePaths(
  name: string,
  count: number,
  { files, folders }: TakenPaths,
  numbers: readonly number[] = Array.from({ length: count }, (_, k) => k),
): string[] {
  const stem = pathStem(name);
  const isFree = (path: string) => !files.has(pathKey(path)) && !folders.has(pathKey(path));
  let free = stem;
  for (let k = 2; !isFree(count === 1 ? `art/${free}.png` : `art/${free}`); k++) free = `${stem}-${k}`;
  if (count === 1) return [`art/${free}.png`];
  const digits = String(Math.max(...numbers)).length;
  return numbers.map((number) => `art/${free}/${String(number).padStart(digits, "0")}.png`);
}

/**
 * The project without duplicate picture paths: the second one gets a number before its extension. Equal paths of equal pictures stay. The
 * same object if nothing changes.
 */
export function withDistinctPaths(project: Project): Project {
  const owners = new Map<string, string>();
  const folders = takenPaths(project.sources).folders;
  let changed = false;
  const sources = project.sources.map((source): Source => {
    const distinct = (picture: Picture): Picture => {
      const file = distinctPath(picture, owners, folders);
      owners.set(pathKey(file), owner(file, picture));
      if (file === picture.file) return picture;
      changed = true;
      return { ...picture, file };
    };
    const pictures = source.pictures.map(distinct);
    const layers = source.layers?.map((layer) => ({ ...layer, pictures: layer.pictures.map(distinct) }));
    const made: Source = { ...source, pictures, ...(layers ? { layers } : {}) };
    const before = allPictures(source);
    return allPictures(made).every((picture, k) => picture === before[k]) ? source : made;
  });
  return changed ? { ...project, sources } : project;
}

/** Two pictures may be one file if path and bytes are the same. */
function owner(file: string, { sha256 }: Picture): string {
  return `${sha256} ${file}`;
}

function distinctPath(picture: Picture, owners: ReadonlyMap<string, string>, folders: ReadonlySet<string>): string {
  const { file } = picture;
  const isFree = (path: string) => {
    const key = pathKey(path);
    const known = owners.get(key);
    return (known === undefined || known === owner(path, picture)) && !folders.has(key);
  };
  return freePath(file, isFree);
}

/** The path, or the first with a number before its ending that is free. */
export function freePath(file: string, isFree: (path: string) => boolean): string {
  if (isFree(file)) return file;
  const dot = file.lastIndexOf(".");
  const [stem, ending] = dot > file.lastIndexOf("/") ? [file.slice(0, dot), file.slice(dot)] : [file, ""];
  for (let k = 2; ; k++) {
    const path = `${shortened(stem, 380)}-${k}${ending}`;
    if (isFree(path)) return path;
  }
}

/** A path without its ending. */
export function stemOf(path: string): string {
  return path.replace(/(?<=[^/])\.[^./]*$/, "");
}

/**
 * What a source's art is called as files, without an ending, also when the source has been renamed: `art/porter` for `art/porter.png` and for
 * `art/porter/000.png`.
 */
export function artStem({ pictures }: Pick<Source, "pictures">): string {
  const file = pictures[0]?.file ?? "";
  return pictures.length === 1 ? stemOf(file) : file.slice(0, Math.max(0, file.lastIndexOf("/")));
}
