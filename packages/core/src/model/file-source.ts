/**
 * Converts sources to and from their form in files. There, an assembled frame has a size and pieces but no rectangle, because it lies on no
 * picture.
 */
import * as z from "zod";
import { Rect } from "./geometry";
import { Frame, isOfPieces, Source } from "./source";

const FileFrame = Frame.extend({
  rect: Rect.optional().describe("Its rectangle on its picture, as stored; absent for an assembled frame."),
}).refine(
  ({ rect, pieces, size }) => rect !== undefined || (pieces !== undefined && size !== undefined),
  "It needs a rectangle, or pieces and a size.",
);

export const FileSource = Source.extend({ frames: z.array(FileFrame).describe("In the order of the tray.") });
export type FileSource = z.infer<typeof FileSource>;

/** Sources of cut frames are the same in both. */
export function sourceToFile(source: Source): FileSource {
  if (!isOfPieces(source)) return source;
  return { ...source, frames: source.frames.map(({ rect: _rect, ...rest }) => rest) };
}

export function sourceFromFile(source: FileSource): Source {
  if (source.frames.every(({ rect }) => rect !== undefined)) return source as Source;
  return {
    ...source,
    frames: source.frames.map((frame): Frame => {
      const { w, h } = frame.size ?? { w: 1, h: 1 };
      return { ...frame, rect: frame.rect ?? { x: 0, y: 0, w, h } };
    }),
  };
}
