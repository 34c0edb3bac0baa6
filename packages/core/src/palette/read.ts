/** Reads palettes from text, and matches colours to others by brightness. */
import { MOST_COLOURS } from "../model";
import { type Rgb, rgbOf } from "../raster";
import { oklabOf } from "./oklab";

/** The colours that a text names as hex digits, `#a1b2c3`, `a1b2c3`, `#abc`, or with alpha, which is left out; in their order, repeats too. */
export function coloursInText(text: string): string[] {
  const found = text.matchAll(/(?<![0-9a-z])(?:#|0x)?([0-9a-f]{8}|[0-9a-f]{6})(?![0-9a-z])|#([0-9a-f]{3,4})(?![0-9a-z])/gi);
  return [...found]
    .map(([, long, short]) => (long ? long.slice(0, 6) : [...(short ?? "").slice(0, 3)].map((digit) => digit + digit).join("")))
    .map((digits) => `#${digits.toLowerCase()}`)
    .slice(0, MOST_COLOURS);
}

/**
 * `colours` reordered so that the darkest is where `like` has its darkest, and so on; as many as the shorter list has, the rest appended.
 */
export function matchedByBrightness(like: readonly string[], colours: readonly string[]): string[] {
  const bright = (colour: string) => oklabOf(rgbOf(colour) as Rgb).l;
  const places = like.map((colour, place) => ({ place, l: bright(colour) })).sort((a, b) => a.l - b.l || a.place - b.place);
  const sorted = colours.map((colour, k) => ({ colour, k, l: bright(colour) })).sort((a, b) => a.l - b.l || a.k - b.k);
  const matched = like.slice();
  for (const [k, { place }] of places.entries()) {
    const match = sorted[Math.min(sorted.length - 1, Math.round((k * (sorted.length - 1)) / Math.max(1, places.length - 1)))];
    if (match) matched[place] = match.colour;
  }
  return matched;
}
