/** A sheet that is cut, and writing its frames. */
import type { NamedFile } from "@caravan/core/codec";
import type { Clearing } from "@caravan/core/model";
import type { Coverage, Pixels } from "@caravan/core/raster";
import { type FrameFile, frameFiles, writeFrames } from "../frame-files";
import { type CutOptions, pictureName } from "./call";

/** The picture as read, and with its background cleared. */
export interface Sheet {
  readonly image: string;
  readonly decoded: Pixels;
  readonly clearing: Clearing | null;
  readonly pixels: Pixels;
  readonly coverage: Coverage;
}

/** What came of a sheet, for programs and for people. */
export interface Told {
  readonly told: object;
  readonly words: string;
}

type Written = Omit<FrameFile, "path"> & { readonly name: string };

export async function writeFramesOf(
  { out, replace }: Pick<CutOptions, "out" | "replace">,
  image: string,
  pixels: Pixels,
  frames: readonly Written[],
  into: NamedFile[] | null,
): Promise<void> {
  if (out === undefined) return;
  const placed = withPaths(frames);
  if (into) into.push(...frameFiles(pixels, placed));
  else await writeFrames(out, pixels, placed, `cut ${pictureName(image)}`, replace);
}

/** Names that differ only in case are one file on most desktops: the later one gets a number. */
function withPaths(frames: readonly Written[]): FrameFile[] {
  const taken = new Set<string>();
  return frames.map(({ name: wanted, rect, size, inset, turned }) => {
    let name = wanted;
    for (let k = 2; taken.has(name.toLowerCase()); k++) name = `${wanted}-${k}`;
    taken.add(name.toLowerCase());
    return { path: `${name}.png`, rect, size, inset, turned };
  });
}
