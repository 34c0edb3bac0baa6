import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readAtlas } from "@caravan/core/atlas";
import { crop } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { png } from "./studio";

test.use({ moving: true });

const root = join(import.meta.dirname, "..");
const caravan = join(root, "packages/cli/bin/caravan.mjs");
let folder: string;
let game: ChildProcess;
let url: string;

/** The demo, built into a folder, and the game that plays it. */
test.beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "caravan-crossing-"));
  cpSync(join(root, "examples/tamarisk-road"), join(folder, "project"), { recursive: true });
  execFileSync(process.execPath, [caravan, "build", join(folder, "project"), "--out", join(folder, "game")]);
  game = spawn(process.execPath, [join(root, "scripts/crossing.mjs"), "--delivered", join(folder, "game"), "--port", "0"]);
  url = await new Promise((ready, failed) => {
    game.stdout?.on("data", (text) => {
      const found = /http:\S+/.exec(String(text))?.[0];
      if (found) ready(found);
    });
    game.once("exit", (code) => failed(new Error(`The game's server ended with ${code}.`)));
  });
});

test.afterAll(() => {
  game.kill();
  rmSync(folder, { recursive: true, force: true });
});

const told = (page: Page) => page.getByRole("status");

/** What the canvas shows where the frame's opaque pixels should be, and what the delivered page has there: equal in how many of them. */
async function shareDrawn(page: Page): Promise<number> {
  const seen = await page.evaluate(() => {
    const canvas = document.getElementById("stage") as HTMLCanvasElement;
    const { data } = (canvas.getContext("2d") as CanvasRenderingContext2D).getImageData(0, 0, canvas.width, canvas.height);
    const { frame, mirror, x, y } = canvas.dataset;
    return { frame, mirror, x, y, bytes: [...data] };
  });
  const atlas = readAtlas(readFileSync(join(folder, "game/tamarisk.atlas.json")), "atlas");
  const { page: number, rect, inset, origin } = atlas.frames[seen.frame as string] as (typeof atlas.frames)[string];
  const image = atlas.pages[number]?.image as string;
  const art = crop(png.decode(readFileSync(join(folder, "game", image)), image), rect);
  let [same, all] = [0, 0];
  for (let y = 0; y < rect.h; y++)
    for (let x = 0; x < rect.w; x++) {
      const from = (y * rect.w + x) * 4;
      if (art.bytes[from + 3] !== 255) continue;
      const side = inset.x - Math.round(origin.x) + x;
      const left = Number(seen.x) + (seen.mirror === "true" ? -side - 1 : side);
      const at = ((Number(seen.y) + inset.y - Math.round(origin.y) + y) * 320 + left) * 4;
      all++;
      if ([0, 1, 2].every((k) => seen.bytes[at + k] === art.bytes[from + k])) same++;
    }
  return same / all;
}

test("the porter walks, turns, acts and returns to idle, drawn exactly as delivered", async ({ page }) => {
  await page.goto(url);
  await expect(told(page)).toHaveText("stand · looks s");
  expect(await shareDrawn(page)).toBe(1);
  const x = async () => Number(await page.locator("#stage").getAttribute("data-road"));
  const before = await x();
  await page.keyboard.down("ArrowRight");
  await expect(told(page)).toHaveText("walk · looks e");
  await expect.poll(x).toBeGreaterThan(before + 20);
  expect(await shareDrawn(page)).toBe(1);
  await page.keyboard.down("ArrowUp");
  await expect(told(page)).toHaveText("walk · looks ne");
  await page.keyboard.up("ArrowRight");
  await page.keyboard.up("ArrowUp");
  await expect(told(page)).toHaveText(/^stand · looks (ne|n)$/);
  // West is the mirror of east while standing.
  await page.keyboard.press("ArrowLeft", { delay: 200 });
  await expect(told(page)).toHaveText("stand · looks w");
  await expect(page.locator("#stage")).toHaveAttribute("data-mirror", "true");
  expect(await shareDrawn(page)).toBe(1);
  // The rehearsed rules: with the lamp he stands with it, sets it down, and glances around when left alone.
  await page.keyboard.press("1");
  await expect(told(page)).toHaveText("stand with the lamp · looks w");
  await page.keyboard.press("Space");
  await expect(told(page)).toHaveText("stand · looks w");
  await expect(told(page)).toHaveText("glance · looks w");
});

test("the delivered boxes are around the porter, also when he is mirrored", async ({ page }) => {
  await page.goto(url);
  await expect(told(page)).toHaveText("stand · looks s");
  await page.keyboard.press("ArrowLeft", { delay: 120 });
  await expect(page.locator("#stage")).toHaveAttribute("data-mirror", "true");
  const atlas = readAtlas(readFileSync(join(folder, "game/tamarisk.atlas.json")), "atlas");
  /** The share of the box's two sides that is drawn in the colour of boxes. */
  const sides = async () => {
    const { frame, x, y, bytes } = await page.evaluate(() => {
      const canvas = document.getElementById("stage") as HTMLCanvasElement;
      const { data } = (canvas.getContext("2d") as CanvasRenderingContext2D).getImageData(0, 0, canvas.width, canvas.height);
      return { ...canvas.dataset, bytes: [...data] } as { frame: string; x: string; y: string; bytes: number[] };
    });
    const { origin, boxes } = atlas.frames[frame] as (typeof atlas.frames)[string];
    const box = boxes?.body?.[0] as { x: number; y: number; w: number; h: number };
    const right = Number(x) + origin.x - box.x;
    let dark = 0;
    for (const column of [right - box.w, right - 1])
      for (let row = 0; row < box.h; row++) {
        const at = ((Number(y) - origin.y + box.y + row) * 320 + column) * 4;
        if ([43, 26, 18].every((value, k) => bytes[at + k] === value)) dark++;
      }
    return dark / (2 * box.h);
  };
  expect(await sides()).toBeLessThan(0.2);
  await page.keyboard.press("b");
  await expect.poll(sides).toBe(1);
  await page.keyboard.press("b");
  await expect.poll(sides).toBeLessThan(0.2);
});

test("changed art reaches the running game automatically while the project is watched", async ({ page }) => {
  await page.goto(url);
  await expect(told(page)).toHaveText("stand · looks s");
  const watch = spawn(process.execPath, [caravan, "watch", join(folder, "project"), "--out", join(folder, "game"), "--json"]);
  try {
    await new Promise((ready) => watch.stdout.once("data", ready));
    const path = join(folder, "project/art/porter-idle.png");
    const sheet = png.decode(readFileSync(path), path);
    // The whole figure turns green.
    for (let k = 0; k < sheet.bytes.length; k += 4) if (sheet.bytes[k + 3] === 255) sheet.bytes.set([20, 190, 90], k);
    writeFileSync(path, png.encode(sheet));
    await expect
      .poll(() =>
        page.evaluate(() => {
          const canvas = document.getElementById("stage") as HTMLCanvasElement;
          const { x, y } = canvas.dataset;
          return [...(canvas.getContext("2d") as CanvasRenderingContext2D).getImageData(Number(x), Number(y) - 20, 1, 1).data];
        }),
      )
      .toEqual([20, 190, 90, 255]);
    expect(await shareDrawn(page)).toBe(1);
  } finally {
    watch.kill();
  }
});
