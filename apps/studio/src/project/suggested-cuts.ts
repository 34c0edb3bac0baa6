/** What a sheet suggests to be cut by, found in a worker. An opaque ground is seen through, also while it is not cleared. */
import { lookOf, sheetLook } from "@caravan/core/art";
import type { GridSuggestion, OutlineSuggestion } from "@caravan/core/cut";
import { type Source, sheetOf } from "@caravan/core/model";
import { useEffect, useState } from "react";
import { run } from "../workers/client";
import { type Picture, pictureOfLook, usePicture } from "./pictures";

const SHOWN = 4;

export interface SuggestedCuts {
  /** Best first. */
  readonly grids: readonly GridSuggestion[];
  readonly outlines: OutlineSuggestion | null;
}

const NONE: SuggestedCuts = { grids: [], outlines: null };

/** None until they are found. */
export function useSuggestedCuts(source: Source): SuggestedCuts {
  const picture = usePicture(sheetLook(source));
  const [found, setFound] = useState<{ of: Picture; cuts: SuggestedCuts } | null>(null);
  useEffect(() => {
    if (!picture) return;
    let gone = false;
    suggested(source, picture)
      .then(({ grids, outlines }) => !gone && setFound({ of: picture, cuts: { grids: grids.slice(0, SHOWN), outlines } }))
      // Without suggestions everything else still works.
      .catch(() => {});
    return () => {
      gone = true;
    };
  }, [picture, source]);
  return found && found.of === picture ? found.cuts : NONE;
}

async function suggested(source: Source, picture: Picture): Promise<SuggestedCuts> {
  const { ground } = picture;
  const seenThrough = ground && !source.clearing;
  const { coverage } = seenThrough ? await pictureOfLook(lookOf({ clearing: ground.clearing }, sheetOf(source))) : picture;
  const cuts = await run("suggestCuts", { coverage });
  // Outlines are looked for in the picture as it is: until its ground is cleared there are none.
  return seenThrough ? { ...cuts, outlines: null } : cuts;
}
