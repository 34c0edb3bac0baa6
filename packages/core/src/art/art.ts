/** The art of a project for whoever needs exact pixels: pictures as they are seen, and frames as the game sees them. */
import { CaravanError, type Frame, type Picture, pictureOf, type Rect, type Source, scaleOf } from "../model";
import { coverageOf, type Pixels } from "../raster";
import { assembledLook } from "./assembled";
import { type Drawn, drawnIn, type FramePlace, framePixels } from "./frame-art";
import { asSeen, frameLook, isOfPicture, type Look, lookOf, type PictureLook, type Stock } from "./look";

export interface Art {
  /** One of a source's pictures as it is seen there, in the colours it is drawn in. Throws `missing-picture`. */
  picture(source: Pick<Source, "clearing">, picture: Pick<Picture, "sha256" | "file">): Pixels;
  /** A frame upright, untrimmed, in project pixels, as a part of a picture: that which it is on, where nothing has to be done to it. */
  frame(
    source: Pick<Source, "pictures" | "clearing" | "palette" | "scale">,
    frame: FramePlace & Pick<Frame, "picture" | "pieces">,
  ): PartOfPicture;
  /** What is drawn in a frame. */
  drawn(source: Pick<Source, "pictures" | "clearing" | "palette" | "scale">, frame: FramePlace & Pick<Frame, "picture" | "pieces">): Drawn;
}

export interface PartOfPicture {
  readonly pixels: Pixels;
  readonly rect: Rect;
}

/**
 * `decoded` are the pictures' pixels as they are in their files, by hash; it may grow later. Each is treated once, when it is first asked
 * for, however many frames are on it; so is each canvas of pieces, which are looked up in `stock`.
 */
export function artFrom(decoded: ReadonlyMap<string, Pixels>, stock: Stock): Art {
  const seen = new Map<Look, Pixels>();
  const fileOf = (sha256: string) =>
    stock.sources.flatMap(({ pictures }) => pictures).find((each) => each.sha256 === sha256)?.file ?? "a picture";
  const kept = <Each extends Look>(look: Each, make: () => Pixels): Pixels => {
    const before = seen.get(look);
    if (before) return before;
    const pixels = make();
    seen.set(look, pixels);
    return pixels;
  };
  const seenPicture = (look: PictureLook, file?: string): Pixels =>
    kept(look, () => {
      const raw = decoded.get(look.sha256);
      if (raw) return asSeen(raw, look);
      throw new CaravanError(
        "missing-picture",
        file ?? fileOf(look.sha256),
        "The picture of this source is not there.",
        "Put it back and deliver again.",
      );
    });
  const lookedAt = (look: Look, file?: string): Pixels =>
    isOfPicture(look) ? seenPicture(look, file) : kept(look, () => assembledLook(look, seenPicture));
  const wholeOf: (...of: Parameters<Art["frame"]>) => Pixels = (source, frame) =>
    lookedAt(frameLook(stock, source, frame), frame.pieces ? undefined : pictureOf(source, frame).file);
  return {
    picture: (source, { sha256, file }) => seenPicture(lookOf(source, { sha256 }), file),
    frame(source, frame) {
      const whole = wholeOf(source, frame);
      if (frame.pieces || (!frame.size && !frame.turned && scaleOf(source) === 1)) return { pixels: whole, rect: frame.rect };
      const pixels = framePixels(whole, source, frame);
      return { pixels, rect: { x: 0, y: 0, w: pixels.width, h: pixels.height } };
    },
    drawn: (source, frame) => drawnIn(coverageOf(wholeOf(source, frame)), source, frame),
  };
}
