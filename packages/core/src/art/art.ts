/** The art of a project for whoever needs exact pixels: pictures as they are seen, and frames as the game sees them. */
import { CaravanError, type Frame, type Picture, pictureOf, type Rect, type Source, scaleOf } from "../model";
import type { Pixels } from "../raster";
import { type FramePlace, framePixels } from "./frame-art";
import { asSeen, type Look, lookOf } from "./look";

export interface Art {
  /** One of a source's pictures as it is seen there. Throws `missing-picture`. */
  picture(source: Pick<Source, "clearing">, picture: Pick<Picture, "sha256" | "file">): Pixels;
  /** A frame upright, untrimmed, in project pixels, as a part of a picture: that which it is on, where nothing has to be done to it. */
  frame(source: Pick<Source, "pictures" | "clearing" | "scale">, frame: FramePlace & Pick<Frame, "picture">): PartOfPicture;
}

export interface PartOfPicture {
  readonly pixels: Pixels;
  readonly rect: Rect;
}

/**
 * `decoded` are the pictures' pixels as they are in their files, by hash; it may grow later. Each is treated once, when it is first asked
 * for, however many frames are on it.
 */
export function artFrom(decoded: ReadonlyMap<string, Pixels>): Art {
  const seen = new Map<Look, Pixels>();
  const picture: Art["picture"] = (source, { sha256, file }) => {
    const look = lookOf(source, { sha256 });
    const known = seen.get(look);
    if (known) return known;
    const raw = decoded.get(sha256);
    if (!raw) throw new CaravanError("missing-picture", file, "The picture of this source is not there.", "Put it back and deliver again.");
    const pixels = asSeen(raw, look);
    seen.set(look, pixels);
    return pixels;
  };
  return {
    picture,
    frame(source, frame) {
      const whole = picture(source, pictureOf(source, frame));
      if (!frame.size && !frame.turned && scaleOf(source) === 1) return { pixels: whole, rect: frame.rect };
      const pixels = framePixels(whole, source, frame);
      return { pixels, rect: { x: 0, y: 0, w: pixels.width, h: pixels.height } };
    },
  };
}
