/** Shared by the player and behaviours: a clip's timeline, fallbacks for facings, and similar names. */
import { type Timeline, timelineOf } from "@caravan/core/playback";
import { similarNames } from "@caravan/core/similar";
import type { Atlas, AtlasClip, FacingName } from "./atlas";
import type { Now } from "./now";

/** A clip of the atlas with its timeline. */
export interface Laid {
  readonly clip: AtlasClip;
  readonly timeline: Timeline;
  readonly hasEvents: boolean;
}

export const FACINGS: FacingName[] = ["e", "se", "s", "sw", "w", "nw", "n", "ne"];

export function lay(clip: AtlasClip): Laid {
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

/** The word if it is in the list, otherwise the list's first. */
function oneOf<Word extends string>(word: string | undefined, words: readonly [Word, ...Word[]]): Word {
  return words.find((each) => each === word) ?? words[0];
}

export function shownAt({ clip, timeline }: Laid, t: number): Omit<Now, "clip" | "mirror" | "events" | "values"> {
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

/** An own property, so that a clip named "constructor" is not found by accident. */
export function own<Value>(record: Record<string, Value> | undefined, name: string): Value | undefined {
  return record && Object.hasOwn(record, name) ? record[name] : undefined;
}

/** The clip that a name plays in a facing: an action's, or else the clip of that name. */
export function petalOf(atlas: Atlas, name: string, wanted: FacingName): { clip: string; mirror: boolean } | null {
  const action = own(atlas.actions, name);
  const chosen = action && nearestFacing(wanted, Object.keys(action.facings) as FacingName[]);
  const petal = action ? chosen && action.facings[chosen] : { clip: name };
  return petal && own(atlas.clips, petal.clip) ? { clip: petal.clip, mirror: petal.mirror === true } : null;
}

/** Throws for anything but an atlas file, and for a version newer than this player. */
export function checkAtlas(atlas: Atlas): void {
  if (atlas?.format !== "caravan-atlas" || !atlas.clips) throw new Error("This is no parsed *.atlas.json file of Caravan.");
  if (atlas.version !== 1) throw new Error(`This atlas is of version ${atlas.version}; this player reads version 1. Update it.`);
}

/** The error for an unknown name, with the most similar ones. */
export function unknownName(what: string, name: string, names: readonly string[]): Error {
  const near = similarNames(name, [...new Set(names)], 3).map((each) => `"${each}"`);
  return new Error(`There is no ${what} "${name}" in this atlas. ${near.length ? `Near it: ${near.join(", ")}.` : "It has none at all."}`);
}

/** Throws a RangeError for an invalid time. */
export function checkedMs(ms: number): number {
  if (!Number.isFinite(ms)) throw new RangeError(`advance takes milliseconds, not ${ms}.`);
  return ms;
}

/** The events that were passed, and what each carries. */
export type Fired = Pick<Now, "events" | "values">;

/** A step of a clip is entered. */
export function fire({ events, values }: Fired, { clip }: Laid, step: number): void {
  const { events: names = [], eventValues } = clip.steps[step] ?? {};
  for (const name of names) {
    events.push(name);
    values.push(own(eventValues, name));
  }
}
