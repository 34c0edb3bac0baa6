/** Saves a recording as a drive. */

import { keepDrive } from "@caravan/core/edit";
import type { Drive, Project, Stage } from "@caravan/core/model";
import { act } from "../../project/act";
import { currentProject } from "../../project/open-project";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";
import { driven, playDrive, record, runDrive, setScene, useSession } from "./session";

/** Begins to record, or keeps what was recorded under a free name. */
export function toggleRecording(): void {
  if (useSession.getState().recording) {
    const kept = keepRecording();
    if (kept) useSession.setState({ drive: kept });
    else say({ tone: "plain", text: t("Nothing was driven, so nothing was kept. Record, then drive with the keys.") });
  } else record();
}

/** Keeps the running recording before something else plays; null if there is none, or nothing was driven. */
function keepRecording(): Drive | null {
  if (!useSession.getState().recording) return null;
  useSession.setState({ recording: false, running: false });
  const made = driven(`drive ${(currentProject().drives?.length ?? 0) + 1}`);
  if (!made || made.keys.length === 0 || !act(keepDrive, made)) return null;
  const kept = currentProject().drives?.at(-1) ?? null;
  if (kept) say({ tone: "good", text: t("Kept as {name}. Type over its name to rename it.", { name: kept.name }) });
  return kept;
}

/** Plays a drive from its start; keeps a running recording first. */
export function playKept(drive: Drive): void {
  keepRecording();
  playDrive(drive);
}

/** Plays a drive to its end at once; keeps a running recording first. */
export function runKept(drive: Drive): void {
  keepRecording();
  runDrive(drive);
}

/** Opens a stage; keeps a running recording on another one first. */
export function toScene(id: string | null, project: Project, stage: Stage | null): void {
  const { recording, project: before, setting } = useSession.getState();
  if (recording && setting && setting.stage.name !== stage?.name) {
    if (before === id) keepRecording();
    else say({ tone: "plain", text: t("Another project is open: what was being recorded in the one before was not kept.") });
  }
  setScene(id, project, stage);
}
