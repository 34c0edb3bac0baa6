import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readProjectFile } from "@caravan/core/bundle";
import {
  addFrameOfPieces,
  addPalette,
  addPiecesSource,
  colourPieces,
  cutSource,
  flipPieces,
  movePieces,
  putPieces,
} from "@caravan/core/edit";
import { type FrameRef, type Project, projectToFile, type SourceId } from "@caravan/core/model";
import { clearPixels, coverageOf, type Pixels } from "@caravan/core/raster";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { caravanIn } from "./caravan.fixture";
import { pngCodec } from "./png";

let folder: string;
let caravan: ReturnType<typeof caravanIn>;
const png = pngCodec();

/** A sheet of two pieces of 8 × 8 px: one with a dark corner, and its mirror image; the row at the bottom is clear. */
function sheet(): Pixels {
  const made = clearPixels(16, 8);
  for (let y = 0; y < 7; y++)
    for (let x = 0; x < 16; x++) made.bytes.set(y < 2 && (x < 2 || x > 13) ? [1, 2, 3, 255] : [200, 90, 40, 255], (y * 16 + x) * 4);
  return made;
}

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "caravan-tiles-"));
  caravan = caravanIn(folder);
  writeFileSync(join(folder, "sheet.png"), png.encode(sheet()));
  mkdirSync(join(folder, "pictures"));
  writeFileSync(join(folder, "pictures/one.png"), png.encode(sheet()));
  writeFileSync(join(folder, "pictures/clear.png"), png.encode(clearPixels(9, 9)));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The sheet cut into its two pieces, and a figure of two frames: one piece, and the other flipped over it in other colours. */
function projectOfPieces(): string {
  const path = join(folder, "figure");
  rmSync(path, { recursive: true, force: true });
  caravan("new", "sheet.png", "--out", "figure");
  let project: Project = readProjectFile(readFileSync(join(path, "caravan.json")), "figure");
  const cut = { by: "cell", cell: { w: 8, h: 8 }, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, keepEmpty: false } as const;
  project = cutSource(project, "s1" as SourceId, cut, coverageOf(sheet()));
  const [source] = project.sources;
  const part = (k: number) => `${source?.id}/${source?.frames[k]?.key}` as FrameRef;
  project = addPiecesSource(project, "figure", { w: 16, h: 8 });
  const ref = (k: number) => `s2/a${k}` as FrameRef;
  project = putPieces(project, ref(0), [{ of: part(0), x: 0, y: 0 }], null);
  project = addFrameOfPieces(project, ref(0), true);
  project = addPalette(project, { name: "robe", colours: ["#c85a28"] });
  project = addPalette(project, { name: "guard", of: "robe", colours: ["#285ac8"] });
  project = colourPieces(movePieces(flipPieces(project, ref(1), [0], "across"), ref(1), [0], { x: 8, y: 0 }), ref(1), [0], "guard");
  writeFileSync(join(path, "caravan.json"), JSON.stringify(projectToFile(project)));
  return path;
}

describe("caravan tiles", () => {
  it("counts the tiles and colours of pictures, flipped ones as one by default", () => {
    expect(caravan("tiles", "sheet.png", "pictures", "--json").json()).toEqual({
      tile: { w: 8, h: 8 },
      frames: 3,
      tiles: 4,
      distinct: 1,
      colours: 2,
      perFrame: [
        { name: "sheet.png", tiles: 2, own: 0 },
        { name: "pictures/clear.png", tiles: 0, own: 0 },
        { name: "pictures/one.png", tiles: 2, own: 0 },
      ],
    });
    expect(caravan("tiles", "sheet.png", "--no-flips", "--json").json()).toMatchObject({ distinct: 2 });
    expect(caravan("tiles", "sheet.png", "--tile", "16x8").stdout).toMatch(/^1 tile of 16 × 8 px in 1 picture, 1 distinct, 2 colours\n/);
  });

  it("counts every frame that a project delivers, assembled ones too", () => {
    const told = caravan("tiles", projectOfPieces(), "--json").json();
    expect(told.perFrame).toEqual([
      { name: "sheet/0", tiles: 1, own: 0 },
      { name: "sheet/1", tiles: 1, own: 0 },
      { name: "figure/0", tiles: 1, own: 0 },
      { name: "figure/1", tiles: 1, own: 1 },
    ]);
    expect(told).toMatchObject({ frames: 4, tiles: 4, distinct: 2, colours: 3 });
  });

  it("reports an invalid call", () => {
    expect(caravan("tiles", "sheet.png", "--tile", "0x8")).toMatchObject({ status: 2 });
    expect(caravan("tiles", "sheet.png", "--tile", "9000x8")).toMatchObject({ status: 2 });
    expect(caravan("tiles", "who.png")).toMatchObject({ status: 1, stdout: "" });
    expect(caravan("tiles")).toMatchObject({ status: 2 });
  });

  it("builds such a project, every pixel checked; a missing piece is a warning", () => {
    const path = projectOfPieces();
    expect(caravan("build", path, "--out", "game").stdout).toContain("4 of 4 frames placed");
    const content = JSON.parse(readFileSync(join(path, "caravan.json"), "utf8"));
    content.sources[1].frames[0].pieces[0].of = "s9/c0r0";
    writeFileSync(join(path, "caravan.json"), JSON.stringify(content));
    const checked = caravan("check", path);
    expect(checked.status).toBe(0);
    expect(checked.stdout).toContain("warning: figure/0: 1 piece of it cannot be drawn: s9/c0r0 no longer exists.");
  });
});
