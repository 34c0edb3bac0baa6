import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { sheetOfCells } from "../../core/src/edit/project.fixture";
import { caravanIn } from "./caravan.fixture";
import { pngCodec } from "./png";
import { PRINTED } from "./printed";

const root = join(import.meta.dirname, "../../..");
const demo = join(root, "examples/tamarisk-road");
const raw = join(root, "examples/raw");
const folder = mkdtempSync(join(tmpdir(), "caravan-printed-"));
const caravan = caravanIn(folder);
for (const name of ["a", "b"]) writeFileSync(join(folder, `${name}.png`), pngCodec().encode(sheetOfCells(4, 3)));
writeFileSync(join(folder, "track.json"), JSON.stringify([{ at: 0, set: { speed: 40 } }]));
const demoFile = JSON.parse(readFileSync(join(demo, "caravan.json"), "utf8"));
writeFileSync(join(folder, "ours.json"), JSON.stringify({ ...demoFile, name: "Ours" }));
writeFileSync(join(folder, "theirs.json"), JSON.stringify({ ...demoFile, name: "Theirs" }));

afterAll(() => rmSync(folder, { recursive: true }));

/** Nothing is missing, and nothing is printed that the schema does not tell of. */
function fits(shape: keyof typeof PRINTED, ...args: string[]): void {
  const told = caravan(...args, "--json").json();
  expect(PRINTED[shape].parse(told)).toEqual(told);
}

describe("the output of commands with --json matches the published schemas", () => {
  it.each<[keyof typeof PRINTED, string[]]>([
    ["failure", ["cut", "gone.png", "--cell", "8x8"]],
    ["failure", ["cut", "a.png"]],
    ["cut", ["cut", "a.png", "--cell", "8x10"]],
    ["cut", ["cut", "a.png", "--islands", "--level"]],
    ["cut", ["cut", join(raw, "bazaar.png"), "--meta", join(raw, "bazaar.json")]],
    ["cut of several", ["cut", "a.png", "gone.png", "--cell", "8x10"]],
    ["cut --suggest", ["cut", "a.png", "--suggest"]],
    ["cut --suggest of several", ["cut", "a.png", "b.png", "--suggest"]],
    ["pack", ["pack", "a.png", "b.png", "--out", "packed"]],
    ["build", ["build", demo, "--out", "built"]],
    ["check", ["check", demo]],
    ["play", ["play", demo, "--action", "bearer-lamp", "--facing", "w", "--at", "0,200"]],
    ["play", ["play", demo, "--clip", "fire", "--at", "0,90"]],
    ["rehearse", ["rehearse", demo, "--behaviour", "porter", "--track", "track.json", "--at", "0,500"]],
    ["outline", ["outline", "a.png", "--corners", "3", "--within", "0"]],
    ["tiles", ["tiles", "a.png", "--tile", "8x8"]],
    ["new", ["new", raw, "--out", "camp"]],
    ["merge", ["merge", join(demo, "caravan.json"), "ours.json", "theirs.json", "--out", "merged.json"]],
  ])("%s: caravan %j", (shape, args) => fits(shape, ...args));
});
