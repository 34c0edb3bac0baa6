/**
 * Keeps a project in a folder, `caravan.json` and art, such as in a game's repository. The browser's copy remains the working copy and is
 * saved first; the folder follows a moment later, changed files only, art before the document. Changes that somebody else made there are
 * never overwritten: they are checked when the user returns to the tab, and before every write.
 */

import { PROJECT_FILE, picturesOf, readProjectFile } from "@caravan/core/bundle";
import { sha256Hex, textFromUtf8, utf8 } from "@caravan/core/codec";
import { layPictures } from "@caravan/core/edit";
import { CaravanError, naturalOrder, type Project, whyOf, withDistinctPaths } from "@caravan/core/model";
import { inBackground } from "../../ui/in-background";
import { say, sayUnlessDone } from "../../ui/notices";
import { t } from "../../ui/words";
import { run } from "../../workers/client";
import { asText } from "../../workers/jobs";
import { saveNow } from "../autosave";
import { freshId } from "../fresh-id";
import { canLinkFolders, chosenFolder, mayUse, picturesIn } from "../linked/folder";
import { fileAt, parentOf, writeWhole } from "../linked/folder-files";
import { lookAgain } from "../linked/linked-folder";
import { edit, useOpenProject } from "../open-project";
import { pictureBlob } from "../picture-files";
import { createWithArt, openProject } from "../projects";
import { type StoredHome, storage } from "../storage";
import { artIn } from "./art-folder";
import { withArtFrom } from "./art-from";
import { type HomeState, useHome } from "./home-state";
import { artPlan, standingOf } from "./plan";
import { followRenamedArt, sayFollowed } from "./renamed-art";

/** So long after the last save the folder is written, ms: a burst of edits is one write. */
const REST = 600;

/** Folder operations run one at a time. */
let turn: Promise<unknown> = Promise.resolve();

function inTurn<Value>(work: () => Promise<Value>): Promise<Value> {
  const mine = turn.then(work, work);
  turn = mine.catch(() => {});
  return mine;
}

/** Returns the text of `caravan.json` for a project, and its hash, for comparing documents. */
export async function writtenForm(project: Project): Promise<{ text: string; clean: string }> {
  const text = await run("projectFile", { project: asText(project) });
  return { text, clean: sha256Hex(utf8(text)) };
}

/** Lets the person choose a folder and keeps the open project there from now on. */
export async function keepInFolder(): Promise<void> {
  const { id, access } = useOpenProject.getState();
  if (id === null || access === "reader") return;
  const folder = canLinkFolders() ? await chosenFolder("project") : null;
  if (!folder) return;
  await inTurn(async () => {
    const there = await homeOf(folder);
    if (there && there.project !== id)
      throw new CaravanError("name-taken", folder.name, t("Another project of this browser is kept there."), t("Choose another folder."));
    if (!there && (await fileAt(folder, PROJECT_FILE)))
      throw new CaravanError(
        "name-taken",
        folder.name,
        t("There is a project in it already ({file}).", { file: PROJECT_FILE }),
        t("Open it with “Open a project's folder”, or choose another folder. Nothing was written."),
      );
    const open = useOpenProject.getState();
    if (open.id !== id)
      throw new CaravanError("other-project", folder.name, t("Another project was opened meanwhile."), t("Nothing was done."));
    const places = await placesIn(folder, open.project);
    const wanted = pathsOf(layPictures(open.project, places));
    const plan = artPlan(wanted, await hashesThere(folder, wanted.keys(), new Map()), new Map());
    if (plan.others.length > 0)
      throw new CaravanError(
        "not-ours",
        folder.name,
        plan.others.length === 1
          ? t("{others} is there already with another picture.", { others: plan.others.slice(0, 3).join(", ") })
          : t("{others} are there already with another picture.", { others: plan.others.slice(0, 3).join(", ") }),
        t("Choose another folder, or move what is there. Nothing was written."),
      );
    await keep(id, folder, { text: "", clean: "", art: {} }, true);
    if (useOpenProject.getState().id !== id) return;
    sayUnlessDone(edit(layPictures, places));
    await saveNow();
    await settle(true);
  });
}

/** Where a folder has the project's pictures already, by hash: a game has its art where it wants it. */
async function placesIn(folder: FileSystemDirectoryHandle, project: Project): Promise<Map<string, string>> {
  // A folder with very many files is not searched; then the art is placed beside the document.
  const files = await picturesIn(folder).catch(() => new Map<string, File>());
  const sizes = new Map<number, string[]>();
  const own = new Set<string>();
  for (const { sha256, file } of picturesOf(project)) {
    own.add(file);
    const size = (await pictureBlob(sha256))?.size;
    if (size !== undefined) sizes.set(size, [...(sizes.get(size) ?? []), sha256]);
  }
  const places = new Map<string, string>();
  // Pictures already at their place stay.
  const order = [...files].sort(([a], [b]) => Number(own.has(b)) - Number(own.has(a)) || naturalOrder(a, b));
  for (const [path, file] of order) {
    const alike = sizes.get(file.size);
    if (!alike) continue;
    const sha256 = sha256Hex(new Uint8Array(await file.arrayBuffer()));
    if (alike.includes(sha256) && !places.has(sha256)) places.set(sha256, path);
  }
  return places;
}

/** Opens the project in a folder and keeps it there. False if the user stayed with the current project, or chose no folder. */
export async function openFolder(): Promise<boolean> {
  const folder = canLinkFolders() ? await chosenFolder("project") : null;
  if (!folder) return false;
  const known = await homeOf(folder);
  if (known) {
    const opened = await openProject(known.project);
    if (opened) await look();
    return opened;
  }
  const { id, redrawn, followed } = await inTurn(async () => {
    const handle = await fileAt(folder, PROJECT_FILE);
    if (!handle)
      throw new CaravanError(
        "not-a-project",
        folder.name,
        t("There is no {file} in it.", { file: PROJECT_FILE }),
        t("Choose the folder that has it. To put the open project there, choose “Keep this one in a folder”."),
      );
    const bytes = new Uint8Array(await (await handle.getFile()).arrayBuffer());
    const read = withDistinctPaths(readProjectFile(bytes, `${folder.name}/${PROJECT_FILE}`));
    const { project, art, ...news } = await withArtFrom(artIn(folder), read);
    const made = await createWithArt(project);
    const { clean } = await writtenForm(read);
    await keep(made, folder, { text: textFromUtf8(bytes), clean, art: Object.fromEntries(art) }, false);
    return { id: made, ...news };
  });
  const opened = await openProject(id);
  if (opened) {
    sayRedrawn(redrawn, folder.name);
    sayFollowed(followed, folder.name);
  }
  return opened;
}

export function sayRedrawn(names: readonly string[], folder: string): void {
  if (names.length === 0) return;
  say({
    tone: "plain",
    text:
      names.length === 1
        ? t("{names}: the art in {folder} has changed since {file} was written, and was cut again by its recipe.", {
            names: names.join(", "),
            folder,
            file: PROJECT_FILE,
          })
        : t("{names}: the art in {folder} has changed since {file} was written, and was cut again by their recipes.", {
            names: names.join(", "),
            folder,
            file: PROJECT_FILE,
          }),
  });
}

/** Keeps the project in this browser only; the folder's content stays. */
export async function stopKeeping(): Promise<void> {
  const { home } = useHome.getState();
  if (!home) return;
  await inTurn(async () => {
    await storage.transaction("rw", storage.homes, storage.links, () => letGo(home.project));
    useHome.setState({ home: null });
  });
  await lookAgain();
}

async function letGo(project: string): Promise<void> {
  await storage.homes.delete(project);
  if ((await storage.links.get(project))?.home) await storage.links.delete(project);
}

async function keep(
  project: string,
  folder: FileSystemDirectoryHandle,
  known: Pick<StoredHome, "text" | "clean" | "art">,
  isOpen: boolean,
): Promise<void> {
  hashes.delete(project);
  await storage.transaction("rw", storage.homes, storage.links, async () => {
    await storage.homes.put({ project, folder, ...known });
    await storage.links.put({ project, folder, mark: freshId(), ignored: {}, home: true });
  });
  if (isOpen) useHome.setState({ home: { project, folder: folder.name, state: { kind: "waiting" } } });
}

/** The project kept in a folder, if this browser knows it. A removed project does not count: its folder is free. */
async function homeOf(folder: FileSystemDirectoryHandle): Promise<StoredHome | null> {
  for (const row of await storage.homes.toArray()) {
    if (!(await row.folder.isSameEntry(folder))) continue;
    const project = await storage.projects.get(row.project);
    if (project && project.removedAt === undefined) return row;
    await storage.transaction("rw", storage.homes, storage.links, () => letGo(row.project));
  }
  return null;
}

/**
 * Checks the open project's folder, and writes what is missing there. With `ask`, which needs a click, the browser may ask for permission.
 */
export function look(ask = false): Promise<void> {
  return inTurn(() => settle(ask));
}

async function settle(ask: boolean): Promise<void> {
  // Document and project are captured together: another project may be opened at every await.
  const { id, access, saving, project } = useOpenProject.getState();
  const row = id === null ? undefined : await storage.homes.get(id);
  if (id === null || !row) {
    if (useOpenProject.getState().id === id) useHome.setState({ home: null });
    return;
  }
  const tell = (state: HomeState) => {
    if (useOpenProject.getState().id === id) useHome.setState({ home: { project: id, folder: row.folder.name, state } });
  };
  const mayWrite = access !== "reader" && saving.kind === "saved";
  // A read-only tab writes nothing; unsaved changes follow once they are saved.
  if (!mayWrite) {
    const { home } = useHome.getState();
    if (home?.project !== id || home.state.kind === "kept") tell({ kind: "waiting" });
  } else
    try {
      tell((await mayUse(row.folder, "readwrite", ask)) ? await written(row, project) : { kind: "locked" });
    } catch (error) {
      tell({ kind: "failed", reason: whyOf(error) });
    }
  // Until the folder was known, nobody heard of what was saved or taken over meanwhile.
  const now = useOpenProject.getState();
  const isLate = now.id === id && now.access !== "reader" && now.saving.kind === "saved" && (!mayWrite || now.project !== project);
  if (isLate) inBackground(look());
}

/** The state of the folder after writing the open project, if that is possible. */
async function written(given: StoredHome, project: Project): Promise<HomeState> {
  const { folder } = given;
  const there = await documentIn(folder);
  // It was never there: the project has just been given this folder.
  const first = given.text === "" && there === null;
  const standing = standingOf(there, given);
  if (standing === "gone" && !first) return { kind: "gone" };
  if (standing === "changed") return changedState(there as string, given, project);
  const row = standing === "as meant" && given.writing ? { ...given, ...given.writing } : given;
  const { text, clean } = await writtenForm(project);
  const wanted = pathsOf(project);
  const known = new Map(Object.entries(row.art));
  const found = await hashesThere(folder, wanted.keys(), hashesOf(row.project));
  // What follows is an edit: it is saved first, and then written.
  if (await followRenamedArt(row, project, found)) return { kind: "waiting" };
  const { write } = artPlan(wanted, found, known);
  const isNew = first || clean !== row.clean;
  if (!isNew && write.length === 0) {
    if (standing === "as meant") await storage.homes.update(row.project, { text: row.text, clean: row.clean });
    return { kind: "kept", at: Date.now() };
  }
  await storage.homes.update(row.project, { writing: { text, clean } });
  for (const path of write) await writeArt(folder, path, wanted.get(path) as string);
  if (isNew)
    await writeWhole(await (await parentOf(folder, PROJECT_FILE, true)).parent.getFileHandle(PROJECT_FILE, { create: true }), utf8(text));
  // Only files that match the project are recorded as ours; others belong to somebody else.
  const art = new Map(known);
  for (const [path, sha256] of wanted) if (write.includes(path) || found.get(path) === sha256) art.set(path, sha256);
  await storage.homes.update(row.project, isNew ? { text, clean, art: Object.fromEntries(art) } : { art: Object.fromEntries(art) });
  return { kind: "kept", at: Date.now() };
}

async function changedState(there: string, row: StoredHome, project: Project): Promise<HomeState> {
  const where = `${row.folder.name}/${PROJECT_FILE}`;
  try {
    const theirs = withDistinctPaths(readProjectFile(utf8(there), where));
    const { clean } = await writtenForm(theirs);
    // Only how it is written is another.
    if (clean === row.clean) {
      await storage.homes.update(row.project, { text: there });
      return written({ ...row, text: there }, project);
    }
    const base = row.text === "" ? theirs : withDistinctPaths(readProjectFile(utf8(row.text), where));
    return { kind: "changed", outside: { text: there, theirs, base } };
  } catch (error) {
    return { kind: "unreadable", reason: error instanceof CaravanError ? `${error.what} ${error.remedy}` : whyOf(error) };
  }
}

/** Overwrites the document in the folder with the open one; the user has confirmed. */
export async function writeOver(): Promise<void> {
  await inTurn(async () => {
    const { home } = useHome.getState();
    const row = home && (await storage.homes.get(home.project));
    if (!row) return;
    const there = await documentIn(row.folder);
    await storage.homes.update(row.project, { text: there ?? "", clean: "" });
    await settle(true);
  });
}

/** The text of the document there; null if there is none, or only the empty file that a page leaves that was killed as it began to write. */
export async function documentIn(folder: FileSystemDirectoryHandle): Promise<string | null> {
  const file = await (await fileAt(folder, PROJECT_FILE))?.getFile();
  return file && file.size > 0 ? textFromUtf8(new Uint8Array(await file.arrayBuffer())) : null;
}

function pathsOf(project: Project): Map<string, string> {
  return new Map(picturesOf(withDistinctPaths(project)).map(({ file, sha256 }) => [file, sha256]));
}

/** Hashes of files by path and stamp, for each project's folder: what has not been written since is not read again. */
const hashes = new Map<string, Map<string, string>>();

function hashesOf(project: string): Map<string, string> {
  const known = hashes.get(project) ?? new Map<string, string>();
  hashes.set(project, known);
  return known;
}

async function hashesThere(
  folder: FileSystemDirectoryHandle,
  paths: Iterable<string>,
  read: Map<string, string>,
): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  for (const path of paths) {
    const file = await (await fileAt(folder, path))?.getFile();
    // A page killed at the start of writing leaves an empty file.
    if (!file || file.size === 0) continue;
    const key = `${path} ${file.lastModified} ${file.size}`;
    const sha256 = read.get(key) ?? sha256Hex(new Uint8Array(await file.arrayBuffer()));
    read.set(key, sha256);
    found.set(path, sha256);
  }
  return found;
}

async function writeArt(folder: FileSystemDirectoryHandle, path: string, sha256: string): Promise<void> {
  const blob = await pictureBlob(sha256);
  if (!blob)
    throw new CaravanError(
      "missing-picture",
      path,
      t("It is no longer in this browser's storage."),
      t("Remove its source, or give it its art again."),
    );
  const { parent, name } = await parentOf(folder, path, true);
  await writeWhole(await parent.getFileHandle(name, { create: true }), new Uint8Array(await blob.arrayBuffer()));
}

/** Follows the open project and the person's comings and goings, until the returned function is called. */
export function watchHome(): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const soon = () => {
    clearTimeout(timer);
    timer = setTimeout(() => inBackground(look()), REST);
  };
  const stop = useOpenProject.subscribe((open, before) => {
    if (open.id !== before.id) {
      useHome.setState({ home: null, reviewing: false });
      inBackground(look());
    } else if (open.saving !== before.saving || open.access !== before.access) {
      const { home } = useHome.getState();
      if (!home) return;
      if (home.state.kind === "kept" && open.saving.kind !== "saved") useHome.setState({ home: { ...home, state: { kind: "waiting" } } });
      if (open.saving.kind === "saved") soon();
    }
  });
  const back = () => document.visibilityState === "visible" && inBackground(look());
  addEventListener("focus", back);
  document.addEventListener("visibilitychange", back);
  inBackground(look());
  return () => {
    stop();
    clearTimeout(timer);
    removeEventListener("focus", back);
    document.removeEventListener("visibilitychange", back);
  };
}
