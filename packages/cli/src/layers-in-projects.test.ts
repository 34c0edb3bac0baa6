import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readAtlas } from "@caravan/core/atlas";
import { utf8, writeZip } from "@caravan/core/codec";
import { frameFromPage } from "@caravan/core/pack";
import { clearPixels, crop, looksSame, type Pixels } from "@caravan/core/raster";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { caravanIn } from "./caravan.fixture";
import { pngCodec } from "./png";

let folder: string;
let caravan: ReturnType<typeof caravanIn>;
const png = pngCodec();

/** A sheet of three cells of 16 × 16 px with a block in each of `cells`. */
function sheet(colour: readonly number[], inset: number, cells: readonly number[], width = 48): Pixels {
  const made = clearPixels(width, 16);
  for (const cell of cells)
    for (let y = inset; y < 16 - inset; y++)
      for (let x = cell * 16 + inset; x < cell * 16 + 16 - inset; x++)
        made.bytes.set([...colour.slice(0, 3), (colour[3] as number) - x], (y * width + x) * 4);
  return made;
}

const body = sheet([90, 60, 40, 255], 4, [0, 1]);
const light = sheet([255, 210, 120, 130], 2, [1, 2]);
const write = (path: string, pixels: Pixels) => writeFileSync(join(folder, path), png.encode(pixels));
const layerOf = (out: string, name: string | null, frame: string): Pixels => {
  const atlas = readAtlas(readFileSync(join(folder, out, "atlas.atlas.json")), out);
  const at = atlas.frames[frame];
  if (!at) throw new Error(`There are only ${Object.keys(atlas.frames).join(", ")}.`);
  const page = atlas.pages[at.page];
  const image = name === null ? page?.image : page?.layers?.[name];
  return image ? frameFromPage(png.decode(readFileSync(join(folder, out, image)), image), at) : clearPixels(at.size.w, at.size.h);
};
const cell = (pixels: Pixels, column: number) => crop(pixels, { x: column * 16, y: 0, w: 16, h: 16 });

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "caravan-layered-"));
  caravan = caravanIn(folder);
  mkdirSync(join(folder, "drop"));
  write("drop/camp.png", body);
  write("drop/camp_light.png", light);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe("layered art on the command line", () => {
  it("is one source with its layers, delivered with a page picture per layer", () => {
    const told = caravan("new", "drop", "--sheets", "whole", "--out", "camp", "--json").json();
    expect(told.sources).toMatchObject([{ name: "camp", layers: [{ name: "light", blend: "add" }] }]);
    expect(caravan("build", "camp", "--out", "out").status).toBe(0);
    expect(looksSame(layerOf("out", null, "camp/0"), body)).toBe(true);
    expect(looksSame(layerOf("out", "light", "camp/0"), light)).toBe(true);
  });

  it("is cut by what is drawn on any layer, follows a changed one, and refuses one of another size with a reason", () => {
    const document = JSON.parse(readFileSync(join(folder, "camp/caravan.json"), "utf8"));
    document.sources[0].cut = { by: "cell", cell: { w: 16, h: 16 }, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, keepEmpty: false };
    writeFileSync(join(folder, "camp/caravan.json"), JSON.stringify(document));
    const moved = sheet([255, 210, 120, 130], 3, [0, 1, 2]);
    write("camp/art/camp_light.png", moved);
    expect(caravan("build", "camp", "--out", "out2").status).toBe(0);
    expect(looksSame(layerOf("out2", "light", "camp/2"), cell(moved, 2))).toBe(true);
    expect(looksSame(layerOf("out2", null, "camp/2"), clearPixels(16, 16))).toBe(true);
    write("camp/art/camp_light.png", sheet([255, 210, 120, 130], 3, [0], 49));
    const refused = caravan("build", "camp", "--out", "out3");
    expect(refused.status).toBe(1);
    expect(refused.stderr).toMatch(/layer "light" is 49 × 16 px, and the new art below it 48 × 16 px/);
    write("camp/art/camp_light.png", moved);
  });

  it("comes from a layered file too, with its blend modes", () => {
    const stack = `<?xml version="1.0"?><image w="48" h="16"><stack>
      <layer name="glow" src="data/glow.png" composite-op="svg:plus"/>
      <layer name="dusk" src="data/dusk.png" composite-op="svg:screen"/>
      <layer name="body" src="data/body.png"/></stack></image>`;
    const files = [
      { path: "mimetype", bytes: utf8("image/openraster") },
      { path: "stack.xml", bytes: utf8(stack) },
      ...[
        ["body", body],
        ["dusk", light],
        ["glow", light],
      ].map(([name, pixels]) => ({ path: `data/${name}.png`, bytes: png.encode(pixels as Pixels) })),
    ];
    writeFileSync(join(folder, "tent.ora"), writeZip(files));
    const told = caravan("new", "tent.ora", "--out", "tent.caravan", "--json").json();
    expect(told.sources).toMatchObject([
      {
        name: "tent",
        layers: [
          { name: "dusk", blend: "normal" },
          { name: "glow", blend: "add" },
        ],
      },
    ]);
    expect(told.notes.join()).toMatch(/dusk is blended by svg:screen, which/);
  });
});
