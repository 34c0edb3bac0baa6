import type { ActionName, BehaviourName, Clearing, ClipName, FrameRef, MarkName, Project, SourceId, StageName } from "../model";
import { t } from "../words";

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
  | "origin-outside"
  | "missing-art"
  | "opaque-ground"
  | "unequal-strip"
  | "chooses-nothing"
  | "same-file-name"
  | "layers-disagree"
  | "part-gone"
  | "part-circle"
  | "part-no-point"
  | "part-ends"
  | "part-jumps"
  | "part-turns"
  | "frame-name-begins-another"
  | "mark-missing"
  | "box-jumps"
  | "outline-dips"
  | "outline-crosses"
  | "many-corners"
  | "steady-gone"
  | "check-failed"
  | "chosen-gone"
  | "no-ticks"
  | "unassigned-field"
  | "unusable-example"
  | "rule-shows-nothing"
  | "rule-names-nothing"
  | "rule-never-holds"
  | "kept-for-ever"
  | "not-kept"
  | "hardly-seen"
  | "stands-after-end"
  | "nothing-shows"
  | "rule-covered"
  | "rules-chase"
  | "input-unasked"
  | "facing-needed"
  | "feet-slide"
  | "stage-names-nothing"
  | "drive-names-nothing"
  | "piece-gone"
  | "palette-gone"
  | "colours-nearly-equal"
  | "colour-outside-palette"
  | "palette-length"
  | "odd-palette"
  | "piece-off-grid"
  | "piece-in-all-but-one"
  | "equal-frames-of-pieces"
  | "unused-pieces";

/** Where a finding can be seen. */
export type Place =
  | { readonly stop: "sources"; readonly source?: SourceId }
  | { readonly stop: "clips"; readonly clip: ClipName; readonly steps?: readonly number[] }
  | { readonly stop: "clips"; readonly action: ActionName }
  | { readonly stop: "marks"; readonly clip: ClipName; readonly mark: MarkName; readonly steps?: readonly number[] }
  | { readonly stop: "frames"; readonly frame: FrameRef }
  | { readonly stop: "rehearse"; readonly behaviour: BehaviourName; readonly rule?: string; readonly stage?: StageName }
  /** A delivery by its index. */
  | { readonly stop: "ship"; readonly delivery: number };

/** Something wrong or risky in a project, with its place, and the edit that mends it if there is one. */
export interface Finding {
  readonly code: FindingCode;
  /** An error stops delivery; a warning is worth a look; a note is good to know. */
  readonly severity: "error" | "warning" | "note";
  /** In words. */
  readonly where: string;
  readonly message: string;
  /** The message with steps counted from 0 or from 1, where it names steps; `message` counts from 0. */
  readonly messageFrom?: (from: 0 | 1) => string;
  readonly place: Place;
  /** Index of the only delivery that it concerns, if there is one. */
  readonly delivery?: number;
  readonly mend?: Mend;
  /** Other mendings to choose from. */
  readonly otherMends?: readonly Mend[];
}

/** An edit that mends; or a background to clear, which needs the art's pixels and so is left to the caller. */
export type Mend = { readonly label: string } & (
  | { readonly apply: (project: Project) => Project }
  | { readonly clears: { readonly source: SourceId; readonly clearing: Clearing } }
);

/** A message that names steps, which a screen counts as its user does. `words` is given what writes indexes: "step 3", "steps 3, 4 and 5". */
export function namingSteps(words: (inWords: (steps: readonly number[]) => string) => string): Pick<Finding, "message" | "messageFrom"> {
  const from = (first: number) => words((steps) => stepsInWords(steps.map((step) => step + first)));
  return { message: from(0), messageFrom: from };
}

/** With a capital. */
export function sentence(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

const MOST_NAMED = 6;

/** "step 3", "steps 3, 4 and 5", "steps 1, 2, 3, 4, 5, 6 and 7 more". */
function stepsInWords(steps: readonly number[]): string {
  if (steps.length === 1) return t("step {step}", { step: steps[0] ?? "" });
  const named = steps.slice(0, steps.length > MOST_NAMED ? MOST_NAMED : -1);
  const list = named.join(", ");
  return steps.length > MOST_NAMED
    ? t("steps {list} and {more} more", { list, more: steps.length - MOST_NAMED })
    : t("steps {list} and {last}", { list, last: steps.at(-1) ?? "" });
}

/** All ways to mend a finding, the usual one first. */
export function mendsOf({ mend, otherMends = [] }: Finding): readonly Mend[] {
  return mend ? [mend, ...otherMends] : otherMends;
}

/** A delivery, in the words of a finding. */
export function whereOfDelivery({ deliveries }: Pick<Project, "deliveries">, index: number): string {
  return t('delivery "{name}"', { name: deliveries[index]?.name ?? "" });
}
