import { type PictureLook, pictureLook } from "@caravan/core/art";
import { type Source, sheetOf } from "@caravan/core/model";
import { useProject } from "./open-project";

/** The look of a source's sheet in the palette that the source wears, as its frames are delivered. */
export function useWornLook(source: Source): PictureLook {
  return useProject((project) => pictureLook(project, source, sheetOf(source)));
}
