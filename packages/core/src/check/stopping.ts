/** Findings that are errors and stop a delivery. Warnings and notes are found elsewhere. */
import { assignField, forgetExample, removeClip, removeSteps, renameFrame } from "../edit";
import { shapeOf } from "../example";
import { CaravanError, type Clip, counted, type FrameRef, findFrame, frameName, frameRef, keptFrames, type Project } from "../model";
import { t } from "../words";
import { emptyActions } from "./action-findings";
import { deliveredNames } from "./delivered-names";
import type { Finding, Place } from "./finding";
import { guarded } from "./guarded";
import { layersThatDisagree } from "./layer-findings";
import { brokenParts } from "./part-findings";

/**
 * The first finding that stops the delivery `index`, or null. Errors of other deliveries do not stop it. `project` contains what it
 * delivers. Cost: O(frames + steps), far less than all findings.
 */
export function stoppingFinding(project: Project, index: number): Finding | null {
  const looks: readonly (() => Finding[])[] = [
    () => guarded(t("what is cut"), () => nothingCut(project)),
    () => project.clips.flatMap((clip) => guarded(t('clip "{name}"', { name: clip.name }), () => brokenClip(project, clip))),
    () => guarded(t("actions"), () => emptyActions(project)),
    () => guarded(t("frame names"), () => sameNames(project)),
    () => guarded(t("layers"), () => layersThatDisagree(project)),
    () => guarded(t("parts"), () => brokenParts(project)),
    () => deliveredNames(project),
    () => guarded(t("examples"), () => unassignedFields(project)),
  ];
  for (const look of looks) {
    const stopping = look().find(({ severity, delivery }) => severity === "error" && (delivery === undefined || delivery === index));
    if (stopping) return stopping;
  }
  return null;
}

export function nothingCut(project: Project): Finding[] {
  if (keptFrames(project).length > 0) return [];
  const message =
    project.sources.length === 0 ? t("There are no pictures yet. Add some at Sources.") : t("No sheet is cut yet. Cut one at Frames.");
  return [{ code: "nothing-cut", severity: "error", where: t("project"), message, place: { stop: "sources" } }];
}

export function brokenClip(project: Project, clip: Clip): Finding[] {
  const where = t('clip "{name}"', { name: clip.name });
  const place: Place = { stop: "clips", clip: clip.name };
  if (clip.steps.length === 0)
    return [
      {
        code: "empty-clip",
        severity: "error",
        where,
        message: t("It has no steps, so a game could not play it. Add frames to it or remove it."),
        place,
        mend: { label: t("Remove the clip"), apply: (current) => removeClip(current, clip.name) },
      },
    ];
  const missing = clip.steps.flatMap((step, k) => {
    const found = findFrame(project, step.frame);
    return found && !found.frame.dropped ? [] : [k];
  });
  if (missing.length === 0) return [];
  const message =
    missing.length === 1
      ? t("{steps} ({list}) shows a frame that is dropped or no longer cut. Take it out, or restore the frame.", {
          steps: counted(missing.length, "step"),
          list: shortList(missing),
        })
      : t("{steps} ({list}) show frames that are dropped or no longer cut. Take them out, or restore the frames.", {
          steps: counted(missing.length, "step"),
          list: shortList(missing),
        });
  return [
    {
      code: "missing-frames",
      severity: "error",
      where,
      message,
      place,
      mend: {
        label: missing.length === 1 ? t("Take it out") : t("Take them out"),
        apply: (current) => removeSteps(current, clip.name, missing),
      },
    },
  ];
}

function shortList(numbers: readonly number[]): string {
  return numbers.length > 6 ? `${numbers.slice(0, 6).join(", ")}, …` : numbers.join(", ");
}

export function sameNames(project: Project): Finding[] {
  const kept = keptFrames(project);
  const known = sharedIn.get(kept);
  if (known) return known;
  const byName = new Map<string, FrameRef>();
  const shared = kept.flatMap(({ source, frame }): Finding[] => {
    const name = frameName(source, frame);
    const ref = frameRef(source, frame);
    const first = byName.get(name);
    if (!first) {
      byName.set(name, ref);
      return [];
    }
    const named = frame.name === undefined ? first : ref;
    return [
      {
        code: "same-frame-name",
        severity: "error",
        where: t('frame "{name}"', { name }),
        message: t("Two frames have this name; a game could not distinguish them."),
        place: { stop: "frames", frame: named },
        mend: { label: t("Remove the given name"), apply: (current) => renameFrame(current, named, "") },
      },
    ];
  });
  sharedIn.set(kept, shared);
  return shared;
}

/** What was found on lists of frames, which are never changed in place. */
const sharedIn = new WeakMap<object, Finding[]>();

/** Examples that cannot be used, and fields of examples that look like geometry and mean nothing known: what the example says there would be wrong for other frames. */
export function unassignedFields(project: Project): Finding[] {
  return project.deliveries.flatMap(({ name, kind, data }, delivery): Finding[] => {
    // Films have no metadata.
    const example = kind === "films" ? undefined : project.examples.find((each) => each.name === data.example);
    if (!example) return [];
    const where = t('delivery "{name}"', { name });
    const place: Place = { stop: "ship", delivery };
    let unassigned: readonly string[];
    try {
      ({ unassigned } = shapeOf(example));
    } catch (error) {
      if (!(error instanceof CaravanError)) throw error;
      // The studio takes in none that cannot be used, but a document may have been edited elsewhere.
      const message = t("The example {name} cannot be used: {what} {remedy}", {
        name: example.name,
        what: error.what,
        remedy: error.remedy,
      });
      const mend = { label: t("Remove the example"), apply: (current: Project) => forgetExample(current, example.name) };
      return [{ code: "unusable-example", severity: "error", where, delivery, message, place, mend }];
    }
    if (unassigned.length === 0) return [];
    const list =
      unassigned.length > 3
        ? t("{listed} and {more} more", { listed: unassigned.slice(0, 3).join(", "), more: unassigned.length - 3 })
        : unassigned.join(", ");
    return [
      {
        ...{ code: "unassigned-field", severity: "error", where, delivery },
        message:
          unassigned.length === 1
            ? t("In the example {name}, {list} differs from frame to frame and means nothing that is known. Say what under “Its fields”.", {
                name: example.name,
                list,
              })
            : t("In the example {name}, {list} differ from frame to frame and mean nothing that is known. Say what under “Its fields”.", {
                name: example.name,
                list,
              }),
        place,
        mend: {
          label: t("Keep the example's value"),
          apply: (current) => unassigned.reduce((next, path) => assignField(next, example.name, path, "keep"), current),
        },
      },
    ];
  });
}
