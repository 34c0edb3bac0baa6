/**
 * Detects an opaque background: one colour, possibly noisy, or a picture of a checkerboard.
 *
 * Only the outermost pixels are examined, because every sheet shows its background there: if most of them are near one colour, or alternate
 * between two in equal squares, that is the background. Cost: O(width + height), and O(pixels) to judge whether its edges are soft.
 */
import type { Clearing, Colour } from "../model";
import { clearGround } from "./clear-ground";
import { hexOf, type Rgb } from "./colour";
import { factsOf } from "./facts";
import type { Pixels } from "./pixels";

export interface Ground {
  /** `plain` is white, black or grey; `key` a bright colour that nobody draws with; `checker` a picture of a checkerboard. */
  readonly kind: "plain" | "key" | "checker";
  readonly clearing: Clearing;
}

const ENOUGH = 0.7; // of the ring
/** Lossy pictures scatter a flat colour by up to about this much per channel. */
const NEAR = 24;

/** The ground, or null if there is none: the picture is clear at its edges or has no colour that prevails there. */
export function findGround(pixels: Pixels): Ground | null {
  const ring = ringOf(pixels);
  const opaque = ring.filter(({ alpha }) => alpha === 255);
  if (opaque.length < ring.length * 0.9) return null;
  const [first, second] = prevailing(opaque);
  if (!first) return null;
  if (first.count >= ring.length * ENOUGH) {
    const { colour } = first;
    const bright = Math.max(...colour) - Math.min(...colour) > 90;
    return { kind: bright ? "key" : "plain", clearing: clearingOf(pixels, [first]) };
  }
  if (second && first.count + second.count >= ring.length * ENOUGH && alternates(pixels, first.colour, second.colour))
    return { kind: "checker", clearing: clearingOf(pixels, [first, second]) };
  return null;
}

/** The ground of a picture that is opaque all over: what would be seen in a game. Null for all others. */
export function opaqueGround(pixels: Pixels): Ground | null {
  // Looking at the edges costs least and rules out nearly all.
  const ground = findGround(pixels);
  return ground && factsOf(pixels).ground === "opaque" ? ground : null;
}

interface Ringed {
  readonly colour: Rgb;
  readonly alpha: number;
}

/** The outermost pixels, each once. */
function ringOf({ width, height, bytes }: Pixels): Ringed[] {
  const at = (x: number, y: number): Ringed => {
    const k = (y * width + x) * 4;
    return { colour: [bytes[k] as number, bytes[k + 1] as number, bytes[k + 2] as number], alpha: bytes[k + 3] as number };
  };
  const ring: Ringed[] = [];
  for (let x = 0; x < width; x++) {
    ring.push(at(x, 0));
    if (height > 1) ring.push(at(x, height - 1));
  }
  for (let y = 1; y < height - 1; y++) {
    ring.push(at(0, y));
    if (width > 1) ring.push(at(width - 1, y));
  }
  return ring;
}

interface Prevailing {
  readonly colour: Rgb;
  readonly count: number;
  /** How far its pixels are off, at most. */
  readonly spread: number;
}

/** The two colours around which most of the ring lies, the more frequent first. */
function prevailing(ring: readonly Ringed[]): Prevailing[] {
  const found: Prevailing[] = [];
  let rest = ring;
  for (let k = 0; k < 2 && rest.length > 0; k++) {
    const counts = new Map<number, { colour: Rgb; count: number }>();
    for (const { colour } of rest) {
      const key = (colour[0] << 16) | (colour[1] << 8) | colour[2];
      const known = counts.get(key);
      if (known) known.count++;
      else counts.set(key, { colour, count: 1 });
    }
    // The most frequent colour alone may be a stray; what counts is how many pixels are near it.
    const candidates = [...counts.values()].sort((a, b) => b.count - a.count).slice(0, 12);
    const around = candidates.map(({ colour }) => {
      const near = rest.filter((each) => channelsOff(each.colour, colour) <= NEAR);
      return { near, middle: middleOf(near.map((each) => each.colour)) };
    });
    const best = around.sort((a, b) => b.near.length - a.near.length)[0];
    if (!best) break;
    const spread = Math.max(...best.near.map((each) => channelsOff(each.colour, best.middle)));
    found.push({ colour: best.middle, count: best.near.length, spread });
    const taken = new Set(best.near);
    rest = rest.filter((each) => !taken.has(each));
  }
  return found;
}

/** The median of each channel. */
function middleOf(colours: readonly Rgb[]): Rgb {
  const middle = (channel: 0 | 1 | 2) => colours.map((each) => each[channel]).sort((a, b) => a - b)[colours.length >> 1] as number;
  return [middle(0), middle(1), middle(2)];
}

function channelsOff(a: Rgb, b: Rgb): number {
  return Math.max(Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1]), Math.abs(a[2] - b[2]));
}

/** Whether the first row and the first column go to and fro between two colours in runs of one length. */
function alternates({ width, height, bytes }: Pixels, a: Rgb, b: Rgb): boolean {
  const sideAt = (x: number, y: number): "a" | "b" | null => {
    const k = (y * width + x) * 4;
    const colour: Rgb = [bytes[k] as number, bytes[k + 1] as number, bytes[k + 2] as number];
    if (channelsOff(colour, a) <= NEAR) return "a";
    return channelsOff(colour, b) <= NEAR ? "b" : null;
  };
  const along = Array.from({ length: width }, (_, x) => sideAt(x, 0));
  const down = Array.from({ length: height }, (_, y) => sideAt(0, y));
  return hasEvenRuns(along) || hasEvenRuns(down);
}

function hasEvenRuns(sides: readonly ("a" | "b" | null)[]): boolean {
  const runs: number[] = [];
  for (let from = 0, k = 1; k <= sides.length; k++)
    if (sides[k] !== sides[from]) {
      if (sides[from] !== null) runs.push(k - from);
      from = k;
    }
  const inner = runs.slice(1, -1).sort((x, y) => x - y);
  const usual = inner[inner.length >> 1] ?? 0;
  return inner.length >= 2 && inner.filter((run) => Math.abs(run - usual) <= 1).length >= inner.length * 0.7;
}

function clearingOf(pixels: Pixels, grounds: readonly Prevailing[]): Clearing {
  const colours = grounds.map(({ colour }) => hexOf(colour) as Colour);
  const spread = Math.max(...grounds.map((each) => each.spread));
  // What scatters at the edges scatters a little more somewhere inside.
  const tolerance = spread === 0 ? 0 : Math.min(48, Math.ceil(spread * 1.5) + 2);
  const plain: Clearing = { colours, tolerance, from: "edges", fringe: false };
  return { ...plain, fringe: hasSoftEdges(pixels, plain) };
}

/** Whether most pixels beside the background are mixed with its colour, as smooth drawing tools and lossy files leave them. */
function hasSoftEdges(pixels: Pixels, clearing: Clearing): boolean {
  const hard = clearGround(pixels, clearing);
  const soft = clearGround(pixels, { ...clearing, fringe: true });
  let beside = 0;
  let mixed = 0;
  const { width, height } = pixels;
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const k = (y * width + x) * 4 + 3;
      if (hard.bytes[k] === 0) continue;
      const edge = hard.bytes[k - 4] === 0 || hard.bytes[k + 4] === 0 || hard.bytes[k - width * 4] === 0 || hard.bytes[k + width * 4] === 0;
      if (!edge) continue;
      beside++;
      if ((soft.bytes[k] as number) < 255) mixed++;
    }
  return beside > 0 && mixed > beside * 0.6;
}
