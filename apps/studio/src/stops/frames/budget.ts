/** How many tiles and colours frames may cost, as a person's machine has it; remembered in this browser, not in the project. */
import { frameLook, picturesOfLook } from "@caravan/core/art";
import { putTogetherFromTiles } from "@caravan/core/edit";
import { counted, type Project, type Size, type Source } from "@caravan/core/model";
import { useEffect, useState } from "react";
import { create } from "zustand";
import { begin } from "../../project/begun";
import { currentProject } from "../../project/open-project";
import { filesOfLook } from "../../project/pictures";
import { chooseSource } from "../../project/view";
import { inBackground } from "../../ui/in-background";
import { say, sayUnlessDone } from "../../ui/notices";
import { run } from "../../workers/client";
import { asText, type CountedTiles } from "../../workers/jobs";

export interface Budget {
  /** Counted only once it was asked for: it looks at every pixel. */
  readonly counts: boolean;
  readonly tile: Size;
  readonly flips: boolean;
  /** Null for no limit. */
  readonly mostTiles: number | null;
  readonly mostColours: number | null;
}

const KEY = "caravan-budget";
const USUAL: Budget = { counts: false, tile: { w: 8, h: 8 }, flips: true, mostTiles: null, mostColours: null };

export const useBudget = create<Budget>(() => ({ ...USUAL, ...stored() }));

export function setBudget(change: Partial<Budget>): void {
  useBudget.setState(change);
  try {
    const { counts: _counts, ...kept } = useBudget.getState();
    localStorage.setItem(KEY, JSON.stringify(kept));
  } catch {
    // Full or forbidden: it is remembered until the page goes.
  }
}

function stored(): Partial<Budget> {
  try {
    const kept: unknown = JSON.parse(globalThis.localStorage?.getItem(KEY) ?? "{}");
    const { tile, flips, mostTiles, mostColours } = kept as Partial<Budget>;
    const limit = (value: unknown) => (typeof value === "number" && value > 0 ? value : null);
    return {
      ...(tile && tile.w > 0 && tile.h > 0 ? { tile: { w: tile.w, h: tile.h } } : {}),
      ...(typeof flips === "boolean" ? { flips } : {}),
      mostTiles: limit(mostTiles),
      mostColours: limit(mostColours),
    };
  } catch {
    return {};
  }
}

/** Frames that are being worked on are not counted until they rest. */
const REST = 500; // ms

/** What a source's frames cost; the count before stays until the next is there. Null while nothing is counted yet. */
export function useCounted(project: Project, source: Source): CountedTiles | null {
  const { counts, tile, flips } = useBudget();
  const [found, setFound] = useState<{ readonly of: Source["id"]; readonly counted: CountedTiles } | null>(null);
  useEffect(() => {
    if (!counts) return;
    const stopping = new AbortController();
    const count = async () => {
      const pictures = await picturesOfFrames(project, source);
      const counted = await run(
        "countTiles",
        { project: asText(project), source: source.id, pictures, tile, flips },
        { signal: stopping.signal },
      );
      if (!stopping.signal.aborted) setFound({ of: source.id, counted });
    };
    const timer = setTimeout(() => inBackground(count().catch((error) => stopping.signal.aborted || Promise.reject(error))), REST);
    return () => {
      clearTimeout(timer);
      stopping.abort();
    };
  }, [counts, project, source, tile, flips]);
  return found?.of === source.id ? found.counted : null;
}

/** The files of all pictures that a source's frames take. */
async function picturesOfFrames(project: Project, source: Source): Promise<Map<string, Blob>> {
  const pictures = new Map<string, Blob>();
  for (const look of new Set(source.frames.map((frame) => frameLook(project, source, frame))))
    if (picturesOfLook(look).some(({ sha256 }) => !pictures.has(sha256)))
      for (const [sha256, blob] of await filesOfLook(look)) pictures.set(sha256, blob);
  return pictures;
}

/** Makes the source's frames anew from their distinct tiles, proved before; the new frames are on the bench then. */
export async function putTogetherFrom(source: Source): Promise<void> {
  const work = begin();
  const { tile } = useBudget.getState();
  const pictures = await picturesOfFrames(work.project, source);
  const parted = await run("partIntoTiles", { project: asText(work.project), source: source.id, pictures, tile }, { signal: work.signal });
  if (!sayUnlessDone(work.edit(putTogetherFromTiles, source.id, parted))) return;
  const made = currentProject().sources.at(-1);
  if (made) chooseSource(made.id);
  say({
    tone: "good",
    text: `${counted(parted.frames.length, "frame")} of ${source.name} put together from ${counted(parted.parts.length, "tile")}, every pixel the same.`,
  });
}
