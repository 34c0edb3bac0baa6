/**
 * Reads and writes a project with its pictures as one file, `*.caravan`: a ZIP of the folder form, `caravan.json` beside its pictures, and
 * the metadata files that cut its sources, so that these can be read another way, and followed, wherever it is opened.
 *
 * Holds: `readBundle(writeBundle(b))` gives the same document and pictures; same input, same bytes.
 */
import { MOST_UNPACKED, type NamedFile, readZip, refuseStandIn, sha256Hex, textFromUtf8, utf8, writeZip } from "../codec";
import {
  CaravanError,
  checkDocument,
  orderedJson,
  type Project,
  projectFromFile,
  projectToFile,
  refuseTooMany,
  withDistinctPaths,
} from "../model";
import { looksLikeIndex, namesInOrder, repeatedKey, whyNotJson } from "../notation";
import { t } from "../words";
import { picturesOf } from "./pictures-of";

export const PROJECT_FILE = "caravan.json";

export interface Bundle {
  readonly project: Project;
  /** Picture files by the SHA-256 of their bytes. */
  readonly pictures: ReadonlyMap<string, Uint8Array>;
  /** The texts of metadata files that cut sources, by the SHA-256 of their bytes, as far as they are known. */
  readonly texts?: ReadonlyMap<string, string>;
}

/**
 * The file's bytes. The result can be read back: the document passes the opening checks first, and no two pictures get the same path.
 * Throws `missing-picture` if a source's picture is not among them, `damaged-project`, `too-many-pictures`, `project-too-large`.
 */
export function writeBundle({ project, pictures, texts = new Map() }: Bundle): Uint8Array {
  const told = metadataFilesOf(project).flatMap(({ path, sha256 }) => {
    const text = texts.get(sha256);
    return text === undefined ? [] : [{ path, bytes: utf8(text) }];
  });
  const files = [...bundleFiles({ project, pictures }), ...told];
  refuseTooLarge(project.name, files);
  return writeZip(files);
}

/** What would not be read back is not written. */
function refuseTooLarge(name: string, files: readonly NamedFile[]): void {
  const MB = 1_048_576;
  const size = files.reduce((sum, { bytes }) => sum + bytes.length, 0);
  const document = files.find(({ path }) => path === PROJECT_FILE)?.bytes.length ?? 0;
  if (size <= MOST_UNPACKED && document <= MOST_DOCUMENT) return;
  const facts = {
    size: Math.ceil(size / MB),
    most: MOST_UNPACKED / MB,
    document: Math.ceil(document / MB),
    mostDocument: MOST_DOCUMENT / MB,
  };
  throw new CaravanError(
    "project-too-large",
    t('project "{name}"', { name }),
    t("It has {size} MB, {document} MB of them without its pictures; one file holds at most {most} and {mostDocument} MB.", facts),
    t("Keep it in a folder instead (at All projects), or make two projects of it."),
  );
}

/** Where a bundle has the metadata files that cut the sources of a project, once each; of those whose hash is known. */
export function metadataFilesOf({ sources }: Pick<Project, "sources">): { readonly path: string; readonly sha256: string }[] {
  const byHash = new Map(
    sources.flatMap(({ cut }) => {
      if (cut?.by !== "metadata" || cut.sha256 === undefined) return [];
      const [ending = ""] = /\.[a-z0-9]+$/i.exec(cut.file) ?? [];
      return [[cut.sha256, `metadata/${cut.sha256}${ending}`] as const];
    }),
  );
  return [...byHash].map(([sha256, path]) => ({ path, sha256 }));
}

/** The folder form: the document, then the pictures in the order of sources. */
export function bundleFiles({ project: given, pictures }: Omit<Bundle, "texts">): NamedFile[] {
  const project = withDistinctPaths(given);
  checkDocument(project, project.name);
  refuseTooMany(project, 0);
  const byPath = new Map<string, Uint8Array>();
  for (const { file, sha256 } of picturesOf(project)) {
    const bytes = pictures.get(sha256);
    if (!bytes) throw new CaravanError("missing-picture", file, t("The picture of this source is missing."), t("Add it again, then save."));
    byPath.set(file, bytes);
  }
  return [{ path: PROJECT_FILE, bytes: writeProjectFile(project) }, ...[...byPath].map(([path, bytes]) => ({ path, bytes }))];
}

/** The bytes of `caravan.json`: readable, one line a field, for version control. */
export function writeProjectFile(project: Project): Uint8Array {
  return utf8(`${orderedJson(projectToFile(project))}\n`);
}

/**
 * Parses `caravan.json`. Throws `not-a-project`, `newer-version`, `damaged-project`, or `repeated-name` if an edit by hand or a merge left
 * a name twice: only a person knows which one is meant.
 */
export function readProjectFile(bytes: Uint8Array, where: string): Project {
  refuseStandIn(bytes, where);
  const text = textFromUtf8(bytes);
  let content: unknown;
  try {
    content = JSON.parse(text);
  } catch (cause) {
    const { what, mend } = whyNotJson(text);
    throw new CaravanError("damaged-project", where, what, mend, { cause });
  }
  const project = projectFromFile(content, where);
  const twice = repeatedKey(text);
  if (twice)
    throw new CaravanError(
      "repeated-name",
      t("{where}, line {line}", { where, line: twice.lines[1] }),
      t('"{key}" stands twice in {path}: here and in line {line}.', {
        key: twice.key,
        path: twice.path.join(", ") || t("the project"),
        line: twice.lines[0],
      }),
      t("Rename one of them in the file, or remove it."),
    );
  return inWrittenOrder(project, text);
}

/** Behaviours and their inputs in the order of the text; the parser moved names that look like numbers. */
function inWrittenOrder(project: Project, text: string): Project {
  const { behaviours = [] } = project;
  const moved = [...behaviours, ...behaviours.flatMap(({ inputs }) => inputs)].some(({ name }) => looksLikeIndex(name));
  if (!moved) return project;
  const [names = [], ...inputs] = namesInOrder(text, [["behaviours"], ...behaviours.map(({ name }) => ["behaviours", name, "inputs"])]);
  const ordered = behaviours.map((each, k) => ({ ...each, inputs: inOrder(each.inputs, inputs[k] ?? []) }));
  return { ...project, behaviours: inOrder(ordered, names) };
}

function inOrder<Named extends { readonly name: string }>(all: readonly Named[], names: readonly string[]): Named[] {
  const places = new Map(names.map((name, k) => [name, k]));
  return all.toSorted((a, b) => (places.get(a.name) ?? 0) - (places.get(b.name) ?? 0));
}

/** Reads a `*.caravan` file whole or not at all; metadata that was changed is left out. Throws what went wrong, `picture-mismatch` included. */
export function readBundle(bytes: Uint8Array, where: string): Required<Bundle> {
  refuseStandIn(bytes, where);
  if (bytes.length > 0 && !(bytes[0] === 0x50 && bytes[1] === 0x4b))
    throw new CaravanError("not-a-project", where, t("This is not a *.caravan file."), t("Choose a file that Caravan saved."));
  const documents = readZip(bytes, where, (path, size) => DOCUMENT.test(path) && isFitSize(size, where));
  const document = documents.find(({ path }) => path === PROJECT_FILE) ?? (documents.length === 1 ? documents[0] : undefined);
  if (!document)
    throw new CaravanError(
      "not-a-project",
      where,
      t("There is no {projectFile} in this archive.", { projectFile: PROJECT_FILE }),
      t("Choose a file that Caravan saved."),
    );
  const project = readProjectFile(document.bytes, `${where}, ${PROJECT_FILE}`);
  // What the document does not name is not unpacked at all.
  const folder = document.path.slice(0, -PROJECT_FILE.length);
  const named = new Set<string>(picturesOf(project).map(({ file }) => folder + file));
  const texted = new Set(metadataFilesOf(project).map(({ path }) => folder + path));
  const wanted = (path: string, size: number) => named.has(path) || (texted.has(path) && size <= MOST_DOCUMENT);
  const files = new Map(readZip(bytes, where, wanted).map((file) => [file.path.slice(folder.length), file.bytes]));
  const pictures = new Map<string, Uint8Array>();
  for (const { file, sha256 } of picturesOf(project)) {
    const picture = files.get(file);
    if (!picture)
      throw new CaravanError("missing-picture", where, t("The picture {file} is missing from it.", { file }), t("Use a complete copy."));
    if (sha256Hex(picture) !== sha256)
      throw new CaravanError(
        "picture-mismatch",
        where,
        t("The picture {file} has changed since the project was saved: its hash differs.", { file }),
        t("Use an undamaged copy; to change art, use the folder form."),
      );
    pictures.set(sha256, picture);
  }
  return { project: withDistinctPaths(project), pictures, texts: textsIn(project, files) };
}

/** The texts that cut sources, among files by their paths; without those that are others. */
export function textsIn(project: Pick<Project, "sources">, files: ReadonlyMap<string, Uint8Array>): Map<string, string> {
  const texts = new Map<string, string>();
  for (const { path, sha256 } of metadataFilesOf(project)) {
    const text = files.get(path);
    if (text && sha256Hex(text) === sha256) texts.set(sha256, textFromUtf8(text));
  }
  return texts;
}

/** Where it is in a bundle; in a folder if somebody unpacked the bundle and packed that folder. */
const DOCUMENT = /^((?!__MACOSX\/)[^/]+\/)?caravan\.json$/;

/** Far beyond any project's document; a small archive may hold a huge one, which would fill the memory. */
export const MOST_DOCUMENT = 256 * 1_048_576; // bytes

function isFitSize(size: number, where: string): boolean {
  if (size > MOST_DOCUMENT)
    throw new CaravanError(
      "damaged-project",
      where,
      t("Its {projectFile} is larger than {mostDocument} MB.", { projectFile: PROJECT_FILE, mostDocument: MOST_DOCUMENT / 1_048_576 }),
      t("Use an undamaged copy."),
    );
  return true;
}
