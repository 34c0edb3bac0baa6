import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { clearPixels, crop } from "@caravan/core/raster";
import { afterAll, describe, expect, it } from "vitest";
import { caravanIn } from "./caravan.fixture";
import { pngCodec } from "./png";

const folder = mkdtempSync(join(tmpdir(), "caravan-frames-"));
const caravan = caravanIn(folder);
const png = pngCodec();
afterAll(() => rmSync(folder, { recursive: true }));

const COLUMNS = 50;
const ROWS = 20;
const CELL = 6;

/** A thousand cells, each in a colour of its own: enough for several threads. */
const sheet = clearPixels(COLUMNS * CELL, ROWS * CELL);
for (let y = 0; y < sheet.height; y++)
  for (let x = 0; x < sheet.width; x++) {
    const cell = Math.floor(y / CELL) * COLUMNS + Math.floor(x / CELL);
    sheet.bytes.set([cell % 256, cell >> 8, (x % CELL) * 40, 255], (y * sheet.width + x) * 4);
  }
writeFileSync(join(folder, "crowd.png"), png.encode(sheet));
const files = (name: string) => readdirSync(join(folder, name)).filter((each) => each.endsWith(".png"));
const cut = (out: string, ...more: string[]) => caravan("cut", "crowd.png", "--cell", `${CELL}x${CELL}`, "--out", out, ...more);

describe("a sheet of very many frames", () => {
  it("is written by all cores, every frame exactly, under its own name", () => {
    expect(cut("frames").status).toBe(0);
    expect(files("frames")).toHaveLength(COLUMNS * ROWS);
    for (let k = 0; k < COLUMNS * ROWS; k++) {
      const rect = { x: (k % COLUMNS) * CELL, y: Math.floor(k / COLUMNS) * CELL, w: CELL, h: CELL };
      const path = join(folder, "frames", `crowd_${k}.png`);
      expect(png.decode(readFileSync(path), path)).toEqual(crop(sheet, rect));
    }
    // The receipt knows all of them: a second cut finds nothing to write, and takes its own files for its own.
    expect(cut("frames").status).toBe(0);
    expect(readdirSync(join(folder, "frames")).filter((name) => name.includes("staged"))).toEqual([]);
  });

  it("is not written at all if one file of somebody else is in the way", () => {
    mkdirSync(join(folder, "others"));
    writeFileSync(join(folder, "others/crowd_777.png"), "mine");
    const { status, stderr } = cut("others");
    expect(status).toBe(1);
    expect(stderr).toContain("crowd_777.png");
    expect(readdirSync(join(folder, "others"))).toEqual(["crowd_777.png"]);
    expect(cut("others", "--replace").status).toBe(0);
    expect(files("others")).toHaveLength(COLUMNS * ROWS);
  });

  it("reports why the folder cannot be written", () => {
    writeFileSync(join(folder, "file"), "");
    const { status, stderr } = cut("file/frames");
    expect(status).toBe(1);
    expect(stderr).toMatch(/Writing failed: A part of the path is a file, not a folder/);
  });

  it("ends at once where threads were started for a large sheet that has few frames, or none that can be written", () => {
    const large = clearPixels(2048, 2048);
    large.bytes.fill(255, 0, 4);
    large.bytes.fill(255, large.bytes.length - 4);
    writeFileSync(join(folder, "large.png"), png.encode(large));
    const few = caravan("cut", "large.png", "--cell", "1024x1024", "--out", "few");
    expect(few).toMatchObject({ status: 0, stderr: "" });
    expect(files("few")).toEqual(["large_0.png", "large_3.png"]);
    const none = caravan("cut", "large.png", "--cell", "4096x4096", "--out", "none");
    expect(none.status).toBe(1);
    expect(none.stderr).toMatch(/large\.png/);
  });
});
