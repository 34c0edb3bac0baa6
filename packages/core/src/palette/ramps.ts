/** Which colours a picture has, in ramps: colours of one hue from dark to light. */
import { MOST_COLOURS } from "../model";
import { hexOf, type Pixels, type Rgb } from "../raster";
import { colourDistance, oklchOf } from "./oklab";

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

function rgbOfNumber(colour: number): Rgb {
  return [colour >> 16, (colour >> 8) & 255, colour & 255];
}

/** Less chroma than this is grey: it has no hue to go by. */
const GREY = 0.03;
/** Neighbours in a ramp are this close in hue, in degrees: shadows lean to another hue a little from step to step. */
const LEAN = 28;

/** The colours in ramps, each from dark to light, greys first, then by hue. Every colour is in one ramp. */
export function ramps(colours: readonly Rgb[]): Rgb[][] {
  const told = colours.map((rgb) => ({ rgb, ...oklchOf(rgb) })).sort((a, b) => a.l - b.l);
  const greys = told.filter(({ c }) => c < GREY);
  const rest = told.filter(({ c }) => c >= GREY).sort((a, b) => a.h - b.h);
  const groups: (typeof rest)[] = [];
  for (const each of rest) {
    const group = groups.at(-1);
    if (group && each.h - (group.at(-1)?.h ?? 0) <= LEAN) group.push(each);
    else groups.push([each]);
  }
  // Hues go round: the last reds belong to the first.
  const [first, final] = [groups[0], groups.at(-1)];
  if (first && final && first !== final && (first[0]?.h ?? 0) + 360 - (final.at(-1)?.h ?? 0) <= LEAN)
    groups[0] = [...(groups.pop() ?? []), ...first];
  return [greys, ...groups].filter((group) => group.length > 0).map((group) => group.sort((a, b) => a.l - b.l).map(({ rgb }) => rgb));
}

/** Pairs that were probably meant to be one colour: they differ by less than eyes tell apart. Nearest first. */
export function nearlyEqual(colours: readonly Rgb[], within = 0.02): (readonly [Rgb, Rgb])[] {
  return colours
    .flatMap((one, k) => colours.slice(k + 1).map((other) => ({ one, other, apart: colourDistance(one, other) })))
    .filter(({ apart }) => apart > 0 && apart < within)
    .sort((a, b) => a.apart - b.apart)
    .map(({ one, other }) => [one, other] as const);
}
