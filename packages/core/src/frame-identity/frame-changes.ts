/** Summarises what changed art did to a source's frames: same, moved, changed, new, gone. */
import { counted, type Frame, type FrameRef, frameRef, type Source } from "../model";
import { t } from "../words";
import type { Drawings } from "./follow";
import { placeOf } from "./new-frame";

export interface FrameChanges {
  readonly same: readonly FrameRef[];
  /** The same drawing at another place, on the sheet or within its frame. */
  readonly moved: readonly FrameRef[];
  readonly changed: readonly FrameRef[];
  readonly added: readonly FrameRef[];
  readonly gone: readonly FrameRef[];
}

/** How a frame compares with what it was; asked only for frames that both states have. */
export type Compared = (before: Frame, after: Frame) => "same" | "moved" | "changed";

/** Compares two states of one source. Dropped frames count as the others do. Cost: O(frames) and one comparison for each. */
export function framesChanged(before: Source, after: Source, compared: Compared): FrameChanges {
  const old = new Map(before.frames.map((frame) => [frame.key, frame]));
  const kept = new Set<string>();
  const changes = { same: [], moved: [], changed: [], added: [], gone: [] } as Record<keyof FrameChanges, FrameRef[]>;
  for (const frame of after.frames) {
    const known = old.get(frame.key);
    const ref = frameRef(after, frame);
    if (!known) {
      changes.added.push(ref);
      continue;
    }
    kept.add(frame.key);
    changes[compared(known, frame)].push(ref);
  }
  for (const frame of before.frames) if (!kept.has(frame.key)) changes.gone.push(frameRef(before, frame));
  return changes;
}

/** Compares frames by their drawings. Empty frames are equal. */
export function comparedByDrawings({ before, after }: Drawings): Compared {
  return (old, frame) => {
    const [from, to] = [before.get(old.key), after.get(placeOf(frame))];
    if (from?.print !== to?.print) return "changed";
    const sameSize = old.rect.w === frame.rect.w && old.rect.h === frame.rect.h;
    const within = !from || !to || (from.x - old.rect.x === to.x - frame.rect.x && from.y - old.rect.y === to.y - frame.rect.y);
    const samePlace = placeOf(old) === placeOf(frame);
    return within && sameSize && samePlace ? "same" : sameSize || from ? "moved" : "changed";
  };
}

/** "63 frames moved down a row", "64 frames moved 1 px down": each way that frames went, most first. */
export function movesInWords(before: Source, after: Source, refs: readonly FrameRef[], { before: olds, after: news }: Drawings): string[] {
  const wanted = new Set<string>(refs);
  const old = new Map(before.frames.map((frame) => [frame.key, frame]));
  const ways = new Map<string, number>();
  for (const frame of after.frames) {
    const known = old.get(frame.key);
    if (!known || !wanted.has(frameRef(after, frame))) continue;
    const way = wayInWords(known, frame, olds.get(known.key), news.get(placeOf(frame)));
    ways.set(way, (ways.get(way) ?? 0) + 1);
  }
  return [...ways].sort((a, b) => b[1] - a[1]).map(([way, count]) => t("{frames} moved {way}", { frames: counted(count, "frame"), way }));
}

interface Spot {
  readonly x: number;
  readonly y: number;
}

function wayInWords(old: Frame, frame: Frame, from: Spot | undefined, to: Spot | undefined): string {
  const pictures = (frame.picture ?? 0) - (old.picture ?? 0);
  if (pictures !== 0) return `${counted(Math.abs(pictures), "picture")} ${pictures > 0 ? "on" : "back"}`;
  const cells = inWords(frame.column - old.column, frame.row - old.row, (count, one) => (count === 1 ? `a ${one}` : `${count} ${one}s`));
  // Within its cell it is the drawing that moved.
  if (frame.rect.x !== old.rect.x || frame.rect.y !== old.rect.y)
    return cells ?? pixels(frame.rect.x - old.rect.x, frame.rect.y - old.rect.y);
  return from && to ? pixels(to.x - from.x, to.y - from.y) : t("within its cell");
}

function inWords(columns: number, rows: number, count: (count: number, one: string) => string): string | null {
  const parts = [
    ...(rows !== 0 ? [`${rows > 0 ? "down" : "up"} ${count(Math.abs(rows), "row")}`] : []),
    ...(columns !== 0 ? [`${columns > 0 ? "right" : "left"} ${count(Math.abs(columns), "column")}`] : []),
  ];
  return parts.length > 0 ? parts.join(" and ") : null;
}

function pixels(x: number, y: number): string {
  const parts = [
    ...(y !== 0 ? [y > 0 ? t("{y} px down", { y: Math.abs(y) }) : t("{y} px up", { y: Math.abs(y) })] : []),
    ...(x !== 0 ? [x > 0 ? t("{x} px to the right", { x: Math.abs(x) }) : t("{x} px to the left", { x: Math.abs(x) })] : []),
  ];
  return parts.length > 0 ? parts.join(" and ") : t("within its frame");
}
