/**
 * Delivers straight into a folder of the game. Only changed files are written; files that are no longer made are listed, and removed only
 * when a person asks. Folder, project and delivery are captured together when a delivery begins, so opening another project meanwhile
 * sends nothing astray. One delivery is written at a time.
 */

import { counted, whyOf } from "@caravan/core/model";
import { create } from "zustand";
import { inBackground } from "../../ui/in-background";
import { say, sayTrouble } from "../../ui/notices";
import { t } from "../../ui/words";
import type { Delivered } from "../../workers/jobs";
import { canLinkFolders, chosenFolder, mayUse } from "../linked/folder";
import { useOpenProject } from "../open-project";
import { type StoredOutlet, storage } from "../storage";

const writingFiles = () => import("./write-files");

interface Outlet {
  /** Name of the folder. */
  readonly folder: string;
  /** Paths that an earlier delivery left there and that are no longer made. */
  readonly left: readonly string[];
}

/** A delivery of a project, whichever is open. */
export interface OutletOf {
  readonly project: string;
  readonly delivery: string;
}

/** Folders of the open project's deliveries, by the deliveries' names. */
export const useOutlets = create<{ readonly outlets: ReadonlyMap<string, Outlet> }>(() => ({ outlets: new Map() }));

/** Shows the state of a delivery's folder, if its project is still open. */
function show({ project, delivery }: OutletOf, outlet: Outlet | null): void {
  if (useOpenProject.getState().id !== project) return;
  useOutlets.setState(({ outlets }) => {
    const next = new Map(outlets);
    if (outlet) next.set(delivery, outlet);
    else next.delete(delivery);
    return { outlets: next };
  });
}

/** Reads which deliveries of the open project have a folder, and finishes there what an earlier visit could not. */
export async function loadOutlets(): Promise<void> {
  const { id } = useOpenProject.getState();
  const rows = id === null ? [] : await storage.outlets.filter(({ project }) => project === id).toArray();
  if (useOpenProject.getState().id !== id) return;
  useOutlets.setState({ outlets: new Map(rows.map(({ delivery, folder }) => [delivery, { folder: folder.name, left: [] }])) });
  for (const { folder } of rows) if (await mayUse(folder, "readwrite", false)) await (await writingFiles()).finishDelivery(folder);
}

/** Lets the person choose the game's folder for a delivery; answers whether they chose one. */
export async function linkGameFolder(delivery: string): Promise<boolean> {
  const { id } = useOpenProject.getState();
  const folder = canLinkFolders() ? await chosenFolder("game") : null;
  if (!folder || id === null) return false;
  await storage.outlets.put({ project: id, delivery, folder, paths: [] });
  show({ project: id, delivery }, { folder: folder.name, left: [] });
  return true;
}

export async function unlinkGameFolder(delivery: string): Promise<void> {
  const { id } = useOpenProject.getState();
  if (id === null) return;
  await storage.outlets.delete([id, delivery]);
  show({ project: id, delivery }, null);
}

/** Lets folders stay with deliveries that get another name, by an edit, an undo or a redo, until the returned function is called. */
export function followRenames(): () => void {
  return useOpenProject.subscribe((open, before) => {
    const { id } = open;
    const [now, then] = [open.project.deliveries, before.project.deliveries];
    if (id === null || id !== before.id || now === then || now.length !== then.length) return;
    for (const [k, { name }] of now.entries()) {
      const was = then[k]?.name;
      if (was !== undefined && was !== name && !now.some((each) => each.name === was)) inBackground(renameOutlet(id, was, name));
    }
  });
}

async function renameOutlet(project: string, before: string, after: string): Promise<void> {
  await storage.transaction("rw", storage.outlets, async () => {
    const row = await storage.outlets.get([project, before]);
    if (!row) return;
    await storage.outlets.put({ ...row, delivery: after });
    await storage.outlets.delete([project, before]);
  });
  await loadOutlets();
}

/** The end of the delivery that is being written. */
let writing: Promise<unknown> = Promise.resolve();

/** Writes what was built into the delivery's folder, and says what came of it. The first time the browser may ask for leave. */
export function deliverIntoFolder(of: OutletOf, delivered: Delivered): Promise<void> {
  const mine = writing.then(() => deliveringInto(of, delivered));
  writing = mine.catch(() => {});
  return mine;
}

async function deliveringInto(of: OutletOf, delivered: Delivered): Promise<void> {
  const outlet = await outletOf(of);
  if (!outlet || !(await mayWrite(outlet.folder))) return;
  try {
    const { replaceFiles } = await writingFiles();
    const written = await replaceFiles(outlet.folder, delivered.files, new Set(outlet.paths), `studio ${of.project} ${of.delivery}`);
    const paths = delivered.files.map(({ path }) => path);
    const made = new Set(paths);
    const left = outlet.paths.filter((path) => !made.has(path));
    await storage.outlets.put({ ...outlet, paths: [...paths, ...left] });
    show(of, { folder: outlet.folder.name, left });
    const same = paths.length - written.length;
    say({
      tone: "good",
      text:
        written.length === 0
          ? t("{name} is up to date: all {files} of {delivery} are unchanged.", {
              name: outlet.folder.name,
              files: counted(paths.length, "file"),
              delivery: of.delivery,
            })
          : same > 0
            ? t("Delivered {files} into {name}; {same} unchanged.", {
                files: counted(written.length, "file"),
                name: outlet.folder.name,
                same,
              })
            : t("Delivered {files} into {name}.", { files: counted(written.length, "file"), name: outlet.folder.name }),
    });
  } catch (error) {
    say({
      tone: "trouble",
      text: t("Writing into {name} failed: {why}", { name: outlet.folder.name, why: whyOf(error) }),
    });
  }
}

/** Removes from the folder what earlier deliveries left there and is no longer made. */
export async function removeLeft(delivery: string): Promise<void> {
  const { id } = useOpenProject.getState();
  if (id === null) return;
  const of = { project: id, delivery };
  const outlet = await outletOf(of);
  const shown = useOutlets.getState().outlets.get(delivery);
  if (!outlet || !shown) return;
  try {
    const { removeFiles } = await writingFiles();
    await removeFiles(outlet.folder, shown.left);
    const gone = new Set(shown.left);
    await storage.outlets.put({ ...outlet, paths: outlet.paths.filter((path) => !gone.has(path)) });
    show(of, { ...shown, left: [] });
    say({ tone: "good", text: t("Removed {files} from {folder}.", { files: counted(gone.size, "file"), folder: shown.folder }) });
  } catch (error) {
    sayTrouble(error);
  }
}

function outletOf({ project, delivery }: OutletOf): Promise<StoredOutlet | undefined> {
  return storage.outlets.get([project, delivery]);
}

/** Whether a delivery's folder may be written, asking the person if need be; says so if not. */
export async function mayWriteFor(of: OutletOf): Promise<boolean> {
  const outlet = await outletOf(of);
  return outlet !== undefined && mayWrite(outlet.folder);
}

async function mayWrite(folder: FileSystemDirectoryHandle): Promise<boolean> {
  if (await mayUse(folder, "readwrite", true)) return true;
  say({
    tone: "trouble",
    text: t("The browser has no permission to write into {name}. Deliver again and allow it, or link the folder again.", {
      name: folder.name,
    }),
  });
  return false;
}
