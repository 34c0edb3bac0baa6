/** Names frames for the game. */
import { type Counting, type FrameRef, frameName, frameRef, type PlacedFrame, type Project } from "../model";

/**
 * The names that a pattern gives the frames, in order: `{name}` its own, `{source}`, `{row}` and `{column}` of its cell, `{clip}` and
 * `{step}` where it first shows (the source and its number for a frame in no clip), `{n}` its running number. Numbers count from `from`;
 * `{n:3}` has at least three digits. Cost: O(frames + steps).
 */
export function framesNamed(project: Project, frames: readonly PlacedFrame[], pattern: string, from: Counting["from"]): string[] {
  const uses = /\{(clip|step)\b/u.test(pattern) ? firstUses(project) : null;
  const parts = partsOf(pattern);
  return frames.map((placed, k) => {
    const use = uses?.get(frameRef(placed.source, placed.frame));
    let name = "";
    for (const { text, key, digits } of parts) {
      if (key === null) name += text;
      else {
        const value = VALUES[key](placed, use, k);
        name += typeof value === "number" ? String(value + from).padStart(digits, "0") : value;
      }
    }
    return name;
  });
}

type Use = { readonly clip: string; readonly step: number } | undefined;

/** The value of each word in a pattern; numbers count from 0. */
const VALUES = {
  name: ({ source, frame }: PlacedFrame) => frameName(source, frame),
  source: ({ source }: PlacedFrame) => source.name,
  clip: ({ source }: PlacedFrame, use: Use) => use?.clip ?? source.name,
  row: ({ frame }: PlacedFrame) => frame.row,
  column: ({ frame }: PlacedFrame) => frame.column,
  step: ({ frame }: PlacedFrame, use: Use) => use?.step ?? frame.number,
  n: (_placed: PlacedFrame, _use: Use, k: number) => k,
} as const satisfies Record<string, (placed: PlacedFrame, use: Use, k: number) => string | number>;

type Word = keyof typeof VALUES;

/** A pattern as text and words; unknown words in braces are text. */
function partsOf(pattern: string): { readonly text: string; readonly key: Word | null; readonly digits: number }[] {
  return (pattern.match(/\{\w+(?::\d)?\}|\{|[^{]+/gu) ?? []).map((text) => {
    const [, key = "", digits = "1"] = /^\{(\w+)(?::(\d))?\}$/u.exec(text) ?? [];
    return { text, key: Object.hasOwn(VALUES, key) ? (key as Word) : null, digits: Number(digits) };
  });
}

/** Where each frame first shows: clips in document order. */
function firstUses({ clips }: Project): Map<FrameRef, { clip: string; step: number }> {
  const uses = new Map<FrameRef, { clip: string; step: number }>();
  for (const { name, steps } of clips)
    for (const [step, { frame }] of steps.entries()) if (!uses.has(frame)) uses.set(frame, { clip: name, step });
  return uses;
}

/** The pattern with every number as wide as the largest of `count` needs, so that no name is the start of another: `{n}` -> `{n:3}`. */
export function paddedPattern(pattern: string, count: number): string {
  const digits = String(Math.max(0, count)).length;
  return pattern.replace(/\{(row|column|step|n)(?::(\d))?\}/gu, (_, key: string, had?: string) => {
    return `{${key}:${Math.min(9, Math.max(digits, Number(had ?? 1)))}}`;
  });
}
