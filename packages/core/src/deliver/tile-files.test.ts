import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { textFromUtf8 } from "../codec";
import { png } from "../codec/png.fixture";
import { foreseenFiles } from "../delivery-plan";
import { addPalette } from "../edit";
import { porterProject, sheetOfCells } from "../edit/project.fixture";
import type { Delivery, Project } from "../model";
import { clearPixels, crop, looksSame, mirrored, type Pixels, paste } from "../raster";
import { deliver } from "./project";

const sheet = sheetOfCells(4, 3);

function delivered(flips: boolean, given?: { project: Project; sheet: Pixels }) {
  const project = given?.project ?? addPalette(porterProject(), { name: "robe", colours: ["#0a0b0c", "#ffffff"] });
  const [usual] = project.deliveries as [Delivery];
  const tiles = { tile: { w: 4, h: 5 }, flips, ...(given ? { palettes: true as const } : {}) };
  const delivery: Delivery = { ...usual, data: { ...usual.data, tiles } };
  const made = { ...project, deliveries: [delivery] };
  const art = artFrom(new Map([["a".repeat(64), given?.sheet ?? sheet]]), made);
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
  it.each([true, false])("put back in place are the frames again (flips: %s)", (flips) => {
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

  it("that differ only by palette count as one, and the placement gives each one's palette", () => {
    // Every cell of one colour: the first half in the robe's, the second in the guard's.
    const plain = clearPixels(sheet.width, sheet.height);
    for (let k = 0; k < plain.width * plain.height; k++)
      plain.bytes.set(k % plain.width < plain.width / 2 ? [10, 11, 12, 255] : [90, 0, 0, 255], k * 4);
    let project = addPalette(porterProject(), { name: "robe", colours: ["#0a0b0c"] });
    project = addPalette(project, { name: "guard", of: "robe", colours: ["#5a0000"] });
    const { bytes } = delivered(true, { project, sheet: plain });
    const told = JSON.parse(textFromUtf8(bytes(".tiles.json")));
    expect(told.tiles).toBe(1);
    expect(new Set(told.placed.map(({ palette }: { palette: string }) => palette))).toEqual(new Set(["robe", "guard"]));
    expect([...png.decode(bytes(".tiles.png"), "tiles").bytes.subarray(0, 4)]).toEqual([10, 11, 12, 255]);
    expect(textFromUtf8(bytes(".tiles.csv")).split("\n")[0]).toBe("frame,x,y,tile,flip,palette");
  });

  it("come with the palettes, and are among the predicted files", () => {
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
