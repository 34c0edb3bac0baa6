/**
 * Writes animated PNG: complete pictures, each replacing the previous one (PNG specification, W3C Recommendation, third edition, sections
 * 11.3.6 and 12). Durations are exact to a thousandth of a second, as fractions of 16 bits allow.
 */
import { CaravanError } from "../model";
import { t } from "../words";
import type { AnimationFrame } from "./animation";
import { joined } from "./joined";
import type { PngCodec } from "./png";
import { type Chunk, chunk, chunksOf } from "./png-chunks";

const SIGNATURE = new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);

/** Longest time of one picture: 65,535 over 1 at most. */
const LONGEST = 65_535_000; // ms

/**
 * Pictures of one size with their times in ms; `plays` 0 is forever. All are written in full colour, since a palette would have to be
 * shared by all. Throws `bad-time`.
 */
export function writeApng(frames: readonly AnimationFrame[], plays: number, png: PngCodec): Uint8Array {
  const [first] = frames;
  if (!first) throw new Error("An animation needs at least one picture.");
  let sequence = 0;
  const parts: Uint8Array[] = [];
  for (const { pixels, ms } of frames) {
    const chunks = chunksOf(png.encodeFull(pixels));
    if (parts.length === 0)
      parts.push(
        SIGNATURE,
        chunk("IHDR", (chunks.find(({ type }) => type === "IHDR") as Chunk).data),
        chunk("acTL", numbers(frames.length, plays)),
      );
    parts.push(chunk("fcTL", control(sequence++, pixels.width, pixels.height, ms)));
    for (const { type, data } of chunks) {
      if (type !== "IDAT") continue;
      if (sequence === 1) parts.push(chunk("IDAT", data));
      else parts.push(chunk("fdAT", joined([numbers(sequence++), data])));
    }
  }
  return joined([...parts, chunk("IEND", new Uint8Array())]);
}

function control(sequence: number, width: number, height: number, ms: number): Uint8Array {
  const [over, under] = fraction(ms);
  const out = new Uint8Array(26);
  const view = new DataView(out.buffer);
  view.setUint32(0, sequence);
  view.setUint32(4, width);
  view.setUint32(8, height);
  view.setUint16(20, over);
  view.setUint16(22, under);
  // Disposal and blending 0: kept, and replaced entirely by the next.
  return out;
}

/** The time that an APNG holds nearest to this one, in ms. */
export function apngTime(ms: number): number {
  const [over, under] = fraction(ms);
  return (over / under) * 1000;
}

/** Seconds as the nearest fraction of two 16-bit numbers. */
function fraction(ms: number): [over: number, under: number] {
  if (ms > LONGEST)
    throw new CaravanError(
      "bad-number",
      t("an animated PNG"),
      t("It cannot hold a step of {ms} ms; {longest} ms is the longest.", { ms, longest: LONGEST }),
      t("Shorten the step."),
    );
  let best: [number, number] = [1, 65_535];
  let least = Number.POSITIVE_INFINITY;
  for (const under of [1000, 10_000, 60_000, 100, 10, 1]) {
    const over = Math.round((ms * under) / 1000);
    if (over < 1 || over > 65_535) continue;
    const error = Math.abs((over / under) * 1000 - ms);
    if (error < least - 1e-9) {
      least = error;
      best = [over, under];
    }
  }
  return best;
}

function numbers(...values: number[]): Uint8Array {
  const out = new Uint8Array(values.length * 4);
  const view = new DataView(out.buffer);
  values.forEach((value, k) => {
    view.setUint32(k * 4, value);
  });
  return out;
}
