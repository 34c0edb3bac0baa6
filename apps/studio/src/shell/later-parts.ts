/** Parts of the shell that are shown only now and then. Their code loads when needed, or when the page is idle. */
import { takeInParts } from "../project/import-later";
import { STOPS } from "../project/view";
import { part } from "../ui/part";
import { STOP_PARTS } from "./stops";

export const ArrivalReview = part(async () => (await import("./import-review/import-review")).ArrivalReview);
export const ChangedArtReview = part(async () => (await import("./changed-art-review")).ChangedArtReview);
export const FilmDialog = part(async () => (await import("./import-review/film-dialog")).FilmDialog);
export const Finder = part(async () => (await import("./finder")).Finder);
export const KeysPanel = part(async () => (await import("./keys-panel")).KeysPanel);
export const OutsideDialog = part(async () => (await import("./outside-dialog")).OutsideDialog);
export const LeavingDialog = part(async () => (await import("./leaving-dialog")).LeavingDialog);
export const ProjectsDialog = part(async () => (await import("./projects-dialog")).ProjectsDialog);

/** Loads everything not loaded yet, in order of need: later the server may be gone. */
export async function loadAllParts(): Promise<void> {
  await Promise.all(
    STOPS.flatMap((stop) => [STOP_PARTS[stop].List.load(), STOP_PARTS[stop].Surface.load(), STOP_PARTS[stop].Details.load()]),
  );
  await Promise.all([
    takeInParts(),
    ArrivalReview.load(),
    Finder.load(),
    KeysPanel.load(),
    ProjectsDialog.load(),
    LeavingDialog.load(),
    OutsideDialog.load(),
  ]);
  await Promise.all([ChangedArtReview.load(), FilmDialog.load(), import("../stops/clips/rhythm/rhythm-bench")]);
  await Promise.all([import("../stops/marks/drift-chart"), import("../stops/marks/outline-chart"), import("../budget/budget-chart")]);
}
