import { looksOf } from "@caravan/core/art";
import type { Source } from "@caravan/core/model";
import type { Coverage } from "@caravan/core/raster";
import { pictureOfLook } from "../pictures";

/** The coverage of each picture of a source, with its layers. */
export async function coveragesOf(source: Source): Promise<Coverage[]> {
  const pictures = await Promise.all(looksOf(source).map(pictureOfLook));
  return pictures.map(({ coverage }) => coverage);
}
