import { dropFrames } from "../edit";
import { type Clip, type ClipName, clipsByFrame, counted, type FrameRef, frameRef, keptFrames, type Project } from "../model";
import { t } from "../words";
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
import { stageReferences } from "./stage-references";
import { brokenClip, nothingCut, sameNames, unassignedFields } from "./stopping";

/**
 * Lists all findings, errors first, otherwise in document order. `seen` is what is known about the art; `edited` is the clip that was
 * changed last, whose times are offered where facings differ. Cost: O(frames + steps).
 */
export function findingsOf(project: Project, seen: SeenArt = NOTHING_SEEN, edited: ClipName | null = null): Finding[] {
  const looking = lookingFor(project, seen, edited);
  for (;;) {
    const { done, value } = looking.next();
    if (done) return value;
  }
}

/** Like `findingsOf`, but a little at a time: the caller may continue later, or never. */
export function* lookingFor(project: Project, seen: SeenArt, edited: ClipName | null): Generator<void, Finding[]> {
  const found: Finding[] = [];
  for (const [where, find] of looksAt(project, seen, edited)) {
    found.push(...guarded(where, find));
    yield;
  }
  const weight = { error: 0, warning: 1, note: 2 };
  return found.sort((a, b) => weight[a.severity] - weight[b.severity]);
}

/** What is checked, in document order. */
function* looksAt(project: Project, seen: SeenArt, edited: ClipName | null): Generator<[where: string, find: () => Finding[]]> {
  yield [t("what is cut"), () => nothingCut(project)];
  yield [t("art"), () => artFindings(project, seen)];
  for (const clip of project.clips) yield [t('clip "{name}"', { name: clip.name }), () => clipFindings(project, clip, seen)];
  yield [t("actions"), () => actionFindings(project, edited)];
  yield [t("behaviours"), () => behaviourFindings(project)];
  yield [t("pieces"), () => pieceFindings(project)];
  yield [t("colours"), () => colourFindings(project, seen)];
  yield [t("outlines"), () => kindFindings(project, seen.outlines)];
  yield [t("stages"), () => [...stageReferences(project), ...stageFindings(project, seen)]];
  yield [t("layers"), () => layersThatDisagree(project)];
  yield [t("parts"), () => [...brokenParts(project), ...partFindings(project)]];
  yield [t("frame names"), () => sameNames(project)];
  yield [t("clip names"), () => nameFindings(project)];
  yield [t("unused frames"), () => unused(project)];
  yield [t("deliveries"), () => deliveryFindings(project)];
  yield [t("examples"), () => unassignedFields(project)];
}

/** A finding that stops a clip is reported alone: a clip that cannot show is not judged by its movement. */
function clipFindings(project: Project, clip: Clip, { outlines }: SeenArt): Finding[] {
  const { sources, marks } = project;
  const known = judged.get(clip);
  if (known && known.sources === sources && known.marks === marks && known.outlines === outlines) return known.findings;
  const broken = brokenClip(project, clip);
  const findings =
    broken.length > 0
      ? broken
      : [...movementFindings(project, clip), ...markFindings(project, clip), ...outlineFindings(project, clip, outlines)];
  judged.set(clip, { sources, marks, outlines, findings });
  return findings;
}

interface Judged extends Pick<Project, "sources" | "marks">, Pick<SeenArt, "outlines"> {
  readonly findings: Finding[];
}

/** Findings on clips, cached by everything that they depend on. */
const judged = new WeakMap<Clip, Judged>();

/** The deliveries that contain frames in no clip. */
function whoTakesThem({ deliveries }: Project): string {
  const taking = deliveries.filter(({ choice, kind }) => choice.of === "all" && kind !== "strips" && kind !== "films");
  if (taking.length === 0) return t(", and no delivery contains them");
  const names = taking.map(({ name }) => name).join(", ");
  return deliveries.length === taking.length
    ? t(". They are delivered anyway")
    : taking.length === 1
      ? t(". Of the deliveries, {names} takes them anyway", { names })
      : t(". Of the deliveries, {names} take them anyway", { names });
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
      where: t("project"),
      message: t("{frames} in no clip{whoTakesThem}.", {
        frames: counted(idle.length, "frame is", "frames are"),
        whoTakesThem: whoTakesThem(project),
      }),
      place: { stop: "frames", frame: idle[0] as FrameRef },
      mend: { label: t("Drop them"), apply: (current) => dropFrames(current, idle) },
    },
  ];
}
