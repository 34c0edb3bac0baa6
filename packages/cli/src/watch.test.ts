import { type ChildProcessWithoutNullStreams, spawn } from "node:child_process";
import { cpSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createInterface } from "node:readline";
import { clearPixels, paste, scaled } from "@caravan/core/raster";
import { afterAll, afterEach, describe, expect, it } from "vitest";
import { pngCodec } from "./png";
import { PRINTED } from "./printed";

const root = join(import.meta.dirname, "../../..");
const folder = mkdtempSync(join(tmpdir(), "caravan-watch-"));
const png = pngCodec();
let watching: ChildProcessWithoutNullStreams | null = null;

interface Line {
  readonly ok: boolean;
  readonly written?: string[];
  readonly changed?: string[];
  readonly error?: { readonly message: string };
}

/** Watches a copy of the demo; `next` gives the lines as they come. */
function watchCopy(name: string) {
  const road = join(folder, name);
  const out = join(folder, `${name}-out`);
  cpSync(join(root, "examples/tamarisk-road"), road, { recursive: true });
  watching = spawn(process.execPath, [join(root, "packages/cli/bin/caravan.mjs"), "watch", road, "--out", out, "--json"]);
  const lines = createInterface({ input: watching.stdout })[Symbol.asyncIterator]();
  const next = async (): Promise<Line> => {
    const line = JSON.parse((await lines.next()).value as string);
    expect(PRINTED.watch.parse(line)).toEqual(line);
    return line;
  };
  return { road, out, next, child: watching };
}

/** The campfire with one drawn pixel in another colour. */
function repainted(road: string, red: number): Uint8Array {
  const fire = png.decode(readFileSync(join(road, "art/campfire.png")), "fire");
  const at = Array.from({ length: fire.bytes.length / 4 }, (_, k) => k * 4).find((k) => fire.bytes[k + 3] === 255) as number;
  fire.bytes[at] = red;
  return png.encode(fire);
}

afterEach(() => {
  watching?.kill("SIGKILL");
});
afterAll(() => rmSync(folder, { recursive: true }));

describe("caravan watch", () => {
  it("builds at once, then again when art changes, and writes changed files only", async () => {
    const { road, out, next, child } = watchCopy("changed");
    expect(await next()).toMatchObject({ ok: true, written: ["tamarisk.atlas.json", "tamarisk.png", "tamarisk.light.png"] });
    const atlas = statSync(join(out, "tamarisk.atlas.json")).mtimeMs;
    writeFileSync(join(road, "art/campfire.png"), repainted(road, 7));
    expect(await next()).toMatchObject({ ok: true, written: ["tamarisk.png"], changed: ["campfire (7 the same, 1 changed)"] });
    expect(statSync(join(out, "tamarisk.atlas.json")).mtimeMs).toBe(atlas);
    // Another saving of the same bytes changes nothing.
    writeFileSync(join(road, "art/campfire.png"), readFileSync(join(road, "art/campfire.png")));
    expect(await next()).toMatchObject({ ok: true, written: [] });
    const ended = new Promise((resolve) => child.once("exit", resolve));
    child.kill("SIGINT");
    expect(await ended).toBe(0);
  }, 60_000);

  it("survives a half-written file: it reports the problem, keeps the delivery, and builds when the rest has arrived", async () => {
    const { road, out, next } = watchCopy("halved");
    await next();
    const before = readFileSync(join(out, "tamarisk.png"));
    const whole = repainted(road, 9);
    writeFileSync(join(road, "art/campfire.png"), whole.subarray(0, 60));
    const told = await next();
    expect(told).toMatchObject({ ok: false, error: { message: expect.stringMatching(/art\/campfire\.png/) } });
    expect(readFileSync(join(out, "tamarisk.png"))).toEqual(before);
    writeFileSync(join(road, "art/campfire.png"), whole);
    let line = await next();
    while (!line.ok) line = await next();
    expect(line.written).toEqual(["tamarisk.png"]);
    expect(readdirSync(out).toSorted()).toEqual([".caravan-delivered.json", "tamarisk.atlas.json", "tamarisk.light.png", "tamarisk.png"]);
  }, 60_000);

  it("reports a failure once, and continues when the folder is renamed away and back", async () => {
    const { road, out, next, child } = watchCopy("away");
    const lines: Line[] = [await next()];
    renameSync(road, `${road}-elsewhere`);
    lines.push(await next());
    expect(lines[1]).toMatchObject({ ok: false });
    // All further tries fail alike and are not said again.
    await new Promise((wake) => setTimeout(wake, 2500));
    renameSync(`${road}-elsewhere`, road);
    const back = await next();
    expect(back).toMatchObject({ ok: true, written: [] });
    const before = readFileSync(join(out, "tamarisk.png"));
    writeFileSync(join(road, "art/campfire.png"), repainted(road, 11));
    expect(await next()).toMatchObject({ ok: true, written: ["tamarisk.png"] });
    expect(readFileSync(join(out, "tamarisk.png"))).not.toEqual(before);
    expect(child.exitCode).toBeNull();
  }, 60_000);

  it("follows drawings: a row inserted at the top of a sheet moves its frames down, and clips follow", async () => {
    const { road, out, next } = watchCopy("row");
    await next();
    const frames = () => JSON.parse(readFileSync(join(out, "tamarisk.atlas.json"), "utf8")).clips["walk-e"].steps.length;
    const before = frames();
    const sheet = png.decode(readFileSync(join(road, "art/porter-walk.png")), "walk");
    const cell = 48;
    const taller = { width: sheet.width, height: sheet.height + cell, bytes: new Uint8Array(sheet.width * (sheet.height + cell) * 4) };
    taller.bytes.set(sheet.bytes, cell * sheet.width * 4);
    for (let x = 4; x < 36; x++) taller.bytes.set([200, 30, 60, 255], (20 * sheet.width + x) * 4);
    writeFileSync(join(road, "art/porter-walk.png"), png.encode(taller));
    const line = await next();
    expect(line.ok).toBe(true);
    expect(line.changed?.[0]).toMatch(/^porter-walk \(.*\d+ moved.*1 new.*frames moved down a row/);
    expect(frames()).toBe(before);
  }, 60_000);

  it("recognises a sheet that comes at 200 %: its frames keep their size in the game, which is reported", async () => {
    const { road, out, next } = watchCopy("larger");
    await next();
    const atlas = () => JSON.parse(readFileSync(join(out, "tamarisk.atlas.json"), "utf8"));
    const before = atlas();
    const path = join(road, "art/porter-walk.png");
    writeFileSync(path, png.encode(scaled(png.decode(readFileSync(path), "walk"), 2, true)));
    const line = await next();
    expect(line.changed?.[0]).toMatch(/^porter-walk \(The same drawings, 200 % as large: frames keep their size in the game/);
    expect(atlas().clips).toEqual(before.clips);
    for (const [name, { size, origin }] of Object.entries<{ size: object; origin: object }>(before.frames))
      expect(atlas().frames[name]).toMatchObject({ size, origin });
  });

  it("tries other grids: a sheet with larger cells is cut by them, which is reported", async () => {
    const { road, out, next } = watchCopy("grown");
    await next();
    const atlas = () => JSON.parse(readFileSync(join(out, "tamarisk.atlas.json"), "utf8"));
    const before = atlas();
    const sheet = png.decode(readFileSync(join(road, "art/porter-walk.png")), "walk");
    const [old, now] = [
      { w: 40, h: 48 },
      { w: 46, h: 56 },
    ];
    const grown = clearPixels(now.w * 8, now.h * 8);
    for (let k = 0; k < 64; k++) {
      const [column, row] = [k % 8, Math.floor(k / 8)];
      paste(grown, sheet, { x: column * old.w, y: row * old.h, ...old }, column * now.w + 3, row * now.h + 8);
    }
    writeFileSync(join(road, "art/porter-walk.png"), png.encode(grown));
    const line = await next();
    expect(line.ok).toBe(true);
    expect(line.changed?.[0]).toMatch(/^porter-walk \(Cells of 46 × 56 now: 6\d of 6\d drawings found there/);
    const steps = (each: ReturnType<typeof atlas>) => each.clips["walk-e"].steps.length;
    expect(steps(atlas())).toBe(steps(before));
    const shown = (each: ReturnType<typeof atlas>) => each.frames[each.clips["walk-e"].steps[0].frame].rect;
    expect([shown(atlas()).w, shown(atlas()).h]).toEqual([shown(before).w, shown(before).h]);
  }, 60_000);
});
