/** How frames are called in the game. */
import { type Counting, type FrameRef, frameName, frameRef, type PlacedFrame, type Project } from "../model";

/**
 * The names that a pattern gives the frames, in their order: `{name}` its own, `{source}`, `{row}` and `{column}` of its cell, `{clip}` and
 * `{step}` where it is first shown (the source and its number for a frame in no clip), `{n}` its running number. Numbers count from
 * `from`; `{n:3}` has at least three digits. Cost: O(frames + steps).
 */
export function framesNamed(project: Project, frames: readonly PlacedFrame[], pattern: string, from: Counting["from"]): string[] {
  const uses = firstUses(project);
  return frames.map(({ source, frame }, k) => {
    const use = uses.get(frameRef(source, frame));
    const texts = new Map<string, string>([
      ["name", frameName(source, frame)],
      ["source", source.name],
      ["clip", use?.clip ?? source.name],
    ]);
    const numbers = new Map<string, number>([
      ["row", frame.row],
      ["column", frame.column],
      ["step", use?.step ?? frame.number],
      ["n", k],
    ]);
    return pattern.replace(PART, (whole, key: string, digits?: string) => {
      const number = numbers.get(key);
      if (number !== undefined) return String(number + from).padStart(Number(digits ?? 1), "0");
      return texts.get(key) ?? whole;
    });
  });
}

const PART = /\{(\w+)(?::(\d))?\}/gu;

/** Where each frame is first shown: clips in the order of the document. */
function firstUses({ clips }: Project): Map<FrameRef, { clip: string; step: number }> {
  const uses = new Map<FrameRef, { clip: string; step: number }>();
  for (const { name, steps } of clips)
    for (const [step, { frame }] of steps.entries()) if (!uses.has(frame)) uses.set(frame, { clip: name, step });
  return uses;
}

/** The pattern with every number as wide as the largest of `count` needs, so that no name begins another: `{n}` -> `{n:3}`. */
export function paddedPattern(pattern: string, count: number): string {
  const digits = String(Math.max(0, count)).length;
  return pattern.replace(/\{(row|column|step|n)(?::(\d))?\}/gu, (_, key: string, had?: string) => {
    return `{${key}:${Math.min(9, Math.max(digits, Number(had ?? 1)))}}`;
  });
}
