import { spawnSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readZip } from "@caravan/core/codec";
import { afterAll, describe, expect, it } from "vitest";
import { sheetOfCells } from "../../core/src/edit/project.fixture";
import { caravanIn } from "./caravan.fixture";
import { pngCodec } from "./png";

const root = join(import.meta.dirname, "../../..");
const folder = mkdtempSync(join(tmpdir(), "caravan-standard-"));
const sheet = pngCodec().encode(sheetOfCells(4, 3));
writeFileSync(join(folder, "porter.png"), sheet);
writeFileSync(join(folder, "camel.png"), pngCodec().encode(sheetOfCells(2, 2)));
writeFileSync(join(folder, "broken.png"), sheet.subarray(0, 60));
const caravan = caravanIn(folder);

/** The command with bytes at its standard input; its standard output as bytes. */
function piped(input: Uint8Array, ...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(root, "packages/cli/bin/caravan.mjs"), ...args], {
    cwd: folder,
    input,
    maxBuffer: 64 * 1024 * 1024,
  });
  return { status, stdout: new Uint8Array(stdout), stderr: String(stderr) };
}

afterAll(() => rmSync(folder, { recursive: true }));

describe("standard input and output", () => {
  it("cut a piped sheet, and return the frames as a ZIP, with messages on standard error", () => {
    expect(caravan("cut", "porter.png", "--count", "4x3", "--out", "frames").status).toBe(0);
    const { status, stdout, stderr } = piped(sheet, "cut", "-", "--count", "4x3", "--out", "-");
    expect(status).toBe(0);
    expect(stderr).toContain("4 × 3 cells of 8 × 10 px, 12 frames");
    const files = readZip(stdout, "the output");
    expect(files).toHaveLength(12);
    for (const { path, bytes } of files)
      expect(Buffer.from(bytes).equals(readFileSync(join(folder, "frames", path.replace("picture", "porter"))))).toBe(true);
  });

  it("build a piped project to exactly the files of a folder", () => {
    expect(caravan("cut", "porter.png", "--count", "4x3", "--out", "porter.caravan", "--clips", "rows").status).toBe(0);
    expect(caravan("build", "porter.caravan", "--out", "built").status).toBe(0);
    const { status, stdout } = piped(readFileSync(join(folder, "porter.caravan")), "build", "-", "--out", "-");
    expect(status).toBe(0);
    const files = readZip(stdout, "the output");
    expect(files.map(({ path }) => path).sort()).toEqual(
      readdirSync(join(folder, "built"))
        .filter((name) => !name.startsWith("."))
        .sort(),
    );
    for (const { path, bytes } of files) expect(Buffer.from(bytes).equals(readFileSync(join(folder, "built", path)))).toBe(true);
    const found = piped(readFileSync(join(folder, "porter.caravan")), "check", "-", "--json");
    expect(JSON.parse(Buffer.from(found.stdout).toString())).toHaveProperty("findings");
  });

  it("pack and outline a piped picture", () => {
    const { status, stdout } = piped(sheet, "pack", "-", "--out", "-");
    expect(status).toBe(0);
    expect(readZip(stdout, "the output").map(({ path }) => path)).toEqual(["atlas.atlas.json", "atlas.png"]);
    const traced = JSON.parse(Buffer.from(piped(sheet, "outline", "-", "--json").stdout).toString());
    expect(traced.frames).toMatchObject([{ name: "picture", width: 32, height: 30 }]);
  });

  it("are refused if impossible: with JSON, for a project, twice, and for anything but a picture", () => {
    expect(piped(sheet, "cut", "-", "--count", "4x3", "--out", "-", "--json")).toMatchObject({ status: 2 });
    expect(piped(sheet, "cut", "-", "--count", "4x3", "--out", "-", "--project").stderr).toMatch(
      /folder or a file, not to standard output/,
    );
    expect(piped(sheet, "cut", "-", "-", "--count", "4x3").stderr).toMatch(/can be read once/);
    const strange = piped(new TextEncoder().encode("no picture"), "cut", "-", "--count", "4x3");
    expect(strange.status).toBe(1);
    expect(strange.stderr).toMatch(/standard input/);
    expect(piped(new Uint8Array(), "build", "-", "--out", "-").stdout).toHaveLength(0);
  });
});

describe("several sheets", () => {
  it("are cut in one call, each into its own frames", () => {
    const { status, stdout, json } = caravan("cut", "porter.png", "camel.png", "--cell", "8x10", "--out", "both", "--json");
    expect(status).toBe(0);
    expect(json().results.map(({ image, frames }: { image: string; frames: unknown[] }) => [image, frames.length])).toEqual([
      ["porter.png", 12],
      ["camel.png", 4],
    ]);
    expect(stdout.trim().split("\n")).toHaveLength(1);
    expect(readdirSync(join(folder, "both")).filter((name) => name.endsWith(".png"))).toHaveLength(16);
  });

  it("that are damaged are reported, and the others are still cut", () => {
    const { status, stderr, json } = caravan("cut", "broken.png", "camel.png", "--cell", "8x10", "--out", "some", "--json");
    expect(status).toBe(1);
    expect(json().results).toMatchObject([{ image: "broken.png", error: { code: "damaged-picture" } }, { image: "camel.png" }]);
    expect(stderr).toMatch(/broken\.png/);
    expect(readdirSync(join(folder, "some")).filter((name) => name.endsWith(".png"))).toHaveLength(4);
  });

  it("with the same name are refused before anything is written", () => {
    expect(caravan("cut", "porter.png", "./PORTER.png", "--cell", "8x10", "--out", "twins")).toMatchObject({ status: 2 });
    expect(caravan("cut", "porter.png", "camel.png", "--cell", "8x10", "--out", "two.caravan").stderr).toMatch(/caravan new/);
  });
});
