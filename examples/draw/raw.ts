/** The files as artists hand them in: every way that art arrives at once. `examples/raw` holds them. */
import { type NamedFile, utf8, writeZip } from "@caravan/core/codec";
import type { Pixels } from "@caravan/core/raster";
import * as gifModule from "gifenc";
import { pngCodec } from "../../packages/cli/src/png";
import { camelSheet } from "./camel";
import { BANNER_STILLS, BEARER_SIZE, banner, bazaar, bearerLayers, WELL_TIMES, well } from "./camp";
import { seeded, sheetOf } from "./canvas";
import { drawPorter, walking } from "./porter";

// The library is loaded as another kind of module by each of the tools that run this.
const { GIFEncoder } = "GIFEncoder" in gifModule ? gifModule : (gifModule as { default: typeof gifModule }).default;

/** Every file by its name. */
export function rawFiles(): NamedFile[] {
  const png = pngCodec();
  const { pixels, description } = bazaar();
  return [
    { path: "camel.png", bytes: png.encode(camelSheet().pixels) },
    ...Array.from({ length: BANNER_STILLS }, (_, k) => ({ path: `banner${k + 1}.png`, bytes: png.encode(banner(k / BANNER_STILLS)) })),
    { path: "well.gif", bytes: wellGif() },
    { path: "bazaar.png", bytes: png.encode(pixels) },
    { path: "bazaar.json", bytes: utf8(description) },
    { path: "porter-on-white.png", bytes: png.encode(porterOnWhite()) },
    { path: "lamp-bearer.ora", bytes: lampBearer() },
  ];
}

function wellGif(): Uint8Array {
  const gif = GIFEncoder();
  const pictures = WELL_TIMES.map((_, k) => well(k));
  const colours = new Map<number, number>([[0, 0]]);
  for (const { bytes } of pictures)
    for (let k = 0; k < bytes.length; k += 4) {
      const key =
        bytes[k + 3] === 0 ? 0 : 0x1000000 + ((bytes[k] as number) << 16) + ((bytes[k + 1] as number) << 8) + (bytes[k + 2] as number);
      if (!colours.has(key)) colours.set(key, colours.size);
    }
  const palette = [...colours.keys()].map((key) => [(key >> 16) & 255, (key >> 8) & 255, key & 255]);
  for (const [k, { width, height, bytes }] of pictures.entries()) {
    const index = new Uint8Array(width * height);
    for (let at = 0; at < index.length; at++) {
      const from = at * 4;
      const key =
        bytes[from + 3] === 0
          ? 0
          : 0x1000000 + ((bytes[from] as number) << 16) + ((bytes[from + 1] as number) << 8) + (bytes[from + 2] as number);
      index[at] = colours.get(key) as number;
    }
    gif.writeFrame(index, width, height, { palette, delay: WELL_TIMES[k] as number, dispose: 2, transparent: true, transparentIndex: 0 });
  }
  gif.finish();
  return gif.bytes();
}

export const WHITE_COLUMNS = 8;

/** The porter's walk before somebody noticed the ground: white, and slightly noisy. */
export function porterOnWhite(): Pixels {
  const sheet = porterUnspoilt();
  const random = seeded(77);
  const bytes = sheet.bytes.slice();
  for (let k = 0; k < bytes.length; k += 4)
    if (bytes[k + 3] === 0) {
      const off = Math.floor(random() * 4);
      bytes.set([255 - off, 255 - off, 254 - off, 255], k);
    }
  return { ...sheet, bytes };
}

/** The same with its ground clear. */
export function porterUnspoilt(): Pixels {
  const walk = (["e", "s"] as const).flatMap((facing) =>
    Array.from({ length: WHITE_COLUMNS }, (_, k) => drawPorter(facing, walking(k / WHITE_COLUMNS))),
  );
  return sheetOf(walk, WHITE_COLUMNS);
}

function lampBearer(): Uint8Array {
  const png = pngCodec();
  const layers = bearerLayers();
  const tag = (k: number) => {
    const { name, hidden } = layers[k] as (typeof layers)[number];
    return `<layer name="${name}" src="data/${name}.png" x="0" y="0"${hidden ? ' visibility="hidden"' : ""}/>`;
  };
  const body = layers.flatMap(({ group }, k) => (group === "body" ? [k] : []));
  const rest = layers.flatMap(({ group }, k) => (group === null ? [k] : []));
  const stack = `<?xml version="1.0" encoding="UTF-8"?>\n<image version="0.0.5" w="${BEARER_SIZE.w}" h="${BEARER_SIZE.h}"><stack>${rest.toReversed().map(tag).join("")}<stack name="body">${body.toReversed().map(tag).join("")}</stack></stack></image>\n`;
  return writeZip([
    { path: "mimetype", bytes: utf8("image/openraster") },
    { path: "stack.xml", bytes: utf8(stack) },
    ...layers.map(({ name, pixels }) => ({ path: `data/${name}.png`, bytes: png.encode(pixels) })),
  ]);
}
