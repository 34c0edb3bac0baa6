/**
 * Reads a stored project. If its document does not open, it is made again from its changes, or damaged items are left out, or the history is
 * walked back to the last state that opens; the damaged data is kept aside, whole.
 */

import {
  CaravanError,
  checkDocument,
  type Project,
  projectFromFile,
  salvaged,
  uncheckedProject,
  whyOf,
  withDistinctPaths,
} from "@caravan/core/model";
import { applyChanges } from "@caravan/core/undo";
import { t } from "../ui/words";
import { type History, type HistoryEntry, NO_HISTORY } from "./history";
import { rebuilt } from "./rebuilt";
import { entriesOf, type StoredProject, storage } from "./storage";
import { readableDocument, readDocument, storedParts } from "./stored-document";

export interface ReadProject {
  readonly row: StoredProject;
  readonly project: Project;
  readonly history: History;
  /** What was left behind to open it, in words; null if nothing was. */
  readonly left: Recovery | null;
}

export interface Recovery {
  /** Why the document does not open. */
  readonly why: string;
  /** Labels of the changes taken back, the last first. */
  readonly taken: readonly string[];
  /**
   * Or what was left out instead, since it was damaged, in words; what was done cannot be undone then. If both are empty, all of it was
   * made again from its changes.
   */
  readonly lost: readonly string[];
}

/** Throws `not-found`, or why the document cannot be opened at all: `damaged-project`, `newer-version`. */
export async function readStored(id: string): Promise<ReadProject> {
  const row = await storage.projects.get(id);
  if (!row) throw new CaravanError("not-found", t("project"), t("This browser does not hold it any more."), t("Choose another project."));
  const where = `project “${row.name}”`;
  const history = await readHistory(row);
  let content: unknown;
  try {
    content = await readDocument(id);
    const project = withDistinctPaths(projectFromFile(content, where));
    return { row, project, history, left: null };
  } catch (error) {
    const problem = asProblem(error, where);
    if (problem.code === "newer-version") throw problem;
    const same = rebuilt(row, await storedParts(id), history);
    if (same) {
      await keepAside(id, problem);
      return { row, project: same, history, left: { why: problem.what, taken: [], lost: [] } };
    }
    const back = walkedBack(content, history);
    // If more than the last change would be lost, leaving out damaged items loses less.
    const rest = back?.taken.length === 1 ? null : await withoutDamaged(row, where);
    if (!rest && !back) throw problem;
    await keepAside(id, problem);
    if (rest) return { row, project: rest.project, history: NO_HISTORY, left: { why: problem.what, taken: [], lost: rest.lost } };
    const { taken, ...stand } = back as NonNullable<typeof back>;
    return { row, ...stand, left: { why: problem.what, taken, lost: [] } };
  }
}

/** The readable parts of a document; null if there are none. */
async function withoutDamaged({ id, name }: StoredProject, where: string): Promise<{ project: Project; lost: string[] } | null> {
  const readable = await readableDocument(id, name);
  const found = readable && salvaged(readable.content, where);
  if (!found) return null;
  return { project: withDistinctPaths(found.project), lost: [...readable.lost, ...found.lost] };
}

async function readHistory(row: StoredProject): Promise<History> {
  const entries: HistoryEntry[] = [];
  const stored = await entriesOf(row.id);
  const first = stored[0]?.index ?? 0;
  for (const { index, label, changes } of stored) {
    // Anything after a gap or a damaged entry is unreachable.
    if (index !== first + entries.length) break;
    try {
      entries.push({ label, ...(JSON.parse(changes) as Pick<HistoryEntry, "forth" | "back">) });
    } catch {
      break;
    }
  }
  return { first, entries, cursor: Math.max(0, Math.min(entries.length, row.cursor - first)) };
}

function asProblem(error: unknown, where: string): CaravanError {
  if (error instanceof CaravanError) return error;
  const what = t("It cannot be read: {why}.", { why: whyOf(error) });
  return new CaravanError("damaged-project", where, what, t("Save its raw data, then open another project."), { cause: error });
}

/** The last state of the history that opens, and what was taken back; null if none does. */
function walkedBack(content: unknown, history: History): { project: Project; history: History; taken: string[] } | null {
  let project: Project;
  try {
    project = uncheckedProject(content);
  } catch {
    return null;
  }
  const taken: string[] = [];
  for (let cursor = history.cursor; cursor > 0; cursor--) {
    const { back, label } = history.entries[cursor - 1] as HistoryEntry;
    taken.push(label);
    try {
      project = applyChanges(project, back) as Project;
      checkDocument(project, "an earlier state");
      return { project, history: { ...history, entries: history.entries.slice(0, cursor - 1), cursor: cursor - 1 }, taken };
    } catch {
      // Further back.
    }
  }
  return null;
}

/** Under what name a state that does not open is kept. */
const asideKey = (id: string) => `could not be opened ${id}`;

async function keepAside(id: string, { what }: CaravanError): Promise<void> {
  const raw = { at: Date.now(), why: what, parts: await storedParts(id), history: await entriesOf(id) };
  // Without space the state itself stays until the next change, and can be saved to a file.
  await storage.settings.put({ key: asideKey(id), value: raw }).catch(() => {});
}

/** Everything stored about a project, as stored, for people who can read it: even if it does not open. */
export async function rawDataOf(id: string): Promise<{ name: string; files: { path: string; bytes: Uint8Array }[] }> {
  const row = await storage.projects.get(id);
  const aside = (await storage.settings.get(asideKey(id)))?.value;
  const parts = await storedParts(id);
  const history = await entriesOf(id);
  const text = (value: unknown) => new TextEncoder().encode(typeof value === "string" ? value : JSON.stringify(value, null, 1));
  const files = [
    { path: "row.json", bytes: text(row ?? null) },
    ...parts.map(({ part, text: content }) => ({ path: `document/${part}.json`, bytes: text(content) })),
    { path: "history.json", bytes: text(history) },
    ...(aside === undefined ? [] : [{ path: "could-not-be-opened.json", bytes: text(aside) }]),
  ];
  const all = JSON.stringify([parts, history, aside ?? null]);
  for (const sha256 of new Set(all.match(/(?<=")[0-9a-f]{64}(?=\\*")/g) ?? [])) {
    const blob = (await storage.pictures.get(sha256))?.blob;
    if (blob) files.push({ path: `pictures/${sha256}.png`, bytes: new Uint8Array(await blob.arrayBuffer()) });
  }
  return { name: row?.name ?? "project", files };
}
