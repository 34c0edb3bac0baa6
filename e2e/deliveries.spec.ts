import { readFileSync } from "node:fs";
import { join } from "node:path";
import { readApng, readZip, writeZip } from "@caravan/core/codec";
import { allPictures, type Source } from "@caravan/core/model";
import { crop, looksSame, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { atlasOf, delivered, dropAndCut, figureSheet, filesOf, goTo, openEmpty, openStudio, png, typeNumber } from "./studio";

const CELL = { w: 32, h: 40 };
const sheet = figureSheet(6, 2);
const frame = (k: number): Pixels => crop(sheet, { x: (k % 6) * CELL.w, y: Math.floor(k / 6) * CELL.h, ...CELL });

/** A sheet cut, its first row a clip `stroll`, and Ship. */
async function strollAtShip(page: Page): Promise<void> {
  await openEmpty(page);
  await dropAndCut(page, "walker.png", sheet, 6, 2);
  await page.getByRole("button", { name: "Pick row 0", exact: true }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("stroll");
  await page.keyboard.press("Enter");
  await goTo(page, "Ship");
  await expect(page.getByTestId("proof")).toContainText("12 frames in, 12 out");
}

const damaged = (index: number, why: string) => {
  throw new Error(`Picture ${index}: ${why}`);
};

const kind = (page: Page, name: string) => page.getByRole("radio", { name, exact: true }).click();

async function zipNow(page: Page): Promise<Map<string, Uint8Array>> {
  await expect(page.getByTestId("proof")).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: /ZIP/ }).click()]);
  return filesOf(download);
}

test("one project is delivered as a grid sheet, strips, single pictures and films, each exactly", async ({ page }) => {
  await strollAtShip(page);
  await kind(page, "Grid sheet");
  await page.getByRole("checkbox", { name: "choose columns automatically" }).click();
  await typeNumber(page, "Columns of the sheet", 6);
  // Switched off and on again, it is what it was.
  for (let k = 0; k < 2; k++) await page.getByRole("checkbox", { name: "choose columns automatically" }).click();
  await expect(page.getByRole("textbox", { name: "Columns of the sheet" })).toHaveValue("6");
  await expect(page.getByRole("list", { name: "Notes" })).toContainText("6 columns of 32 × 40 px.");
  const grid = png.decode((await zipNow(page)).get("atlas.png") as Uint8Array, "grid");
  expect(looksSame(grid, sheet)).toBe(true);

  await kind(page, "Strips");
  await page.getByRole("radio", { name: "Down", exact: true }).click();
  await expect(page.getByText(/page 1 of 1 · 32 × 240/)).toBeVisible();
  const strip = png.decode((await zipNow(page)).get("atlas-stroll.png") as Uint8Array, "strip");
  for (let k = 0; k < 6; k++) expect(looksSame(crop(strip, { x: 0, y: k * 40, ...CELL }), frame(k))).toBe(true);

  await kind(page, "Single pictures");
  const names = page.getByRole("textbox", { name: "Pattern for frame names" });
  await names.fill("{clip}-{step:2}");
  await names.press("Enter");
  await expect(page.getByTestId("small-picture")).toHaveCount(12);
  const singles = await zipNow(page);
  expect(looksSame(png.decode(singles.get("atlas/stroll-03.png") as Uint8Array, "single"), frame(3))).toBe(true);

  await kind(page, "Films");
  await expect(page.getByTestId("proof")).toContainText("12 pictures of films in, 12 out");
  const films = await zipNow(page);
  expect([...films.keys()]).toEqual(["atlas/stroll.png", "atlas/stroll.gif"]);
  const moving = readApng(films.get("atlas/stroll.png") as Uint8Array, "film", png);
  [...(moving?.frames(damaged) ?? [])].forEach(({ pixels, ms }, k) => {
    expect(ms).toBe(100);
    expect(looksSame(pixels, frame(k))).toBe(true);
  });
  // Both decoded by the browser: every picture at its time, pixel by pixel where it is opaque.
  const shown = await seenByBrowser(page, "image/png", films.get("atlas/stroll.png") as Uint8Array);
  expect(shown.map(({ ms }) => ms)).toEqual(Array(6).fill(100));
  for (const [k, { rgba }] of shown.entries()) expect(worstChannel(rgba, frame(k))).toBe(0);
  const coarse = await seenByBrowser(page, "image/gif", films.get("atlas/stroll.gif") as Uint8Array);
  expect(coarse.map(({ ms }) => ms)).toEqual(Array(6).fill(100));
  // This figure has more colours than a GIF, which the proof says; the nearest ones are near.
  await expect(page.getByTestId("proof")).toContainText("6 in the nearest colours");
  for (const [k, { rgba }] of coarse.entries()) expect(worstChannel(rgba, frame(k))).toBeLessThan(24);
});

interface SeenPicture {
  readonly ms: number;
  readonly rgba: readonly number[];
}

/** Every picture of a moving one, decoded by the browser. */
async function seenByBrowser(page: Page, type: string, file: Uint8Array): Promise<SeenPicture[]> {
  return page.evaluate(
    async ([mime, base64]) => {
      const data = Uint8Array.from(atob(base64), (each) => each.charCodeAt(0));
      const decoder = new ImageDecoder({ data, type: mime });
      await Promise.all([decoder.completed, decoder.tracks.ready]);
      const found: { ms: number; rgba: number[] }[] = [];
      for (let frameIndex = 0; frameIndex < (decoder.tracks.selectedTrack?.frameCount ?? 0); frameIndex++) {
        const { image } = await decoder.decode({ frameIndex });
        const canvas = new OffscreenCanvas(image.displayWidth, image.displayHeight);
        const context = canvas.getContext("2d") as OffscreenCanvasRenderingContext2D;
        context.drawImage(image, 0, 0);
        const { data: rgba } = context.getImageData(0, 0, canvas.width, canvas.height);
        found.push({ ms: (image.duration ?? 0) / 1000, rgba: [...rgba] });
        image.close();
      }
      return found;
    },
    [type, Buffer.from(file).toString("base64")] as const,
  );
}

/** How far any channel of an opaque pixel is off; half clear ones are changed by the canvas that they are read from. */
function worstChannel(rgba: readonly number[], wanted: Pixels): number {
  expect(rgba).toHaveLength(wanted.bytes.length);
  let worst = 0;
  for (let k = 0; k < rgba.length; k++)
    if (wanted.bytes[k - (k % 4) + 3] === 255) worst = Math.max(worst, Math.abs((rgba[k] as number) - (wanted.bytes[k] as number)));
  return worst;
}

test("contents, names, sizes and other files are set, and a second delivery is added", async ({ page }) => {
  await strollAtShip(page);
  await page.getByRole("radio", { name: "Clips", exact: true }).click();
  const like = page.getByRole("textbox", { name: "Names like" });
  await like.fill("st*");
  await like.press("Enter");
  await expect(page.getByTestId("proof")).toContainText("6 frames in, 6 out");
  await page.getByRole("button", { name: "Add a size" }).click();
  await page.getByRole("checkbox", { name: "table of times" }).click();
  await page.getByRole("radio", { name: "TypeScript" }).click();
  await expect(page.getByRole("list", { name: "Files" })).toContainText("atlas@2x.png");
  const files = await zipNow(page);
  expect([...files.keys()].sort()).toEqual(
    ["", "@2x"].flatMap((suffix) => [".atlas.json", ".atlas.ts", ".png", ".times.csv"].map((end) => `atlas${suffix}${end}`)).sort(),
  );
  expect(new TextDecoder().decode(files.get("atlas.times.csv"))).toContain("stroll,1,walker/1,100,100,6,6,0");
  expect(new TextDecoder().decode(files.get("atlas.atlas.ts"))).toContain('export type ClipName = "stroll";');
  await page.getByRole("button", { name: "Add a delivery" }).click();
  await expect(page.getByRole("textbox", { name: "Name of the delivery" })).toHaveValue("delivery");
  await expect(page.getByTestId("proof")).toContainText("12 frames in, 12 out");
  // Settings that are switched off are kept for this delivery while the page is open.
  const tiles = page.getByRole("checkbox", { name: "tiles and their positions" });
  await tiles.check();
  await typeNumber(page, "Tile width", 16);
  await tiles.uncheck();
  await tiles.check();
  await expect(page.getByRole("textbox", { name: "Tile width" })).toHaveValue("16");
  for (let k = 0; k < 4; k++) await page.keyboard.press("Control+z");
  await page.getByRole("list", { name: "Deliveries" }).getByRole("button", { name: /atlas/ }).click();
  await expect(page.getByTestId("proof")).toContainText("6 frames in, 6 out");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("list", { name: "Deliveries" }).getByRole("listitem")).toHaveCount(1);
});

test("a delivery goes into the game's folder, again with one key from any stop, writing changed files only", async ({ page }) => {
  // The browser's private file system stands in for a folder on the computer, and counts what is written.
  await page.addInitScript(() => {
    const folder = async () => (await navigator.storage.getDirectory()).getDirectoryHandle("game", { create: true });
    Object.assign(window, { showDirectoryPicker: folder, written: [] });
    const create = FileSystemFileHandle.prototype.createWritable;
    FileSystemFileHandle.prototype.createWritable = function (...options) {
      (window as unknown as { written: string[] }).written.push(this.name);
      return create.apply(this, options);
    };
  });
  // Copies are staged under numbers until all are there; lists lie beside the delivered files.
  const written = async () =>
    (await page.evaluate(() => (window as unknown as { written: string[] }).written.splice(0))).filter(
      (name) => !/^(\d+|list\.json|\..*)$/.test(name),
    );
  const there = () =>
    page.evaluate(async () => {
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle("game");
      const found: [string, string][] = [];
      for await (const [name, handle] of (folder as unknown as { entries(): AsyncIterable<[string, FileSystemFileHandle]> }).entries())
        if (!name.startsWith("."))
          found.push([name, btoa(String.fromCharCode(...new Uint8Array(await (await handle.getFile()).arrayBuffer())))]);
      return found;
    });
  await strollAtShip(page);
  await page.getByRole("button", { name: "Link the game's folder" }).click();
  await page.getByRole("button", { name: "Deliver into game" }).click();
  await expect(page.getByText("Delivered 2 files into game.")).toBeVisible();
  expect((await written()).sort()).toEqual(["atlas.atlas.json", "atlas.png"]);
  const files = new Map((await there()).map(([name, base64]) => [name, new Uint8Array(Buffer.from(base64, "base64"))]));
  const { atlas } = atlasOf(files);
  expect(Object.keys(atlas.clips)).toEqual(["stroll"]);

  await page.keyboard.press("d");
  await expect(page.getByText("game is up to date: all 2 files of atlas are unchanged.")).toBeVisible();
  expect(await written()).toEqual([]);

  // A time is changed at Clips; Shift+D at Frames writes the atlas file and leaves the picture alone.
  await goTo(page, "Clips");
  await typeNumber(page, "Frames per second", 5);
  await goTo(page, "Frames");
  await page.keyboard.press("Shift+D");
  await expect(page.getByText("Delivered 1 file into game; 1 unchanged.")).toBeVisible();
  expect(await written()).toEqual(["atlas.atlas.json"]);

  // After a rename, the folder stays linked; leftover files are listed, and removed on request.
  await goTo(page, "Ship");
  const name = page.getByRole("textbox", { name: "Name of the delivery" });
  await name.fill("walker");
  await name.press("Enter");
  await page.getByRole("button", { name: "Deliver into game" }).click();
  await expect(page.getByRole("list", { name: "No longer delivered" })).toHaveText("atlas.atlas.jsonatlas.png");
  await page.getByRole("button", { name: "Remove them there" }).click();
  await expect(page.getByText("Removed 2 files from game.")).toBeVisible();
  expect((await there()).map(([file]) => file).sort()).toEqual(["walker.atlas.json", "walker.png"]);
});

test("an uploaded project is built on the server to the same bytes, and an invalid one is refused with a reason", async ({ page }) => {
  test.setTimeout(180_000);
  await openStudio(page);
  const fromStudio = await delivered(page);
  const folder = join(import.meta.dirname, "../examples/tamarisk-road");
  const read = (path: string) => new Uint8Array(readFileSync(join(folder, path)));
  const document = JSON.parse(new TextDecoder().decode(read("caravan.json")));
  const paths = new Set<string>(document.sources.flatMap((source: Source) => allPictures(source).map(({ file }) => file)));
  const bundle = Buffer.from(writeZip(["caravan.json", ...paths].map((path) => ({ path, bytes: read(path) }))));
  const answers = await Promise.all(Array.from({ length: 5 }, () => page.request.post("/api/build", { data: bundle, timeout: 120_000 })));
  for (const answer of answers) {
    expect(answer.status()).toBe(200);
    expect((await answer.body()).equals(await (answers[0] as (typeof answers)[number]).body())).toBe(true);
  }
  const built = readZip(new Uint8Array(await (answers[0] as (typeof answers)[number]).body()), "built");
  for (const { path, bytes } of built)
    expect(Buffer.from(bytes).equals(Buffer.from(fromStudio.files.get(path) as Uint8Array)), path).toBe(true);
  const refused = await page.request.post("/api/build", { data: bundle.subarray(0, 3000) });
  expect(refused.status()).toBe(422);
  expect(((await refused.json()) as { error: string }).error).toMatch(/^project\.caravan: .*\. Use /);
  const large = await page.request.post("/api/build", { data: Buffer.alloc(65 * 1024 * 1024), timeout: 60_000 });
  expect(large.status()).toBe(413);
});

test("a setting stays under the pointer that changes it, while the delivery is packed again and proved", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Ship");
  await expect(page.getByTestId("proof")).toBeVisible({ timeout: 40_000 });
  const settings = page.getByRole("region", { name: "Delivery settings" });
  await settings.evaluate((element) => element.scrollTo(0, 1e6));
  const box = settings.getByRole("checkbox", { name: "table of times" });
  const before = await box.boundingBox();
  await box.check();
  // At once, while it is packed, and once it is proved.
  expect(await box.boundingBox()).toEqual(before);
  await expect(page.getByTestId("proof")).toBeHidden();
  expect(await box.boundingBox()).toEqual(before);
  await expect(page.getByTestId("proof")).toBeVisible({ timeout: 40_000 });
  expect(await box.boundingBox()).toEqual(before);
});
