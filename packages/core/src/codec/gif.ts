/**
 * Reads GIF animations frame by frame, so that a damaged frame does not affect the others.
 *
 * After the GIF89a specification (CompuServe, 1990) with its variable-length LZW (appendix F). A frame is drawn over the previous canvas,
 * then disposed of as it asks: kept, cleared, or reverted. Durations are in 1/100 s; 0 and 1 mean 100 ms in practice. Our own reader,
 * because available ones give up on a file at its first damaged or missing byte, or do not report it.
 */
import { CaravanError } from "../model";
import { clearPixels, type Pixels } from "../raster";
import { t } from "../words";
import { type Animation, type AnimationFrame, UNSAID_DELAY } from "./animation";
import { LONGEST_SIDE, MOST_PIXELS } from "./png-structure";

export function looksLikeGif(bytes: Uint8Array): boolean {
  return (
    bytes.length >= 6 &&
    String.fromCharCode(...bytes.subarray(0, 3)) === "GIF" &&
    /^8[79]a$/.test(String.fromCharCode(...bytes.subarray(3, 6)))
  );
}

interface Image {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
  readonly interlaced: boolean;
  /** The position of its colour table, and the number of colours. */
  readonly palette: { readonly at: number; readonly count: number } | null;
  /** Where its packed data begins: the least code size, then blocks. */
  readonly data: number;
  readonly clearIndex: number | null;
  readonly dispose: number;
  readonly ms: number;
}

/** Throws `not-a-picture`, `damaged-picture` or `picture-too-large`; later damage is reported while frames are read. */
export function readGif(bytes: Uint8Array, where: string): Animation {
  if (!looksLikeGif(bytes)) throw new CaravanError("not-a-picture", where, t("This is not a GIF."), t("Choose a GIF file."));
  if (bytes.length < 13)
    throw new CaravanError(
      "damaged-picture",
      where,
      t("The GIF is cut off after {bytes} bytes.", { bytes: bytes.length }),
      t("Use another copy of it."),
    );
  const { width, height, images, plays } = structureOf(bytes);
  if (width > LONGEST_SIDE || height > LONGEST_SIDE || width * height > MOST_PIXELS)
    throw new CaravanError(
      "picture-too-large",
      where,
      t("The GIF is {width} × {height} px; the limit is {longestSide} a side.", { width, height, longestSide: LONGEST_SIDE }),
      t("Make it smaller."),
    );
  if (width === 0 || height === 0 || images.length === 0)
    throw new CaravanError(
      "damaged-picture",
      where,
      t("The GIF contains no complete picture."),
      t("Export it again or use another copy of it."),
    );
  return { width, height, count: images.length, plays, frames: (onDamage) => composed(bytes, width, height, images, onDamage) };
}

function structureOf(bytes: Uint8Array): { width: number; height: number; images: Image[]; plays: number } {
  const short = (at: number) => (bytes[at] ?? 0) | ((bytes[at + 1] ?? 0) << 8);
  const flags = bytes[10] as number;
  const images: Image[] = [];
  const shared = (flags & 0x80) !== 0 ? { at: 13, count: 2 << (flags & 7) } : null;
  let at = 13 + (shared ? shared.count * 3 : 0);
  let plays = 1;
  let control = { ms: UNSAID_DELAY, clearIndex: null as number | null, dispose: 0 };
  /** The place after a run of blocks, or beyond the end if it is cut off. */
  const afterBlocks = (from: number) => {
    let next = from;
    while (next < bytes.length && bytes[next] !== 0) next += (bytes[next] as number) + 1;
    return next + 1;
  };
  while (at < bytes.length) {
    const kind = bytes[at];
    if (kind === 0x21) {
      const label = bytes[at + 1];
      if (label === 0xf9) {
        const packed = bytes[at + 3] ?? 0;
        const hundredths = short(at + 4);
        control = {
          ms: hundredths <= 1 ? UNSAID_DELAY : hundredths * 10,
          clearIndex: (packed & 1) === 1 ? (bytes[at + 6] ?? 0) : null,
          dispose: (packed >> 2) & 7,
        };
      } else if (label === 0xff && String.fromCharCode(...bytes.subarray(at + 3, at + 14)) === "NETSCAPE2.0" && bytes[at + 15] === 1)
        plays = short(at + 16) === 0 ? 0 : short(at + 16) + 1;
      at = afterBlocks(at + 2);
    } else if (kind === 0x2c) {
      const packed = bytes[at + 9] ?? 0;
      const own = (packed & 0x80) !== 0 ? { at: at + 10, count: 2 << (packed & 7) } : null;
      const data = at + 10 + (own ? own.count * 3 : 0);
      if (data + 1 < bytes.length)
        images.push({
          x: short(at + 1),
          y: short(at + 3),
          w: short(at + 5),
          h: short(at + 7),
          interlaced: (packed & 0x40) !== 0,
          palette: own ?? shared,
          data,
          ...control,
        });
      control = { ms: UNSAID_DELAY, clearIndex: null, dispose: 0 };
      at = afterBlocks(data + 1);
    } else if (kind === 0) at++;
    else break; // the end, or unreadable data
  }
  return { width: short(6), height: short(8), images, plays };
}

function* composed(
  bytes: Uint8Array,
  width: number,
  height: number,
  images: readonly Image[],
  onDamage: (index: number, why: string) => void,
): Generator<AnimationFrame> {
  const canvas = clearPixels(width, height);
  for (const [index, image] of images.entries()) {
    if (image.x + image.w > width || image.y + image.h > height || image.w === 0 || image.h === 0) {
      onDamage(
        index,
        t("It lies at {x}, {y} with {w} × {h} px, outside the {width} × {height} px picture.", {
          x: image.x,
          y: image.y,
          w: image.w,
          h: image.h,
          width,
          height,
        }),
      );
      continue;
    }
    if (!image.palette) {
      onDamage(index, t("It has no colours."));
      continue;
    }
    const indices = unpacked(bytes, image);
    if (typeof indices === "string") {
      onDamage(index, indices);
      continue;
    }
    const before = image.dispose === 3 ? canvas.bytes.slice() : null;
    draw(canvas, bytes, image, indices);
    yield { pixels: { width, height, bytes: canvas.bytes.slice() }, ms: image.ms };
    if (before) canvas.bytes.set(before);
    else if (image.dispose === 2)
      for (let y = image.y; y < image.y + image.h; y++)
        canvas.bytes.fill(0, (y * width + image.x) * 4, (y * width + image.x + image.w) * 4);
  }
}

function draw(canvas: Pixels, bytes: Uint8Array, { x, y, w, h, interlaced, palette, clearIndex }: Image, indices: Uint8Array): void {
  const rows = interlaced ? interlacedRows(h) : null;
  const { at, count } = palette as { at: number; count: number };
  for (let row = 0; row < h; row++) {
    const to = ((y + (rows ? (rows[row] as number) : row)) * canvas.width + x) * 4;
    for (let column = 0; column < w; column++) {
      const colour = indices[row * w + column] as number;
      if (colour === clearIndex) continue;
      const from = at + Math.min(colour, count - 1) * 3;
      canvas.bytes[to + column * 4] = bytes[from] as number;
      canvas.bytes[to + column * 4 + 1] = bytes[from + 1] as number;
      canvas.bytes[to + column * 4 + 2] = bytes[from + 2] as number;
      canvas.bytes[to + column * 4 + 3] = 255;
    }
  }
}

/** Where each stored row belongs: every 8th from 0, every 8th from 4, every 4th from 2, every 2nd from 1. */
function interlacedRows(h: number): number[] {
  const rows: number[] = [];
  for (const [first, step] of [
    [0, 8],
    [4, 8],
    [2, 4],
    [1, 2],
  ] as const)
    for (let row = first; row < h; row += step) rows.push(row);
  return rows;
}

/** The colour index of every pixel, or in words why they cannot be had. */
function unpacked(bytes: Uint8Array, { w, h, data }: Image): Uint8Array | string {
  const least = bytes[data] as number;
  if (least < 1 || least > 11) return t("Its data is damaged at the start.");
  const clear = 1 << least;
  const end = clear + 1;
  const prefix = new Int16Array(4096);
  const suffix = new Uint8Array(4096);
  const length = new Uint16Array(4096);
  for (let code = 0; code < clear; code++) {
    suffix[code] = code;
    length[code] = 1;
  }
  const out = new Uint8Array(w * h);
  let written = 0;
  let next = clear + 2;
  let size = least + 1;
  let previous = -1;
  let bits = 0;
  let held = 0;
  let at = data + 1;
  let left = 0; // bytes of the block that is being read
  while (written < out.length) {
    while (held < size) {
      if (left === 0) {
        left = bytes[at++] ?? 0;
        if (left === 0) return t("Its data ends after {written} of {out} pixels.", { written, out: out.length });
      }
      if (at >= bytes.length) return t("The file is cut off after {written} of its {out} pixels.", { written, out: out.length });
      bits |= (bytes[at++] as number) << held;
      held += 8;
      left--;
    }
    const code = bits & ((1 << size) - 1);
    bits >>>= size;
    held -= size;
    if (code === clear) {
      next = clear + 2;
      size = least + 1;
      previous = -1;
      continue;
    }
    if (code === end) return t("Its data ends after {written} of {out} pixels.", { written, out: out.length });
    if (code > next || (code === next && previous < 0))
      return t("Its data is damaged after {written} of {out} pixels.", { written, out: out.length });
    // A code that is being defined stands for the last string and its own first pixel.
    const known = code < next ? code : previous;
    const count = length[known] as number;
    let place = written + count - 1;
    let walk = known;
    for (let k = 0; k < count; k++) {
      if (place < out.length) out[place] = suffix[walk] as number;
      place--;
      walk = prefix[walk] as number;
    }
    const first = out[written] as number;
    written += count;
    if (code === next && written < out.length) out[written] = first;
    if (code === next) written++;
    if (previous >= 0 && next < 4096) {
      prefix[next] = previous;
      suffix[next] = first;
      length[next] = (length[previous] as number) + 1;
      next++;
      if (next === 1 << size && size < 12) size++;
    }
    previous = code;
  }
  return out;
}
