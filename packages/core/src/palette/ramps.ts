/** Groups a picture's colours into ramps: colours of one hue from dark to light. */
import { MOST_COLOURS } from "../model";
import { hexOf, type Pixels, type Rgb } from "../raster";
import { colourDistance, oklabOf, oklchOf } from "./oklab";

export interface UsedColour {
  readonly colour: string;
  readonly pixels: number;
}

/** The colours that are drawn, the most used first; null if they are more than a palette may hold. Alpha is not looked at, clear pixels do not count. */
export function coloursIn(pictures: readonly Pixels[]): UsedColour[] | null {
  const counts = new Map<number, number>();
  for (const { bytes } of pictures) {
    let [last, run] = [-1, 0];
    const close = () => last >= 0 && counts.set(last, (counts.get(last) ?? 0) + run);
    for (let k = 0; k < bytes.length; k += 4) {
      const colour = bytes[k + 3] === 0 ? -1 : ((bytes[k] as number) << 16) | ((bytes[k + 1] as number) << 8) | (bytes[k + 2] as number);
      if (colour === last) {
        run++;
        continue;
      }
      close();
      if (counts.size > MOST_COLOURS) return null;
      [last, run] = [colour, 1];
    }
    close();
  }
  if (counts.size > MOST_COLOURS) return null;
  return [...counts].sort((a, b) => b[1] - a[1] || a[0] - b[0]).map(([colour, pixels]) => ({ colour: hexOf(rgbOfNumber(colour)), pixels }));
}

/**
 * The colours of a picture that is a palette: each once, in reading order, without transparent pixels. Null if there are more than a
 * palette may contain, so that it is a picture of something.
 */
export function coloursInReadingOrder({ bytes }: Pick<Pixels, "bytes">): string[] | null {
  const seen = new Set<number>();
  for (let k = 0; k < bytes.length && seen.size <= MOST_COLOURS; k += 4)
    if (bytes[k + 3] !== 0) seen.add(((bytes[k] as number) << 16) | ((bytes[k + 1] as number) << 8) | (bytes[k + 2] as number));
  return seen.size > MOST_COLOURS ? null : [...seen].map((colour) => hexOf(rgbOfNumber(colour)));
}

function rgbOfNumber(colour: number): Rgb {
  return [colour >> 16, (colour >> 8) & 255, colour & 255];
}

/** A step of a ramp is this much lighter than the previous one, from 0 to 1. */
const LIGHTER = { least: 0.02, most: 0.24 };
/** From step to step a ramp turns to another hue and strength no further than this: in the plane of OKLab's a and b, where greys are at 0. */
const TURN = 0.085;
/** The cost of a step in lightness relative to one in hue. */
const RISE = 0.3;
/** How much closer two colours count if they are adjacent wherever they are drawn. */
const TOUCH = 0.12;

/** How often two colours are adjacent in a picture: 0 for never, 1 for wherever the rarer of the two borders any other. */
export type Touching = (one: Rgb, other: Rgb) => number;

/**
 * The colours as ramps: each from dark to light, every colour in one. The best pairs are joined first, by hue, chroma and lightness and, if
 * known, by adjacency: the tones of one cloth touch. Ramps are sorted by the hue of their middle, greys first. Cost: O(colours² log
 * colours).
 */
export function ramps(colours: readonly Rgb[], touching: Touching = () => 0): Rgb[][] {
  const told = colours.map((rgb) => ({ rgb, lab: oklabOf(rgb) }));
  const joints = told
    .flatMap((dark, from) =>
      told.flatMap((light, to) => {
        const rise = light.lab.l - dark.lab.l;
        const turn = Math.hypot(light.lab.a - dark.lab.a, light.lab.b - dark.lab.b);
        if (rise < LIGHTER.least || rise > LIGHTER.most || turn > TURN) return [];
        return [{ from, to, cost: turn + rise * RISE - touching(dark.rgb, light.rgb) * TOUCH }];
      }),
    )
    .sort((one, other) => one.cost - other.cost || one.from - other.from || one.to - other.to);
  const after = new Map<number, number>();
  const before = new Set<number>();
  for (const { from, to } of joints)
    if (!after.has(from) && !before.has(to)) {
      after.set(from, to);
      before.add(to);
    }
  const made = told.flatMap((_, first) => {
    if (before.has(first)) return [];
    const ramp: Rgb[] = [];
    for (let at: number | undefined = first; at !== undefined; at = after.get(at)) ramp.push((told[at] as (typeof told)[number]).rgb);
    return [ramp];
  });
  const hueOf = (ramp: readonly Rgb[]) => {
    const { c, h } = oklchOf(ramp[ramp.length >> 1] as Rgb);
    return c < GREY ? -1 : h;
  };
  return made.sort((one, other) => hueOf(one) - hueOf(other));
}

/** Which colours of a picture touch, horizontally or vertically. Cost: O(pixels). */
export function touchingIn({ width, height, bytes }: Pixels): Touching {
  const pairs = new Map<number, number>();
  const all = new Map<number, number>();
  const colourAt = (k: number) =>
    bytes[k * 4 + 3] === 0 ? -1 : ((bytes[k * 4] as number) << 16) | ((bytes[k * 4 + 1] as number) << 8) | (bytes[k * 4 + 2] as number);
  const meet = (one: number, other: number) => {
    if (one < 0 || other < 0 || one === other) return;
    const pair = Math.min(one, other) * 0x1000000 + Math.max(one, other);
    pairs.set(pair, (pairs.get(pair) ?? 0) + 1);
    all.set(one, (all.get(one) ?? 0) + 1);
    all.set(other, (all.get(other) ?? 0) + 1);
  };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const here = colourAt(y * width + x);
      if (x + 1 < width) meet(here, colourAt(y * width + x + 1));
      if (y + 1 < height) meet(here, colourAt((y + 1) * width + x));
    }
  const numberOf = ([red, green, blue]: Rgb) => (red << 16) | (green << 8) | blue;
  return (a, b) => {
    const [one, other] = [numberOf(a), numberOf(b)];
    const count = pairs.get(Math.min(one, other) * 0x1000000 + Math.max(one, other)) ?? 0;
    return count / Math.max(1, Math.min(all.get(one) ?? 0, all.get(other) ?? 0));
  };
}

/** Less chroma than this is grey: it has no hue to go by. */
const GREY = 0.03;

/** Pairs of colours that were probably meant to be the same: eyes cannot tell them apart. Nearest first. */
export function nearlyEqual(colours: readonly Rgb[], within = 0.02): (readonly [Rgb, Rgb])[] {
  return colours
    .flatMap((one, k) => colours.slice(k + 1).map((other) => ({ one, other, apart: colourDistance(one, other) })))
    .filter(({ apart }) => apart > 0 && apart < within)
    .sort((a, b) => a.apart - b.apart)
    .map(({ one, other }) => [one, other] as const);
}
