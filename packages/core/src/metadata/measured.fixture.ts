/** Measures how many generated descriptions are read correctly, grouped by their properties. */
import { type Description, DIMENSIONS, description } from "./descriptions/descriptions.fixture";
import { readFrames } from "./read";
import { readClips } from "./read-clips";
import { recognise } from "./recognise";

export interface Verdict {
  readonly description: Description;
  readonly rectangles: boolean;
  /** Null if it gives no extras, or no clips. */
  readonly extras: boolean | null;
  readonly clips: boolean | null;
  /** Wrong rectangles or names in a reading that was not called doubtful. */
  readonly silent: boolean;
  readonly doubtful: boolean;
  readonly why: string;
}

export function verdictOf(seed: number): Verdict {
  const made = description(seed);
  const { atlas, tells } = made;
  const described = { picture: "hero.png", coverage: atlas.coverage };
  try {
    const { parsed, reading, grade } = recognise(made.text, described, "hero.data");
    const { frames } = readFrames(parsed, reading, described);
    const byName = new Map(frames.map((frame) => [frame.name, frame]));
    let wrong = "";
    for (const [k, wanted] of atlas.frames.entries()) {
      const found = byName.get(tells.names[k] as string);
      const { x, y, w, h } = wanted.rect;
      if (!found) wrong ||= `no ${tells.names[k]}`;
      else if (found.rect.x !== x || found.rect.y !== y || found.rect.w !== w || found.rect.h !== h)
        wrong ||= `${found.name} at ${JSON.stringify(found.rect)}`;
    }
    if (frames.length !== atlas.frames.length) wrong ||= `${frames.length} frames`;
    let odd = "";
    for (const [k, wanted] of atlas.frames.entries()) {
      const found = byName.get(tells.names[k] as string);
      if (!found) continue;
      if (
        tells.sizes &&
        (found.size.w !== wanted.size.w ||
          found.size.h !== wanted.size.h ||
          found.inset.x !== wanted.inset.x ||
          found.inset.y !== wanted.inset.y)
      )
        odd ||= `size ${JSON.stringify([found.size, found.inset])}`;
      if (tells.turned && (found.turned === true) !== wanted.turned) odd ||= "turned";
      if (tells.origin && (found.origin?.x !== wanted.origin.x || found.origin?.y !== wanted.origin.y))
        odd ||= `origin ${JSON.stringify(found.origin)}`;
      if (tells.time && found.ms !== wanted.ms) odd ||= `time ${found.ms}`;
    }
    const clips = readClips(parsed, reading, frames);
    let played = "";
    for (const wanted of made.clips ?? []) {
      const found = clips.find(({ name }) => name === wanted.name);
      if (!found) played ||= `no clip ${wanted.name} in ${clips.map(({ name }) => name).slice(0, 4)}`;
      else if (found.steps.map(({ frame }) => frame).join() !== wanted.frames.join())
        played ||= `${wanted.name}: ${found.steps.map(({ frame }) => frame)}`;
      else if (found.playback !== wanted.playback) played ||= `${wanted.name} ${found.playback}`;
      else if (wanted.ms !== null && !tells.time && found.steps.some(({ ms }) => ms !== wanted.ms))
        played ||= `${wanted.name} ${found.steps[0]?.ms} ms`;
    }
    if (made.clips && clips.length !== made.clips.length) played ||= `${clips.length} clips`;
    const extra = tells.sizes || tells.turned || tells.origin || tells.time;
    return {
      description: made,
      rectangles: wrong === "",
      extras: extra ? wrong === "" && odd === "" : null,
      clips: made.clips ? wrong === "" && played === "" : null,
      silent: wrong !== "" && grade.grade === "sure",
      doubtful: grade.grade === "doubtful",
      why: [wrong, odd, played, ...grade.reasons].filter((each) => each !== "").join("; "),
    };
  } catch (error) {
    return {
      description: made,
      rectangles: false,
      extras: null,
      clips: made.clips ? false : null,
      silent: false,
      doubtful: false,
      why: String(error),
    };
  }
}

/** Share of those that hold, in percent with one decimal. */
export function percentOf(list: readonly (boolean | null)[]): number {
  const asked = list.filter((each) => each !== null);
  return asked.length === 0 ? 100 : Math.round((1000 * asked.filter(Boolean).length) / asked.length) / 10;
}

/** A line for each choice of each dimension: how many, and how many of them are right. */
export function byDimension(verdicts: readonly Verdict[]): string[] {
  return DIMENSIONS.flatMap((dimension) => {
    const values = [...new Set(verdicts.map(({ description: { made } }) => made[dimension]))].sort();
    return values.map((value) => {
      const own = verdicts.filter(({ description: { made } }) => made[dimension] === value);
      const figure = (of: (verdict: Verdict) => boolean | null) => `${percentOf(own.map(of)).toFixed(1)}`.padStart(6);
      return `${dimension.padEnd(10)} ${value.padEnd(20)} ${String(own.length).padStart(5)} ${figure((each) => each.rectangles)} ${figure((each) => each.extras)} ${figure((each) => each.clips)}`;
    });
  });
}
