/** The shell's commands, shared by buttons and keys. */

import { pathStem } from "@caravan/core/model";
import { deliverAgain } from "../project/delivering/deliver-again";
import { useHome } from "../project/home/home-state";
import { redo, undo, useOpenProject } from "../project/open-project";
import { exportBundle } from "../project/projects";
import { go } from "../project/view";
import { saveFile } from "../ui/files";
import { say, sayTrouble } from "../ui/notices";
import { t } from "../ui/words";

export const FINDER_LABEL = t("Find a command or a place");

export function undoNow(): void {
  const label = undo();
  if (label !== null) say({ tone: "plain", text: t("Undone: {label}.", { label }) });
}

export function redoNow(): void {
  const label = redo();
  if (label !== null) say({ tone: "plain", text: t("Redone: {label}.", { label }) });
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

const homes = () => import("../project/home/home");

/** Opens the project of a folder that the person chooses. */
export async function openFolderNow(): Promise<void> {
  await (await homes()).openFolder();
}

/** Keeps the open project in a folder that the person chooses; says so if it is kept in one already. */
export async function keepInFolderNow(): Promise<void> {
  const { home } = useHome.getState();
  if (home)
    say({ tone: "plain", text: t("This project is kept in {folder} already: every change is saved there, too.", { folder: home.folder }) });
  else await (await homes()).keepInFolder();
}

/** Delivers into every linked game folder; without one, shows where to link it. */
export async function deliverAgainNow(): Promise<void> {
  if (await deliverAgain()) return;
  go("ship");
  say({ tone: "plain", text: t("No delivery has a game folder yet: link one at Ship, under Game folder. D delivers as a ZIP.") });
}
