import { spawn, spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { sha256Hex } from "@caravan/core/codec";
import { addSources, cutSource, setDelivery } from "@caravan/core/edit";
import { emptyProject, projectToFile } from "@caravan/core/model";
import { coverageOf } from "@caravan/core/raster";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { CELL, NO_SPACE, PORTER, sheetOfCells } from "../../core/src/edit/project.fixture";
import { pngCodec } from "./png";

const root = join(import.meta.dirname, "../../..");
const caravan = join(root, "packages/cli/bin/caravan.mjs");
const folder = mkdtempSync(join(tmpdir(), "caravan-killed-"));
const project = join(folder, "project");
/** What a person finds there: files that are not hidden, nor in a hidden folder. */
const visible = (path: string) =>
  existsSync(path)
    ? readdirSync(path, { recursive: true, withFileTypes: true }).filter(
        (each) => each.isFile() && !/(^|[\\/])\./.test(join(each.parentPath, each.name).slice(path.length + 1)),
      )
    : [];
const hidden = (path: string) =>
  (existsSync(path) ? readdirSync(path, { recursive: true }) : []).filter((name) => /^\.caravan-staged|\.part$/.test(String(name)));
/** Every finished file by its path with its hash. */
const contents = (path: string) =>
  new Map(
    visible(path).map(({ parentPath, name }) => [
      join(parentPath, name).slice(path.length),
      sha256Hex(readFileSync(join(parentPath, name))),
    ]),
  );

/** A project that delivers 600 single pictures: most of a build's time goes into writing them. */
beforeAll(() => {
  const sheet = sheetOfCells(30, 20);
  const bytes = pngCodec().encode(sheet);
  const { width, height } = sheet;
  const added = addSources(emptyProject("many"), [{ fileName: "many.png", sha256: sha256Hex(bytes), width, height }]);
  const cut = cutSource(added, PORTER, { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false }, coverageOf(sheet));
  const document = setDelivery(cut, 0, { kind: "singles" });
  const file = document.sources[0]?.pictures[0]?.file as string;
  mkdirSync(join(project, file, ".."), { recursive: true });
  writeFileSync(join(project, file), bytes);
  writeFileSync(join(project, "caravan.json"), JSON.stringify(projectToFile(document)));
}, 60_000);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Kills a build into `out`: so many ms after it began, or, with `writing`, after it began to write. */
async function killed(out: string, ms: number, writing: boolean): Promise<void> {
  const child = spawn(process.execPath, [caravan, "build", project, "--out", out], { stdio: "ignore" });
  const ended = new Promise((resolve) => child.once("exit", resolve));
  if (writing) while (child.exitCode === null && hidden(out).length === 0) await pause(0);
  await pause(ms);
  child.kill("SIGKILL");
  await ended;
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

describe("a build that is killed", () => {
  it("at any of 12 moments leaves every file whole, and the next build removes the leftovers", async () => {
    const out = join(folder, "out");
    const begun = performance.now();
    expect(spawnSync(process.execPath, [caravan, "build", project, "--out", out]).status).toBe(0);
    const whole = performance.now() - begun;
    const wanted = contents(out);
    expect(wanted.size).toBe(601);
    rmSync(out, { recursive: true });
    let leavings = 0;
    for (let k = 0; k < 12; k++) {
      await killed(out, k % 2 === 0 ? (whole * k) / 12 : k * 1.5, k % 2 === 1);
      for (const [path, hash] of contents(out)) expect(hash, path).toBe(wanted.get(path));
      if (existsSync(out)) leavings = Math.max(leavings, hidden(out).length);
    }
    // Some were caught while they wrote, or this would prove little.
    expect(leavings).toBeGreaterThan(0);
    expect(spawnSync(process.execPath, [caravan, "build", project, "--out", out]).status).toBe(0);
    expect(contents(out)).toEqual(wanted);
    expect(hidden(out)).toEqual([]);
  }, 180_000);

  it("while replacing an earlier delivery leaves all of that, or all of the new one, once the next build has run", async () => {
    const out = join(folder, "replaced");
    const before = join(folder, "before");
    const build = (from: string) => spawnSync(process.execPath, [caravan, "build", from, "--out", out]);
    // The same project with every colour another one.
    cpSync(project, before, { recursive: true });
    const art = join(before, "art/many.png");
    const pixels = pngCodec().decode(readFileSync(art), art);
    for (let k = 0; k < pixels.bytes.length; k += 4) pixels.bytes[k] = 255 - (pixels.bytes[k] as number);
    writeFileSync(art, pngCodec().encode(pixels));
    expect(build(project).status).toBe(0);
    const fresh = contents(out);
    rmSync(out, { recursive: true });
    expect(build(before).status).toBe(0);
    const old = contents(out);
    const sets = { old: 0, fresh: 0, unfinished: 0 };
    for (let k = 0; k < 3; k++) {
      await killed(out, k * 6, true);
      const found = contents(out);
      const isAll = (set: ReadonlyMap<string, string>) => [...set].every(([path, hash]) => found.get(path) === hash);
      if (isAll(old)) sets.old++;
      else if (isAll(fresh)) sets.fresh++;
      else {
        // Some are in their place and some not yet: then the list says where the rest goes.
        expect(hidden(out).some((name) => /list\.json$/.test(String(name)))).toBe(true);
        sets.unfinished++;
      }
      expect(build(project).status).toBe(0);
      expect(contents(out)).toEqual(fresh);
      expect(hidden(out)).toEqual([]);
      expect(build(before).status).toBe(0);
    }
    expect(sets.old).toBeGreaterThan(0);
  }, 180_000);
});
