/** Copies marks along clips: mirrored to the opposite facing, and into steps that lack a point. */
import { mirrorOf } from "../facing";
import { frameWithMarks, halves, hasMark, marksWith, mirroredMarks, outlinesIn, pointIn, pointPath } from "../marks";
import {
  type Box,
  CaravanError,
  type Clip,
  type ClipName,
  clipNamed,
  counted,
  FACINGS,
  type FrameMarks,
  type FrameRef,
  findFrame,
  frameSize,
  type MarkName,
  type MarkPoint,
  markNamed,
  originOf,
  type PlacedFrame,
  type Project,
  wholePx,
} from "../model";
import { t } from "../words";
import { edit } from "./edit";
import { boxesOf } from "./marks";
import { withFrames } from "./with-frames";

/** The clip that an action shows in the facing on the other side of a clip's own, null if there is none or it is that very clip, mirrored. */
export function clipAcross({ actions }: Pick<Project, "actions">, name: ClipName): ClipName | null {
  for (const { facings } of actions)
    for (const facing of FACINGS) {
      const [own, other] = [facings[facing], facings[mirrorOf(facing)]];
      if (own?.clip === name && !own.mirror && other && other.clip !== name && !other.mirror) return other.clip;
    }
  return null;
}

/**
 * Copies the marks of one kind from a clip to another, step by step and mirrored about each frame's origin. Steps without marks in the
 * first clip stay unchanged in the other. Throws `bad-call` for clips of different length.
 */
export const copyMarksMirrored = edit(
  (_project, name: MarkName, from: ClipName, to: ClipName) => t("copy {name} of {from} to {to}, mirrored", { name, from, to }),
  (project, name, from, to) => {
    markNamed(project, name);
    const [one, other] = [clipNamed(project, from), clipNamed(project, to)];
    if (one.steps.length !== other.steps.length)
      throw new CaravanError(
        "bad-call",
        t('clip "{to}"', { to }),
        t("It has {steps}, and {from} has {others}, so their steps cannot be matched.", {
          steps: counted(other.steps.length, "step"),
          from,
          others: one.steps.length,
        }),
        t("Give them the same number of steps, or mark its frames by hand."),
      );
    const given = new Map<FrameRef, FrameMarks>();
    for (const [k, { frame }] of one.steps.entries()) {
      const [found, target] = [findFrame(project, frame), other.steps[k]?.frame];
      if (found && target !== undefined && hasMark(found.frame.marks, name) && !given.has(target))
        given.set(target, acrossOrigin(found, name));
    }
    return withFrames(project, new Set(given.keys()), ({ source, frame }, ref) => {
      const { x, y } = originOf(source, frame);
      const marks = given.get(ref) as FrameMarks;
      const point = pointIn(marks, name);
      return frameWithMarks(
        frame,
        marksWith(frame.marks, name, {
          boxes: boxesOf({ marks }, name).map((box): Box => ({ ...box, x: wholePx(x + box.x), y: wholePx(y + box.y) })),
          point: point ? { ...point, x: x + point.x, y: y + point.y } : null,
          outlines:
            outlinesIn(marks, name)?.map((polygon) => polygon.map((at) => ({ x: wholePx(x + at.x), y: wholePx(y + at.y) }))) ?? null,
        }),
      );
    });
  },
);

/** A frame's marks of one kind, mirrored, relative to the origin. */
function acrossOrigin({ source, frame }: PlacedFrame, name: MarkName): FrameMarks {
  const { x, y } = originOf(source, frame);
  const { w } = frameSize(source, frame);
  const marks = mirroredMarks(frame.marks ?? {}, w);
  const point = pointIn(marks, name);
  const left = w - x;
  return (
    marksWith(undefined, name, {
      boxes: boxesOf({ marks }, name).map((box) => ({ ...box, x: box.x - left, y: box.y - y })),
      point: point ? { ...point, x: point.x - left, y: point.y - y } : null,
      outlines: outlinesIn(marks, name)?.map((polygon) => polygon.map((at) => ({ x: at.x - left, y: at.y - y }))) ?? null,
    }) ?? {}
  );
}

/**
 * Adds a point to every step of a clip that lacks it: interpolated between the nearest steps with the point, by time, relative to the
 * frames' origins, wrapping around in a looping clip. With the point on one side only, it is copied from there.
 */
export const fillPoint = edit(
  (_project, clip: ClipName, name: MarkName) => t("fill in {name} on {clip}", { name, clip }),
  (project, clipName, name) => {
    markNamed(project, name);
    const clip = clipNamed(project, clipName);
    const own = pointPath(project, clip, name);
    const wanted = new Map<FrameRef, MarkPoint>();
    for (const [step, { frame }] of clip.steps.entries()) {
      const found = own[step] ? null : findFrame(project, frame);
      const point = found && !wanted.has(frame) ? between(own, step, loops(clip)) : null;
      if (found && point) {
        const { x, y } = originOf(found.source, found.frame);
        wanted.set(frame, { ...point, x: halves(point.x + x), y: halves(point.y + y) });
      }
    }
    return withFrames(project, new Set(wanted.keys()), ({ frame }, ref) =>
      frameWithMarks(frame, marksWith(frame.marks, name, { point: wanted.get(ref) as MarkPoint })),
    );
  },
);

function loops({ playback, times }: Clip): boolean {
  return playback === "loop" && times !== 1;
}

/** A place for a step, from the origin; null if no step has the point. */
function between(own: readonly (MarkPoint | null)[], step: number, round: boolean): MarkPoint | null {
  const [before, after] = [nearest(own, step, -1, round), nearest(own, step, 1, round)];
  if (!before || !after) return (before ?? after)?.point ?? null;
  const share = before.apart / (before.apart + after.apart);
  const [a, b] = [before.point, after.point];
  const x = a.x + (b.x - a.x) * share;
  const y = a.y + (b.y - a.y) * share;
  if (a.angle === undefined || b.angle === undefined) return { x, y };
  // The shorter way round.
  const turn = ((((b.angle - a.angle) % 360) + 540) % 360) - 180;
  return { x, y, angle: (halves(a.angle + turn * share) + 360) % 360 };
}

function nearest(
  own: readonly (MarkPoint | null)[],
  step: number,
  way: 1 | -1,
  round: boolean,
): { point: MarkPoint; apart: number } | null {
  for (let apart = 1; apart < own.length; apart++) {
    const at = step + way * apart;
    if (!round && (at < 0 || at >= own.length)) return null;
    const point = own[(at + own.length) % own.length];
    if (point) return { point, apart };
  }
  return null;
}
