/** Makes a mirrored facing a clip of its own: mirrors its frames in a worker, stores the pictures, and changes the document. */

import { frameLook } from "@caravan/core/art";
import { framesToMirror, freezeMirror, type MirroredPicture } from "@caravan/core/edit";
import { type ActionName, CaravanError, type Facing, type FrameRef, findFrame, scaleOf } from "@caravan/core/model";
import { run } from "../workers/client";
import { type Begun, begin } from "./begun";
import { filesOfLook, keepPicture } from "./pictures";

/** The error that stands in the way, null if it is done. */
export async function freezeMirrorOf(name: ActionName, facing: Facing): Promise<Error | null> {
  const work = begin();
  try {
    const pictures: MirroredPicture[] = [];
    for (const ref of framesToMirror(work.project, name, facing)) pictures.push(await mirroredPicture(work, ref));
    return work.edit(freezeMirror, name, facing, pictures);
  } catch (error) {
    return error instanceof Error ? error : new Error(String(error));
  }
}

async function mirroredPicture({ project, signal }: Begun, ref: FrameRef): Promise<MirroredPicture> {
  const found = findFrame(project, ref);
  if (!found) throw new CaravanError("missing-frame", ref, "This frame is missing.", "Take it out of the clip first.");
  const look = frameLook(project, found.source, found.frame);
  const [made] = await run(
    "mirrorFrames",
    { of: { look, files: await filesOfLook(look) }, frames: [found.frame], scale: scaleOf(found.source) },
    { signal },
  );
  if (!made?.png) throw new Error("The mirrored picture was not made.");
  await keepPicture(made.picture, made.png);
  const { width, height, coverage } = made.picture;
  return { sha256: made.picture.sha256, width, height, coverage };
}
