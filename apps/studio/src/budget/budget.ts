/** Limits on tiles and colours for the target machine. Remembered in this browser, not in the project. */

import { chosenFrames } from "@caravan/core/delivery-plan";
import { putTogetherFromTiles } from "@caravan/core/edit";
import {
  CaravanError,
  counted,
  frameName,
  frameRef,
  type Project,
  type Size,
  type Source,
  type SourceId,
  sourceById,
} from "@caravan/core/model";
import { useEffect, useState } from "react";
import { create } from "zustand";
import { begin } from "../project/begun";
import { currentProject } from "../project/open-project";
import { picturesOfFrames } from "../project/pictures-of-frames";
import { chooseSource } from "../project/view";
import { inBackground } from "../ui/in-background";
import { say, sayUnlessDone } from "../ui/notices";
import { remember, remembered } from "../ui/remembered";
import { t } from "../ui/words";
import { run } from "../workers/client";
import { asText, type CountedTiles, type NamedFrame } from "../workers/jobs";

export interface Budget {
  /** Counted only once it was asked for: it looks at every pixel. */
  readonly counts: boolean;
  readonly tile: Size;
  readonly flips: boolean;
  /** Null for no limit. */
  readonly mostTiles: number | null;
  readonly mostColours: number | null;
  /** Of one frame. */
  readonly mostPalettes: number | null;
  /** Of one tile. */
  readonly mostTileColours: number | null;
}

/** The scope of the count: all frames of a source, or those of a delivery. */
export type Counted = { readonly source: SourceId } | { readonly delivery: number };

const KEY = "caravan-budget";
const USUAL: Budget = {
  counts: false,
  tile: { w: 8, h: 8 },
  flips: true,
  mostTiles: null,
  mostColours: null,
  mostPalettes: null,
  mostTileColours: null,
};

export const useBudget = create<Budget>(() => ({ ...USUAL, ...stored() }));

export function setBudget(change: Partial<Budget>): void {
  useBudget.setState(change);
  const { counts: _counts, ...kept } = useBudget.getState();
  remember(KEY, JSON.stringify(kept));
}

function stored(): Partial<Budget> {
  try {
    const kept: unknown = JSON.parse(remembered(KEY) ?? "{}");
    const { tile, flips, mostTiles, mostColours, mostPalettes, mostTileColours } = kept as Partial<Budget>;
    const limit = (value: unknown) => (typeof value === "number" && value > 0 ? value : null);
    return {
      ...(tile && tile.w > 0 && tile.h > 0 ? { tile: { w: tile.w, h: tile.h } } : {}),
      ...(typeof flips === "boolean" ? { flips } : {}),
      mostTiles: limit(mostTiles),
      mostColours: limit(mostColours),
      mostPalettes: limit(mostPalettes),
      mostTileColours: limit(mostTileColours),
    };
  } catch {
    return {};
  }
}

/** Frames that are being worked on are not counted until they rest. */
const REST = 500; // ms

/** The cost of frames; the earlier count stays until the next is ready. Null before the first count, and if there is nothing to count. */
export function useCounted(project: Project, of: Counted): CountedTiles | null {
  const { counts, tile, flips } = useBudget();
  const key = "source" in of ? of.source : `delivery ${of.delivery}`;
  const [found, setFound] = useState<{ readonly key: string; readonly counted: CountedTiles } | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `of` is told by its key
  useEffect(() => {
    if (!counts) return;
    const stopping = new AbortController();
    const count = async () => {
      const frames = framesToCount(project, of);
      const pictures = await picturesOfFrames(
        project,
        frames.map(({ ref }) => ref),
      );
      const counted = await run("countTiles", { project: asText(project), frames, pictures, tile, flips }, { signal: stopping.signal });
      if (!stopping.signal.aborted) setFound({ key, counted });
    };
    const timer = setTimeout(() => inBackground(count().catch((error) => stopping.signal.aborted || Promise.reject(error))), REST);
    return () => {
      clearTimeout(timer);
      stopping.abort();
    };
  }, [counts, project, key, tile, flips]);
  return found?.key === key ? found.counted : null;
}

function framesToCount(project: Project, of: Counted): NamedFrame[] {
  if ("source" in of) {
    const source = sourceById(project, of.source);
    return source.frames.flatMap((frame) =>
      frame.dropped || frame.empty ? [] : [{ ref: frameRef(source, frame), name: frameName(source, frame) }],
    );
  }
  const delivery = project.deliveries[of.delivery];
  if (!delivery) return [];
  try {
    const { frames, names } = chosenFrames(project, delivery);
    return frames.map(({ source, frame }, k) => ({ ref: frameRef(source, frame), name: names[k] as string }));
  } catch (error) {
    // It chooses nothing, which is reported as a finding.
    if (error instanceof CaravanError) return [];
    throw error;
  }
}

/** Rebuilds the source's frames from their distinct tiles, proved first; the new frames then open on the bench. */
export async function putTogetherFrom(source: Source): Promise<void> {
  const work = begin();
  const { tile } = useBudget.getState();
  const pictures = await picturesOfFrames(
    work.project,
    source.frames.map((frame) => frameRef(source, frame)),
  );
  const parted = await run("partIntoTiles", { project: asText(work.project), source: source.id, pictures, tile }, { signal: work.signal });
  work.stillShows(source.frames.map((frame) => ({ source, frame })));
  if (!sayUnlessDone(work.edit(putTogetherFromTiles, source.id, parted))) return;
  const made = currentProject().sources.at(-1);
  if (made) chooseSource(made.id);
  say({
    tone: "good",
    text: t("{frames} of {name} put together from {tiles}, every pixel the same.", {
      frames: counted(parted.frames.length, "frame"),
      name: source.name,
      tiles: counted(parted.parts.length, "tile"),
    }),
  });
}
