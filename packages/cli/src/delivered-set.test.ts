import { spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { utf8 } from "@caravan/core/codec";
import { afterAll, beforeEach, describe, expect, it } from "vitest";
import { sheetOfCells } from "../../core/src/edit/project.fixture";
import { receiptIn, removeLeft, writeSet } from "./delivered-set";
import { pngCodec } from "./png";

const root = join(import.meta.dirname, "../../..");
const top = mkdtempSync(join(tmpdir(), "caravan-set-"));
let folder = "";
let count = 0;
const file = (path: string, text: string) => ({ path, bytes: utf8(text) });
const textOf = (path: string) => readFileSync(join(folder, path), "utf8");

beforeEach(() => {
  folder = join(top, `case-${count++}`);
});
afterAll(() => rmSync(top, { recursive: true, force: true }));

describe("files written as a set", () => {
  it("are written, and not touched again while they stay the same", () => {
    expect(writeSet(folder, [file("a/b.txt", "1"), file("c.txt", "2")], "x")).toEqual({ written: ["a/b.txt", "c.txt"], left: [] });
    const before = statSync(join(folder, "c.txt")).mtimeMs;
    expect(writeSet(folder, [file("a/b.txt", "3"), file("c.txt", "2")], "x").written).toEqual(["a/b.txt"]);
    expect(statSync(join(folder, "c.txt")).mtimeMs).toBe(before);
    expect(textOf("a/b.txt")).toBe("3");
  });

  it("never replace a file that somebody else made or changed; then none is written", () => {
    mkdirSync(folder);
    writeFileSync(join(folder, "mine.txt"), "mine");
    expect(() => writeSet(folder, [file("new.txt", "1"), file("mine.txt", "2")], "x")).toThrow(/did not write.*mine\.txt/);
    expect(readdirSync(folder)).toEqual(["mine.txt"]);
    writeSet(folder, [file("new.txt", "1")], "x");
    writeFileSync(join(folder, "new.txt"), "edited by hand");
    expect(() => writeSet(folder, [file("new.txt", "2")], "x")).toThrow(/new\.txt/);
    expect(textOf("new.txt")).toBe("edited by hand");
    expect(writeSet(folder, [file("new.txt", "2"), file("mine.txt", "2")], "x", true).written).toEqual(["new.txt", "mine.txt"]);
  });

  it("are not written if one has a name that the system does not allow; what was there stays", () => {
    writeSet(folder, [file("a.txt", "old")], "x");
    const long = `${"行".repeat(90)}.txt`;
    expect(() => writeSet(folder, [file("a.txt", "new"), file(long, "1")], "x")).toThrow(
      /Writing failed: A name in its path is longer than this system allows\. Choose a shorter name/,
    );
    expect(textOf("a.txt")).toBe("old");
    // The next command finds nothing to complete.
    expect(writeSet(folder, [file("a.txt", "newer")], "x")).toEqual({ written: ["a.txt"], left: [] });
    expect(readdirSync(folder).filter((name) => name.startsWith(".caravan-staged"))).toEqual([]);
  });

  it("list files no longer delivered, by who made them, and remove them only if unchanged", () => {
    writeSet(folder, [file("a.txt", "1"), file("b.txt", "1")], "x");
    writeSet(folder, [file("other.txt", "1")], "y");
    expect(writeSet(folder, [file("a.txt", "1")], "x").left).toEqual(["b.txt"]);
    expect(removeLeft(folder, ["b.txt"])).toEqual(["b.txt"]);
    expect([...receiptIn(folder).keys()]).toEqual(["a.txt", "other.txt"]);
    writeSet(folder, [file("c.txt", "1")], "x");
    writeFileSync(join(folder, "c.txt"), "edited");
    expect(removeLeft(folder, ["c.txt"])).toEqual([]);
    expect(textOf("c.txt")).toBe("edited");
  });

  it("are completed by the next command after a kill if all were there, and removed otherwise", () => {
    writeSet(folder, [file("a.txt", "old"), file("b.txt", "old")], "x");
    // No process has this number: the largest that systems give is smaller.
    const staged = join(folder, ".caravan-staged-999999999");
    mkdirSync(staged);
    writeFileSync(join(staged, "0"), "half");
    writeSet(folder, [file("a.txt", "old"), file("b.txt", "old")], "x");
    expect(readdirSync(folder).sort()).toEqual([".caravan-delivered.json", "a.txt", "b.txt"]);
    mkdirSync(staged);
    writeFileSync(join(staged, "1"), "new");
    const moved = [
      { copy: "0", path: "a.txt" },
      { copy: "1", path: "b.txt" },
    ];
    writeFileSync(join(staged, "list.json"), JSON.stringify({ files: moved, receipt: [...receiptIn(folder).values()] }));
    writeSet(folder, [file("c.txt", "1")], "y");
    expect(textOf("b.txt")).toBe("new");
    expect(readdirSync(folder).sort()).toEqual([".caravan-delivered.json", "a.txt", "b.txt", "c.txt"]);
  });

  it("need a folder with a name", () => expect(() => writeSet("", [file("a.txt", "1")], "x")).toThrow(/--out does not name a folder/));
});

describe("commands", () => {
  const caravan = (...args: string[]) =>
    spawnSync(process.execPath, [join(root, "packages/cli/bin/caravan.mjs"), ...args], { encoding: "utf8" });

  it("never overwrite the project's own art, whatever is asked", () => {
    cpSync(join(root, "examples/tamarisk-road"), folder, { recursive: true });
    const document = JSON.parse(readFileSync(join(folder, "caravan.json"), "utf8"));
    document.deliveries[0].name = "campfire";
    writeFileSync(join(folder, "caravan.json"), JSON.stringify(document));
    const before = readFileSync(join(folder, "art/campfire.png"));
    for (const more of [[], ["--replace"]]) {
      const { status, stderr } = caravan("build", folder, "--out", join(folder, "art"), ...more);
      expect(status).toBe(1);
      expect(stderr).toMatch(/campfire\.png.*own file/);
    }
    expect(readFileSync(join(folder, "art/campfire.png"))).toEqual(before);
  }, 60_000);

  it("pack the same again when they are run twice into the folder they read", () => {
    mkdirSync(folder);
    for (const [k, name] of ["one", "two"].entries()) writeFileSync(join(folder, `${name}.png`), pngCodec().encode(sheetOfCells(2 + k, 1)));
    const first = caravan("pack", folder, "--out", folder, "--json");
    const page = readFileSync(join(folder, "atlas.png"));
    const second = caravan("pack", folder, "--out", folder, "--json");
    expect([JSON.parse(first.stdout).frames, JSON.parse(second.stdout).frames]).toEqual([2, 2]);
    expect(readFileSync(join(folder, "atlas.png"))).toEqual(page);
  }, 60_000);

  it("refuse an empty folder name and a frame's file that somebody else made", () => {
    mkdirSync(folder);
    const sheet = join(folder, "sheet.png");
    writeFileSync(sheet, pngCodec().encode(sheetOfCells(2, 1)));
    writeFileSync(join(folder, "sheet_1.png"), "mine");
    expect(caravan("pack", folder, "--out", "").status).toBe(2);
    const cut = caravan("cut", sheet, "--count", "2x1", "--out", folder);
    expect([cut.status, readdirSync(folder).sort()]).toEqual([1, ["sheet.png", "sheet_1.png"]]);
    expect(cut.stderr).toMatch(/sheet_1\.png/);
    expect(textOf("sheet_1.png")).toBe("mine");
  }, 60_000);
});
