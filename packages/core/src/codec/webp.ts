/**
 * Reads animated WebP: extracts each frame as a still WebP, which browsers and libraries decode exactly, and composes it as the file asks.
 *
 * After the WebP container specification (RFC 9649, section 2): chunks of a name, a length and data, padded to even lengths. A frame lies on
 * even coordinates, replaces the canvas below it or is blended over it, and then stays or is cleared. Durations are in milliseconds.
 */
import { CaravanError } from "../model";
import type { Pixels } from "../raster";
import { t } from "../words";
import { type AwaitedAnimation, UNSAID_DELAY } from "./animation";
import { composing, type Laid, whyOutside } from "./composing";
import { joined } from "./joined";
import { LONGEST_SIDE, MOST_PIXELS } from "./png-structure";

/** Decodes a still WebP file to exact pixels; `where` names it in errors. */
export type DecodeWebp = (file: Uint8Array, where: string) => Promise<Pixels>;

interface Chunk {
  readonly name: string;
  readonly data: Uint8Array;
  /** Whether the file ends before the chunk does. */
  readonly isCutOff: boolean;
}

interface Frame extends Laid {
  readonly w: number;
  readonly h: number;
  readonly ms: number;
  readonly parts: readonly Chunk[];
  readonly isCutOff: boolean;
}

export function looksLikeWebp(bytes: Uint8Array): boolean {
  return nameAt(bytes, 0) === "RIFF" && nameAt(bytes, 8) === "WEBP";
}

/** The animation of a WebP, or null if it is a still. Throws `damaged-picture` and `picture-too-large`. */
export function readAnimatedWebp(bytes: Uint8Array, where: string, decode: DecodeWebp): AwaitedAnimation | null {
  const chunks = chunksOf(bytes, RIFF_HEADER);
  const header = chunks.find(({ name }) => name === "VP8X");
  if (!header || header.data.length < 10 || ((header.data[0] as number) & MOVES) === 0) return null;
  const [width, height] = [1 + threeAt(header.data, 4), 1 + threeAt(header.data, 7)];
  if (width > LONGEST_SIDE || height > LONGEST_SIDE || width * height > MOST_PIXELS)
    throw new CaravanError(
      "picture-too-large",
      where,
      t("The WebP is {width} × {height} px; the limit is {longestSide} a side.", { width, height, longestSide: LONGEST_SIDE }),
      t("Make it smaller."),
    );
  const frames = chunks.filter(({ name, data }) => name === "ANMF" && data.length >= FRAME_HEADER).map(frameOf);
  if (frames.length === 0)
    throw new CaravanError(
      "damaged-picture",
      where,
      t("The WebP says that it is an animation and contains no picture."),
      t("Export it again or use another copy of it."),
    );
  const loop = chunks.find(({ name, data }) => name === "ANIM" && data.length >= 6)?.data;
  const plays = loop ? (loop[4] as number) + 256 * (loop[5] as number) : 0;
  return { width, height, count: frames.length, plays, frames: (onDamage) => composed(frames, width, height, where, decode, onDamage) };
}

const RIFF_HEADER = 12; // bytes
const FRAME_HEADER = 16; // bytes
/** Flags of the VP8X chunk. */
const MOVES = 0x02;
const HAS_ALPHA = 0x10;
/** Flags of a frame. */
const CLEARED = 0x01;
const IN_PLACE = 0x02;

function nameAt(bytes: Uint8Array, at: number): string {
  return String.fromCharCode(...bytes.subarray(at, at + 4));
}

function threeAt(bytes: Uint8Array, at: number): number {
  return (bytes[at] as number) + 256 * (bytes[at + 1] as number) + 65_536 * (bytes[at + 2] as number);
}

function chunksOf(bytes: Uint8Array, from: number): Chunk[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const chunks: Chunk[] = [];
  for (let at = from; at + 8 <= bytes.length; ) {
    const length = view.getUint32(at + 4, true);
    const end = at + 8 + length;
    chunks.push({ name: nameAt(bytes, at), data: bytes.subarray(at + 8, end), isCutOff: end > bytes.length });
    at = end + (length % 2);
  }
  return chunks;
}

function frameOf({ data, isCutOff }: Chunk): Frame {
  const flags = data[15] as number;
  const ms = threeAt(data, 12);
  return {
    x: 2 * threeAt(data, 0),
    y: 2 * threeAt(data, 3),
    w: 1 + threeAt(data, 6),
    h: 1 + threeAt(data, 9),
    ms: ms === 0 ? UNSAID_DELAY : ms,
    over: (flags & IN_PLACE) === 0,
    afterwards: (flags & CLEARED) === 0 ? "stays" : "cleared",
    parts: chunksOf(data, FRAME_HEADER),
    isCutOff,
  };
}

async function* composed(
  frames: readonly Frame[],
  width: number,
  height: number,
  where: string,
  decode: DecodeWebp,
  onDamage: (index: number, why: string) => void,
): ReturnType<AwaitedAnimation["frames"]> {
  const show = composing(width, height);
  for (const [index, frame] of frames.entries()) {
    const wrong = frame.isCutOff ? t("It is cut off.") : whyOutside(frame, width, height);
    if (wrong !== null) {
      onDamage(index, wrong);
      continue;
    }
    let part: Pixels;
    try {
      part = await decode(standalone(frame), t("{where}, frame {index}", { where, index }));
    } catch (error) {
      onDamage(index, error instanceof Error ? error.message : t("It is damaged."));
      continue;
    }
    if (part.width === frame.w && part.height === frame.h) yield { pixels: show(part, frame), ms: frame.ms };
    else onDamage(index, t("It is damaged."));
  }
}

/** A frame as a separate WebP. */
function standalone({ w, h, parts }: Frame): Uint8Array {
  const kept = parts.filter(({ name }) => name === "ALPH" || name === "VP8 " || name === "VP8L");
  const isSplit = kept.some(({ name }) => name === "ALPH");
  const header = Uint8Array.of(HAS_ALPHA, 0, 0, 0, ...three(w - 1), ...three(h - 1));
  const content = joined([
    Uint8Array.from("WEBP", (letter) => letter.charCodeAt(0)),
    ...(isSplit ? [chunk("VP8X", header)] : []),
    ...kept.map(({ name, data }) => chunk(name, data)),
  ]);
  return chunk("RIFF", content);
}

function three(value: number): number[] {
  return [value & 255, (value >>> 8) & 255, value >>> 16];
}

function chunk(name: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(8 + data.length + (data.length % 2));
  for (let k = 0; k < 4; k++) out[k] = name.charCodeAt(k);
  new DataView(out.buffer).setUint32(4, data.length, true);
  out.set(data, 8);
  return out;
}
