import { keptRefs, type Source } from "@caravan/core/model";
import { COLOUR_LIMIT, type PictureFacts } from "@caravan/core/raster";

/** Whether and how far a source is cut, in a word or two. */
export function cutInWords(source: Source): string {
  if (!source.cut) return "not cut";
  const kept = keptRefs(source).length;
  return kept === 1 ? "1 frame" : `${kept} frames`;
}

export function coloursInWords({ colours }: PictureFacts): string {
  if (colours > COLOUR_LIMIT) return `over ${COLOUR_LIMIT} colours`;
  return colours === 1 ? "1 colour" : `${colours} colours`;
}

const GROUNDS = { opaque: "opaque background", clear: "transparent background", soft: "transparent, with soft edges" };

export function groundInWords({ ground }: PictureFacts): string {
  return GROUNDS[ground];
}
