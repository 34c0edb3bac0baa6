/** Steadies a clip in one act, and keeps its earlier state for comparison until something else is changed. */

import { steadyClip } from "@caravan/core/edit";
import { type Standing, type SteadyAxes, standingFrom, standingOf, steadyOrigins, type Unsteady } from "@caravan/core/marks";
import {
  type Clip,
  type ClipName,
  counted,
  type FramePoint,
  type FrameRef,
  findFrame,
  frameRef,
  framesOfClips,
  originOf,
} from "@caravan/core/model";
import { create } from "zustand";
import { begin } from "../../project/begun";
import { drawnFrames } from "../../project/drawn-frames";
import type { History, HistoryEntry } from "../../project/history";
import { currentProject, useOpenProject } from "../../project/open-project";
import { say, sayTrouble, sayUnlessDone } from "../../ui/notices";
import { t } from "../../ui/words";

type Standings = readonly (Standing | null)[];

interface Before {
  readonly clip: ClipName;
  /** The change that steadied it, as undo has it. */
  readonly change: HistoryEntry | undefined;
  readonly standings: Standings;
}

const useSteadied = create<{ readonly before: Before | null }>(() => ({ before: null }));

const lastChange = ({ history }: { readonly history: History }): HistoryEntry | undefined => history.entries[history.cursor - 1];

/** The earlier state of a clip's steps, undefined unless steadying was the last change. */
export function useStandingsBefore({ name }: Clip): Standings | undefined {
  const before = useSteadied((state) => state.before);
  const last = useOpenProject(lastChange);
  return before && before.clip === name && before.change === last ? before.standings : undefined;
}

/** The coordinates of origins that are set from the drawing. */
export const useAxes = create<{ readonly axes: SteadyAxes }>(() => ({ axes: "both" }));

/** Pixels to examine before the screen gets its turn. */
const SLICE = 100_000;

export async function putSteady(clip: Clip): Promise<void> {
  const work = begin();
  const { axes } = useAxes.getState();
  try {
    const project = currentProject();
    const refs = framesOfClips([clip]);
    const placed = refs.flatMap((ref) => {
      const found = findFrame(project, ref);
      return found && !found.frame.dropped ? [found] : [];
    });
    const drawn = await drawnFrames(placed);
    const frames = placed.map(
      ({ source, frame }, k): Unsteady => ({ drawn: drawn[k] as Unsteady["drawn"], origin: originOf(source, frame) }),
    );
    const moved = await steadiedInSlices(frames, axes);
    work.stillShows(placed);
    const standings = new Map(
      placed.map(({ source, frame }, k) => {
        const { drawn: seen, origin } = frames[k] as Unsteady;
        const standing = standingOf(seen);
        return [frameRef(source, frame), standing && standingFrom(standing, origin)];
      }),
    );
    const origins = new Map<FrameRef, FramePoint>();
    for (const [k, { source, frame }] of placed.entries()) {
      const [to, from] = [moved[k] as FramePoint, (frames[k] as Unsteady).origin];
      if (to.x !== from.x || to.y !== from.y) origins.set(frameRef(source, frame), to);
    }
    if (origins.size === 0) {
      say({
        tone: "good",
        text: t("{name} is already steady: no frame would overlap the previous one better elsewhere.", { name: clip.name }),
      });
      return;
    }
    const problem = work.edit(steadyClip, clip.name, origins);
    sayUnlessDone(problem?.message);
    if (problem) return;
    useSteadied.setState({
      before: {
        clip: clip.name,
        change: lastChange(useOpenProject.getState()),
        standings: clip.steps.map(({ frame }) => standings.get(frame) ?? null),
      },
    });
    say({
      tone: "good",
      text: t("Steadied {name}: {frames} moved. The chart shows before and after.", {
        name: clip.name,
        frames: counted(origins.size, "frame"),
      }),
    });
  } catch (error) {
    sayTrouble(error);
  }
}

/** As the core does it, with turns for the screen in between. A slice begins with the last frame of the one before, which stays. */
async function steadiedInSlices(frames: readonly Unsteady[], axes: SteadyAxes): Promise<FramePoint[]> {
  const done: FramePoint[] = [];
  let from = 0;
  while (from < frames.length) {
    let until = from + 1;
    for (let pixels = 0; until < frames.length && pixels < SLICE; until++) {
      const { w, h } = (frames[until] as Unsteady).drawn.frame.rect;
      pixels += w * h;
    }
    const slice = frames
      .slice(Math.max(0, from - 1), until)
      .map((each, k) => (from > 0 && k === 0 ? { ...each, origin: done[from - 1] as FramePoint } : each));
    done.push(...steadyOrigins(slice, axes).slice(from > 0 ? 1 : 0));
    from = until;
    await new Promise((turn) => setTimeout(turn));
  }
  return done;
}
