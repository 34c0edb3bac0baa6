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

const BACKGROUNDS = { opaque: "opaque", clear: "transparent", soft: "transparent, soft edges" };

/** What is behind the figures in a picture, where a label says that it is the background. */
export function backgroundInWords({ ground }: PictureFacts): string {
  return BACKGROUNDS[ground];
}

/** The same where nothing else says what it is about. */
export function withBackgroundInWords(facts: PictureFacts): string {
  const [background, ...edges] = backgroundInWords(facts).split(", ");
  return [`${background} background`, ...edges].join(", ");
}
