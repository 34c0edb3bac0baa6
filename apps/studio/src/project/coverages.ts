/** What is drawn in the pictures of frames, each picture asked for once however many of the frames are on it. */
import { frameLook, type Look, type PlacedFrame } from "@caravan/core/model";
import type { Coverage } from "@caravan/core/raster";
import { pictureOfLook } from "./pictures";

/** Gives each frame's coverage by its place among `frames`. Throws why a picture cannot be had. */
export async function coveragesOf(frames: readonly PlacedFrame[]): Promise<Coverage[]> {
  const looks = frames.map(({ source, frame }) => frameLook(source, frame));
  const byLook = new Map<Look, Coverage>();
  for (const look of new Set(looks)) byLook.set(look, (await pictureOfLook(look)).coverage);
  return looks.map((look) => byLook.get(look) as Coverage);
}
