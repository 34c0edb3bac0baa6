/**
 * Reads TGA pictures, which many drawing programs for games still write: true colour, palette or grey, plain or run-length coded.
 *
 * After the public "Truevision TGA File Format Specification", version 2.0, 1991: an 18-byte header, a name, a palette, then pixels from
 * the bottom row up unless the header says otherwise; colours are stored blue first. Holds: a decoded picture has exactly the size in the
 * header; otherwise an error says why. Cost: O(pixels).
 */
import { CaravanError } from "../model";
import { clearPixels, type Pixels } from "../raster";
import { t } from "../words";

/** The most pixels a file may have: more is never drawn, and would fill the memory. */
const MOST_PIXELS = 16_384 * 16_384;

interface Head {
  readonly kind: "palette" | "colour" | "grey";
  readonly packed: boolean;
  readonly width: number;
  readonly height: number;
  readonly bits: number;
  readonly alphaBits: number;
  readonly fromRight: boolean;
  readonly fromTop: boolean;
  readonly palette: { readonly at: number; readonly first: number; readonly count: number; readonly bits: number } | null;
  readonly pixelsAt: number;
}

const KINDS: Readonly<Record<number, Head["kind"]>> = { 1: "palette", 2: "colour", 3: "grey" };

/** Whether bytes may be such a picture. They have no mark at their beginning, so this looks at the whole head. */
export function looksLikeTga(bytes: Uint8Array): boolean {
  return headOf(bytes) !== null;
}

/** Throws `damaged-picture` or `not-a-picture`, with the reason. */
export function readTga(bytes: Uint8Array, where: string): Pixels {
  const head = headOf(bytes);
  if (!head)
    throw new CaravanError("not-a-picture", where, t("Its header is not a readable TGA header."), t("Save it as PNG, or as plain TGA."));
  const { width, height, palette } = head;
  if (width * height > MOST_PIXELS)
    throw new CaravanError(
      "not-a-picture",
      where,
      t("It says that it is {width} × {height} px large.", { width, height }),
      t("Export it again."),
    );
  const size = head.bits === 15 ? 2 : head.bits >> 3;
  const cells = head.packed ? unpacked(bytes, head, size, where) : bytes.subarray(head.pixelsAt, head.pixelsAt + width * height * size);
  if (cells.length < width * height * size) throw cutOff(where, head, cells.length / size);
  const colours = palette ? paletteOf(bytes, palette, where) : null;
  const colourAt = (at: number): readonly [number, number, number, number] => {
    if (head.kind === "grey") {
      const grey = cells[at] as number;
      return [grey, grey, grey, size === 2 ? (cells[at + 1] as number) : 255];
    }
    if (!colours || !palette) return colourIn(cells, at, head.bits, head.alphaBits);
    const index = (size === 2 ? (cells[at] as number) | ((cells[at + 1] as number) << 8) : (cells[at] as number)) - palette.first;
    return colours[index] ?? [0, 0, 0, 0];
  };
  const pixels = clearPixels(width, height);
  for (let row = 0; row < height; row++)
    for (let column = 0; column < width; column++) {
      const x = head.fromRight ? width - 1 - column : column;
      const y = head.fromTop ? row : height - 1 - row;
      pixels.bytes.set(colourAt((row * width + column) * size), (y * width + x) * 4);
    }
  return head.kind === "colour" && head.bits === 32 ? withSomeAlpha(pixels) : pixels;
}

/** Some programs write 32 bits with alpha 0 everywhere; nobody draws an invisible picture. */
function withSomeAlpha(pixels: Pixels): Pixels {
  for (let at = 3; at < pixels.bytes.length; at += 4) if (pixels.bytes[at] !== 0) return pixels;
  for (let at = 3; at < pixels.bytes.length; at += 4) pixels.bytes[at] = 255;
  return pixels;
}

function headOf(bytes: Uint8Array): Head | null {
  if (bytes.length < 18) return null;
  const byte = (at: number) => bytes[at] as number;
  const word = (at: number) => byte(at) | (byte(at + 1) << 8);
  const [kind, packed] = [KINDS[byte(2) & 7], (byte(2) & 8) !== 0];
  const [hasPalette, width, height, bits, descriptor] = [byte(1), word(12), word(14), byte(16), byte(17)];
  const paletteBits = byte(7);
  if (kind === undefined || byte(2) > 11 || hasPalette > 1 || width === 0 || height === 0 || descriptor & 0xc0) return null;
  const fits = { palette: [8, 16], colour: [15, 16, 24, 32], grey: [8, 16] }[kind].includes(bits);
  if (!fits || (kind === "palette" && (hasPalette === 0 || ![15, 16, 24, 32].includes(paletteBits)))) return null;
  const paletteAt = 18 + byte(0);
  const paletteLength = hasPalette ? word(5) * (paletteBits === 15 ? 2 : paletteBits >> 3) : 0;
  return {
    ...{ kind, packed, width, height, bits },
    alphaBits: descriptor & 15,
    fromRight: (descriptor & 16) !== 0,
    fromTop: (descriptor & 32) !== 0,
    palette: kind === "palette" ? { at: paletteAt, first: word(3), count: word(5), bits: paletteBits } : null,
    pixelsAt: paletteAt + paletteLength,
  };
}

type Palette = NonNullable<Head["palette"]>;

function paletteOf(bytes: Uint8Array, { at, count, bits }: Palette, where: string): (readonly [number, number, number, number])[] {
  const size = bits === 15 ? 2 : bits >> 3;
  if (at + count * size > bytes.length)
    throw new CaravanError("damaged-picture", where, t("The file ends within its palette."), t("Export it again, or copy the file again."));
  return Array.from({ length: count }, (_, k) => colourIn(bytes, at + k * size, bits, bits === 32 ? 8 : bits === 16 ? 1 : 0));
}

/** One stored colour as RGBA. Of 16 bits, five each are a colour, and the highest is alpha where the head says so. */
function colourIn(bytes: Uint8Array, at: number, bits: number, alphaBits: number): readonly [number, number, number, number] {
  if (bits <= 16) {
    const word = (bytes[at] as number) | ((bytes[at + 1] as number) << 8);
    const five = (shift: number) => Math.round((((word >> shift) & 31) * 255) / 31);
    return [five(10), five(5), five(0), bits === 16 && alphaBits > 0 && (word & 0x8000) === 0 ? 0 : 255];
  }
  return [bytes[at + 2] as number, bytes[at + 1] as number, bytes[at] as number, bits === 32 ? (bytes[at + 3] as number) : 255];
}

/** Expands runs: a byte with its highest bit set repeats the next cell; otherwise that many cells follow. */
function unpacked(bytes: Uint8Array, head: Head, size: number, where: string): Uint8Array {
  const wanted = head.width * head.height * size;
  // A packet of one byte and a cell gives at most 128 cells: impossible sizes are refused before memory is allocated.
  if ((bytes.length - head.pixelsAt) * 128 < head.width * head.height) throw cutOff(where, head, 0);
  const out = new Uint8Array(wanted);
  let [from, to] = [head.pixelsAt, 0];
  while (to < wanted) {
    const packet = bytes[from++];
    if (packet === undefined) throw cutOff(where, head, to / size);
    const length = Math.min(((packet & 127) + 1) * size, wanted - to);
    const stored = packet & 128 ? size : length;
    if (from + stored > bytes.length) throw cutOff(where, head, to / size);
    if (packet & 128) for (let at = 0; at < length; at++) out[to + at] = bytes[from + (at % size)] as number;
    else out.set(bytes.subarray(from, from + length), to);
    from += stored;
    to += length;
  }
  return out;
}

function cutOff(where: string, { width, height }: Head, found: number): CaravanError {
  return new CaravanError(
    "damaged-picture",
    where,
    t("The file ends early: it has {found} of the {wanted} pixels of a picture of {w} × {h} px.", {
      found: Math.floor(found),
      wanted: width * height,
      w: width,
      h: height,
    }),
    t("Export it again, or copy the file again."),
  );
}
