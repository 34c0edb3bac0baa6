import { type SheetLook, wornLook } from "@caravan/core/art";
import type { Source } from "@caravan/core/model";
import { useProject } from "./open-project";

/** The look of a source's sheet with its layers, in the palette that the source wears. */
export function useWornLook(source: Source): SheetLook {
  return useProject((project) => wornLook(project, source));
}
