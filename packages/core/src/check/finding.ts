import type { ActionName, ClipName, FrameRef, Project } from "../model";

export type FindingCode =
  | "empty-clip"
  | "missing-frames"
  | "same-frame-name"
  | "unused-frames"
  | "nothing-cut"
  | "blank-steps"
  | "equal-neighbours"
  | "doubled-seam"
  | "too-fast"
  | "odd-size-steps"
  | "endless-effect"
  | "stops-short"
  | "name-begins-another"
  | "empty-action"
  | "facing-missing"
  | "facings-differ"
  | "action-named-as-clip"
  | "bleeding"
  | "large-pages"
  | "times-not-held"
  | "unfit-name"
  | "origin-outside";

/** Where a finding can be seen. */
export type Place =
  | { readonly stop: "sources" }
  | { readonly stop: "clips"; readonly clip: ClipName; readonly steps?: readonly number[] }
  | { readonly stop: "clips"; readonly action: ActionName }
  | { readonly stop: "frames"; readonly frame: FrameRef }
  /** A delivery by its index. */
  | { readonly stop: "ship"; readonly delivery: number };

/** Something wrong or risky in a project, where it is, and the edit that mends it if one does. */
export interface Finding {
  readonly code: FindingCode;
  /** An error stops delivery; a warning is worth a look; a note is good to know. */
  readonly severity: "error" | "warning" | "note";
  /** In words. */
  readonly where: string;
  readonly message: string;
  readonly place: Place;
  readonly mend?: { readonly label: string; readonly apply: (project: Project) => Project };
}
