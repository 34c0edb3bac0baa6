/** Opening, making, renaming, duplicating and removing projects in this browser. */
import { picturesOf } from "@caravan/core/bundle";
import { CaravanError, emptyProject, lookOf, type Project, projectFromFile } from "@caravan/core/model";
import { run } from "../workers/client";
import { asText } from "../workers/jobs";
import { markStored, saveNow } from "./autosave";
import type { History, HistoryEntry } from "./history";
import { useOpenProject } from "./open-project";
import { loadPictures, pictureBlob, storePicture } from "./pictures";
import { entriesOf, readSetting, type StoredPlace, type StoredProject, storage, writeSetting } from "./storage";
import { readDocument, writeDocument } from "./stored-document";
import { type Ownership, onTabMessage, takeOver, tryToOwn } from "./tabs";
import { beginAt } from "./view";

let ownership: Ownership | null = null;

/** Opens a project by id. Throws if storage no longer has it or cannot read it. */
export async function openProject(id: string): Promise<void> {
  await saveNow();
  const { row, project, history } = await readStored(id);
  ownership?.release();
  ownership = await tryToOwn(id, lostOwnership(id));
  // Picks and choices are of the project that was open; the same ids mean other frames in this one.
  beginAt(project, row.place);
  show(row, project, history, ownership ? "owner" : "reader");
  // Without it the next start opens another project; with no room left, that is no reason not to open this one.
  await writeSetting("last", id).catch(() => {});
}

/** Makes this tab the owner of the open project, whoever was before; what the other tab had written is read anew. */
export async function workHere(): Promise<void> {
  const { id } = useOpenProject.getState();
  if (id === null) return;
  ownership = await takeOver(id, lostOwnership(id));
  const { row, project, history } = await readStored(id);
  show(row, project, history, "owner");
}

function lostOwnership(id: string): () => void {
  return () => {
    ownership = null;
    if (useOpenProject.getState().id === id) useOpenProject.setState({ access: "reader" });
  };
}

/** Listens to other tabs until the returned function is called. */
export function listenToTabs(): () => void {
  return onTabMessage(async (message) => {
    const open = useOpenProject.getState();
    if (message.id !== open.id) return;
    if (message.kind === "hand-over" && open.access === "owner") {
      await saveNow();
      ownership?.release();
      ownership = null;
      useOpenProject.setState({ access: "reader" });
    } else if (message.kind === "saved" && open.access === "reader") {
      const { row, project, history } = await readStored(message.id);
      if (useOpenProject.getState().id === message.id && useOpenProject.getState().access === "reader")
        show(row, project, history, "reader");
    }
  });
}

async function readStored(id: string): Promise<{ row: StoredProject; project: Project; history: History }> {
  const row = await storage.projects.get(id);
  if (!row) throw new CaravanError("not-found", "project", "This browser does not hold it any more.", "Choose another project.");
  const project = projectFromFile(await readDocument(id), `project “${row.name}”`);
  const entries = (await entriesOf(id)).map(({ index, label, changes }): HistoryEntry & { index: number } => ({
    index,
    label,
    ...(JSON.parse(changes) as Pick<HistoryEntry, "forth" | "back">),
  }));
  const first = entries[0]?.index ?? 0;
  const history = { first, entries, cursor: Math.max(0, Math.min(entries.length, row.cursor - first)) };
  return { row, project, history };
}

/** Of a series only the first pictures are read at once; the others when they are looked at. */
const EAGER = 40;

function show(row: StoredProject, project: Project, history: History, access: "owner" | "reader"): void {
  markStored(row.id, history);
  loadPictures(project.sources.flatMap((source) => source.pictures.slice(0, EAGER).map((picture) => lookOf(source, picture))));
  useOpenProject.setState({ id: row.id, project, history, demo: row.demo ?? false, access, saving: { kind: "saved", at: row.savedAt } });
}

/** Stores a new project and returns its id. */
export async function createProject(project: Project, options: { demo?: boolean } = {}): Promise<string> {
  const id = crypto.randomUUID();
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

/** Creates an empty project and opens it; `wanted` gets a number if there is a project of that name. */
export async function startProject(wanted = "New project"): Promise<void> {
  const names = new Set((await listProjects()).map((row) => row.name));
  let name = wanted;
  for (let number = 2; names.has(name); number++) name = `${wanted} ${number}`;
  await openProject(await createProject(emptyProject(name)));
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
  const names = new Set((await listProjects()).map((row) => row.name));
  let name = `${project.name} copy`;
  for (let number = 2; names.has(name); number++) name = `${project.name} copy ${number}`;
  await createProject({ ...project, name });
}

/** Puts a project among the removed ones; `restoreProject` brings it back. The open one cannot be removed. */
export async function removeProject(id: string): Promise<void> {
  await storage.projects.update(id, { removedAt: Date.now() });
}

export async function restoreProject(id: string): Promise<void> {
  await storage.projects
    .where("id")
    .equals(id)
    .modify((row) => {
      delete (row as { removedAt?: number }).removedAt;
    });
}

export async function renameStored(id: string, name: string): Promise<void> {
  const { project } = await readStored(id);
  await storage.transaction("rw", storage.projects, storage.documents, async () => {
    await storage.projects.update(id, { name });
    await writeDocument(id, { ...project, name }, project);
  });
}

export async function rememberPlace(place: StoredPlace): Promise<void> {
  const { id } = useOpenProject.getState();
  // Losing the place is no loss of work, so a browser without room is not told of here; autosave tells it.
  if (id !== null) await storage.projects.update(id, { place }).catch(() => {});
}

/** The project to open at start: the one asked for, else the last one, else the first there is. Null in an empty browser. */
export async function projectForStart(asked: string | null): Promise<string | null> {
  const rows = await listProjects();
  const last = await readSetting<string>("last");
  return (rows.find((row) => row.id === asked) ?? rows.find((row) => row.id === last) ?? rows[0])?.id ?? null;
}

/** Takes in a `*.caravan` file as a new project; returns its id. Throws what is wrong with it; then nothing was kept. */
export async function importBundle(blob: Blob, name: string, options: { demo?: boolean } = {}): Promise<string> {
  const { project, pictures } = await run("readBundle", { name, blob });
  for (const [sha256, bytes] of pictures) await storePicture(sha256, new Blob([bytes as BlobPart], { type: "image/png" }));
  return createProject(project, options);
}

/** The open project as the bytes of a `*.caravan` file. */
export async function exportBundle(project: Project): Promise<Uint8Array> {
  const hashes = [...new Set(picturesOf(project).map(({ sha256 }) => sha256))];
  const pictures = await Promise.all(
    hashes.map(async (sha256) => {
      const blob = await pictureBlob(sha256);
      if (!blob)
        throw new CaravanError(
          "missing-picture",
          project.name,
          "A picture is no longer in this browser's storage.",
          "Remove its source, then save.",
        );
      return [sha256, blob] as const;
    }),
  );
  return run("writeBundle", { project: asText(project), pictures });
}
