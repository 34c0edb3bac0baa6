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

/** What was found, by the picture it was found in: how a sheet is cut now has no part in it. */
const found = new WeakMap<Picture, { readonly cuts: SuggestedCuts; readonly complete: boolean }>();

/** What is found so far, and whether more may come. */
export function useSuggestedCuts(source: Source): { readonly cuts: SuggestedCuts; readonly looking: boolean } {
  const picture = usePicture(sheetLook(source));
  const [, setShown] = useState<SuggestedCuts | null>(null);
  const [failedIn, setFailedIn] = useState<Picture | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: of the source only what its picture is made of counts, not each of its edits
  useEffect(() => {
    if (!picture || found.get(picture)?.complete) return;
    let gone = false;
    const tell = (cuts: SuggestedCuts, complete: boolean) => {
      found.set(picture, { cuts, complete });
      if (!gone) setShown(cuts);
    };
    // Everything else works without suggestions.
    suggest(source, picture, tell).catch(() => !gone && setFailedIn(picture));
    return () => {
      gone = true;
    };
  }, [picture]);
  const here = picture && found.get(picture);
  return { cuts: here?.cuts ?? NONE, looking: !here?.complete && (picture === null || failedIn !== picture) };
}

/** For larger pictures the grids come first, so that nobody waits for the outlines. */
const LARGE = 2048 * 2048; // px

async function suggest(source: Source, picture: Picture, tell: (cuts: SuggestedCuts, complete: boolean) => void): Promise<void> {
  const { ground, width, height } = picture;
  const seenThrough = ground !== null && !source.clearing;
  const { coverage } = seenThrough ? await pictureOfLook(lookOf({ clearing: ground.clearing }, sheetOf(source))) : picture;
  // Outlines are searched in the picture as it is: with an opaque background there are none.
  if (seenThrough || width * height > LARGE)
    tell({ grids: (await run("suggestGrids", { coverage, whole: picture.coverage })).slice(0, SHOWN), outlines: null }, seenThrough);
  if (seenThrough) return;
  const { grids, outlines } = await run("suggestCuts", { coverage });
  tell({ grids: grids.slice(0, SHOWN), outlines }, true);
}
