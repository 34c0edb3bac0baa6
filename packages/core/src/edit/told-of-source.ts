/** What a metadata file says of a source, as its frames and clips would be. */
import { type NewFrame, placeOf } from "../frame-identity";
import { type Clip, type FrameRef, fittedName, frameRef, groupedBy, type Source, type Step } from "../model";
import { same } from "../three-way";
import { type ArrivedClip, type Refs, stepsOf, timesOf } from "./arrived-clips";
import { nameFromFile } from "./name-from-file";

/** What a metadata file says of a source. Steps of clips name frames by their index in the list. */
export interface ToldOfSource {
  readonly frames: readonly NewFrame[];
  readonly clips: readonly ArrivedClip[];
}

/** A clip as far as files describe clips. */
export interface PlainClip {
  readonly name: string;
  readonly steps: readonly PlainStep[];
  readonly playback: Clip["playback"];
  readonly times: number;
}
export type PlainStep = Pick<Step, "frame" | "duration" | "events">;

/** The source's frames that a file describes: those at their places, of several at one the one of its name; or else those called so. */
export function refsOf(source: Source, told: readonly NewFrame[]): (FrameRef | null)[] {
  const there = groupedBy(source.frames, placeOf);
  const named = groupedBy(source.frames, ({ name = "" }) => name);
  const taken = new Map<string, number>();
  return told.map((frame) => {
    const place = placeOf(frame);
    const at = there.get(place) ?? [];
    const k = taken.get(place) ?? 0;
    taken.set(place, k + 1);
    const name = frame.name === undefined ? null : fittedName(frame.name);
    const alike = name === null ? [] : (named.get(name) ?? []);
    const found = (at.length > 1 ? (at.find((each) => each.name === name) ?? at[k]) : at[0]) ?? (alike.length === 1 ? alike[0] : undefined);
    return found ? frameRef(source, found) : null;
  });
}

/** The clips of a file with steps on the source, those of one name as one; with `all`, also those whose frames the source lacks. */
export function clipsOf({ clips }: ToldOfSource, refs: Refs, all = false): { readonly arrived: ArrivedClip; readonly now: PlainClip }[] {
  return [...groupedBy(clips, ({ name }) => name).values()].flatMap((parts) => {
    const [arrived] = parts as [ArrivedClip, ...ArrivedClip[]];
    const steps = parts.flatMap((part) => stepsOf(part, refs)).sort((a, b) => a.place - b.place);
    if (steps.length === 0 && !all) return [];
    const { name, playback } = arrived;
    const now = { name: nameFromFile(name), steps: steps.map(({ step }) => step), playback, times: timesOf(arrived) };
    return [{ arrived: parts.length === 1 ? arrived : { ...arrived, steps: parts.flatMap((part) => part.steps) }, now }];
  });
}

export function plain(clip: Clip, source: Source): PlainClip {
  return { name: clip.name, steps: clip.steps.filter(isOn(source)).map(plainStep), ...rulesOf(clip) };
}

export function plainStep({ frame, duration, events }: Step): PlainStep {
  return { frame, duration, ...(events ? { events } : {}) };
}

export function rulesOf({ playback, times }: Pick<Clip, "playback" | "times">): Pick<Clip, "playback" | "times"> {
  return { playback, times };
}

export function framesOf(steps: readonly PlainStep[]): string[] {
  return steps.map(({ frame }) => frame);
}

export function saysSame(a: PlainClip, b: PlainClip): boolean {
  return same(a.steps, b.steps) && same(rulesOf(a), rulesOf(b));
}

export function isOn({ id }: Source): (step: Pick<Step, "frame">) => boolean {
  return ({ frame }) => frame.startsWith(`${id}/`);
}
