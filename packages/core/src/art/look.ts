/**
 * A look is how a picture is seen in a source: whose file it is, and what was done to it. A recipe, not pixels; each recipe is one object,
 * however often it is asked for, so that looks can be compared, and things kept by look, without spelling them out.
 */
import { type Clearing, type Frame, type Picture, pictureOf, type Source, sheetOf } from "../model";
import { clearGround, type Pixels } from "../raster";

export interface Look {
  /** The recipe spelled out, for what is kept under texts: other recipes are spelled otherwise. */
  readonly key: string;
  readonly sha256: string;
  /** How its ground is cleared, null where it is left as it is. */
  readonly clearing: Clearing | null;
}

/** One text for each recipe, and its look. */
const known = new Map<string, Look>();

/** The look of one of a source's pictures, or of any other picture that is treated as they are. */
export function lookOf({ clearing }: Pick<Source, "clearing">, { sha256 }: Pick<Picture, "sha256">): Look {
  const key = clearing ? `${sha256} ${JSON.stringify(clearing)}` : sha256;
  let look = known.get(key);
  if (!look) {
    look = { key, sha256, clearing: clearing ?? null };
    known.set(key, look);
  }
  return look;
}

/** The look of a source's sheet, its first picture. */
export function sheetLook(source: Pick<Source, "pictures" | "clearing">): Look {
  return lookOf(source, sheetOf(source));
}

/** The look of the picture that a frame is on. */
export function frameLook(source: Pick<Source, "pictures" | "clearing">, frame: Pick<Frame, "picture">): Look {
  return lookOf(source, pictureOf(source, frame));
}

/** The looks of all pictures of a source, in their order. */
export function looksOf(source: Pick<Source, "pictures" | "clearing">): Look[] {
  return source.pictures.map((picture) => lookOf(source, picture));
}

/** A picture's pixels as they are seen. Cost: O(pixels) if something is done to them. */
export function asSeen(pixels: Pixels, { clearing }: Pick<Look, "clearing">): Pixels {
  return clearing ? clearGround(pixels, clearing) : pixels;
}
