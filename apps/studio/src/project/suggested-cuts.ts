/** Finds suggestions for cutting a sheet, in a worker. Opaque backgrounds are ignored even if they have not been cleared. */
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
    suggested(source, picture, (cuts) => !gone && setFound({ of: picture, cuts }))
      // Everything else works without suggestions.
      .catch(() => {});
    return () => {
      gone = true;
    };
  }, [picture, source]);
  return found && found.of === picture ? found.cuts : NONE;
}

/** For larger pictures the grids come first, so that nobody waits for the outlines. */
const LARGE = 2048 * 2048; // px

async function suggested(source: Source, picture: Picture, tell: (cuts: SuggestedCuts) => void): Promise<void> {
  const { ground, width, height } = picture;
  const seenThrough = ground && !source.clearing;
  const { coverage } = seenThrough ? await pictureOfLook(lookOf({ clearing: ground.clearing }, sheetOf(source))) : picture;
  // Outlines are searched in the picture as it is: with an opaque background there are none.
  if (seenThrough || width * height > LARGE) tell({ grids: (await run("suggestGrids", { coverage })).slice(0, SHOWN), outlines: null });
  if (seenThrough) return;
  const { grids, outlines } = await run("suggestCuts", { coverage });
  tell({ grids: grids.slice(0, SHOWN), outlines });
}
