/**
 * Walks a PNG file's chunks and explains in plain words what is wrong with it, before decoding any pixel.
 *
 * After the PNG specification, W3C Recommendation, third edition, sections 5 and 11. Checks what damage affects: the signature, lengths,
 * the checksums of critical chunks, header fields, the palette, and that there is picture data and an end. Checksums of ancillary chunks
 * are not checked: of these we only use transparency. Cost: O(bytes), each read once.
 */
import CRC32 from "crc-32";
import { CaravanError } from "../model";
import { t } from "../words";
import { changedAsText, refuseStandIn } from "./stand-in";

/** The header of a picture file. */
export interface PngHeader {
  readonly width: number;
  readonly height: number;
  readonly bitDepth: number;
  readonly colourType: number;
  readonly interlaced: boolean;
}

/** px: the longest side that browsers' canvases and their textures support. */
export const LONGEST_SIDE = 16_384;
/** Half a gigabyte of RGBA: what a browser tab can hold for one picture besides everything else. */
export const MOST_PIXELS = 134_217_728;

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

/** Bit depths that go with each colour type (specification, table 11.1). */
const DEPTHS: Record<number, readonly number[]> = {
  0: [1, 2, 4, 8, 16],
  2: [8, 16],
  3: [1, 2, 4, 8],
  4: [8, 16],
  6: [8, 16],
};

/** True when the bytes begin as every PNG file does. */
export function looksLikePng(bytes: Uint8Array): boolean {
  return bytes.length >= 8 && SIGNATURE.every((byte, k) => bytes[k] === byte);
}

/** CRC-32 of bytes (ISO 3309), as a signed or unsigned number. */
export type Checksum = (bytes: Uint8Array) => number;

/**
 * Reads the header and checks the structure. `where` names the file in errors; `checksum` may be a faster one that the system has.
 * Throws `empty-file`, `not-a-picture`, `damaged-picture` or `picture-too-large`.
 */
export function inspectPng(bytes: Uint8Array, where: string, checksum: Checksum = CRC32.buf): PngHeader {
  if (bytes.length === 0) throw new CaravanError("empty-file", where, t("The file is empty (0 bytes)."), t("Export the picture again."));
  refuseStandIn(bytes, where);
  if (!looksLikePng(bytes)) throw notPng(bytes, where);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const damaged = (what: string) =>
    new CaravanError("damaged-picture", where, what, t("Export the picture again or use another copy of it."));
  let header: PngHeader | null = null;
  let hasPalette = false;
  let hasData = false;
  let at = 8;
  for (;;) {
    if (at === bytes.length) throw damaged(t("The PNG file is incomplete: its end is missing."));
    if (at + 12 > bytes.length) throw damaged(t("The PNG file is cut off after {bytes} bytes.", { bytes: bytes.length }));
    const length = view.getUint32(at);
    const type = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (!/^[A-Za-z]{4}$/.test(type)) throw damaged(t("The PNG file is damaged at byte {at}: no chunk can start there.", { at }));
    const end = at + 12 + length;
    if (length > 0x7fffffff || end > bytes.length)
      throw damaged(
        t("The PNG file is cut off: its part {type} should end at byte {end}, the file has {bytes}.", { type, end, bytes: bytes.length }),
      );
    const critical = type.charCodeAt(0) < 0x61;
    if (critical && (checksum(bytes.subarray(at + 4, end - 4)) | 0) !== view.getInt32(end - 4))
      throw damaged(t("The PNG file's part {type} at byte {at} is damaged: its checksum is wrong.", { type, at }));
    if (header === null && type !== "IHDR") throw damaged(t("The PNG file does not begin with its header."));
    switch (type) {
      case "IHDR":
        if (header) throw damaged(t("The PNG file has two headers."));
        if (length !== 13) throw damaged(t("The PNG file's header has the wrong length."));
        header = headerAt(view, at + 8, damaged);
        if (header.width > LONGEST_SIDE || header.height > LONGEST_SIDE || header.width * header.height > MOST_PIXELS)
          throw tooLarge(header, where);
        break;
      case "PLTE":
        if (length === 0 || length % 3 !== 0 || length > 768) throw damaged(t("The PNG file's palette has the wrong length."));
        hasPalette = true;
        break;
      case "IDAT":
        if (header?.colourType === 3 && !hasPalette) throw damaged(t("The PNG file needs a palette and has none."));
        hasData = true;
        break;
      case "IEND":
        if (!header || !hasData) throw damaged(t("The PNG file has no picture data."));
        return header;
      default:
        if (critical) throw damaged(t("The PNG file has an unknown critical chunk {type}.", { type }));
    }
    at = end;
  }
}

function headerAt(view: DataView, at: number, damaged: (what: string) => CaravanError): PngHeader {
  const width = view.getUint32(at);
  const height = view.getUint32(at + 4);
  const [bitDepth, colourType, compression, filter, interlace] = [8, 9, 10, 11, 12].map((k) => view.getUint8(at + k)) as [
    number,
    number,
    number,
    number,
    number,
  ];
  if (width === 0 || height === 0) throw damaged(t("The PNG file says it is {width} × {height} px.", { width, height }));
  if (!DEPTHS[colourType]?.includes(bitDepth))
    throw damaged(t("The PNG file's colour type {colourType} with {bitDepth} bits does not exist.", { colourType, bitDepth }));
  if (compression !== 0 || filter !== 0 || interlace > 1) throw damaged(t("The PNG file's header names a method that does not exist."));
  return { width, height, bitDepth, colourType, interlaced: interlace === 1 };
}

function tooLarge({ width, height }: PngHeader, where: string): CaravanError {
  return new CaravanError(
    "picture-too-large",
    where,
    t("The picture is {width} × {height} px; the limits are {longestSide} px a side and {mostPixels} million pixels in all.", {
      width,
      height,
      longestSide: LONGEST_SIDE,
      mostPixels: MOST_PIXELS / 1_048_576,
    }),
    t("Split it into smaller sheets."),
  );
}

/** What other files begin with, and what these are. */
const OTHERS: readonly (readonly [at: number, begins: string, kind: () => string, isPicture: boolean])[] = [
  [0, "\xff\xd8\xff", () => t("a JPEG picture"), true],
  [0, "GIF8", () => t("a GIF picture"), true],
  [0, "BM", () => t("a BMP picture"), true],
  [8, "WEBP", () => t("a WebP picture"), true],
  [4, "ftypavi", () => t("an AVIF picture"), true],
  [4, "ftyphei", () => t("a HEIF picture"), true],
  [4, "ftypmif1", () => t("a HEIF picture"), true],
  [0, "II*\0", () => t("a TIFF picture"), true],
  [0, "MM\0*", () => t("a TIFF picture"), true],
  [0, "PK\x03\x04", () => t("a ZIP archive"), false],
  [0, "%PDF", () => t("a PDF document"), false],
];

function notPng(bytes: Uint8Array, where: string): CaravanError {
  const changed = changedAsText(bytes);
  if (changed !== null) return new CaravanError("damaged-picture", where, changed, t("Take the file anew, as a binary one."));
  const beginning = String.fromCharCode(...bytes.subarray(0, 64));
  const other = OTHERS.find(([at, begins]) => beginning.startsWith(begins, at));
  if (other) {
    const [, , kind, isPicture] = other;
    const remedy = isPicture ? t("Save it as PNG first.") : t("Choose a PNG file.");
    return new CaravanError("not-a-picture", where, t("This is {kind}, not a PNG.", { kind: kind() }), remedy);
  }
  if (/^(?:\xef\xbb\xbf)?\s*<(?:!doctype html|html)\b/i.test(beginning))
    return new CaravanError(
      "not-a-picture",
      where,
      t("This is a web page, not a picture."),
      t("Download the picture itself, not the page that shows it."),
    );
  return new CaravanError("not-a-picture", where, t("This is not a PNG picture."), t("Choose a PNG file."));
}
