/**
 * Reads animated PNG: extracts each frame as a PNG and composes it as the file asks.
 *
 * After the PNG specification, W3C Recommendation, third edition, sections 11.3.6 and 12. A frame replaces the canvas below it or is
 * blended over it, and is then kept, cleared, or reverted. Durations are fractions of a second.
 */
import type { Pixels } from "../raster";
import { t } from "../words";
import { type Animation, type AnimationFrame, UNSAID_DELAY } from "./animation";
import { composing, type Laid, whyOutside } from "./composing";
import { joined } from "./joined";
import type { PngCodec } from "./png";
import { type Chunk, chunk, chunksOf } from "./png-chunks";
import { inspectPng } from "./png-structure";

interface FrameControl extends Laid {
  readonly w: number;
  readonly h: number;
  readonly ms: number;
}

/** The animation of a PNG, or null if it is a still. Throws what `inspectPng` throws. */
export function readApng(bytes: Uint8Array, where: string, png: PngCodec): Animation | null {
  const { width, height } = inspectPng(bytes, where);
  const chunks = chunksOf(bytes);
  const control = chunks.find(({ type }) => type === "acTL");
  if (!control || control.data.length < 8) return null;
  const frames = framesOf(chunks);
  if (frames.length < 1) return null;
  const plays = viewOf(control.data).getUint32(4);
  return {
    width,
    height,
    count: frames.length,
    plays,
    frames: (onDamage) => composed(chunks, frames, width, height, where, png, onDamage),
  };
}

function viewOf(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}

/** Each frame's control with its picture data; a still that is no part of the animation has no control before it. */
function framesOf(chunks: readonly Chunk[]): { control: FrameControl; data: Uint8Array[] }[] {
  const frames: { control: FrameControl; data: Uint8Array[] }[] = [];
  for (const { type, data } of chunks) {
    const current = frames.at(-1);
    if (type === "fcTL" && data.length >= 26) frames.push({ control: controlOf(data), data: [] });
    else if (type === "IDAT") current?.data.push(data);
    else if (type === "fdAT" && data.length > 4) current?.data.push(data.subarray(4));
  }
  return frames;
}

function controlOf(data: Uint8Array): FrameControl {
  const view = viewOf(data);
  const seconds = view.getUint16(20) / (view.getUint16(22) || 100);
  return {
    w: view.getUint32(4),
    h: view.getUint32(8),
    x: view.getUint32(12),
    y: view.getUint32(16),
    ms: seconds === 0 ? UNSAID_DELAY : Math.round(seconds * 1_000_000) / 1000,
    over: view.getUint8(25) === 1,
    afterwards: AFTERWARDS[view.getUint8(24)] ?? "stays",
  };
}

/** By the number in the file. */
const AFTERWARDS = ["stays", "cleared", "reverted"] as const;

function* composed(
  chunks: readonly Chunk[],
  frames: readonly { control: FrameControl; data: Uint8Array[] }[],
  width: number,
  height: number,
  where: string,
  png: PngCodec,
  onDamage: (index: number, why: string) => void,
): Generator<AnimationFrame> {
  const show = composing(width, height);
  for (const [index, { control, data }] of frames.entries()) {
    const wrong = whyOutside(control, width, height);
    if (wrong !== null) {
      onDamage(index, wrong);
      continue;
    }
    let part: Pixels;
    try {
      part = png.decode(standalone(chunks, control, data), t("{where}, frame {index}", { where, index }));
    } catch (error) {
      onDamage(index, error instanceof Error ? error.message : t("It is damaged."));
      continue;
    }
    yield { pixels: show(part, control), ms: control.ms };
  }
}

/** A frame as a separate PNG: the file's header with the frame's size, its palette, the frame's data. */
function standalone(chunks: readonly Chunk[], { w, h }: FrameControl, data: readonly Uint8Array[]): Uint8Array {
  const header = (chunks.find(({ type }) => type === "IHDR") as Chunk).data.slice();
  viewOf(header).setUint32(0, w);
  viewOf(header).setUint32(4, h);
  const shared = chunks.filter(({ type }) => type === "PLTE" || type === "tRNS");
  return joined([
    new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk("IHDR", header),
    ...shared.map(({ type, data: each }) => chunk(type, each)),
    ...data.map((each) => chunk("IDAT", each)),
    chunk("IEND", new Uint8Array()),
  ]);
}
