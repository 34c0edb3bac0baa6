import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { sheetOfCells } from "../../core/src/edit/project.fixture";
import { caravanIn } from "./caravan.fixture";
import { givenPaths } from "./given-paths";
import { pngCodec } from "./png";

const folder = mkdtempSync(join(tmpdir(), "caravan-given-"));
afterAll(() => rmSync(folder, { recursive: true }));
mkdirSync(join(folder, "art"));
for (const name of ["walk_10.png", "walk_2.png", "walk_1.png", "well.png", ".walk_3.png", "a*b.png", "axb.png"])
  writeFileSync(join(folder, "art", name), pngCodec().encode(sheetOfCells(4, 3)));
const inArt = (...names: string[]) => names.map((name) => join(folder, "art", name));

describe("paths that the shell did not expand", () => {
  it("are all files that fit, in natural order, after those before", () => {
    const [pattern] = inArt("walk_*.png") as [string];
    expect(givenPaths(pattern, ["x"])).toEqual(["x", ...inArt("walk_1.png", "walk_2.png", "walk_10.png")]);
    expect(givenPaths(inArt("we?l.png")[0] as string)).toEqual(inArt("well.png"));
  });

  it("are what they say if there is such a file, or if they are no pattern", () => {
    expect(givenPaths(inArt("a*b.png")[0] as string)).toEqual(inArt("a*b.png"));
    expect(givenPaths("gone.png")).toEqual(["gone.png"]);
    expect(givenPaths("-")).toEqual(["-"]);
  });

  it("are given to every command that takes several", () => {
    const caravan = caravanIn(folder);
    const { json } = caravan("cut", "art/walk_*.png", "--cell", "8x10", "--json");
    expect(json()).toMatchObject({ results: [{ image: "art/walk_1.png" }, { image: "art/walk_2.png" }, { image: "art/walk_10.png" }] });
    expect(caravan("new", "art/walk_*.png", "--out", "camp").status).toBe(0);
    const missed = caravan("cut", "art/run_*.png", "--cell", "8x10", "--json");
    expect(missed.status).toBe(1);
    expect(missed.json()).toMatchObject({ error: { code: "not-found", where: "art/run_*.png" } });
    expect(missed.stderr).toContain("No file in art is called so.");
  });
});
