/** Compares two accounts of the same track: what a change of art, times or rules has changed. */
import type { AccountRow } from "../model";

/** A time during which one rule shows, in ms; `rule` null where nothing does. */
export interface Bar {
  readonly rule: string | null;
  readonly play: string | null;
  readonly from: number;
  readonly to: number;
  readonly why: AccountRow["why"];
}

export interface ComparedBar extends Bar {
  /** Whether the other account has the same rule, playing the same, at the same times. */
  readonly same: boolean;
}

/** What shows when, up to `end`, in ms. Rules replaced in the same instant are left out. */
export function barsOf(rows: readonly AccountRow[], end: number): Bar[] {
  return rows.flatMap((row, k): Bar[] => {
    const to = Math.min(end, rows[k + 1]?.at ?? end);
    return row.at < to ? [{ rule: row.rule, play: row.play, from: row.at, to, why: row.why }] : [];
  });
}

export interface Comparison {
  readonly before: readonly ComparedBar[];
  readonly now: readonly ComparedBar[];
  /** The first time at which they differ, in ms; null if they do not. */
  readonly from: number | null;
}

export function compared(before: readonly AccountRow[], now: readonly AccountRow[], end: number): Comparison {
  const [a, b] = [barsOf(before, end), barsOf(now, end)];
  const keyOf = ({ rule, play, from, to }: Bar) => JSON.stringify([rule, play, from, to]);
  const [inA, inB] = [new Set(a.map(keyOf)), new Set(b.map(keyOf))];
  const first = [...a.filter((each) => !inB.has(keyOf(each))), ...b.filter((each) => !inA.has(keyOf(each)))];
  // Two bars that begin alike differ where the shorter one ends.
  const differing = first.map((each) => {
    const twin = [...a, ...b].find(
      (other) => other !== each && other.from === each.from && other.rule === each.rule && other.play === each.play && other.to !== each.to,
    );
    return twin ? Math.min(each.to, twin.to) : each.from;
  });
  return {
    before: a.map((each) => ({ ...each, same: inB.has(keyOf(each)) })),
    now: b.map((each) => ({ ...each, same: inA.has(keyOf(each)) })),
    from: differing.length === 0 ? null : Math.min(...differing),
  };
}
