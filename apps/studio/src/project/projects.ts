/** Opens, creates, renames, duplicates and removes projects in this browser. */

import { sheetLook } from "@caravan/core/art";
import { picturesOf } from "@caravan/core/bundle";
import { CaravanError, checkedName, emptyProject, fittedName, type Project, pathStem, shortened } from "@caravan/core/model";
import { saveFile } from "../ui/files";
import { inBackground } from "../ui/in-background";
import { say } from "../ui/notices";
import { listInWords, t } from "../ui/words";
import { run } from "../workers/client";
import type { Answer } from "../workers/jobs";
import { asText } from "../workers/jobs";
import { isSaved, markStored, saveNow } from "./autosave";
import { freshId } from "./fresh-id";
import { dropJournal, withJournal } from "./journal";
import { keepTextsThatCame, textsOf } from "./kept-texts";
import { askBeforeLeaving } from "./leaving";
import { currentProject, useOpenProject } from "./open-project";
import { forgetWaiting, holdPictures, pictureBlob, picturesWaiting, storePicture } from "./picture-files";
import { firstPictures, loadPictures } from "./pictures";
import { readSetting, type StoredPlace, type StoredProject, storage, writeSetting } from "./storage";
import { writeDocument } from "./stored-document";
import { type ReadProject, type Recovery, rawDataOf, readStored } from "./stored-project";
import { type Ownership, onTabMessage, type TabMessage, THIS_TAB, takeOver, tellTabs, tryToOwn, whileNobodyElseOwns } from "./tabs";
import { beginAt } from "./view";

let ownership: Ownership | null = null;

/** Switching happens one at a time: further requests wait. */
let turn: Promise<unknown> = Promise.resolve();

function inTurn<Value>(work: () => Promise<Value>): Promise<Value> {
  const mine = turn.then(work, work);
  turn = mine.catch(() => {});
  return mine;
}

/**
 * Opens a project by id; false if the person chose to stay, since the open one has changes that cannot be saved. Throws if storage no
 * longer has it or cannot read it; then the open one stays.
 */
export function openProject(id: string): Promise<boolean> {
  return inTurn(() => opening(id));
}

async function opening(id: string): Promise<boolean> {
  if (useOpenProject.getState().id === id) return true;
  if (!(await mayLeave())) return false;
  const owned = await tryToOwn(id, lostOwnership(id));
  try {
    if (owned) await claim(id);
    const read = await readStored(id);
    // What was changed here while that was read.
    while (!isSaved()) if (!(await mayLeave())) throw new Stayed();
    ownership?.release();
    ownership = owned;
    // Picks and choices are of the project that was open; the same ids mean other frames in this one.
    beginAt(read.project, read.row.place);
    show(read, owned ? "owner" : "reader");
  } catch (error) {
    owned?.release();
    if (error instanceof Stayed) return false;
    throw error;
  }
  // Without it the next start opens another project; with no room left, that is no reason not to open this one.
  await writeSetting("last", id).catch(() => {});
  return true;
}

/** Thrown to go back to the open project. */
class Stayed extends Error {}

/** Names this tab as the one that may write. With no room left the tab that had it may not write either. */
async function claim(id: string): Promise<void> {
  await storage.projects.update(id, { owner: THIS_TAB }).catch(() => {});
}

/** Whether the open project may be left: everything is saved, or the person says so. */
async function mayLeave(): Promise<boolean> {
  await saveNow();
  if (isSaved()) return true;
  const { saving, project } = useOpenProject.getState();
  const answer = await askBeforeLeaving(project.name, saving.kind === "failed" ? saving.reason : t("It could not be saved."));
  if (answer === "stay") return false;
  forgetWaiting();
  useOpenProject.setState({ saving: { kind: "saved", at: Date.now() } });
  return true;
}

/** Makes this tab the owner of the open project, taking over from another; what the other tab had written is read again. */
export function workHere(): Promise<void> {
  return inTurn(async () => {
    const { id } = useOpenProject.getState();
    if (id === null) return;
    if (!isSaved() && !(await mayLeave())) return;
    const owned = await takeOver(id, lostOwnership(id));
    ownership?.release();
    ownership = owned;
    await claim(id);
    show(await readStored(id), "owner");
  });
}

function lostOwnership(id: string): () => void {
  return () => {
    if (useOpenProject.getState().id !== id) return;
    ownership = null;
    const { saving } = useOpenProject.getState();
    const reason = t("Another tab took this project over before the last changes made here were saved.");
    useOpenProject.setState({ access: "reader", ...(saving.kind === "saved" ? {} : { saving: { kind: "failed", full: false, reason } }) });
  };
}

/** Listens to other tabs until the returned function is called. */
export function listenToTabs(): () => void {
  return onTabMessage((message) => inBackground(answerTab(message)));
}

async function answerTab(message: TabMessage): Promise<void> {
  const open = useOpenProject.getState();
  if (message.id !== open.id) return;
  if (message.kind === "hand-over" && open.access === "owner") {
    tellTabs({ kind: "handing", id: message.id });
    await saveNow();
    const { saving } = useOpenProject.getState();
    if (!isSaved()) {
      tellTabs({ kind: "kept", id: message.id, why: saving.kind === "failed" ? saving.reason : t("It could not be saved.") });
      return;
    }
    useOpenProject.setState({ access: "reader" });
    ownership?.release();
    ownership = null;
  } else if (message.kind === "saved" && open.access === "reader" && isSaved()) {
    const read = await readStored(message.id);
    const now = useOpenProject.getState();
    if (now.id === message.id && now.access === "reader" && isSaved()) show(read, "reader");
  }
}

/** Of a series only the first pictures are preloaded; the others when they are viewed. */
const EAGER = 40;
/** How long they wait for the visible ones, ms. */
const PATIENCE = 1500;

/** Preloads the pictures that will be viewed next, and those that findings need. */
function loadFirstOf({ sources }: Project): void {
  loadPictures(sources.flatMap((source) => source.pictures.slice(0, EAGER).map((_, k) => sheetLook(source, k))));
}

/** What was not stored when the page was left is put back by the tab that may write it. */
function show({ row, project: stored, history: past, left }: ReadProject, access: "owner" | "reader"): void {
  const revision = row.revision ?? 0;
  const late = access === "owner" && !left ? withJournal(row.id, { project: stored, history: past, revision }) : null;
  const { project, history } = late ?? { project: stored, history: past };
  markStored(row.id, past, left ? null : stored, revision);
  useOpenProject.setState({
    id: row.id,
    project,
    history,
    demo: (row.demo ?? false) && !late,
    access,
    saving: access === "owner" && (late || left || picturesWaiting() > 0) ? { kind: "pending" } : { kind: "saved", at: row.savedAt },
  });
  if (left) sayRecovered(row, left);
  // The visible ones come first, and have requested their pictures themselves.
  inBackground(
    firstPictures(PATIENCE).then(async () => {
      if (useOpenProject.getState().id !== row.id) return;
      loadFirstOf(currentProject());
      await holdPictures(currentProject());
    }),
  );
  if (access === "owner") inBackground(saveNow());
}

function sayRecovered({ id, name }: StoredProject, left: Recovery): void {
  say({
    tone: "trouble",
    text: t("{name} could not be opened as it was: {why} {opened} The original is kept aside.", {
      name,
      why: left.why,
      opened: howOpened(left),
    }),
    action: { label: t("Save the raw data"), run: () => inBackground(saveRawData(id)) },
  });
}

function howOpened({ taken, lost }: Recovery): string {
  if (lost.length > 0) return t("It was opened without {listed}. The undo list starts over.", { listed: listInWords(lost, MOST_LISTED) });
  if (taken.length === 0) return t("It was made again from the list of its changes; nothing is missing.");
  if (taken.length === 1) return t("It was opened without the last change ({name}).", { name: taken[0] ?? "" });
  return t("It was opened without the last {count} changes (back to {name}).", { count: taken.length, name: taken.at(-1) ?? "" });
}

const MOST_LISTED = 4;

/** Downloads everything stored about a project as one file, even if it does not open. */
export async function saveRawData(id: string): Promise<void> {
  const { name, files } = await rawDataOf(id);
  saveFile(`${pathStem(name)}.raw.zip`, await run("zip", { files }), "application/zip");
}

/** Stores a new project and returns its id. */
export async function createProject(project: Project, options: { demo?: boolean } = {}): Promise<string> {
  const id = freshId();
  const now = Date.now();
  await storage.transaction("rw", storage.projects, storage.documents, async () => {
    await storage.projects.add({
      id,
      name: project.name,
      sources: project.sources.length,
      clips: project.clips.length,
      cursor: 0,
      createdAt: now,
      savedAt: now,
      demo: options.demo ?? false,
    });
    await writeDocument(id, project, null);
  });
  return id;
}

/** Creates an empty project and opens it; `wanted` gets a number if there is a project of that name. False if the person chose to stay. */
export async function startProject(wanted = "New project"): Promise<boolean> {
  return openProject(await createProject(emptyProject(await freeProjectName(fittedName(wanted) ?? "New project"))));
}

async function freeProjectName(wanted: string): Promise<string> {
  const names = new Set((await listProjects()).map((row) => row.name));
  let name = wanted;
  for (let number = 2; names.has(name); number++) name = `${shortened(wanted, 190)} ${number}`;
  return name;
}

/** All projects that are not removed, the one saved last first. */
export async function listProjects(): Promise<StoredProject[]> {
  const rows = await storage.projects.orderBy("savedAt").reverse().toArray();
  return rows.filter((row) => row.removedAt === undefined);
}

/** Removed ones that can still be brought back. */
export async function listRemoved(): Promise<StoredProject[]> {
  return (await storage.projects.toArray()).filter((row) => row.removedAt !== undefined);
}

export async function duplicateProject(id: string): Promise<void> {
  if (useOpenProject.getState().id === id) await saveNow();
  const { project } = await readStored(id);
  const copy = await createProject({ ...project, name: await freeProjectName(`${shortened(project.name, 180)} copy`) });
  await keepTextsThatCame(copy, project, new Map(await textsOf(project, id)));
}

/** Puts a project among the removed ones; `restoreProject` brings it back. The open one cannot be removed. */
export async function removeProject(id: string): Promise<void> {
  const name = (await storage.projects.get(id))?.name ?? "project";
  await whileNobodyElseOwns(id, name, () => storage.projects.update(id, { removedAt: Date.now() }));
}

export async function restoreProject(id: string): Promise<void> {
  await storage.projects
    .where("id")
    .equals(id)
    .modify((row: { removedAt?: number; oldSince?: number }) => {
      delete row.removedAt;
      delete row.oldSince;
    });
}

export async function renameStored(id: string, name: string): Promise<void> {
  const before = (await storage.projects.get(id))?.name ?? "project";
  await whileNobodyElseOwns(id, before, async () => {
    const { project, row } = await readStored(id);
    const renamed = { ...project, name: checkedName(name, "project name") };
    await storage.transaction("rw", storage.projects, storage.documents, async () => {
      await storage.projects.update(id, { name: renamed.name, revision: (row.revision ?? 0) + 1 });
      await writeDocument(id, renamed, null);
    });
    dropJournal(id);
  });
}

export async function rememberPlace(place: StoredPlace): Promise<void> {
  const { id } = useOpenProject.getState();
  // Losing the current place loses no work, so a full storage is not reported here; autosave reports it.
  if (id !== null) await storage.projects.update(id, { place }).catch(() => {});
}

/** The project to open at start: the requested one, otherwise the last one, otherwise the first. Null in an empty browser. */
export async function projectForStart(asked: string | null): Promise<string | null> {
  const rows = await listProjects();
  const last = await readSetting<string>("last");
  return (rows.find((row) => row.id === asked) ?? rows.find((row) => row.id === last) ?? rows[0])?.id ?? null;
}

/** Imports a `*.caravan` file as a new project and returns its id. Throws what is wrong with it; then nothing was kept. */
export async function importBundle(blob: Blob, name: string, options: { demo?: boolean } = {}): Promise<string> {
  return stored(await run("readBundle", { name, blob }), options);
}

/** Imports what is left of a damaged `*.caravan` file as a new project; null if nothing is. The file stays as it is. */
export async function importRemains(blob: Blob, name: string): Promise<{ id: string; lost: readonly string[] } | null> {
  const found = await run("salvageBundle", { name, blob });
  return found && { id: await stored(found, {}), lost: found.lost };
}

async function stored({ project, pictures, texts }: Answer<"readBundle">, options: { demo?: boolean }): Promise<string> {
  for (const [sha256, bytes] of pictures) await storePicture(sha256, new Blob([bytes as BlobPart], { type: "image/png" }));
  const id = await createWithArt(project, options);
  await keepTextsThatCame(id, project, new Map(texts));
  return id;
}

/**
 * Creates a project whose pictures were stored just before. If that fails, those that wait for room are forgotten, except what the open
 * project or its history needs: it may be a copy of it.
 */
export async function createWithArt(project: Project, options: { demo?: boolean } = {}): Promise<string> {
  try {
    return await createProject(project, options);
  } catch (error) {
    const { project: open, history } = useOpenProject.getState();
    const needed = JSON.stringify([open.sources, history.entries]);
    forgetWaiting(picturesOf(project).flatMap(({ sha256 }) => (needed.includes(sha256) ? [] : [sha256])));
    throw error;
  }
}

/** The open project as the bytes of a `*.caravan` file, with the metadata that cut its sources. */
export async function exportBundle(project: Project): Promise<Uint8Array> {
  const hashes = [...new Set(picturesOf(project).map(({ sha256 }) => sha256))];
  const pictures = await Promise.all(
    hashes.map(async (sha256) => {
      const blob = await pictureBlob(sha256);
      if (!blob)
        throw new CaravanError(
          "missing-picture",
          project.name,
          t("A picture is no longer in this browser's storage."),
          t("Remove its source, then save."),
        );
      return [sha256, blob] as const;
    }),
  );
  return run("writeBundle", { project: asText(project), pictures, texts: await textsOf(project) });
}
