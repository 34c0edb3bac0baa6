/**
 * Plays the clips and actions of a caravan-atlas file: tells which frame to draw, never draws.
 *
 * Exact by construction: time is kept in whole microseconds, what is left over when a step ends goes into the next, and a
 * long pause is caught up, events included. The rules stand in docs/formats/playback.md; they are the core's own, bundled into this package
 * when it is built.
 */
import { AT_START, advanced, isOver, type Playhead, passed, type Timeline, timeAt, timelineOf } from "@caravan/core/playback";
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

/** A clip of the atlas with its timeline. */
interface Laid {
  readonly clip: AtlasClip;
  readonly timeline: Timeline;
  readonly hasEvents: boolean;
}

/** What there is to draw before anything is played. */
const NOTHING: Now = {
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
  let playhead: Playhead = AT_START;

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
      if (name !== playing || options.restart || (current && isOver(current.timeline, playhead))) playhead = AT_START;
      playing = name;
      current = next;
      shown = clip;
      mirror = flip;
    },

    advance(ms) {
      if (!Number.isFinite(ms)) throw new RangeError(`advance takes milliseconds, not ${ms}.`);
      if (!current) return { ...NOTHING, events: [] } as Now<A>;
      playhead = advanced(playhead, ms * 1000);
      const now = passed(current.timeline, playhead);
      const events: string[] = [];
      // What has no events is not walked through after a long pause.
      if (current.hasEvents) for (const { step } of now.entries) events.push(...(current.clip.steps[step]?.events ?? []));
      playhead = now.told;
      return { ...shownAt(current, timeAt(playhead)), clip: shown, mirror, events } as Now<A>;
    },
  };
}

function lay(clip: AtlasClip): Laid {
  if (!clip.steps.length) throw new Error("A clip of this atlas has no steps.");
  const timeline = timelineOf({
    playback: oneOf(clip.playback, ["loop", "once", "pingpong"]),
    times: clip.times || 0,
    loopFrom: clip.loopFrom || 0,
    doubleEnds: clip.doubleEnds === true,
    after: oneOf(clip.after, ["hold", "first", "hide"]),
    steps: clip.steps.map(({ ms }) => ({ duration: Math.round(ms * 1000) })),
  });
  return { clip, timeline, hasEvents: clip.steps.some(({ events }) => events?.length) };
}

/** The word, if it is one of these, else the first of them. */
function oneOf<Word extends string>(word: string | undefined, words: readonly [Word, ...Word[]]): Word {
  return words.find((each) => each === word) ?? words[0];
}

function shownAt({ clip, timeline }: Laid, t: number): Omit<Now, "clip" | "mirror" | "events"> {
  const { step, pass, ended, visible } = timeline.shownAt(t);
  const { at, until } = timeline.passAt(t);
  return {
    frame: visible ? (clip.steps[step]?.frame ?? null) : null,
    step,
    pass,
    duration: (until - at) / 1000,
    progress: ended ? 1 : (t - at) / (until - at),
    ended,
    visible,
  };
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
  let row = Array.from({ length: b.length + 1 }, (_, k) => k);
  for (let i = 0; i < a.length; i++) {
    const next = [i + 1];
    for (let j = 0; j < b.length; j++)
      next.push(Math.min((next[j] as number) + 1, (row[j + 1] as number) + 1, (row[j] as number) + (a[i] === b[j] ? 0 : 1)));
    row = next;
  }
  return row[b.length] as number;
}
