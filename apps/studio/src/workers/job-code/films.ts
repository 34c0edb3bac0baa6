/** Jobs on films. */
import { filmFacts as factsOf, filmFrames as framesOf } from "../film";
import type { Answer, Ask, OnProgress } from "../jobs";
import { pngCodec } from "../pictures-in-hand";

export async function filmFacts({ name, blob }: Ask<"filmFacts">): Promise<Answer<"filmFacts">> {
  return factsOf(blob, name);
}

export async function filmFrames(
  { name, blob, starts, reduction }: Ask<"filmFrames">,
  onProgress: OnProgress,
): Promise<Answer<"filmFrames">> {
  return framesOf(blob, name, starts, reduction, await pngCodec(), onProgress);
}
