import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { clearPixels } from "@caravan/core/raster";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { caravanIn } from "./caravan.fixture";
import { pngCodec } from "./png";

let folder: string;
let caravan: ReturnType<typeof caravanIn>;

/** A block of 8 × 6 px at 2, 1 whose right third is half clear, and a speck. */
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "caravan-outline-"));
  caravan = caravanIn(folder);
  const made = clearPixels(16, 12);
  for (let y = 1; y < 7; y++) for (let x = 2; x < 10; x++) made.bytes.set([90, 60, 30, x < 8 ? 255 : 100], (y * 16 + x) * 4);
  made.bytes.set([1, 2, 3, 255], (10 * 16 + 14) * 4);
  writeFileSync(join(folder, "block.png"), pngCodec().encode(made));
  writeFileSync(join(folder, "clear.png"), pngCodec().encode(clearPixels(4, 4)));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe("caravan outline", () => {
  it("prints a polygon of whole pixels for each island that is large enough", () => {
    const block = { name: "block.png", width: 16, height: 12 };
    expect(caravan("outline", "block.png", "clear.png", "--json").json()).toEqual({
      frames: [
        { ...block, polygons: [[[2, 1], [10, 1], [10, 7], [2, 7]]] }, // biome-ignore format: corners
        { name: "clear.png", width: 4, height: 4, polygons: [] },
      ],
    });
    const exact = caravan("outline", "block.png", "--within", "0", "--alpha", "101", "--least", "1", "--json").json();
    expect(exact.frames[0].polygons).toEqual([
      [[2, 1], [8, 1], [8, 7], [2, 7]], // biome-ignore format: corners
      [[14, 10], [15, 10], [15, 11], [14, 11]], // biome-ignore format: corners
    ]);
    expect(caravan("outline", "block.png", "--corners", "3").stdout).toBe(
      "block.png: 1 polygon, 4 corners; the largest has 1 more than 3, to stay within 1 px\n",
    );
  });

  it("reports an invalid call", () => {
    for (const wrong of [
      ["--within", "-1"],
      ["--within", "x"],
      ["--corners", "2"],
      ["--alpha", "0"],
      ["--alpha", "256"],
      ["--least", "0"],
    ])
      expect(caravan("outline", "block.png", ...wrong)).toMatchObject({ status: 2, stdout: "" });
    expect(caravan("outline", "who.png")).toMatchObject({ status: 1, stdout: "" });
    expect(caravan("outline")).toMatchObject({ status: 2 });
  });
});
