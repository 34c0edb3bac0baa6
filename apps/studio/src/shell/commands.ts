/** The shell's commands, shared by buttons and keys. */

import { pathStem } from "@caravan/core/model";
import { deliverAgain } from "../project/delivering/deliver-again";
import { redo, undo, useOpenProject } from "../project/open-project";
import { exportBundle } from "../project/projects";
import { go } from "../project/view";
import { saveFile } from "../ui/files";
import { say, sayTrouble } from "../ui/notices";

export const FINDER_LABEL = "Find a command or a place";

export function undoNow(): void {
  const label = undo();
  if (label !== null) say({ tone: "plain", text: `Undone: ${label}.` });
}

export function redoNow(): void {
  const label = redo();
  if (label !== null) say({ tone: "plain", text: `Done again: ${label}.` });
}

/** Saves the open project as a `*.caravan` file. */
export async function saveAsFile(): Promise<void> {
  await savedAsFile();
}

/** As `saveAsFile`; whether the file was handed over. */
export async function savedAsFile(): Promise<boolean> {
  const { project } = useOpenProject.getState();
  try {
    saveFile(`${pathStem(project.name)}.caravan`, await exportBundle(project), "application/zip");
    return true;
  } catch (error) {
    sayTrouble(error);
    return false;
  }
}

/** Delivers into every linked game folder; without one, shows where to link it. */
export async function deliverAgainNow(): Promise<void> {
  if (await deliverAgain()) return;
  go("ship");
  say({ tone: "plain", text: "No delivery has a game folder yet: link one at Ship, under Game folder. D delivers as a ZIP." });
}
