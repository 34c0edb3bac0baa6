import { dropFrames, removeClip, removeSteps, renameFrame } from "../edit";
import { type Clip, clipsByFrame, counted, type FrameRef, findFrame, frameName, frameRef, keptFrames, type Project } from "../model";
import { actionFindings, nameFindings } from "./action-findings";
import { artFindings, NOTHING_SEEN, type SeenArt } from "./art-findings";
import { movementFindings } from "./clip-findings";
import { deliveryFindings } from "./delivery-findings";
import type { Finding, Place } from "./finding";
import { guarded } from "./guarded";
import { markFindings } from "./mark-findings";

/** All findings, errors first, else in the order of the document. `seen` is what is known of the art. Cost: O(frames + steps). */
export function findingsOf(project: Project, seen: SeenArt = NOTHING_SEEN): Finding[] {
  const found = [
    ...guarded("what is cut", () => nothingCut(project)),
    ...guarded("art", () => artFindings(project, seen)),
    ...project.clips.flatMap((clip) => guarded(`clip "${clip.name}"`, () => clipFindings(project, clip))),
    ...guarded("actions", () => actionFindings(project)),
    ...guarded("frame names", () => sameNames(project)),
    ...guarded("clip names", () => nameFindings(project)),
    ...guarded("unused frames", () => unused(project)),
    ...deliveryFindings(project),
  ];
  const weight = { error: 0, warning: 1, note: 2 };
  return found.sort((a, b) => weight[a.severity] - weight[b.severity]);
}

function nothingCut(project: Project): Finding[] {
  if (keptFrames(project).length > 0) return [];
  const message =
    project.sources.length === 0 ? "There are no pictures yet. Add some at Sources." : "No sheet is cut yet. Cut one at Frames.";
  return [{ code: "nothing-cut", severity: "error", where: "project", message, place: { stop: "sources" } }];
}

function clipFindings(project: Project, clip: Clip): Finding[] {
  const where = `clip "${clip.name}"`;
  const place: Place = { stop: "clips", clip: clip.name };
  if (clip.steps.length === 0)
    return [
      {
        code: "empty-clip",
        severity: "error",
        where,
        message: "It has no steps, so a game could not play it. Add frames to it or remove it.",
        place,
        mend: { label: "Remove the clip", apply: (current) => removeClip(current, clip.name) },
      },
    ];
  const missing = clip.steps.flatMap((step, k) => {
    const found = findFrame(project, step.frame);
    return found && !found.frame.dropped ? [] : [k];
  });
  if (missing.length === 0) return [...movementFindings(project, clip), ...markFindings(project, clip)];
  const message = `${counted(missing.length, "step")} (${shortList(missing)}) ${missing.length === 1 ? "shows a frame" : "show frames"} that ${missing.length === 1 ? "is" : "are"} dropped or no longer cut. Take ${missing.length === 1 ? "it" : "them"} out, or restore the ${missing.length === 1 ? "frame" : "frames"}.`;
  return [
    {
      code: "missing-frames",
      severity: "error",
      where,
      message,
      place,
      mend: { label: `Take ${missing.length === 1 ? "it" : "them"} out`, apply: (current) => removeSteps(current, clip.name, missing) },
    },
  ];
}

function shortList(numbers: readonly number[]): string {
  return numbers.length > 6 ? `${numbers.slice(0, 6).join(", ")}, …` : numbers.join(", ");
}

function sameNames(project: Project): Finding[] {
  const byName = new Map<string, FrameRef>();
  return keptFrames(project).flatMap(({ source, frame }): Finding[] => {
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
        where: `frame "${name}"`,
        message: "Two frames have this name; a game could not tell them apart.",
        place: { stop: "frames", frame: named },
        mend: { label: "Take the given name back", apply: (current) => renameFrame(current, named, "") },
      },
    ];
  });
}

/** Which deliveries take frames that no clip shows. */
function whoTakesThem({ deliveries }: Project): string {
  const taking = deliveries.filter(({ choice, kind }) => choice.of === "all" && kind !== "strips" && kind !== "films");
  if (taking.length === 0) return ", and no delivery takes them";
  const names = taking.map(({ name }) => name).join(", ");
  return deliveries.length === taking.length
    ? ". They are delivered all the same"
    : `. Of the deliveries, ${names} ${taking.length === 1 ? "takes" : "take"} them all the same`;
}

function unused(project: Project): Finding[] {
  if (project.clips.length === 0) return [];
  const uses = clipsByFrame(project);
  const idle = keptFrames(project).flatMap(({ source, frame }) => (uses.has(frameRef(source, frame)) ? [] : [frameRef(source, frame)]));
  if (idle.length === 0) return [];
  return [
    {
      code: "unused-frames",
      severity: "note",
      where: "project",
      message: `${counted(idle.length, "frame is", "frames are")} in no clip${whoTakesThem(project)}.`,
      place: { stop: "frames", frame: idle[0] as FrameRef },
      mend: { label: "Drop them", apply: (current) => dropFrames(current, idle) },
    },
  ];
}
