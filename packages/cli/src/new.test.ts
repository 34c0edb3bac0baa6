import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readBundle } from "@caravan/core/bundle";
import { writeZip } from "@caravan/core/codec";
import { clearPixels, crop, type Pixels } from "@caravan/core/raster";
import { afterAll, describe, expect, it } from "vitest";
import { sheetOfCells } from "../../core/src/edit/project.fixture";
import { caravanIn } from "./caravan.fixture";
import { pngCodec } from "./png";
import { jpegBytes, movingWebpBytes, webpBytes } from "./stills.fixture";

const folder = mkdtempSync(join(tmpdir(), "caravan-new-"));
const at = (...parts: string[]) => join(folder, ...parts);
afterAll(() => rmSync(folder, { recursive: true }));

const caravan = caravanIn(folder);
function write(name: string, bytes: Uint8Array | Pixels): void {
  mkdirSync(join(at(name), ".."), { recursive: true });
  writeFileSync(at(name), bytes instanceof Uint8Array ? bytes : pngCodec().encode(bytes));
}
const opened = (path: string) => readBundle(new Uint8Array(readFileSync(at(path))), path).project;

describe("caravan new", () => {
  it("makes from a folder what the studio proposes: series with their numbers, facings, mirrors, metadata, other pictures", () => {
    const sheet = sheetOfCells(4, 3);
    for (const [row, facing] of ["s", "e", "n"].entries())
      for (const k of [0, 1, 2]) write(`art/walk_${facing}_${k + 7}.png`, crop(sheet, { x: k * 8, y: row * 10, w: 8, h: 10 }));
    write("art/bales.png", sheet);
    const parts = [0, 1, 2].map((k) => ({ label: `bale_${k}`, left: k * 8, top: 0, width: 8, height: 10 }));
    write("art/bales.json", new TextEncoder().encode(JSON.stringify({ parts })));
    write("art/sky.jpg", jpegBytes());
    write("art/notes.txt", new TextEncoder().encode("Nothing here speaks of pictures."));
    const { status, stderr, json } = caravan("new", "art", "--out", "camp", "--json");
    expect(status).toBe(0);
    expect(stderr).toContain("notes.txt");
    expect(json()).toMatchObject({
      sources: [
        { name: "bales", cut: "metadata", frames: 3 },
        { name: "walk_e", cut: "pictures", frames: 3 },
        { name: "walk_n", frames: 3 },
        { name: "walk_s", frames: 3 },
        { name: "sky", cut: null },
      ],
      actions: [{ name: "walk", ways: 4, facings: { w: { clip: "walk_e", mirror: true } } }],
    });
    const built = caravan("build", "camp", "--out", "out", "--json");
    expect(built.status).toBe(0);
    const atlas = JSON.parse(readFileSync(at("out/atlas.atlas.json"), "utf8"));
    expect(Object.keys(atlas.frames)).toEqual(expect.arrayContaining(["walk_e/7", "walk_e/9", "walk_s/8"]));
    // Once more it is the same; over another's file it is not written.
    expect(caravan("new", "art", "--out", "camp", "--json").status).toBe(0);
    writeFileSync(at("camp/caravan.json"), "{}");
    expect(caravan("new", "art", "--out", "camp")).toMatchObject({ status: 1, stderr: expect.stringContaining("caravan.json") });
    expect(readFileSync(at("camp/caravan.json"), "utf8")).toBe("{}");
  });

  it("adds pictures listed as layers by metadata, and reports what it could not follow", () => {
    const sheet = sheetOfCells(4, 3);
    for (const name of ["camp", "warm", "cold"]) write(`lit/${name}.png`, sheet);
    const frames = [0, 1, 2].map((k) => ({ name: `fire_${k}`, x: k * 8, y: 0, w: 8, h: 10 }));
    const layers = [
      { name: "glow", image: "warm.png", blend: "additive" },
      { name: "mist", image: "cold.png", blend: "soft light", opacity: 0.4 },
      { name: "rain", image: "rain.png" },
    ];
    write("lit/camp.json", new TextEncoder().encode(JSON.stringify({ image: "camp.png", frames, layers })));
    const { status, stderr } = caravan("new", "lit", "--out", "lit.caravan");
    expect(status).toBe(0);
    for (const said of ["mist is blended by soft light", "opacity of 40 %", "layer rain in rain.png, which was not dropped"])
      expect(stderr).toContain(said);
    const kept = [...readBundle(new Uint8Array(readFileSync(at("lit.caravan"))), "lit.caravan").texts.values()];
    expect(kept).toEqual([readFileSync(at("lit/camp.json"), "utf8")]);
    const [camp, ...others] = opened("lit.caravan").sources;
    expect(others).toEqual([]);
    expect(camp?.frames.map(({ name }) => name)).toEqual(["fire_0", "fire_1", "fire_2"]);
    expect(camp?.layers?.map(({ name, blend }) => [name, blend])).toEqual([
      ["mist", "normal"],
      ["glow", "add"],
    ]);
    const told = caravan("cut", "lit/camp.png", "--meta", "lit/camp.json", "--json").json();
    expect(told).toMatchObject({
      layers: [
        { name: "glow", image: "warm.png", blend: "add", opacity: 1 },
        { name: "mist", image: "cold.png", blend: null, blendSaid: "soft light", opacity: 0.4 },
        { name: "rain", image: "rain.png", blend: null },
      ],
    });
  });

  it("passes by installed packages and what systems leave, in folders and ZIPs, and takes animations", () => {
    const sheet = sheetOfCells(4, 3);
    write("game/art/camel.png", sheet);
    write("game/art/spark.webp", movingWebpBytes());
    write("game/node_modules/pack/logo.png", sheet);
    const left = new TextEncoder().encode("left by a system");
    write(
      "game/art/more.zip",
      writeZip([
        { path: "goat.png", bytes: pngCodec().encode(sheet) },
        { path: "__MACOSX/._goat.png", bytes: left },
        { path: ".walk.png", bytes: left },
      ]),
    );
    const { status, stderr, json } = caravan("new", "game", "--out", "of-game.caravan", "--json");
    expect([status, stderr]).toEqual([0, ""]);
    expect(
      json()
        .sources.map(({ name }: { name: string }) => name)
        .sort(),
    ).toEqual(["camel", "goat", "spark"]);
    expect(opened("of-game.caravan").clips.map(({ name, steps }) => [name, steps.map(({ duration }) => duration)])).toEqual([
      ["spark", [300_000, 300_000]],
    ]);
  });

  it("makes clips from a sheet's rows, or facings starting at the given one, in one file", () => {
    write("porter.png", wide(4, 4));
    expect(caravan("new", "porter.png", "--out", "rows.caravan", "--sheets", "rows").status).toBe(0);
    expect(opened("rows.caravan").clips.map(({ name, steps }) => [name, steps.length])).toEqual(
      [0, 1, 2, 3].map((row) => [`porter-${row}`, 4]),
    );
    expect(caravan("new", "porter.png", "--out", "turned.caravan", "--sheets", "facings", "--first", "n").status).toBe(0);
    const { actions, clips } = opened("turned.caravan");
    expect(actions).toMatchObject([{ name: "porter", ways: 4 }]);
    expect(clips.map(({ name }) => name)).toEqual(["porter-n", "porter-e", "porter-s", "porter-w"]);
    expect(caravan("new", "porter.png", "--out", "rows.caravan")).toMatchObject({
      status: 1,
      stderr: expect.stringContaining("--replace"),
    });
  });

  it("refuses unreadable files by name, and invalid calls", () => {
    write("torn.webp", webpBytes().subarray(0, 40));
    expect(caravan("new", "torn.webp", "--out", "x")).toMatchObject({ status: 1, stderr: expect.stringContaining("torn.webp") });
    expect(caravan("new", "nowhere", "--out", "x").status).toBe(1);
    expect(caravan("new", "porter.png").status).toBe(2);
    expect(caravan("new", "porter.png", "--out", "x", "--first", "up").status).toBe(2);
    mkdirSync(at("bare"));
    expect(caravan("new", "bare", "--out", "x")).toMatchObject({ status: 1, stderr: expect.stringContaining("no art") });
  });
});

describe("caravan cut into a project", () => {
  it("keeps the recipe and the art unchanged, with clips of rows", () => {
    write("cells.png", sheetOfCells(4, 3, [11]));
    expect(caravan("cut", "cells.png", "--cell", "8x10", "--out", "cells.caravan", "--clips", "rows").status).toBe(0);
    const { sources, clips } = opened("cells.caravan");
    expect(sources).toMatchObject([{ name: "cells", cut: { by: "cell", cell: { w: 8, h: 10 } } }]);
    expect(clips.map(({ name, steps }) => [name, steps.length])).toEqual([
      ["cells-0", 4],
      ["cells-1", 4],
      ["cells-2", 3],
    ]);
    expect(
      readBundle(new Uint8Array(readFileSync(at("cells.caravan"))), "x")
        .pictures.values()
        .next().value,
    ).toEqual(new Uint8Array(readFileSync(at("cells.png"))));
  });

  it("includes clips and facings of metadata, and pictures of other kinds as PNG", () => {
    write("pack.webp", webpBytes());
    const parts = [0, 1, 2, 3].map((k) => ({
      label: `go_${"lr"[k >> 1] === "l" ? "left" : "right"}_${k % 2}`,
      left: k * 8,
      top: 0,
      width: 8,
      height: 16,
    }));
    write("pack.json", new TextEncoder().encode(JSON.stringify({ parts })));
    const { status, stderr } = caravan("cut", "pack.webp", "--meta", "pack.json", "--out", "packed", "--project", "--json");
    expect([status, stderr.includes("Internal")]).toEqual([0, false]);
    const document = JSON.parse(readFileSync(at("packed/caravan.json"), "utf8"));
    expect(document.clips.map(({ name }: { name: string }) => name)).toEqual(["go_left", "go_right"]);
    expect(document.actions).toMatchObject([{ name: "go", facings: { e: { clip: "go_right" }, w: { clip: "go_left" } } }]);
    expect(caravan("build", "packed", "--out", "packed-out").status).toBe(0);
  });

  it("refuses options that would do nothing", () => {
    expect(caravan("cut", "cells.png", "--cell", "8x10", "--clips", "rows", "--out", "frames").status).toBe(2);
    expect(caravan("cut", "cells.png", "--cell", "8x10", "--project").status).toBe(2);
  });
});

/** A sheet with so many cells of 16 × 16, a block of its own in each. */
function wide(columns: number, rows: number): Pixels {
  const sheet = clearPixels(columns * 16, rows * 16);
  for (let k = 0; k < columns * rows; k++)
    for (let y = 4; y < 14; y++)
      for (let x = 3; x < 8 + (k % 5); x++)
        sheet.bytes.set([k, 9, 9, 255], ((Math.floor(k / columns) * 16 + y) * sheet.width + (k % columns) * 16 + x) * 4);
  return sheet;
}
