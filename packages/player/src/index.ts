/**
 * Plays the clips and actions of a caravan-atlas file: tells which frame to draw, never draws.
 *
 * Exact by construction: time is kept in whole microseconds, what is left over when a step ends goes into the next, and a
 * long pause is caught up, events included. The rules stand in docs/formats/playback.md.
 */
import type { Atlas, AtlasClip, FacingName } from "./atlas";

export type { Atlas, AtlasAction, AtlasClip, AtlasFrame, AtlasPage, FacingName } from "./atlas";

/** The names that an atlas of known type can play: its actions and its clips. */
export type PlayableName<A extends Atlas> = keyof (A["clips"] & NonNullable<A["actions"]>) & string;

/** What to draw now. */
export interface Now<A extends Atlas = Atlas> {
  /** The frame's name in the atlas; null when nothing is to be drawn. */
  frame: (keyof A["frames"] & string) | null;
  /** Whether to mirror it left to right about its origin. */
  mirror: boolean;
  /** The clip that plays, also where an action was asked for; null before anything was. */
  clip: (keyof A["clips"] & string) | null;
  step: number;
  pass: number;
  /** How long the pass that plays takes from its start to its end, in ms. */
  duration: number;
  /** How much of it has gone, from 0 to 1; 1 once the clip has ended. */
  progress: number;
  /** Names of the events passed since the last call, in order. */
  events: string[];
  ended: boolean;
  visible: boolean;
}

export interface PlayOptions {
  facing?: FacingName;
  /** Starts over even if this action or clip is already playing. */
  restart?: boolean;
}

export interface Player<A extends Atlas = Atlas> {
  /**
   * Starts an action, or a clip by its own name. What is playing already goes on and only turns; what has ended starts again. Throws on
   * unknown names.
   */
  play(name: PlayableName<A>, options?: PlayOptions): void;
  /** Moves on by milliseconds since the last call; negative ones count as 0. Throws a RangeError on NaN and Infinity. */
  advance(ms: number): Now<A>;
}

/** A clip laid out in time: `first` runs once, then `later` pass by pass, then `home` once. Times in microseconds. */
interface Laid {
  clip: AtlasClip;
  first: Run;
  later: Run;
  passes: number;
  home: number;
  homeTime: number;
}

interface Run {
  steps: number[];
  starts: number[];
  length: number;
}

const FACINGS: FacingName[] = ["e", "se", "s", "sw", "w", "nw", "n", "ne"];

/**
 * `atlas` is the parsed atlas file; it is read, never changed. Throws an Error for what is no atlas file, and for a version newer than this
 * player.
 */
export function createPlayer<A extends Atlas>(atlas: A): Player<A> {
  const laid = new Map<string, Laid>();
  if (atlas?.format !== "caravan-atlas" || !atlas.clips) throw new Error("createPlayer takes a parsed *.atlas.json file of Caravan.");
  if (atlas.version !== 1) throw new Error(`This atlas is of version ${atlas.version}; this player reads version 1. Update it.`);
  let playing: string | null = null;
  let shown: string | null = null;
  let facing: FacingName = "s";
  let current: Laid | null = null;
  let mirror = false;
  let elapsedMs = 0;
  // Entries up to and at this time have been reported; -1 lets step 0's own events through.
  let reported = -1;

  const layOut = (name: string): Laid => {
    let found = laid.get(name);
    if (!found) {
      found = lay(own(atlas.clips, name) as AtlasClip);
      laid.set(name, found);
    }
    return found;
  };

  return {
    play(name, options = {}) {
      const action = own(atlas.actions, name);
      if (!action && !own(atlas.clips, name)) throw new Error(unknown(name, atlas));
      const wanted = options.facing ?? facing;
      let clip = name;
      let flip = false;
      if (action) {
        const chosen = nearestFacing(wanted, Object.keys(action.facings) as FacingName[]);
        const entry = chosen && action.facings[chosen];
        if (!entry || !own(atlas.clips, entry.clip)) throw new Error(`The action "${name}" has no clip to play.`);
        clip = entry.clip;
        flip = entry.mirror === true;
      }
      const next = layOut(clip);
      facing = wanted;
      if (name !== playing || options.restart || (current && shownAt(current, Math.round(elapsedMs * 1000)).ended)) {
        elapsedMs = 0;
        reported = -1;
      }
      playing = name;
      current = next;
      shown = clip;
      mirror = flip;
    },

    advance(ms) {
      if (!Number.isFinite(ms)) throw new RangeError(`advance takes milliseconds, not ${ms}.`);
      if (!current)
        return {
          frame: null,
          mirror: false,
          clip: null,
          step: 0,
          pass: 0,
          duration: 0,
          progress: 0,
          events: [],
          ended: false,
          visible: false,
        };
      elapsedMs += Math.max(0, ms);
      const t = Math.round(elapsedMs * 1000);
      const events = current.clip.steps.some((step) => step.events?.length) ? eventsBetween(current, reported, t) : [];
      reported = t;
      return { ...shownAt(current, t), clip: shown, mirror, events } as Now<A>;
    },
  };
}

function lay(clip: AtlasClip): Laid {
  const count = clip.steps.length;
  if (!count) throw new Error("A clip of this atlas has no steps.");
  const from = Math.min(clip.loopFrom ?? 0, count - 1);
  const all = range(0, count);
  const mode = clip.playback ?? "loop";
  const double = mode === "pingpong" && clip.doubleEnds === true;
  const back = mode === "pingpong" ? range(double ? from : from + 1, double ? count : count - 1).reverse() : [];
  const passes = mode === "once" ? 1 : clip.times || Number.POSITIVE_INFINITY;
  const comesHome = mode === "pingpong" && !double && count - from > 1 && passes < Number.POSITIVE_INFINITY;
  return {
    clip,
    first: run(clip, [...all, ...back]),
    later: run(clip, [...range(from, count), ...back]),
    passes,
    home: comesHome ? from : -1,
    homeTime: comesHome ? micros(clip, from) : 0,
  };
}

function shownAt({ clip, first, later, passes, home, homeTime }: Laid, t: number): Omit<Now, "clip" | "mirror" | "events"> {
  const passesEnd = first.length + (passes - 1) * later.length;
  if (t >= passesEnd) {
    const run = passes > 1 ? later : first;
    const ended = t >= passesEnd + homeTime;
    const visible = !ended || clip.after !== "hide";
    const last = home < 0 ? (run.steps[run.steps.length - 1] as number) : home;
    const step = ended && clip.after === "first" ? 0 : last;
    const length = run.length + homeTime;
    const progress = ended ? 1 : (run.length + t - passesEnd) / length;
    return { frame: visible ? frameOf(clip, step) : null, step, pass: passes - 1, duration: length / 1000, progress, ended, visible };
  }
  const since = t - first.length;
  const pass = since < 0 ? 0 : 1 + Math.floor(since / later.length);
  const run = pass ? later : first;
  const at = pass ? since - (pass - 1) * later.length : t;
  const step = stepAt(run, at);
  // Coming home belongs to the last pass.
  const length = run.length + (pass === passes - 1 ? homeTime : 0);
  return { frame: frameOf(clip, step), step, pass, duration: length / 1000, progress: at / length, ended: false, visible: true };
}

function eventsBetween({ clip, first, later, passes, home }: Laid, from: number, to: number): string[] {
  const events: string[] = [];
  const enter = (step: number, at: number) => {
    if (at > from && at <= to) events.push(...(clip.steps[step]?.events ?? []));
  };
  let pass = from < first.length ? 0 : Math.min(1 + Math.floor((from - first.length) / later.length), passes - 1);
  for (; pass < passes; pass++) {
    const run = pass ? later : first;
    const start = pass && first.length + (pass - 1) * later.length;
    if (start > to) return events;
    for (let k = 0; k < run.steps.length; k++) enter(run.steps[k] as number, start + (run.starts[k] as number));
  }
  if (home >= 0) enter(home, first.length + (passes - 1) * later.length);
  return events;
}

function run(clip: AtlasClip, steps: number[]): Run {
  let length = 0;
  const starts = steps.map((step) => {
    const start = length;
    length += micros(clip, step);
    return start;
  });
  return { steps, starts, length };
}

function stepAt({ steps, starts }: Run, t: number): number {
  let low = 0;
  let high = starts.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((starts[middle] as number) <= t) low = middle;
    else high = middle - 1;
  }
  return steps[low] as number;
}

function micros(clip: AtlasClip, step: number): number {
  return Math.round((clip.steps[step]?.ms ?? 0) * 1000);
}

function frameOf(clip: AtlasClip, step: number): string | null {
  return clip.steps[step]?.frame ?? null;
}

function range(from: number, end: number): number[] {
  const all: number[] = [];
  for (let k = from; k < end; k++) all.push(k);
  return all;
}

/** The present facing with the least turn from the wanted one; of two equally near, the one nearer to s. */
function nearestFacing(wanted: FacingName, present: FacingName[]): FacingName | undefined {
  const turn = (a: FacingName, b: FacingName) => {
    const apart = Math.abs(FACINGS.indexOf(a) - FACINGS.indexOf(b));
    return Math.min(apart, 8 - apart);
  };
  return present
    .slice()
    .sort((a, b) => turn(a, wanted) - turn(b, wanted) || turn(a, "s") - turn(b, "s") || FACINGS.indexOf(a) - FACINGS.indexOf(b))[0];
}

/** A field of its own, so that a clip named "constructor" is not found where there is none. */
function own<Value>(record: Record<string, Value> | undefined, name: string): Value | undefined {
  return record && Object.hasOwn(record, name) ? record[name] : undefined;
}

function unknown(name: string, atlas: Atlas): string {
  const names = [...Object.keys(atlas.actions ?? {}), ...Object.keys(atlas.clips)];
  const near = names
    .map((each) => ({ each, apart: distance(each.toLowerCase(), name.toLowerCase()) }))
    .sort((a, b) => a.apart - b.apart)
    .slice(0, 3)
    .map(({ each }) => `"${each}"`);
  return `The atlas has no action or clip "${name}". ${near.length ? `Near it: ${near.join(", ")}.` : "It has none at all."}`;
}

/** Levenshtein's edit distance. */
function distance(a: string, b: string): number {
  let row = range(0, b.length + 1);
  for (let i = 0; i < a.length; i++) {
    const next = [i + 1];
    for (let j = 0; j < b.length; j++)
      next.push(Math.min((next[j] as number) + 1, (row[j + 1] as number) + 1, (row[j] as number) + (a[i] === b[j] ? 0 : 1)));
    row = next;
  }
  return row[b.length] as number;
}
