/** The grids that a sheet suggests, found in a worker. An opaque ground is seen through, also while it is not cleared. */
import { lookOf, sheetLook } from "@caravan/core/art";
import type { GridSuggestion } from "@caravan/core/cut";
import { type Source, sheetOf } from "@caravan/core/model";
import { useEffect, useState } from "react";
import { run } from "../workers/client";
import { type Picture, pictureOfLook, usePicture } from "./pictures";

const SHOWN = 4;
const NONE: readonly GridSuggestion[] = [];

/** Best first; none until they are found. */
export function useSuggestedGrids(source: Source): readonly GridSuggestion[] {
  const picture = usePicture(sheetLook(source));
  const [found, setFound] = useState<{ of: Picture; list: readonly GridSuggestion[] } | null>(null);
  useEffect(() => {
    if (!picture) return;
    let gone = false;
    suggested(source, picture)
      .then((list) => !gone && setFound({ of: picture, list: list.slice(0, SHOWN) }))
      // Without suggestions everything else still works.
      .catch(() => {});
    return () => {
      gone = true;
    };
  }, [picture, source]);
  return found && found.of === picture ? found.list : NONE;
}

async function suggested(source: Source, picture: Picture): Promise<readonly GridSuggestion[]> {
  const { ground } = picture;
  const { coverage } = ground && !source.clearing ? await pictureOfLook(lookOf({ clearing: ground.clearing }, sheetOf(source))) : picture;
  return run("suggestGrids", { coverage });
}
