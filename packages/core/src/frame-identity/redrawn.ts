/**
 * Guesses where redrawn frames went in changed art, whose drawings are nowhere in it: with the frames around them that were found.
 *
 * Those in its row are asked, and those in its column; the more unanimous of both decides, because inserted rows move whole rows, and
 * inserted columns whole columns. Where neither says anything, as for pictures with one frame each, the nearest ones before and after it
 * decide if they agree; then most frames of the source. Cost: O(frames), times how many lie in one row or column if these are uneven.
 */
import type { Frame, FramePoint } from "../model";

/** A frame whose drawing was found. */
export interface Found {
  readonly frame: Frame;
  /** Where its rectangle went, as `wayOf` says it. */
  readonly way: string;
  /** How far its drawing moved on its picture: not always as far as its rectangle. */
  readonly went: FramePoint;
}

/** The same for a redrawn frame. */
export type Guess = Found;

interface Vote extends Pick<Found, "way" | "went"> {
  /** 0 to 1. */
  readonly sureness: number;
  /** How many went that way. */
  readonly count: number;
}

/** px: frames are looked up by the bands that they reach into. */
const BAND = 64;

/** A single frame may have been moved by itself. */
const ENOUGH = 2;

/** One guess for each frame about which something is known, the surest first: two frames may claim one place. */
export function waysOfRedrawn(lost: readonly Frame[], found: readonly Found[]): Guess[] {
  if (lost.length === 0 || found.length < ENOUGH) return [];
  const inRow = votes(found, ({ rect }) => [rect.y, rect.h]);
  const inColumn = votes(found, ({ rect }) => [rect.x, rect.w]);
  const all = voteOf(found);
  const inOrder = [...found].sort((a, b) => a.frame.number - b.frame.number);
  const guesses = lost.flatMap((frame) => {
    const vote = surer(inRow(frame), inColumn(frame)) ?? between(frame, inOrder) ?? all;
    return vote ? [{ frame, vote }] : [];
  });
  guesses.sort((a, b) => compare(a.vote, b.vote));
  return guesses.map(({ frame, vote: { way, went } }) => ({ frame, way, went }));
}

/**
 * What the found frames say that overlap a frame along one axis, on the same picture; the surer, the more of all found frames went with
 * theirs. Asked once for each position.
 */
function votes(found: readonly Found[], along: (frame: Frame) => readonly [number, number]): (frame: Frame) => Vote | null {
  const bands = new Map<string, Found[]>();
  const bandsOf = (frame: Frame) => {
    const [start, length] = along(frame);
    const names: string[] = [];
    for (let band = Math.floor(start / BAND); band * BAND < start + length; band++) names.push(`${frame.picture ?? 0} ${band}`);
    return names;
  };
  for (const each of found)
    for (const name of bandsOf(each.frame)) {
      const band = bands.get(name);
      if (band) band.push(each);
      else bands.set(name, [each]);
    }
  const known = new Map<string, Vote | null>();
  const ask = (frame: Frame) => {
    const [start, length] = along(frame);
    const key = `${frame.picture ?? 0} ${start} ${length}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const beside = new Set<Found>();
    for (const name of bandsOf(frame))
      for (const each of bands.get(name) ?? []) {
        const [from, size] = along(each.frame);
        if (from < start + length && start < from + size) beside.add(each);
      }
    const vote = voteOf([...beside]);
    known.set(key, vote);
    return vote;
  };
  const agreement =
    found.filter((each) => {
      const vote = ask(each.frame);
      return vote !== null && wentAlike(vote, each);
    }).length / found.length;
  return (frame) => {
    const vote = ask(frame);
    return vote && { ...vote, sureness: vote.sureness * agreement };
  };
}

/** The way of more than half of them; null if there is none, or too few went it. */
function voteOf(found: readonly Found[]): Vote | null {
  const counts = new Map<string, { count: number; one: Found }>();
  for (const each of found) {
    const key = `${each.way} ${each.went.x} ${each.went.y}`;
    const known = counts.get(key);
    if (known) known.count++;
    else counts.set(key, { count: 1, one: each });
  }
  for (const { count, one } of counts.values())
    if (count >= ENOUGH && count * 2 > found.length) return { way: one.way, went: one.went, sureness: count / found.length, count };
  return null;
}

function wentAlike(a: Pick<Found, "way" | "went">, b: Pick<Found, "way" | "went">): boolean {
  return a.way === b.way && a.went.x === b.went.x && a.went.y === b.went.y;
}

/** Null also if both are equally sure of different ways. */
function surer(a: Vote | null, b: Vote | null): Vote | null {
  if (!a || !b) return a ?? b;
  if (a.sureness === b.sureness && !wentAlike(a, b)) return null;
  return compare(a, b) <= 0 ? a : b;
}

function between(frame: Frame, inOrder: readonly Found[]): Vote | null {
  const after = inOrder.find((each) => each.frame.number > frame.number);
  const before = inOrder.findLast((each) => each.frame.number < frame.number);
  return after && before && wentAlike(after, before) ? { way: after.way, went: after.went, sureness: 0.5, count: ENOUGH } : null;
}

function compare(a: Vote, b: Vote): number {
  return b.sureness - a.sureness || b.count - a.count;
}
