/** Edits boxes, points and outlines of one frame or of many. */
import {
  boxesIn,
  carriedBox,
  carriedOutline,
  carriedPoint,
  changedBox,
  frameWithMarks,
  marksWith,
  marksWithout,
  outlinesIn,
  pointIn,
} from "../marks";
import {
  type Box,
  CaravanError,
  type Frame,
  type FrameMarks,
  type FramePoint,
  type FrameRef,
  findFrame,
  frameName,
  type MarkName,
  type MarkPoint,
  markNamed,
  type PlacedFrame,
  type Project,
} from "../model";
import { t } from "../words";
import { edit } from "./edit";
import { withFrames } from "./with-frames";

/** Adds a box that was drawn on the frame `at` to all of `refs`, each at the same place from its origin. Throws `bad-number`. */
export const addBox = edit(
  (_project, of: string, _refs: readonly FrameRef[], name: MarkName, _at: FrameRef, _box: Box) => t("draw {name} on {of}", { name, of }),
  (project, _of, refs, name, at, box) => {
    refuseOtherShape(project, name, "box");
    const from = placedFrame(project, at);
    return onFrames(project, refs, ({ frame, ...rest }) =>
      marksWith(frame.marks, name, { boxes: [...boxesOf(frame, name), checkedBox(carriedBox(box, from, { frame, ...rest }))] }),
    );
  },
);

/** Moves and resizes the box number `index` of each frame that has it, by the same amounts. It keeps at least one pixel. */
export const changeBox = edit(
  (_project, of: string, _refs: readonly FrameRef[], name: MarkName, _index: number, by: Partial<Box>) =>
    by.w || by.h ? t("resize {name} of {of}", { name, of }) : t("move {name} of {of}", { name, of }),
  (project, _of, refs, name, index, by) => {
    if (!by.x && !by.y && !by.w && !by.h) return project;
    return onFrames(project, refs, ({ frame }) => {
      const boxes = boxesOf(frame, name);
      if (!boxes[index]) return frame.marks;
      return marksWith(frame.marks, name, { boxes: boxes.map((box, k) => (k === index ? checkedBox(changedBox(box, by)) : box)) });
    });
  },
);

/** Removes the box at `index` from each frame that has it. */
export const removeBox = edit(
  (_project, of: string, _refs: readonly FrameRef[], name: MarkName, _index: number) => t("remove {name} from {of}", { name, of }),
  (project, _of, refs, name, index) =>
    onFrames(project, refs, ({ frame }) => {
      const boxes = boxesOf(frame, name);
      return boxes[index] ? marksWith(frame.marks, name, { boxes: boxes.filter((_, k) => k !== index) }) : frame.marks;
    }),
);

/** Gives each frame just these boxes of the kind. */
export const setBoxes = edit(
  (_project, of: string, name: MarkName, _boxes: ReadonlyMap<FrameRef, readonly Box[]>) => t("set {name} of {of}", { name, of }),
  (project, _of, name, boxes) => {
    refuseOtherShape(project, name, "box");
    return onFrames(project, [...boxes.keys()], ({ frame }, ref) =>
      marksWith(frame.marks, name, { boxes: (boxes.get(ref) as readonly Box[]).map(checkedBox) }),
    );
  },
);

/**
 * Puts the point of the frame `at`. Other frames of `refs` that have one move it by the same amount; those that have none get it at
 * the same place from their origin, pointing the same way. Angles of those that have one stay. Throws `bad-number`.
 */
export const putPoint = edit(
  (_project, of: string, _refs: readonly FrameRef[], name: MarkName, _at: FrameRef, _point: FramePoint) =>
    t("put {name} on {of}", { name, of }),
  (project, _of, refs, name, at, point) => {
    refuseOtherShape(project, name, "point");
    const from = placedFrame(project, at);
    const before = pointIn(from.frame.marks, name);
    return onFrames(project, refs, (placed) => {
      const own = pointIn(placed.frame.marks, name);
      const put = { ...before, x: point.x, y: point.y };
      const moved =
        own && before ? { ...own, x: own.x + point.x - before.x, y: own.y + point.y - before.y } : carriedPoint(put, from, placed);
      return marksWith(placed.frame.marks, name, { point: checkedPoint(placed.frame === from.frame ? put : moved) });
    });
  },
);

/**
 * Sets the angle of the point on frame `at`, in degrees clockwise from the right; null removes it. Points with an angle on the other `refs`
 * turn by the same amount; points without one get this angle. Frames without the point stay unchanged. Throws `bad-number`.
 */
export const turnPoint = edit(
  (_project, of: string, _refs: readonly FrameRef[], name: MarkName, _at: FrameRef, angle: number | null) =>
    angle === null ? t("remove the angle of {name} from {of}", { name, of }) : t("rotate {name} on {of}", { name, of }),
  (project, _of, refs, name, at, angle) => {
    if (angle !== null && !Number.isInteger(angle * 2))
      throw new CaravanError("bad-number", t("angle"), t("An angle is in whole or half degrees."), t("Type a number such as 90 or 22.5."));
    const before = pointIn(placedFrame(project, at).frame.marks, name)?.angle;
    return onFrames(project, refs, ({ frame }, ref) => {
      const own = pointIn(frame.marks, name);
      if (!own) return frame.marks;
      const { angle: since, ...bare } = own;
      if (angle === null) return marksWith(frame.marks, name, { point: bare });
      const next = ref !== at && since !== undefined && before !== undefined ? since + angle - before : angle;
      return marksWith(frame.marks, name, { point: { ...bare, angle: ((next % 360) + 360) % 360 } });
    });
  },
);

/** Gives all of `refs` what the frame `from` has of a kind, at the same place from their origins, in the place of what they had. */
export const copyMarks = edit(
  (project, of: string, _refs: readonly FrameRef[], name: MarkName, from: FrameRef) => {
    const { source, frame } = placedFrame(project, from);
    return t("copy {name} of {frame} to {of}", { name, frame: frameName(source, frame), of });
  },
  (project, _of, refs, name, ref) => {
    const from = placedFrame(project, ref);
    const boxes = boxesOf(from.frame, name);
    const point = pointIn(from.frame.marks, name);
    const outlines = outlinesIn(from.frame.marks, name);
    return onFrames(project, refs, (placed) =>
      placed.frame === from.frame
        ? placed.frame.marks
        : marksWith(placed.frame.marks, name, {
            boxes: boxes.map((box) => checkedBox(carriedBox(box, from, placed))),
            point: point ? checkedPoint(carriedPoint(point, from, placed)) : null,
            outlines: outlines ? outlines.map((each) => carriedOutline(each, from, placed)) : null,
          }),
    );
  },
);

/** Removes all marks of a kind from the frames. */
export const clearMarks = edit(
  (_project, of: string, _refs: readonly FrameRef[], name: MarkName) => t("remove all {name} from {of}", { name, of }),
  (project, _of, refs, name) => onFrames(project, refs, ({ frame }) => marksWithout(frame.marks, name)),
);

/** A frame's boxes of a kind; none is an empty list. */
export function boxesOf({ marks }: Pick<Frame, "marks">, name: MarkName): readonly Box[] {
  return boxesIn(marks, name);
}

function onFrames(
  project: Project,
  refs: readonly FrameRef[],
  marksOf: (placed: PlacedFrame, ref: FrameRef) => FrameMarks | undefined,
): Project {
  return withFrames(project, new Set(refs), (placed, ref) => frameWithMarks(placed.frame, marksOf(placed, ref)));
}

/** Throws `not-found` for a name that is not of such a kind. */
function refuseOtherShape(project: Project, name: MarkName, shape: "box" | "point"): void {
  if (markNamed(project, name).shape === shape) return;
  if (shape === "box") throw new CaravanError("not-found", name, t("These are no boxes."), t("Choose boxes."));
  throw new CaravanError("not-found", name, t("These are no points."), t("Choose points."));
}

function placedFrame(project: Project, ref: FrameRef): PlacedFrame {
  const found = findFrame(project, ref);
  if (!found) throw new CaravanError("missing-frame", ref, t("This frame no longer exists."), t("Choose another step."));
  return found;
}

/** No frame is larger; anything further out is a slip. */
const FURTHEST = 32_768; // px

function checkedBox(box: Box): Box {
  if (![box.x, box.y, box.w, box.h].every((each) => Number.isInteger(each) && Math.abs(each) <= FURTHEST) || box.w < 1 || box.h < 1)
    throw new CaravanError(
      "bad-number",
      t("box"),
      t("A box is in whole pixels, at least 1 px wide and high."),
      t("Type a number such as 12."),
    );
  return box;
}

function checkedPoint(point: MarkPoint): MarkPoint {
  if (![point.x, point.y].every((each) => Number.isInteger(each * 2) && Math.abs(each) <= FURTHEST))
    throw new CaravanError("bad-number", t("point"), t("A point is in whole or half pixels."), t("Type a number such as 16 or 15.5."));
  return point;
}
