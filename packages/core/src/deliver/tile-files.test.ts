import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { textFromUtf8 } from "../codec";
import { png } from "../codec/png.fixture";
import { foreseenFiles } from "../delivery-plan";
import { addPalette } from "../edit";
import { porterProject, sheetOfCells } from "../edit/project.fixture";
import type { Delivery } from "../model";
import { clearPixels, crop, looksSame, mirrored, type Pixels, paste } from "../raster";
import { deliver } from "./project";

const sheet = sheetOfCells(4, 3);

function delivered(flips: boolean) {
  const project = addPalette(porterProject(), { name: "robe", colours: ["#0a0b0c", "#ffffff"] });
  const [usual] = project.deliveries as [Delivery];
  const delivery = { ...usual, data: { ...usual.data, tiles: { tile: { w: 4, h: 5 }, flips } } };
  const made = { ...project, deliveries: [delivery] };
  const art = artFrom(new Map([["a".repeat(64), sheet]]), made);
  const { files } = deliver(made, delivery, art, png);
  const bytes = (ending: string) => files.find(({ path }) => path.endsWith(ending))?.bytes ?? new Uint8Array();
  return { made, delivery, files, bytes };
}

const upsideDown = (pixels: Pixels): Pixels => {
  const out = clearPixels(pixels.width, pixels.height);
  for (let y = 0; y < pixels.height; y++) paste(out, pixels, { x: 0, y, w: pixels.width, h: 1 }, 0, pixels.height - 1 - y);
  return out;
};

describe("tiles in a delivery", () => {
  it.each([true, false])("put back where they lie are the frames again (flips: %s)", (flips) => {
    const { bytes, made } = delivered(flips);
    const told = JSON.parse(textFromUtf8(bytes(".tiles.json")));
    const page = png.decode(bytes(".tiles.png"), "tiles");
    const { w, h } = told.tile;
    const source = made.sources[0] as (typeof made.sources)[number];
    expect(told.frames.length).toBe(source.frames.length);
    for (const [k, { name, width, height }] of told.frames.entries()) {
      const whole = clearPixels(Math.ceil(width / w) * w, Math.ceil(height / h) * h);
      for (const { frame, x, y, tile, flip } of told.placed) {
        if (frame !== name) continue;
        let pixels = crop(page, { x: (tile % told.across) * w, y: Math.floor(tile / told.across) * h, w, h });
        if (flip === "across" || flip === "both") pixels = mirrored(pixels);
        if (flip === "down" || flip === "both") pixels = upsideDown(pixels);
        paste(whole, pixels, { x: 0, y: 0, w, h }, x, y);
      }
      const frame = source.frames[k] as (typeof source.frames)[number];
      expect(looksSame(crop(whole, { x: 0, y: 0, w: width, h: height }), crop(sheet, frame.rect))).toBe(true);
    }
    expect(textFromUtf8(bytes(".tiles.csv")).split("\n").length).toBe(told.placed.length + 2);
  });

  it("come with the palettes, and are among the files that are foreseen", () => {
    const { bytes, files, made, delivery } = delivered(true);
    expect(textFromUtf8(bytes(".palettes.txt"))).toBe("robe: #0a0b0c #ffffff\n");
    expect([...png.decode(bytes(".palettes.png"), "palettes").bytes.subarray(0, 4)]).toEqual([10, 11, 12, 255]);
    const foreseen = foreseenFiles(made, delivery, []).map(({ path }) => path);
    expect(
      files
        .map(({ path }) => path)
        .filter((path) => /tiles|palettes/.test(path))
        .sort(),
    ).toEqual(foreseen.filter((path) => /tiles|palettes/.test(path)).sort());
  });
});
