import { frameLook, picturesOfLook } from "@caravan/core/art";
import { type FrameRef, findFrame, type Project } from "@caravan/core/model";
import { filesOfLook } from "./picture-files";

/** Lists the picture files that frames use. */
export async function picturesOfFrames(project: Project, refs: readonly FrameRef[]): Promise<Map<string, Blob>> {
  const pictures = new Map<string, Blob>();
  const looks = refs.flatMap((ref) => {
    const found = findFrame(project, ref);
    return found ? [frameLook(project, found.source, found.frame)] : [];
  });
  for (const look of new Set(looks))
    if (picturesOfLook(look).some(({ sha256 }) => !pictures.has(sha256)))
      for (const [sha256, blob] of await filesOfLook(look)) pictures.set(sha256, blob);
  return pictures;
}
