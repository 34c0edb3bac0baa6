/** Transforms the boxes, points and outlines of a frame when it is moved within its size, mirrored or scaled. Pure. */
import {
  type Box,
  type Frame,
  type FrameMarks,
  type FramePoint,
  type MarkName,
  type MarkPoint,
  type MarkShape,
  type Outline,
  ownOf,
  wholePx,
} from "../model";
import { hullOf, isSimple, withoutIdle } from "../outline";

/** Every mark moved by whole pixels, as the picture is when room is added around it. */
export function shiftedMarks(marks: FrameMarks, { x, y }: FramePoint): FrameMarks {
  if (x === 0 && y === 0) return marks;
  return mapped(marks, {
    box: (box) => ({ ...box, x: box.x + x, y: box.y + y }),
    point: (point) => ({ ...point, x: point.x + x, y: point.y + y }),
    outline: (polygon) => polygon.map((corner) => ({ x: corner.x + x, y: corner.y + y })),
  });
}

/** As the mirror picture of a frame `width` pixels wide has them. Twice is nothing. */
export function mirroredMarks(marks: FrameMarks, width: number): FrameMarks {
  return mapped(marks, {
    box: (box) => ({ ...box, x: width - box.x - box.w }),
    point: ({ x, y, angle }) => ({ x: width - x, y, ...(angle === undefined ? {} : { angle: mirroredAngle(angle) }) }),
    // Reversed, so that it is clockwise again.
    outline: (polygon) => polygon.map(({ x, y }) => ({ x: width - x, y })).reverse(),
  });
}

/**
 * At another size: boxes by their edges to the nearest whole pixels and never empty, points by `rounding`, usually to a thousandth, corners of
 * outlines to whole pixels. An outline that would not be simple then becomes the smallest one without dents around its corners.
 */
export function scaledMarks(marks: FrameMarks, scale: number, rounding = thousandths): FrameMarks {
  if (scale === 1) return marks;
  const edges = (from: number, length: number) => {
    const start = wholePx(from * scale);
    return [start, Math.max(1, Math.round((from + length) * scale) - start)] as const;
  };
  return mapped(marks, {
    box: (box) => {
      const [x, w] = edges(box.x, box.w);
      const [y, h] = edges(box.y, box.h);
      return { x, y, w, h };
    },
    point: (point) => ({ ...point, x: rounding(point.x * scale), y: rounding(point.y * scale) }),
    outline: (polygon) => tidied(polygon.map(({ x, y }) => ({ x: wholePx(x * scale), y: wholePx(y * scale) }))),
  });
}

/** Which way an angle points in the mirror. Degrees, 0 up to 360. */
export function mirroredAngle(angle: number): number {
  return (540 - angle) % 360;
}

/** Without redundant corners; a polygon that is not simple, or has no area, is replaced by its bounding shape. */
function tidied(polygon: Outline): Outline {
  const corners = withoutIdle(polygon);
  if (isSimple(corners)) return corners;
  const around = hullOf(polygon);
  if (around.length >= 3) return around;
  const [x, y] = [Math.min(...polygon.map((each) => each.x)), Math.min(...polygon.map((each) => each.y))];
  const [right, bottom] = [Math.max(x + 1, ...polygon.map((each) => each.x)), Math.max(y + 1, ...polygon.map((each) => each.y))];
  return [
    { x, y },
    { x: right, y },
    { x: right, y: bottom },
    { x, y: bottom },
  ];
}

function thousandths(value: number): number {
  return Math.round(value * 1000) / 1000 + 0;
}

/** The boxes of a kind, also of one that is called as something every object has. */
export function boxesIn(marks: FrameMarks | undefined, name: MarkName): readonly Box[] {
  return ownOf(marks?.boxes, name) ?? [];
}

/** The point of a kind, undefined if there is none. */
export function pointIn(marks: FrameMarks | undefined, name: MarkName): MarkPoint | undefined {
  return ownOf(marks?.points, name);
}

/** A frame's own outlines of a kind; undefined if it has none of its own, an empty list if a person removed them. */
export function outlinesIn(marks: FrameMarks | undefined, name: MarkName): readonly Outline[] | undefined {
  return ownOf(marks?.outlines, name);
}

/** Whether the frame has a box, a point or its own outline of this kind; names are unique across shapes. */
export function hasMark(marks: FrameMarks | undefined, name: MarkName): boolean {
  return boxesIn(marks, name).length > 0 || pointIn(marks, name) !== undefined || outlinesIn(marks, name) !== undefined;
}

/** The frame with these marks; without the field if there are none. The same object if they are equal. */
export function frameWithMarks(frame: Frame, marks: FrameMarks | undefined): Frame {
  if (marks === frame.marks) return frame;
  const { marks: _before, ...rest } = frame;
  return marks ? { ...rest, marks } : rest;
}

/** Without those of one kind; undefined when none are left. */
export function marksWithout(marks: FrameMarks | undefined, name: MarkName): FrameMarks | undefined {
  return marksWith(marks, name, { boxes: [], point: null, outlines: null });
}

/**
 * The marks with those of one kind replaced: no boxes and no point mean none, no outlines mean none of its own. The same object if they are
 * equal.
 */
export function marksWith(
  marks: FrameMarks | undefined,
  name: MarkName,
  given: { readonly boxes?: readonly Box[]; readonly point?: MarkPoint | null; readonly outlines?: readonly Outline[] | null },
): FrameMarks | undefined {
  const same =
    (given.boxes === undefined || sameBoxes(boxesIn(marks, name), given.boxes)) &&
    (given.point === undefined || samePoint(pointIn(marks, name), given.point)) &&
    (given.outlines === undefined || JSON.stringify(outlinesIn(marks, name) ?? null) === JSON.stringify(given.outlines));
  if (same) return marks;
  const boxes = { ...marks?.boxes };
  const points = { ...marks?.points };
  const outlines = { ...marks?.outlines };
  if (given.boxes) {
    delete boxes[name];
    if (given.boxes.length > 0) boxes[name] = [...given.boxes];
  }
  if (given.point !== undefined) {
    delete points[name];
    if (given.point) points[name] = given.point;
  }
  if (given.outlines !== undefined) {
    delete outlines[name];
    if (given.outlines) outlines[name] = given.outlines.map((polygon) => [...polygon]);
  }
  const next: FrameMarks = {
    ...(Object.keys(boxes).length > 0 ? { boxes } : {}),
    ...(Object.keys(points).length > 0 ? { points } : {}),
    ...(Object.keys(outlines).length > 0 ? { outlines } : {}),
  };
  return next.boxes || next.points || next.outlines ? next : undefined;
}

function sameBoxes(a: readonly Box[], b: readonly Box[]): boolean {
  return a.length === b.length && a.every(({ x, y, w, h }, k) => x === b[k]?.x && y === b[k]?.y && w === b[k]?.w && h === b[k]?.h);
}

function samePoint(a: MarkPoint | undefined, b: MarkPoint | null): boolean {
  return a?.x === b?.x && a?.y === b?.y && a?.angle === b?.angle;
}

/** What one mark of each shape is. */
interface Marks {
  box: Box;
  point: MarkPoint;
  outline: Outline;
}
type Changes = { readonly [Shape in MarkShape]: (mark: Marks[Shape]) => Marks[Shape] };

function mapped(marks: FrameMarks, { box, point, outline }: Changes): FrameMarks {
  const next: FrameMarks = {};
  if (marks.boxes) next.boxes = mapValues(marks.boxes, (boxes) => boxes.map(box));
  if (marks.points) next.points = mapValues(marks.points, point);
  if (marks.outlines) next.outlines = mapValues(marks.outlines, (polygons) => polygons.map(outline));
  return next;
}

function mapValues<Value>(record: Record<MarkName, Value>, change: (value: Value) => Value): Record<MarkName, Value> {
  return Object.fromEntries(Object.entries(record).map(([name, value]) => [name, change(value as Value)])) as Record<MarkName, Value>;
}
