"use client";

import { drawnIn, frameLook } from "@caravan/core/art";
import { type Standing, standingFrom, standingOf } from "@caravan/core/marks";
import { type Clip, type Frame, findFrame, originOf, type PlacedFrame, type Project, type Rect } from "@caravan/core/model";
import type { Coverage } from "@caravan/core/raster";
import { useEffect, useMemo, useState } from "react";
import { currentProject } from "../../project/open-project";
import { loadPictures, pictureNow, usePictures } from "../../project/pictures";

/** Caches what was found in a frame; moving its origin keeps its rectangle, so the result stays valid. */
interface Found {
  readonly coverage: Coverage;
  readonly inset: Frame["inset"];
  readonly standing: Standing | null;
}

const known = new WeakMap<Rect, Found>();

/** Pixels to examine before the screen gets its turn. */
const SLICE = 2_000_000;

/** The position of each step's drawing relative to its origin; undefined for steps not examined yet, null for empty ones. */
export function useStandings(project: Project, clip: Clip): Standings {
  const entries = usePictures((state) => state.entries);
  const frames = useMemo(() => clip.steps.map(({ frame }) => findFrame(project, frame)), [project, clip]);
  const [looks, setLooks] = useState(0);
  useEffect(
    () => loadPictures(frames.flatMap((placed) => (placed ? [frameLook(currentProject(), placed.source, placed.frame)] : []))),
    [frames],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: goes on after each slice, and when a picture has come
  useEffect(() => {
    const waiting = frames.filter((placed): placed is PlacedFrame => placed !== null && isWaiting(placed));
    if (waiting.length === 0) return;
    const timer = setTimeout(() => {
      let left = SLICE;
      for (const placed of waiting) {
        if (left <= 0) break;
        // Another part of the screen may have looked at it meanwhile.
        if (!isWaiting(placed)) continue;
        look(placed);
        left -= placed.frame.rect.w * placed.frame.rect.h;
      }
      setLooks((count) => count + 1);
    });
    return () => clearTimeout(timer);
  }, [frames, entries, looks]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is known changes with each look
  return useMemo(() => standingsNow(clip, frames), [clip, frames, looks, entries]);
}

type Standings = readonly (Standing | null | undefined)[];

const lastOf = new WeakMap<Clip, Standings>();

/** Dragging a box changes frames, but not where they stand: then the same list is returned, and no chart is redrawn. */
function standingsNow(clip: Clip, frames: readonly (PlacedFrame | null)[]): Standings {
  const before = lastOf.get(clip);
  const now = frames.map((placed) => placed && standingNow(placed));
  if (before?.length === now.length && now.every((each, k) => sameStanding(each, before[k]))) return before;
  lastOf.set(clip, now);
  return now;
}

function sameStanding(a: Standing | null | undefined, b: Standing | null | undefined): boolean {
  if (!a || !b) return a === b;
  return a.feet.x === b.feet.x && a.feet.y === b.feet.y && a.middle.x === b.middle.x && a.middle.y === b.middle.y;
}

function coverageOf({ source, frame }: PlacedFrame): Coverage | undefined {
  return pictureNow(frameLook(currentProject(), source, frame))?.coverage;
}

function foundIn(placed: PlacedFrame): Found | undefined {
  const found = known.get(placed.frame.rect);
  return found && found.inset === placed.frame.inset && found.coverage === coverageOf(placed) ? found : undefined;
}

function isWaiting(placed: PlacedFrame): boolean {
  return coverageOf(placed) !== undefined && !foundIn(placed);
}

function look(placed: PlacedFrame): void {
  const coverage = coverageOf(placed);
  if (coverage)
    known.set(placed.frame.rect, {
      coverage,
      inset: placed.frame.inset,
      standing: standingOf(drawnIn(coverage, placed.source, placed.frame)),
    });
}

function standingNow(placed: PlacedFrame): Standing | null | undefined {
  const found = foundIn(placed);
  return found?.standing ? standingFrom(found.standing, originOf(placed.source, placed.frame)) : found?.standing;
}
