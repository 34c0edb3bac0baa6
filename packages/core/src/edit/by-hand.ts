/** Edits rectangles that a person draws: move, resize, duplicate, make equal. */
import { withAnchoredFrames } from "../marks";
import {
  CaravanError,
  counted,
  drawnSize,
  encloses,
  type Frame,
  type FrameRef,
  frameRef,
  originOf,
  type Project,
  type Rect,
  type Source,
  type SourceId,
  scaleOf,
  sheetOf,
  sourceById,
} from "../model";
import { t } from "../words";
import { edit } from "./edit";
import { withCut } from "./with-cut";
import { withSource } from "./with-source";

/** Adds rectangles as frames at the end of the tray. The source is cut by hand from then on; what it was cut into stays. */
export const drawFrames = edit(
  (project, id: SourceId, rects: readonly Rect[]) =>
    t("draw {frames} on {name}", { frames: counted(rects.length, "frame"), name: sourceById(project, id).name }),
  (project, id, rects) => {
    if (rects.length === 0) return project;
    const source = sourceById(project, id);
    for (const rect of rects) refuseOutside(source, rect);
    let next = source.frames.reduce((most, { key }) => Math.max(most, /^[ihmp]/.test(key) ? Number(key.slice(1)) : -1), -1) + 1;
    let number = source.frames.reduce((most, frame) => Math.max(most, frame.number), -1) + 1;
    const row = source.frames.reduce((most, frame) => Math.max(most, frame.row), 0);
    const column = source.frames.filter((frame) => frame.row === row).length;
    const drawn = rects.map((rect, k): Frame => ({ key: `h${next++}`, column: column + k, row, number: number++, rect }));
    return withSource(project, { ...source, cut: { by: "hand" }, frames: [...source.frames, ...drawn] });
  },
);

/** Moves or resizes frames. Their names, clips and places in the tray stay, origins and marks at their pixels. Throws `bad-number` if one would leave the picture. */
export const placeFrames = edit(
  (_project, rects: ReadonlyMap<FrameRef, Rect>) => t("move {frames}", { frames: counted(rects.size, "frame") }),
  (project, rects) =>
    project.sources.reduce((next: Project, source) => {
      let touched = false;
      const frames = source.frames.map((frame) => {
        const rect = rects.get(frameRef(source, frame));
        if (!rect || (rect.x === frame.rect.x && rect.y === frame.rect.y && rect.w === frame.rect.w && rect.h === frame.rect.h))
          return frame;
        refuseOutside(source, rect);
        touched = true;
        const sameSize = rect.w === frame.rect.w && rect.h === frame.rect.h;
        const { size: _size, inset: _inset, ...plain } = frame;
        // A frame of another size loses its padding.
        return sameSize ? { ...frame, rect } : { ...plain, rect };
      });
      return touched ? withCut(next, { ...withAnchoredFrames(source, frames), cut: { by: "hand" } }) : next;
    }, project),
);

function refuseOutside(source: Source, rect: Rect): void {
  const { width, height } = sheetOf(source);
  if (rect.w < 1 || rect.h < 1 || !encloses({ x: 0, y: 0, w: width, h: height }, rect))
    throw new CaravanError(
      "bad-number",
      source.name,
      t("A rectangle at {x}, {y} of {w} × {h} px does not lie on its {width} × {height} px picture.", {
        x: rect.x,
        y: rect.y,
        w: rect.w,
        h: rect.h,
        width,
        height,
      }),
      t("Keep it inside."),
    );
}

/** Where frames meet when they are made equal in size. */
export type Meeting = "feet" | "middle" | "origin";

/**
 * Pads frames to one size, without touching a pixel: feet on one line, middle on middle, or origin on origin. Origins and marks that a
 * person has set stay at their pixels.
 */
export const makeEqual = edit(
  (_project, refs: readonly FrameRef[], meeting: Meeting) =>
    t("make {frames} equal, {meeting} on {meeting}", { frames: counted(refs.length, "frame"), meeting }),
  (project, refs, meeting) => {
    const wanted = new Set(refs);
    const chosen = project.sources.flatMap((source) =>
      source.frames
        // An assembled frame already has its canvas.
        .filter((frame) => !frame.pieces && wanted.has(frameRef(source, frame)))
        .map((frame) => ({ source, frame, box: boxOf(source, frame, meeting) })),
    );
    if (chosen.length === 0) return project;
    const reach = { left: 0, right: 0, up: 0, down: 0 };
    for (const { box } of chosen) {
      reach.left = Math.max(reach.left, box.left);
      reach.right = Math.max(reach.right, box.right);
      reach.up = Math.max(reach.up, box.up);
      reach.down = Math.max(reach.down, box.down);
    }
    const size = { w: reach.left + reach.right, h: reach.up + reach.down };
    const byRef = new Map(chosen.map(({ source, frame, box }) => [frameRef(source, frame), { frame, box }]));
    return project.sources.reduce((next: Project, source) => {
      if (!source.frames.some((frame) => byRef.has(frameRef(source, frame)))) return next;
      const frames = source.frames.map((frame): Frame => {
        const found = byRef.get(frameRef(source, frame));
        if (!found) return frame;
        const { size: _size, inset: _inset, ...plain } = frame;
        const inset = { x: reach.left - found.box.left, y: reach.up - found.box.up };
        const same = size.w === found.box.left + found.box.right && size.h === found.box.up + found.box.down;
        const padded = same && inset.x === 0 && inset.y === 0 ? {} : { size, inset };
        return { ...plain, ...padded };
      });
      return withCut(next, withAnchoredFrames(source, frames));
    }, project);
  },
);

/** How far a frame's own pixels reach from the meeting point: whole pixels, so that nothing is drawn between two. */
function boxOf(source: Source, frame: Frame, meeting: Meeting): { left: number; right: number; up: number; down: number } {
  const { w, h } = drawnSize({ ...frame, size: undefined });
  if (meeting === "origin") {
    const origin = originOf(source, frame);
    const inset = frame.inset ?? { x: 0, y: 0 };
    const x = Math.floor(origin.x / scaleOf(source) - inset.x);
    const y = Math.floor(origin.y / scaleOf(source) - inset.y);
    const left = Math.max(0, x);
    const up = Math.max(0, y);
    return { left, right: Math.max(w - x, 0), up, down: Math.max(h - y, 0) };
  }
  const left = Math.floor(w / 2);
  const up = meeting === "feet" ? h : Math.floor(h / 2);
  return { left, right: w - left, up, down: h - up };
}

/** Removes hand-drawn frames permanently; clips that show them report it. */
export const removeFrames = edit(
  (_project, refs: readonly FrameRef[]) => t("remove {frames}", { frames: counted(refs.length, "frame") }),
  (project, refs) => {
    const gone = new Set(refs);
    return project.sources.reduce((next: Project, source) => {
      const frames = source.frames.filter((frame) => !gone.has(frameRef(source, frame)));
      return frames.length === source.frames.length ? next : withSource(next, { ...source, frames });
    }, project);
  },
);
