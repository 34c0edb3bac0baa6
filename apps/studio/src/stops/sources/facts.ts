import { keptRefs, type Source } from "@caravan/core/model";
import { COLOUR_LIMIT, type PictureFacts } from "@caravan/core/raster";
import { t } from "../../ui/words";

/** Describes in a word or two whether and how far a source is cut. */
export function cutInWords(source: Source): string {
  if (!source.cut) return t("not cut");
  const kept = keptRefs(source).length;
  return kept === 1 ? t("1 frame") : t("{kept} frames", { kept });
}

export function coloursInWords({ colours }: PictureFacts): string {
  if (colours > COLOUR_LIMIT) return t("over {most} colours", { most: COLOUR_LIMIT });
  return colours === 1 ? t("1 colour") : t("{colours} colours", { colours });
}

const BACKGROUNDS = { opaque: t("opaque"), clear: t("transparent"), soft: t("transparent, soft edges") };
const WITH_BACKGROUND = {
  opaque: t("opaque background"),
  clear: t("transparent background"),
  soft: t("transparent background, soft edges"),
};

/** The background of a picture, where a label says so. */
export function backgroundInWords({ ground }: PictureFacts): string {
  return BACKGROUNDS[ground];
}

/** The same without that label. */
export function withBackgroundInWords({ ground }: PictureFacts): string {
  return WITH_BACKGROUND[ground];
}
