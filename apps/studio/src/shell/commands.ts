/** What the shell does on a button or a key, the same from everywhere. */

import { takeIn, useFailedFiles } from "../project/arrive";
import { redo, undo, useOpenProject } from "../project/open-project";
import { exportBundle } from "../project/projects";
import { chooseSource, go } from "../project/view";
import { saveFile } from "../ui/files";
import { say } from "../ui/notices";

export function undoNow(): void {
  const label = undo();
  if (label !== null) say({ tone: "plain", text: `Undone: ${label}.` });
}

export function redoNow(): void {
  const label = redo();
  if (label !== null) say({ tone: "plain", text: `Done again: ${label}.` });
}

/** Takes files in and goes to where work on them begins: a lone sheet is cut, several are looked over. */
export async function takeInAndGo(files: readonly File[]): Promise<void> {
  const before = useFailedFiles.getState().failed.length;
  const ids = await takeIn(files);
  const failed = useFailedFiles.getState().failed.slice(before);
  if (failed[0]) {
    const text = failed.length === 1 ? failed[0].error.message : `${failed.length} files did not come in.`;
    say({ tone: "trouble", text, action: { label: "Show at Sources", run: () => go("sources") } });
  }
  if (ids[0] === undefined) return;
  chooseSource(ids[0]);
  go(ids.length === 1 ? "frames" : "sources");
}

/** Saves the open project as a `*.caravan` file. */
export async function saveAsFile(): Promise<void> {
  const { project } = useOpenProject.getState();
  try {
    saveFile(`${fileNameOf(project.name)}.caravan`, await exportBundle(project), "application/zip");
  } catch (error) {
    say({ tone: "trouble", text: error instanceof Error ? error.message : String(error) });
  }
}

/** A project's name as a file name that every system takes. */
function fileNameOf(name: string): string {
  const fit = name
    .replace(/[\\/:*?"<>|\p{Cc}]/gu, "-")
    .replace(/[. ]+$/, "")
    .trim();
  return fit === "" ? "project" : fit;
}
