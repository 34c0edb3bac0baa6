/** Turns a mirrored facing into a clip of its own: mirrors its frames in a worker, stores the pictures, and edits the document. */

import { frameLook, type LayerLook, type Look, layerLooks } from "@caravan/core/art";
import { framesToMirror, freezeMirror, type MirroredPicture } from "@caravan/core/edit";
import { type ActionName, CaravanError, type Facing, findFrame, type PlacedFrame, scaleOf } from "@caravan/core/model";
import { joinedCoverage } from "@caravan/core/raster";
import { t } from "../ui/words";
import { run } from "../workers/client";
import { type Begun, begin } from "./begun";
import { filesOfLook } from "./picture-files";
import { keepPicture } from "./pictures";

/** Returns the error, or null on success. */
export async function freezeMirrorOf(name: ActionName, facing: Facing): Promise<Error | null> {
  const work = begin();
  try {
    const pictures: MirroredPicture[] = [];
    for (const ref of framesToMirror(work.project, name, facing)) {
      const found = findFrame(work.project, ref);
      if (!found) throw new CaravanError("missing-frame", ref, t("This frame is missing."), t("Take it out of the clip first."));
      pictures.push({ frame: ref, ...(await mirroredPicture(work, found)) });
    }
    work.stillShows(pictures.flatMap(({ frame }) => findFrame(work.project, frame) ?? []));
    return work.edit(freezeMirror, name, facing, pictures);
  } catch (error) {
    return error instanceof Error ? error : new Error(String(error));
  }
}

async function mirroredPicture({ project, signal }: Begun, { source, frame }: PlacedFrame): Promise<Omit<MirroredPicture, "frame">> {
  const mirrored = async (look: Look) => {
    const of = { look, files: await filesOfLook(look) };
    const [made] = await run("mirrorFrames", { of, frames: [frame], scale: scaleOf(source) }, { signal });
    if (!made?.png) throw new Error(t("The mirrored picture was not made."));
    await keepPicture(made.picture, made.png);
    const { sha256, width, height, coverage } = made.picture;
    return { sha256, width, height, coverage };
  };
  if (frame.pieces) return mirrored(frameLook(project, source, frame));
  const [lowest, ...over] = layerLooks(project, source, frame.picture) as [LayerLook, ...LayerLook[]];
  const own = await mirrored(lowest.look);
  const layers = [];
  const coverages = [own.coverage];
  for (const { name, blend, look } of over) {
    const { coverage, ...picture } = await mirrored(look);
    coverages.push(coverage);
    layers.push({ name: name as string, blend, ...picture });
  }
  return { ...own, coverage: joinedCoverage(coverages), ...(layers.length > 0 ? { layers } : {}) };
}
