/** How frames are called in the game. */
import { type Counting, clipsByFrame, frameName, frameRef, type PlacedFrame, type Project } from "../model";

/**
 * The names that a pattern gives the frames, in their order: `{name}` its own, `{source}`, `{row}` and `{column}` of its cell, `{clip}` and
 * `{step}` where it is first shown (the source and its number for a frame in no clip), `{n}` its running number. Numbers count from
 * `from`; `{n:3}` has at least three digits.
 */
export function framesNamed(project: Project, frames: readonly PlacedFrame[], pattern: string, from: Counting["from"]): string[] {
  const uses = clipsByFrame(project);
  return frames.map(({ source, frame }, k) => {
    const ref = frameRef(source, frame);
    const clip = project.clips.find(({ name }) => name === uses.get(ref)?.[0]);
    const step = clip ? clip.steps.findIndex((each) => each.frame === ref) : frame.number;
    const texts: Record<string, string> = { name: frameName(source, frame), source: source.name, clip: clip?.name ?? source.name };
    const numbers: Record<string, number> = { row: frame.row, column: frame.column, step, n: k };
    return pattern.replace(/\{(\w+)(?::(\d))?\}/gu, (whole, key: string, digits?: string) => {
      const number = numbers[key];
      if (number !== undefined) return String(number + from).padStart(Number(digits ?? 1), "0");
      return texts[key] ?? whole;
    });
  });
}

/** The pattern with every number as wide as the largest of `count` needs, so that no name begins another: `{n}` -> `{n:3}`. */
export function paddedPattern(pattern: string, count: number): string {
  const digits = String(Math.max(0, count)).length;
  return pattern.replace(/\{(row|column|step|n)(?::(\d))?\}/gu, (_, key: string, had?: string) => {
    return `{${key}:${Math.min(9, Math.max(digits, Number(had ?? 1)))}}`;
  });
}
