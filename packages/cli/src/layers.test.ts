import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { readAtlas } from "@caravan/core/atlas";
import { frameFromPage } from "@caravan/core/pack";
import { clearPixels, looksSame, type Pixels } from "@caravan/core/raster";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { caravanIn } from "./caravan.fixture";
import { pngCodec } from "./png";

let folder: string;
let caravan: ReturnType<typeof caravanIn>;
const png = pngCodec();

/** A picture of 12 × 10 px with a block of one colour. */
function block(colour: readonly number[], x: number, y: number, w: number, h: number): Pixels {
  const made = clearPixels(12, 10);
  for (let v = y; v < y + h; v++) for (let u = x; u < x + w; u++) made.bytes.set(colour, (v * 12 + u) * 4);
  return made;
}

const BODY = [90, 60, 40, 255];
const LIGHT = [255, 210, 120, 130];
/** Two bodies that are alike, under different lights; a third in a folder, without any light but in a shade. */
const PICTURES: Record<string, Pixels> = {
  "body/a.png": block(BODY, 2, 3, 4, 5),
  "body/b.png": block(BODY, 2, 3, 4, 5),
  "body/in/c.png": block([20, 90, 200, 255], 0, 0, 3, 3),
  "light/a.png": block(LIGHT, 5, 0, 6, 4),
  "light/b.png": block(LIGHT, 0, 8, 2, 2),
  "shade/in/c.png": block([0, 0, 0, 90], 1, 1, 4, 2),
  "wide/a.png": clearPixels(13, 10),
  "stray/z.png": block(LIGHT, 0, 0, 2, 2),
};

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "caravan-layers-"));
  caravan = caravanIn(folder);
  for (const [path, pixels] of Object.entries(PICTURES)) {
    mkdirSync(join(folder, dirname(path)), { recursive: true });
    writeFileSync(join(folder, path), png.encode(pixels));
  }
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe("caravan pack with layers", () => {
  it("packs once for all, a picture of the page for each layer that has something, every pixel of each the same", () => {
    const told = caravan(
      "pack",
      "body",
      "--layer",
      "light:add=light",
      "--layer",
      "shade=shade",
      "--out",
      "out",
      "--name",
      "camp",
      "--json",
    ).json();
    expect(told).toMatchObject({ frames: 3, placed: 3, aliases: 0 });
    expect(told.pages[0].layers).toEqual({ light: "camp.light.png", shade: "camp.shade.png" });
    const atlas = readAtlas(new Uint8Array(readFileSync(join(folder, "out/camp.atlas.json"))), "camp");
    expect(atlas.layers).toEqual([
      { name: "light", blend: "add" },
      { name: "shade", blend: "normal" },
    ]);
    expect(atlas.pages[0]?.layers).toEqual({ light: "camp.light.png", shade: "camp.shade.png" });
    const picture = (file: string) => png.decode(new Uint8Array(readFileSync(join(folder, "out", file))), file);
    for (const [name, frame] of Object.entries(atlas.frames))
      for (const [layer, file] of [
        ["body", "camp.png"],
        ["light", "camp.light.png"],
        ["shade", "camp.shade.png"],
      ] as const) {
        const page = picture(file);
        expect([page.width, page.height]).toEqual([atlas.pages[0]?.width, atlas.pages[0]?.height]);
        expect(looksSame(frameFromPage(page, frame), PICTURES[`${layer}/${name}.png`] ?? clearPixels(12, 10))).toBe(true);
      }
    // Without its light, the second is the first once more.
    expect(caravan("pack", "body", "--out", "flat", "--json").json()).toMatchObject({ aliases: 1 });
  });

  it("writes no picture for an empty layer, and removes that of an earlier run", () => {
    mkdirSync(join(folder, "none"), { recursive: true });
    writeFileSync(join(folder, "none/a.png"), png.encode(clearPixels(12, 10)));
    caravan("pack", "body", "--layer", "light=light", "--out", "again", "--name", "camp");
    expect(readdirSync(join(folder, "again"))).toContain("camp.light.png");
    const told = caravan("pack", "body", "--layer", "light=none", "--out", "again", "--name", "camp", "--clean", "--json").json();
    expect(told.pages[0]).not.toHaveProperty("layers");
    expect(readdirSync(join(folder, "again"))).not.toContain("camp.light.png");
  });

  it("reports an invalid layer, and writes nothing", () => {
    const wrong = (...args: string[]) => caravan("pack", "body", ...args, "--out", "no");
    expect(wrong("--layer", "light=wide").stderr).toMatch(/wide\/a\.png: It is 13 × 10 px, and "a" below it 12 × 10 px/);
    expect(wrong("--layer", "light=stray").stderr).toMatch(/Nothing below it is called "z"/);
    expect(wrong("--layer", "light=body/a.png").stderr).toMatch(/is not a folder/);
    expect(wrong("--layer", "light=nowhere").stderr).toMatch(/nowhere: There is no such file/);
    for (const text of ["light", "=light", "a/b=light", "light:glow=light", "light="])
      expect(wrong("--layer", text)).toMatchObject({ status: 2 });
    expect(wrong("--layer", "light=light", "--layer", "Light=shade")).toMatchObject({ status: 2 });
    expect(readdirSync(folder)).not.toContain("no");
  });
});
