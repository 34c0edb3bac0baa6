/**
 * The folder of the game that a delivery goes straight into. Only files that came out otherwise are written; what is no longer made is
 * named, and removed only when a person asks for it.
 */
import { counted } from "@caravan/core/edit";
import type { Delivery } from "@caravan/core/model";
import { create } from "zustand";
import { say } from "../../ui/notices";
import type { Delivered } from "../../workers/jobs";
import { canLinkFolders, chosenFolder, mayUse } from "../linked/folder";
import { useOpenProject } from "../open-project";
import { storage } from "../storage";
import { removeFiles, writeChanged } from "./write-files";

interface Outlet {
  /** Name of the folder. */
  readonly folder: string;
  /** Paths that an earlier delivery left there and that are no longer made. */
  readonly left: readonly string[];
}

/** Folders of the open project's deliveries, by the deliveries' names. */
export const useOutlets = create<{ readonly outlets: Readonly<Record<string, Outlet>> }>(() => ({ outlets: {} }));

function show(delivery: string, outlet: Outlet | null): void {
  useOutlets.setState(({ outlets: { [delivery]: _, ...rest } }) => ({ outlets: outlet ? { ...rest, [delivery]: outlet } : rest }));
}

/** Reads which deliveries of the open project have a folder. */
export async function loadOutlets(): Promise<void> {
  const { id } = useOpenProject.getState();
  const rows = id === null ? [] : await storage.outlets.filter(({ project }) => project === id).toArray();
  useOutlets.setState({ outlets: Object.fromEntries(rows.map(({ delivery, folder }) => [delivery, { folder: folder.name, left: [] }])) });
}

/** Lets the person choose the game's folder for a delivery; answers whether they chose one. */
export async function linkGameFolder(delivery: string): Promise<boolean> {
  const { id } = useOpenProject.getState();
  const folder = canLinkFolders() ? await chosenFolder("readwrite") : null;
  if (!folder || id === null) return false;
  await storage.outlets.put({ project: id, delivery, folder, paths: [] });
  show(delivery, { folder: folder.name, left: [] });
  return true;
}

export async function unlinkGameFolder(delivery: string): Promise<void> {
  const { id } = useOpenProject.getState();
  if (id !== null) await storage.outlets.delete([id, delivery]);
  show(delivery, null);
}

/** The folder stays with a delivery that is called otherwise now. */
export async function renameOutlet(before: string, after: string): Promise<void> {
  const { id } = useOpenProject.getState();
  const row = id === null ? undefined : await storage.outlets.get([id, before]);
  if (!row) return;
  await storage.outlets.put({ ...row, delivery: after });
  await storage.outlets.delete([row.project, before]);
  await loadOutlets();
}

/** Writes what was built into the delivery's folder, and says what came of it. The first time the browser may ask for leave. */
export async function deliverIntoFolder({ name }: Delivery, delivered: Delivered): Promise<void> {
  const { id } = useOpenProject.getState();
  const outlet = id === null ? undefined : await storage.outlets.get([id, name]);
  if (!outlet || !(await mayWrite(outlet.folder))) return;
  try {
    const written = await writeChanged(outlet.folder, delivered.files);
    const paths = delivered.files.map(({ path }) => path);
    const made = new Set(paths);
    const left = outlet.paths.filter((path) => !made.has(path));
    await storage.outlets.put({ ...outlet, paths: [...paths, ...left] });
    show(name, { folder: outlet.folder.name, left });
    const same = paths.length - written.length;
    say({
      tone: "good",
      text:
        written.length === 0
          ? `${outlet.folder.name} has it already: all ${counted(paths.length, "file")} of ${name} are as they were.`
          : `Delivered ${counted(written.length, "file")} into ${outlet.folder.name}${same > 0 ? `; ${same} were as they should be` : ""}.`,
    });
  } catch (error) {
    say({
      tone: "trouble",
      text: `Writing into ${outlet.folder.name} failed: ${error instanceof Error ? error.message : String(error)} What was there before is still whole.`,
    });
  }
}

/** Removes from the folder what earlier deliveries left there and is no longer made. */
export async function removeLeft(delivery: string): Promise<void> {
  const { id } = useOpenProject.getState();
  const outlet = id === null ? undefined : await storage.outlets.get([id, delivery]);
  const shown = useOutlets.getState().outlets[delivery];
  if (!outlet || !shown) return;
  try {
    await removeFiles(outlet.folder, shown.left);
    const gone = new Set(shown.left);
    await storage.outlets.put({ ...outlet, paths: outlet.paths.filter((path) => !gone.has(path)) });
    show(delivery, { ...shown, left: [] });
    say({ tone: "good", text: `Removed ${counted(gone.size, "file")} from ${shown.folder}.` });
  } catch (error) {
    say({ tone: "trouble", text: error instanceof Error ? error.message : String(error) });
  }
}

/** Whether a delivery's folder may be written, asking the person if need be; says so if not. */
export async function mayWriteFor(delivery: string): Promise<boolean> {
  const { id } = useOpenProject.getState();
  const outlet = id === null ? undefined : await storage.outlets.get([id, delivery]);
  return outlet !== undefined && mayWrite(outlet.folder);
}

async function mayWrite(folder: FileSystemDirectoryHandle): Promise<boolean> {
  if (await mayUse(folder, "readwrite", true)) return true;
  say({
    tone: "trouble",
    text: `The browser may not write into ${folder.name}. Deliver again and allow it, or link the folder anew.`,
  });
  return false;
}
