import { readAtlas } from "../atlas";
import type { NamedFile, PngCodec } from "../codec";
import { CaravanError } from "../model";
import { frameFromPage } from "../pack";
import { crop, looksSame, type Pixels } from "../raster";
import type { AtlasInput } from "./atlas-input";

/** What was found when the written bytes were read back. */
export interface Proof {
  /** Frames that went in, and that came out of the files with the same pixels. */
  readonly frames: number;
  readonly exact: number;
  /** Frames that share another frame's place. */
  readonly shared: number;
  readonly clips: number;
}

/**
 * Reads the files as a game would and compares every frame pixel by pixel, every clip step by step and every action, with what was meant.
 * Throws `proof-failed` naming the first thing that differs: better no delivery than a wrong one.
 */
export function prove(files: readonly NamedFile[], { frames, clips, actions = [] }: AtlasInput, png: PngCodec): Proof {
  const [atlasFile, ...pictures] = files as [NamedFile, ...NamedFile[]];
  const atlas = readAtlas(atlasFile.bytes, atlasFile.path);
  const pages = new Map<string, Pixels>(pictures.map(({ path, bytes }) => [path, png.decode(bytes, path)]));
  const places = new Set<string>();
  for (const frame of frames) {
    const written = atlas.frames[frame.name];
    const page = written && pages.get(atlas.pages[written.page]?.image ?? "");
    if (!page || !looksSame(frameFromPage(page, written), crop(frame.pixels, frame.rect)))
      throw failed(`frame "${frame.name}"`, atlasFile.path);
    places.add(`${written.page} ${written.rect.x} ${written.rect.y}`);
  }
  if (Object.keys(atlas.frames).length !== frames.length) throw failed("the number of frames", atlasFile.path);
  for (const [name, clip] of clips)
    if (JSON.stringify(atlas.clips[name]) !== JSON.stringify(clip)) throw failed(`clip "${name}"`, atlasFile.path);
  for (const [name, action] of actions)
    if (JSON.stringify(atlas.actions[name]) !== JSON.stringify(action)) throw failed(`action "${name}"`, atlasFile.path);
  return { frames: frames.length, exact: frames.length, shared: frames.length - places.size, clips: clips.length };
}

function failed(what: string, where: string): CaravanError {
  return new CaravanError(
    "proof-failed",
    where,
    `Read back, ${what} is not what was meant.`,
    "Nothing was delivered; this is a fault of Caravan's, please report it.",
  );
}
