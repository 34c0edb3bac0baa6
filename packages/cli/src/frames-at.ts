/** Finds the frames that a command looks at: those of a project as it delivers them, or pictures and folders of pictures. */
import { existsSync } from "node:fs";
import { basename, join } from "node:path";
import { PROJECT_FILE } from "@caravan/core/bundle";
import { chosenFrames } from "@caravan/core/delivery-plan";
import { CaravanError, type FrameRef, frameRef } from "@caravan/core/model";
import { crop } from "@caravan/core/raster";
import type { NamedPixels } from "@caravan/core/tiles";
import { isFolder, readFile } from "./files";
import { note } from "./output";
import { pngCodec } from "./png";
import { openProject } from "./project";
import { takenFiles } from "./read-art";
import { STANDARD, UNNAMED } from "./standard";
import { readStill, STILL_ENDING } from "./stills";

export interface FramesFound {
  readonly frames: readonly NamedPixels[];
  readonly isProject: boolean;
}

/** Throws `not-found` without any picture, and what opening a project throws. */
export async function framesAt(paths: readonly string[]): Promise<FramesFound> {
  const [first] = paths;
  if (paths.length === 1 && first !== undefined && isProject(first)) return { frames: framesDelivered(first), isProject: true };
  return { frames: await picturesAt(paths), isProject: false };
}

function isProject(path: string): boolean {
  // A project file is a ZIP, and no picture begins as one.
  if (path === STANDARD) return readFile(path)[0] === 0x50 && readFile(path)[1] === 0x4b;
  if (isFolder(path)) return existsSync(join(path, PROJECT_FILE));
  return basename(path) === PROJECT_FILE || /\.caravan$/i.test(path);
}

/** Every frame in any delivery, once, with the name that the first of them gives it. */
function framesDelivered(path: string): NamedPixels[] {
  const { project, art } = openProject(path);
  const frames = new Map<FrameRef, NamedPixels>();
  for (const delivery of project.deliveries) {
    const chosen = chosenFrames(project, delivery);
    for (const [k, { source, frame }] of chosen.frames.entries()) {
      const ref = frameRef(source, frame);
      if (frames.has(ref)) continue;
      const { pixels, rect } = art.figure(source, frame);
      frames.set(ref, { name: chosen.names[k] as string, pixels: crop(pixels, rect) });
    }
  }
  return [...frames.values()];
}

/** In the given order; within folders in natural order. Each picture of an animation and of layers separately. */
async function picturesAt(paths: readonly string[]): Promise<NamedPixels[]> {
  const found: NamedPixels[] = [];
  for (const path of paths) {
    if (path === STANDARD || (!isFolder(path) && STILL_ENDING.test(path))) {
      found.push({ name: path === STANDARD ? UNNAMED : path, pixels: await readStill(path) });
      continue;
    }
    const { items, pictures, failed } = await takenFiles([path]);
    for (const each of failed) note(each);
    const pixelsOf = ({ sha256 }: { readonly sha256: string }) => pngCodec().decode(pictures.get(sha256) as Uint8Array, path);
    for (const { path: name, art } of items) {
      if (art.kind === "still") found.push({ name, pixels: pixelsOf(art.picture) });
      else if (art.kind === "animation") found.push(...art.pictures.map((each, k) => ({ name: `${name}/${k}`, pixels: pixelsOf(each) })));
      else found.push(...art.layers.map((each) => ({ name: `${name}/${each.name}`, pixels: pixelsOf(each) })));
    }
  }
  if (found.length === 0)
    throw new CaravanError("not-found", paths.join(", "), "There is no picture.", "Name pictures, folders with pictures, or a project.");
  return found;
}
