/**
 * Watches the folder that a project's art comes from. Its files are checked whenever a person comes back to the tab, and changes are
 * shown before they are used. Nothing is ever written there.
 */

import { followFiles } from "@caravan/core/edit";
import { isArtFile } from "@caravan/core/intake";
import { allPictures, type Source, type SourceId, sheetOf, stemOf } from "@caravan/core/model";
import { create } from "zustand";
import { inBackground } from "../../ui/in-background";
import { say, sayTrouble } from "../../ui/notices";
import { t } from "../../ui/words";
import { act } from "../act";
import { begin } from "../begun";
import { freshId } from "../fresh-id";
import type { HandedFile } from "../importing/collect";
import { currentProject, useOpenProject } from "../open-project";
import { pictureBlob } from "../pictures";
import { type StoredLink, storage } from "../storage";
import { artFilesIn, canLinkFolders, chosenFolder, mayUse } from "./folder";
import { fileAt } from "./folder-files";
import { drawnBeside, type HashedFile, isPng, type Match, type Matches, matchFiles, missingFrom, renamedFiles, withNameOf } from "./match";
import { hashOfStill, isOtherArt } from "./one-file";

export interface LinkedFolder {
  readonly project: string;
  readonly name: string;
  /** The browser wants the person's leave again before it may be read. */
  readonly locked: boolean;
  /** How many sources have their art in it. */
  readonly matched: number;
  /** Sources whose art there is another than the project's. */
  readonly changed: readonly SourceId[];
  /** Pictures there that are no source yet. */
  readonly fresh: readonly HandedFile[];
  /** Texts that are called like one of these, and may describe it. */
  readonly texts: readonly HandedFile[];
  /** Files that have another name there now, by the project's paths of their pictures. */
  readonly renamed: ReadonlyMap<string, string>;
  /** Whether the project itself is kept there. */
  readonly home: boolean;
}

export const useLinkedFolder = create<{ readonly linked: LinkedFolder | null }>(() => ({ linked: null }));

/** Lets the person choose the folder, and looks at it. */
export async function linkFolder(): Promise<void> {
  const project = useOpenProject.getState().id;
  try {
    const folder = canLinkFolders() ? await chosenFolder("art") : null;
    if (!folder || project === null) return;
    await storage.links.put({ project, folder, mark: freshId(), ignored: {} });
    await lookAgain();
  } catch (error) {
    sayTrouble(error);
  }
}

export async function unlinkFolder(): Promise<void> {
  const { linked } = useLinkedFolder.getState();
  if (linked) await storage.links.delete(linked.project);
  useLinkedFolder.setState({ linked: null });
}

let looking: Promise<void> | null = null;

/** Checks the open project's folder, if it has one. With `ask`, which needs a click, the browser may ask for permission. */
export async function lookAgain(ask = false): Promise<void> {
  await looking;
  looking = look(ask).catch(sayTrouble);
  await looking;
  looking = null;
}

async function look(ask: boolean): Promise<void> {
  const { id } = useOpenProject.getState();
  const link = id === null ? undefined : await storage.links.get(id);
  if (!link) {
    useLinkedFolder.setState({ linked: null });
    return;
  }
  const { project, folder, ignored, mark = "", home = false } = link;
  const known = { project, name: folder.name, home };
  if (!(await mayUse(folder, "read", ask))) {
    useLinkedFolder.setState({ linked: { ...known, locked: true, matched: 0, changed: [], fresh: [], texts: [], renamed: new Map() } });
    return;
  }
  const { sources } = currentProject();
  const found = await filesOf(link, sources);
  const files = new Map([...found].filter(([path]) => isArtFile(path)));
  // Content known at the last save is not news, whatever the project has become since.
  const left = home ? ((await storage.homes.get(project))?.art ?? {}) : {};
  const matches = matchFiles(sources, [...files.keys()], folder.name);
  const changed: SourceId[] = [];
  for (const source of sources) {
    const match = matches.get(source.id);
    if (match && (await hasChanged(source, match, { files, ignored, left, link: `${project} ${mark}` }))) changed.push(source.id);
  }
  const taken = new Set([...matches.values()].flatMap(pathsOf));
  const beside = drawnBeside(sources, [...files.keys()], folder.name);
  const others = home ? [] : [...files].filter(([path]) => !taken.has(path) && !beside.has(path));
  const renamed = await renamedIn(sources, matches, others, `${project} ${mark}`);
  const followed = new Set(renamed.values());
  const fresh = others.filter(([path, file]) => !followed.has(path) && ignored[path] !== stampOf(file));
  const stems = new Set(fresh.map(([path]) => stemOf(path).toLowerCase()));
  const texts = [...found].filter(([path]) => !files.has(path) && stems.has(stemOf(path).toLowerCase()));
  // By their paths with the folder's own name, as if it was dropped: these name what two folders have of one name.
  const handed = ([path, file]: readonly [string, File]): HandedFile => ({ path: `${folder.name}/${path}`, file });
  if (useOpenProject.getState().id !== id) return;
  const before = useLinkedFolder.getState().linked?.changed ?? [];
  useLinkedFolder.setState({
    linked: { ...known, locked: false, matched: matches.size, changed, fresh: fresh.map(handed), texts: texts.map(handed), renamed },
  });
  const news = sources.filter((source) => changed.includes(source.id) && !before.includes(source.id)).map(({ name }) => name);
  if (news.length > 0)
    say({
      tone: "plain",
      text: t("Art changed in {name}: {news}.", { name: folder.name, news: news.join(", ") }),
      action: { label: t("See what changed"), run: seeChanged },
    });
}

/** The pictures to look at: all there are, or those of a project that is kept there, which may be a whole game's folder. */
async function filesOf({ folder, home }: StoredLink, sources: readonly Source[]): Promise<Map<string, File>> {
  if (!home) return artFilesIn(folder);
  const files = new Map<string, File>();
  for (const { file } of sources.flatMap(allPictures)) {
    const there = await fileAt(folder, file);
    if (there) files.set(file, await there.getFile());
  }
  return files;
}

/** Sizes of stored pictures, by hash: nothing else can be under one, and thousands of them would take a while each time. */
const storedSizes = new Map<string, number>();

/** Pictures whose files are gone from the folder but have the same content as one of the `others` there. Only files of their sizes are read. */
async function renamedIn(
  sources: readonly Source[],
  matches: Matches,
  others: readonly (readonly [path: string, file: File])[],
  link: string,
): Promise<Map<string, string>> {
  const missing = others.length === 0 ? [] : missingFrom(sources, matches);
  const sizes = new Set<number>();
  for (const { sha256 } of missing) {
    const size = storedSizes.get(sha256) ?? (await pictureBlob(sha256))?.size;
    if (size === undefined) continue;
    storedSizes.set(sha256, size);
    sizes.add(size);
  }
  const found: HashedFile[] = [];
  for (const [path, file] of others) if (sizes.has(file.size)) found.push({ path, sha256: await hashOf(file, path, link) });
  return renamedFiles(missing, found);
}

/** Gives the pictures of renamed files the names that these have now. */
export function followRenamed(): void {
  const { linked } = useLinkedFolder.getState();
  if (!linked || useOpenProject.getState().id !== linked.project) return;
  act(followFiles, new Map([...linked.renamed].map(([file, path]) => [file, withNameOf(file, path)])));
}

/** When a file was written and how large it is: equal stamps are not read again. */
function stampOf(file: File): string {
  return `${file.lastModified} ${file.size}`;
}

/** Hashes of files that were read already, by link, path and stamp: another folder may have another file there. */
const hashes = new Map<string, string>();

/** What a source's files are compared with. */
interface Known {
  readonly files: ReadonlyMap<string, File>;
  /** Stamps of files that a person has decided on, by path. */
  readonly ignored: Readonly<Record<string, string>>;
  /** Hashes of what the last save left there, by path. */
  readonly left: Readonly<Record<string, string>>;
  readonly link: string;
}

async function hasChanged(source: Source, match: Match, { files, ignored, left, link }: Known): Promise<boolean> {
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

function pathsOf(match: Match): string[] {
  return match.from === "one" ? [match.path] : match.paths.filter((path) => path !== null);
}

/** The hash of a file's picture as it is stored; null if it cannot be read, which a drawing program may just be writing. */
function pictureHash(file: File, path: string, link: string): Promise<string | null> {
  return isPng(path) ? hashOf(file, path, link) : hashOfStill(file, `${link} ${path} ${stampOf(file)}`);
}

async function hashOf(file: File, path: string, link: string): Promise<string> {
  const key = `${link} ${path} ${stampOf(file)}`;
  const known = hashes.get(key);
  if (known !== undefined) return known;
  const digest = await crypto.subtle.digest("SHA-256", await file.arrayBuffer());
  const sha256 = [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  hashes.set(key, sha256);
  return sha256;
}

/** Shows what changed, source after source: the next one when the review before it is over. */
export function seeChanged(): void {
  inBackground(reviewNext());
}

async function reviewNext(): Promise<void> {
  const { linked } = useLinkedFolder.getState();
  const [id] = linked?.changed ?? [];
  const link = linked && (await storage.links.get(linked.project));
  if (!linked || !link || id === undefined) return;
  const work = begin();
  if (work.id !== linked.project) return;
  try {
    const files = await filesOf(link, work.project.sources);
    const source = work.project.sources.find((each) => each.id === id);
    const match = source && matchFiles([source], [...files.keys()].filter(isArtFile), link.folder.name).get(id);
    if (!source || !match) return;
    const art =
      match.from === "one"
        ? [files.get(match.path) as File]
        : await Promise.all(match.paths.map((path, k) => fileFor(source, k, path === null ? undefined : files.get(path))));
    const { reviewChangedArt } = await import("../changed-art/review");
    work.still();
    if (!(await reviewChangedArt(id, art))) return;
    work.still();
    // Decided either way, it is not reported again until the file changes once more.
    const stamps = pathsOf(match).flatMap((path) => {
      const file = files.get(path);
      return file ? [[path, stampOf(file)] as const] : [];
    });
    const fresh = await storage.links.get(linked.project);
    if (fresh) await storage.links.put({ ...fresh, ignored: { ...fresh.ignored, ...Object.fromEntries(stamps) } });
    const now = useLinkedFolder.getState().linked;
    if (now) useLinkedFolder.setState({ linked: { ...now, changed: now.changed.filter((each) => each !== id) } });
    await reviewNext();
  } catch (error) {
    sayTrouble(error);
  }
}

/** A picture's file; pictures missing in the folder are kept as they are. */
async function fileFor(source: Source, k: number, file: File | undefined): Promise<File> {
  const count = source.pictures.length;
  const layer = source.layers?.[Math.floor(k / count) - 1];
  // Numbers say which still of a series it is, whatever its file is called; layers are identified by name.
  const number = source.pictures[k % count]?.number ?? k % count;
  const ending = file ? file.name.slice(stemOf(file.name).length) : ".png";
  const name = `${String(number).padStart(5, "0")}${layer ? `_${layer.name}` : ""}${ending}`;
  if (file) return count === 1 && !layer ? file : new File([file], name);
  const blob = await pictureBlob((allPictures(source)[k] ?? sheetOf(source)).sha256);
  return new File(blob ? [blob] : [], name);
}

/** Leaves the new pictures be, until they change. */
export async function leaveFresh(): Promise<void> {
  const { linked } = useLinkedFolder.getState();
  const link = linked && (await storage.links.get(linked.project));
  if (!linked || !link) return;
  for (const [path, file] of await artFilesIn(link.folder))
    if (linked.fresh.some((each) => each.path === `${link.folder.name}/${path}`)) link.ignored[path] = stampOf(file);
  await storage.links.put(link);
  useLinkedFolder.setState({ linked: { ...linked, fresh: [], texts: [] } });
}

/** Checks the folder when a project opens and whenever the user returns to the tab, until the returned function is called. */
export function watchLinkedFolder(): () => void {
  const back = () => document.visibilityState === "visible" && inBackground(lookAgain());
  const stop = useOpenProject.subscribe((open, before) => {
    if (open.id !== before.id) inBackground(lookAgain());
  });
  addEventListener("focus", back);
  document.addEventListener("visibilitychange", back);
  return () => {
    stop();
    removeEventListener("focus", back);
    document.removeEventListener("visibilitychange", back);
  };
}
