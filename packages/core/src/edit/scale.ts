/** Edits the scale of sources, and of the project in the game's world. */
import { scaleInWords } from "../art";
import { halves, scaledMarks } from "../marks";
import { CaravanError, type Frame, type FramePoint, type Project, type SourceId, scaleOf, sourceById } from "../model";
import { t } from "../words";
import { edit } from "./edit";
import { refuseOfPieces } from "./of-pieces";
import { withSource } from "./with-source";

const LEAST = 0.01;
const MOST = 16;

/**
 * Sets how many project pixels each pixel of a source's art becomes. Origins and marks stay on the drawing: they grow with it, origins and
 * points to the nearest half pixel, boxes to whole ones. Throws `bad-number`.
 */
export const setSourceScale = edit(
  (project, id: SourceId, scale: number) => t("scale {name} {scale}", { name: sourceById(project, id).name, scale: scaleInWords(scale) }),
  (project, id, scale) => {
    const { scale: _before, ...source } = sourceById(project, id);
    refuseOfPieces(source);
    const before = scaleOf(sourceById(project, id));
    if (scale === before) return project;
    if (!(scale >= LEAST && scale <= MOST))
      throw new CaravanError(
        "bad-number",
        source.name,
        t("A scale of {scale} does not work.", { scale }),
        t("Choose one from {least} to {most}.", { least: LEAST, most: MOST }),
      );
    const by = scale / before;
    return withSource(project, {
      ...source,
      ...(scale === 1 ? {} : { scale }),
      ...(source.origin ? { origin: scaledPoint(source.origin, by) } : {}),
      frames: framesScaledBy(source.frames, by),
    });
  },
);

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
