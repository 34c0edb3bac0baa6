/** Measures what is drawn in frames, from the coverage of their pictures. */

import { type Drawn, drawnIn, frameLook, type Stock } from "@caravan/core/art";
import type { PlacedFrame } from "@caravan/core/model";
import { t } from "../ui/words";
import { currentProject } from "./open-project";
import { pictureOfLook } from "./pictures";

/** By index in `frames`; each picture is requested once, however many frames use it. Throws why a picture is unavailable. */
export async function drawnFrames(frames: readonly PlacedFrame[], stock: Stock = currentProject()): Promise<Drawn[]> {
  const looks = [...new Set(frames.map(({ source, frame }) => frameLook(stock, source, frame)))];
  const pictures = new Map(await Promise.all(looks.map(async (look) => [look, (await pictureOfLook(look)).coverage] as const)));
  return frames.map(({ source, frame }) => {
    const coverage = pictures.get(frameLook(stock, source, frame));
    if (!coverage) throw new Error(t("A picture is missing."));
    return drawnIn(coverage, source, frame);
  });
}
