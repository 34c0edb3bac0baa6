/**
 * Analyses a picture's colours along its sides: where neighbouring columns or rows differ, and how similar the picture is to itself shifted
 * by divisors of its side. Only for pictures that are drawn almost everywhere, where clear space says nothing. Cost: O(sampled pixels ×
 * divisors of the sides), with at most 128 lines sampled each way, and O(pixels) at most for lines of one colour.
 */
import { type Pixels, pixelWords } from "./pixels";

export interface SideColours {
  /** `seams[k]`: the mean difference of lines k − 1 and k, 0 to 255; 0 at k = 0. */
  readonly seams: Float32Array;
  /** For a shift that divides the side: the mean difference of the picture from itself shifted, 0 to 255. */
  readonly shifts: readonly (readonly [shift: number, difference: number])[];
  /** Lines of one colour from end to end, by their place: what people draw between cells looks so. RGBA words, as stored. */
  readonly plain: ReadonlyMap<number, number>;
}

export interface PictureColours {
  readonly along: SideColours;
  readonly down: SideColours;
}

const MOST_LINES = 128;
const LEAST_SHIFT = 4; // px: half of the smallest cell
const MOST_SHIFTS = 40;

export function coloursOf(pixels: Pixels): PictureColours {
  const { width, height, bytes } = pixels;
  const at = (x: number, y: number) => (y * width + x) * 4;
  const differ = (a: number, b: number) =>
    Math.abs((bytes[a] as number) - (bytes[b] as number)) +
    Math.abs((bytes[a + 1] as number) - (bytes[b + 1] as number)) +
    Math.abs((bytes[a + 2] as number) - (bytes[b + 2] as number)) +
    Math.abs((bytes[a + 3] as number) - (bytes[b + 3] as number));
  const words = pixelWords(bytes);
  return {
    along: {
      ...sideColours(width, height, (place, line, other) => differ(at(place, line), at(other, line))),
      plain: plainLines(width, height, (place, line) => words[line * width + place] as number),
    },
    down: {
      ...sideColours(height, width, (place, line, other) => differ(at(line, place), at(line, other))),
      plain: plainLines(height, width, (place, line) => words[place * width + line] as number),
    },
  };
}

function plainLines(length: number, breadth: number, colour: (place: number, line: number) => number): Map<number, number> {
  const found = new Map<number, number>();
  for (let place = 0; place < length; place++) {
    const first = colour(place, 0);
    let line = 1;
    while (line < breadth && colour(place, line) === first) line++;
    if (line === breadth) found.set(place, first);
  }
  return found;
}

function sideColours(
  length: number,
  breadth: number,
  differ: (place: number, line: number, other: number) => number,
): Omit<SideColours, "plain"> {
  const step = Math.max(1, breadth / MOST_LINES);
  const lines = Array.from({ length: Math.min(breadth, MOST_LINES) }, (_, k) => Math.floor(k * step));
  const seams = new Float32Array(length);
  for (let place = 1; place < length; place++) {
    let sum = 0;
    for (const line of lines) sum += differ(place, line, place - 1);
    seams[place] = sum / lines.length / 4;
  }
  // A few samples are enough to compare two halves.
  const stride = Math.max(1, Math.floor(length / 512));
  const few = lines.filter((_, k) => k % Math.max(1, Math.floor(lines.length / 32)) === 0);
  const shifts = divisorsOf(length).map((shift): [number, number] => {
    let sum = 0;
    let count = 0;
    for (let place = 0; place + shift < length; place += stride)
      for (const line of few) {
        sum += differ(place, line, place + shift);
        count++;
      }
    return [shift, count === 0 ? 0 : sum / count / 4];
  });
  return { seams, shifts };
}

/** Divisors of a side from half the smallest cell to half the side, the smallest first. */
function divisorsOf(length: number): number[] {
  const found: number[] = [];
  for (let shift = LEAST_SHIFT; shift <= length / 2 && found.length < MOST_SHIFTS; shift++) if (length % shift === 0) found.push(shift);
  return found;
}
