import { dropFrames } from "../edit";
import { type Clip, type ClipName, clipsByFrame, counted, type FrameRef, frameRef, keptFrames, type Project } from "../model";
import { actionFindings, nameFindings } from "./action-findings";
import { artFindings, NOTHING_SEEN, type SeenArt } from "./art-findings";
import { behaviourFindings } from "./behaviour-findings";
import { movementFindings } from "./clip-findings";
import { colourFindings } from "./colour-findings";
import { deliveryFindings } from "./delivery-findings";
import type { Finding } from "./finding";
import { guarded } from "./guarded";
import { layersThatDisagree } from "./layer-findings";
import { markFindings } from "./mark-findings";
import { kindFindings, outlineFindings } from "./outline-findings";
import { brokenParts, partFindings } from "./part-findings";
import { pieceFindings } from "./piece-findings";
import { stageFindings } from "./stage-findings";
import { brokenClip, nothingCut, sameNames, unassignedFields } from "./stopping";

/**
 * All findings, errors first, else in the order of the document. `seen` is what is known of the art; `edited` is the clip that a person changed last,
 * whose times are meant where facings differ. Cost: O(frames + steps).
 */
export function findingsOf(project: Project, seen: SeenArt = NOTHING_SEEN, edited: ClipName | null = null): Finding[] {
  const found = [
    ...guarded("what is cut", () => nothingCut(project)),
    ...guarded("art", () => artFindings(project, seen)),
    ...project.clips.flatMap((clip) => guarded(`clip "${clip.name}"`, () => clipFindings(project, clip, seen))),
    ...guarded("actions", () => actionFindings(project, edited)),
    ...guarded("behaviours", () => behaviourFindings(project)),
    ...guarded("pieces", () => pieceFindings(project)),
    ...guarded("colours", () => colourFindings(project, seen)),
    ...guarded("outlines", () => kindFindings(project, seen.outlines)),
    ...guarded("stages", () => stageFindings(project, seen)),
    ...guarded("layers", () => layersThatDisagree(project)),
    ...guarded("parts", () => [...brokenParts(project), ...partFindings(project)]),
    ...guarded("frame names", () => sameNames(project)),
    ...guarded("clip names", () => nameFindings(project)),
    ...guarded("unused frames", () => unused(project)),
    ...deliveryFindings(project),
    ...guarded("examples", () => unassignedFields(project)),
  ];
  const weight = { error: 0, warning: 1, note: 2 };
  return found.sort((a, b) => weight[a.severity] - weight[b.severity]);
}

/** What stands in its way in the game comes alone: a clip that cannot be shown is not judged by how it moves. */
function clipFindings(project: Project, clip: Clip, { outlines }: SeenArt): Finding[] {
  const broken = brokenClip(project, clip);
  return broken.length > 0
    ? broken
    : [...movementFindings(project, clip), ...markFindings(project, clip), ...outlineFindings(project, clip, outlines)];
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
