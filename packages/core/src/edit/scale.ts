/** Edits the scale of sources, and of the project in the game's world. */
import { scaleInWords } from "../art";
import { halves, scaledMarks } from "../marks";
import {
  CaravanError,
  type Frame,
  type FramePoint,
  isFitCanvas,
  LARGEST_CANVAS,
  type Project,
  type Source,
  type SourceId,
  scaleOf,
  sourceById,
} from "../model";
import { t } from "../words";
import { edit } from "./edit";
import { refuseOfPieces } from "./of-pieces";
import { onCanvas } from "./with-cut";

const LEAST = 0.01;
const MOST = 16;

/**
 * Sets how many project pixels each pixel of a source's art becomes. Origins and marks stay on the drawing: they grow with it, origins and
 * points to the nearest half pixel, boxes to whole ones. Frames that are put together from this source alone grow as a whole, to whole
 * pixels. `from` is an earlier project in which `scaledTogether` had another scale, and nothing else of them was different: numbers are
 * rounded once from that, so that trying out scales loses nothing. Throws `bad-number`.
 */
export const setSourceScale = edit<[id: SourceId, scale: number, from?: Project | undefined]>(
  (project, id, scale) => t("scale {name} {scale}", { name: sourceById(project, id).name, scale: scaleInWords(scale) }),
  (project, id, scale, from = project) => {
    const source = sourceById(project, id);
    refuseOfPieces(source);
    if (scale === scaleOf(source)) return project;
    if (!isScale(scale))
      throw new CaravanError(
        "bad-number",
        source.name,
        t("A scale of {scale} does not work.", { scale }),
        t("Choose one from {least} to {most}.", { least: LEAST, most: MOST }),
      );
    const by = scale / scaleOf(sourceById(from, id));
    const scaled = new Map(
      scaledTogether(from, id).map((each) => [each.id, each.id === id ? scaledTo(each, scale, by) : togetherScaledBy(each, by)]),
    );
    return { ...project, sources: project.sources.map((each) => scaled.get(each.id) ?? each) };
  },
);

/** The sources whose numbers a source's scale changes: itself, and those that are put together from it alone. */
export function scaledTogether({ sources }: Project, id: SourceId): Source[] {
  return sources.filter((each) => each.id === id || isPutTogetherFrom(each, id));
}

function scaledTo({ scale: _before, ...source }: Source, scale: number, by: number): Source {
  return {
    ...source,
    ...(scale === 1 ? {} : { scale }),
    ...(source.origin ? { origin: scaledPoint(source.origin, by) } : {}),
    frames: framesScaledBy(source.frames, by),
  };
}

/** Whether a source can have this scale. */
export function isScale(scale: number): boolean {
  return scale >= LEAST && scale <= MOST;
}

/** Whether all pieces of its frames are of that source. */
function isPutTogetherFrom(source: Source, id: SourceId): boolean {
  const pieces = source.frames.flatMap((frame) => frame.pieces ?? []);
  return pieces.length > 0 && pieces.every(({ of }) => of.startsWith(`${id}/`));
}

function togetherScaledBy(source: Source, by: number): Source {
  if (by === 1) return source;
  const whole = (length: number) => Math.round(length * by) + 0;
  const frames = framesScaledBy(source.frames, by).map((frame): Frame => {
    const { w, h } = frame.size ?? frame.rect;
    const size = { w: Math.max(1, whole(w)), h: Math.max(1, whole(h)) };
    if (!isFitCanvas(size))
      throw new CaravanError(
        "bad-number",
        source.name,
        t("Its frames are put together from this source and would become {w} × {h} px.", size),
        t("Choose a scale at which they are at most {most} px.", { most: LARGEST_CANVAS }),
      );
    const pieces = frame.pieces?.map((piece) => ({ ...piece, x: onCanvas(whole(piece.x)), y: onCanvas(whole(piece.y)) }));
    return { ...frame, size, rect: { x: 0, y: 0, ...size }, ...(pieces ? { pieces } : {}) };
  });
  return { ...source, ...(source.origin ? { origin: scaledPoint(source.origin, by) } : {}), frames };
}

/** Frames with origins and marks converted to another scale. */
export function framesScaledBy(frames: readonly Frame[], by: number): Frame[] {
  if (by === 1) return frames as Frame[];
  return frames.map((frame): Frame => {
    if (!frame.origin && !frame.marks) return frame;
    return {
      ...frame,
      ...(frame.origin ? { origin: scaledPoint(frame.origin, by) } : {}),
      ...(frame.marks ? { marks: scaledMarks(frame.marks, by, halves) } : {}),
    };
  });
}

/** An origin at another scale, to the nearest half pixel. */
export function scaledPoint({ x, y }: FramePoint, by: number): FramePoint {
  return { x: halves(x * by), y: halves(y * by) };
}

/** Sets how many project pixels are one unit of the game's world; null where nothing says so. Throws `bad-number`. */
export const setPixelsPerUnit = edit(
  (_project, pixels: number | null) => (pixels === null ? t("remove pixels per unit") : t("set {pixels} pixels per unit", { pixels })),
  (project, pixels): Project => {
    const { pixelsPerUnit: before, ...rest } = project;
    if ((before ?? null) === pixels) return project;
    if (pixels === null) return rest;
    if (!(pixels > 0 && pixels <= 100_000))
      throw new CaravanError(
        "bad-number",
        t("Pixels per unit"),
        t("{pixels} does not work.", { pixels }),
        t("Choose a number above 0, up to 100,000."),
      );
    return { ...rest, pixelsPerUnit: pixels };
  },
);
