import { readFileSync } from "node:fs";
import { join } from "node:path";
import { type AwaitedAnimation, readAnimatedWebp, writeZip } from "@caravan/core/codec";
import { clearPixels, crop, looksSame, type Pixels, paste } from "@caravan/core/raster";
import { camelSheet } from "../examples/draw/camel";
import { BANNER_STILLS, banner, bazaar, bearerLayers, WELL_TIMES, well } from "../examples/draw/camp";
import { porterUnspoilt } from "../examples/draw/raw";
import { decodeStill } from "../packages/cli/src/stills";
import { movingWebpBytes } from "../packages/cli/src/stills.fixture";
import { expect, type Page, test, type Worker } from "./fixtures";
import { choose, delivered, dropAndCut, dropFiles, figureSheet, goTo, openEmpty, png, pngFile, rawArt, type UploadedFile } from "./studio";

/** Where alpha is above 0, the bytes; elsewhere nothing counts. */
function seen({ width, height, bytes }: Pixels): string {
  const shown = bytes.slice();
  for (let k = 0; k < shown.length; k += 4) if (shown[k + 3] === 0) shown.fill(0, k, k + 4);
  return `${width} × ${height} ${Buffer.from(shown).toString("base64")}`;
}

async function bringIn(page: Page): Promise<void> {
  await page.getByRole("dialog", { name: "Import review" }).waitFor();
  await page.getByRole("button", { name: "Import" }).click();
}

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

test("twelve unpadded stills become one series in the order people count, in two actions", async ({ page }) => {
  await dropFiles(
    page,
    [10, 2, 1, 11, 3, 12, 4, 9, 5, 8, 6, 7].map((k) => rawArt(`banner${k}.png`)),
  );
  await expect(page.getByRole("dialog")).toContainText("A series of 12 pictures, 1 to 12, each 40 × 56 px");
  await bringIn(page);
  const { names, frame } = await delivered(page);
  expect(names).toHaveLength(BANNER_STILLS);
  for (let k = 0; k < BANNER_STILLS; k++) expect(seen(frame(`banner/${k + 1}`))).toBe(seen(banner(k / BANNER_STILLS)));
});

test("a GIF brings its pictures and its own times, in two actions", async ({ page }) => {
  await dropFiles(page, [rawArt("well.gif")]);
  await bringIn(page);
  const { atlas, frame } = await delivered(page);
  expect(atlas.clips.well?.steps.map(({ ms }) => ms)).toEqual([...WELL_TIMES]);
  for (let k = 0; k < WELL_TIMES.length; k++) expect(seen(frame(`well/${k}`))).toBe(seen(well(k)));
});

test("an animated WebP brings its pictures and its own times, in two actions", async ({ page }) => {
  await dropFiles(page, [{ name: "sparks.webp", bytes: movingWebpBytes() }]);
  await expect(page.getByRole("dialog")).toContainText("An animation of 2 pictures, 40 × 24 px, 600 ms a loop");
  await bringIn(page);
  const { atlas, frame } = await delivered(page);
  expect(atlas.clips.sparks?.steps.map(({ ms }) => ms)).toEqual([300, 300]);
  const sparks = readAnimatedWebp(movingWebpBytes(), "sparks", decodeStill) as AwaitedAnimation;
  let k = 0;
  for await (const { pixels } of sparks.frames(() => expect("damage").toBe("none")))
    expect(seen(frame(`sparks/${k++}`))).toBe(seen(pixels));
  expect(k).toBe(2);
});

test("an atlas with a metadata file of any make is cut as that says, in two actions", async ({ page }) => {
  await dropFiles(page, [rawArt("bazaar.json"), rawArt("bazaar.png")]);
  await expect(page.getByRole("dialog")).toContainText("A sheet with 11 frames and 1 clip, as bazaar.json says");
  await bringIn(page);
  const { atlas, names, frame } = await delivered(page);
  const { wares } = bazaar();
  expect(names.toSorted()).toEqual(wares.map(({ name }) => name).toSorted());
  for (const { name, whole } of wares) expect(seen(frame(name)), name).toBe(seen(whole));
  expect(atlas.frames["jar/1"]?.origin).toEqual({ x: 16, y: 28 });
  expect(atlas.clips.lantern?.steps.map(({ ms }) => ms)).toEqual([140, 140, 140, 140]);
});

test("layered art can be imported as one source per layer on one canvas, groups as one, hidden ones left out", async ({ page }) => {
  await dropFiles(page, [rawArt("lamp-bearer.ora")]);
  await expect(page.getByRole("dialog")).toContainText("1 hidden layer left out.");
  await page.getByRole("dialog").getByText("One source per layer").click();
  await bringIn(page);
  const pictures = page.getByRole("list", { name: "Pictures" }).getByRole("button");
  await expect(pictures).toHaveCount(3);
  await expect(pictures.nth(0)).toContainText("lamp-bearer-body");
  await expect(pictures.nth(2)).toContainText("lamp-bearer-lamp");
  // One undo takes the whole drop back.
  await page.keyboard.press("Control+z");
  await expect(page.getByText("Drop your sprite sheets here")).toBeVisible();
  expect(bearerLayers().filter(({ hidden }) => !hidden)).toHaveLength(4);
});

test("a camel in uneven boxes is cut along its outlines, feet on one line, in two actions", async ({ page }) => {
  await dropFiles(page, [rawArt("camel.png")]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  // No grid fits them, so their outlines are suggested first.
  await expect(page.getByRole("toolbar", { name: "Suggested cuts" }).getByRole("button").first()).toHaveAccessibleName(
    "Along outlines, 8 frames: no grid fits",
  );
  await page.keyboard.press("q");
  await expect(page.getByTestId("outcome")).toContainText("8 frames in 2 rows");
  const { atlas, frame } = await delivered(page);
  const { pixels, boxes } = camelSheet();
  for (const [k, box] of boxes.entries()) {
    const cut = frame(`camel/${k}`);
    // The drawing is at the bottom centre, without anything of its neighbours.
    const left = Math.floor((cut.width - box.w) / 2);
    const top = cut.height - box.h;
    for (let y = 0; y < cut.height; y++)
      for (let x = 0; x < cut.width; x++) {
        const inside = x >= left && x < left + box.w && y >= top;
        const from = ((box.y + y - top) * pixels.width + box.x + x - left) * 4;
        const wanted = inside ? pixels.bytes[from + 3] : 0;
        if (cut.bytes[(y * cut.width + x) * 4 + 3] !== wanted) throw new Error(`Frame ${k} differs at ${x}, ${y}.`);
      }
    expect(atlas.frames[`camel/${k}`]?.origin.y).toBe(cut.height);
  }
});

test("a sheet on a noisy white ground is noticed, cleared and cut by the suggestion, in three actions", async ({ page }) => {
  await dropFiles(page, [rawArt("porter-on-white.png")]);
  await page.getByRole("button", { name: "Clear the background" }).click();
  await expect(page.getByRole("button", { name: "Undo: clear the background of porter-on-white" })).toBeVisible();
  await expect(page.getByRole("toolbar", { name: "Suggested cuts" }).getByRole("button").first()).toHaveAccessibleName(
    "8 × 2 cells of 40 × 48",
  );
  await page.keyboard.press("q");
  await expect(page.getByTestId("outcome")).toContainText("16 frames");
  const { frame } = await delivered(page);
  const meant = porterUnspoilt();
  let off = 0;
  for (let k = 0; k < 16; k++) {
    const cut = frame(`porter-on-white/${k}`);
    for (let y = 0; y < 48; y++)
      for (let x = 0; x < 40; x++) {
        const from = ((Math.floor(k / 8) * 48 + y) * meant.width + (k % 8) * 40 + x) * 4;
        // Ground that an arm encloses does not hang together with the edge, and stays.
        if ((cut.bytes[(y * 40 + x) * 4 + 3] as number) !== meant.bytes[from + 3]) off++;
      }
  }
  expect(off).toBeLessThan(40);
});

test("the campfire's sparks stay with their fire when it is cut along outlines", async ({ page }) => {
  const fire = readFileSync(join(import.meta.dirname, "../examples/tamarisk-road/art/campfire.png"));
  await dropFiles(page, [{ name: "campfire.png", bytes: new Uint8Array(fire) }]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await page.keyboard.press("o");
  await expect(page.getByTestId("outcome")).toHaveText("8 frames");
  // Every drawn pixel of the sheet is in one of the frames.
  const { names, frame } = await delivered(page);
  const drawn = ({ bytes }: Pixels) => bytes.filter((alpha, k) => k % 4 === 3 && alpha > 0).length;
  expect(names.reduce((sum, name) => sum + drawn(frame(name)), 0)).toBe(drawn(png.decode(new Uint8Array(fire), "fire")));
});

test("frames are drawn, snapped, moved and duplicated by hand", async ({ page }) => {
  await dropFiles(page, [rawArt("camel.png")]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await page.keyboard.press("h");
  const sheet = page.getByTestId("sheet");
  const box = (await sheet.boundingBox()) as { x: number; y: number; width: number; height: number };
  await page.mouse.move(box.x + 20, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + 120, box.y + 120, { steps: 4 });
  await page.mouse.move(box.x + 190, box.y + 190, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByTestId("outcome")).toHaveText("1 frame");
  await page.keyboard.press("d");
  await expect(page.getByTestId("outcome")).toHaveText("2 frames");
  await page.keyboard.press("Alt+ArrowRight");
  await expect(page.getByRole("button", { name: "Undo: move 1 frame" })).toBeVisible();
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("outcome")).toHaveText("1 frame");
});

test("a changed sheet keeps its clips and shows exactly what is the same, changed, new and gone", async ({ page }) => {
  const before = figureSheet(4, 3);
  await dropAndCut(page, "hero.png", before, 4, 3);
  await page.getByRole("button", { name: "Pick row 0" }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("walk");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Steps of walk" })).toBeVisible();
  // One more row, one frame redrawn, one removed.
  const after = figureSheet(4, 4, { w: 32, h: 40 }, [5]);
  after.bytes.set([250, 10, 10, 255], (10 * after.width + 32 + 16) * 4);
  await goTo(page, "Sources");
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: "Replace its art" }).click()]);
  await chooser.setFiles({ name: "hero.png", mimeType: "image/png", buffer: Buffer.from(pngFile("hero.png", after).bytes) });
  const review = page.getByRole("dialog", { name: "Changed art of hero" });
  await expect(review).toContainText("10 frames the same, 1 changed, 4 new, 1 gone.");
  await expect(review.getByRole("region", { name: "Changed", exact: true })).toContainText("hero/1");
  await expect(review.getByRole("region", { name: "Gone" })).toContainText("hero/5");
  await expect(review).toContainText("Clips that show them: walk.");
  await review.getByRole("button", { name: "Use new art" }).click();
  await goTo(page, "Clips");
  await expect(page.getByRole("list", { name: "Steps of walk" }).getByRole("button")).toHaveCount(4);
  await page.keyboard.press("Control+z");
  await goTo(page, "Frames");
  await expect(page.getByTestId("outcome")).toContainText("12 frames");
});

test("a sheet that moved on its canvas and lost a row is found on the moved grid, and frames stay on their drawings", async ({ page }) => {
  const before = figureSheet(4, 3);
  await dropAndCut(page, "hero.png", before, 4, 3);
  const after = clearPixels(128 + 3, 80 + 2);
  for (const [k, row] of [0, 2].entries()) paste(after, before, { x: 0, y: row * 40, w: 128, h: 40 }, 3, 2 + k * 40);
  await goTo(page, "Sources");
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: "Replace its art" }).click()]);
  await chooser.setFiles({ name: "hero.png", mimeType: "image/png", buffer: Buffer.from(pngFile("hero.png", after).bytes) });
  const review = page.getByRole("dialog", { name: "Changed art of hero" });
  await expect(review.getByRole("radio", { name: "The grid moved by 3, 2: 8 of 12 drawings found there" })).toBeChecked();
  await expect(review).toContainText("0 changed, 0 new, 4 gone.");
  await review.getByRole("button", { name: "Use new art" }).click();
  await goTo(page, "Frames");
  await expect(page.getByTestId("outcome")).toContainText("8 frames");
});

test("the reading of a metadata file is shown, and a field can be corrected", async ({ page }) => {
  await dropFiles(page, [rawArt("bazaar.json"), rawArt("bazaar.png")]);
  await bringIn(page);
  await expect(page.getByTestId("outcome")).toContainText("11 frames");
  await expect(page.getByLabel("Path of x")).toHaveText("at.0");
  await choose(page, page.getByLabel("Path of untrimmed width"), "not given");
  await expect(page.getByRole("button", { name: "Undo: cut bazaar as bazaar.json says" })).toBeVisible();
  await expect(page.getByLabel("Path of untrimmed width")).toHaveText("not given");
  // A wrong correction is tried and taken back: what was decided about its frames is as it was.
  const last = page.getByRole("listbox", { name: "Frames" }).getByRole("option").last();
  await last.click();
  await page.getByRole("textbox", { name: "Frame name" }).fill("awning");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: "Undo: name a frame awning" })).toBeVisible();
  await page.keyboard.press("Escape");
  const outcome = await page.getByTestId("outcome").textContent();
  await choose(page, page.getByLabel("Path of x"), "at.1");
  await expect(page.getByLabel("Path of x")).toHaveText("at.1");
  await choose(page, page.getByLabel("Path of x"), "at.0");
  await expect(page.getByLabel("Path of x")).toHaveText("at.0");
  await expect(page.getByTestId("outcome")).toHaveText(outcome as string);
  await last.click();
  await expect(page.getByRole("textbox", { name: "Frame name" })).toHaveValue("awning");
});

test("frames are named by a pattern, with a preview, and found by name", async ({ page }) => {
  await dropAndCut(page, "hero.png", figureSheet(4, 3), 4, 3);
  await page.keyboard.press("n");
  const dialog = page.getByRole("dialog", { name: "Names by pattern" });
  await dialog.getByRole("textbox", { name: "Pattern" }).fill("walk_{n}");
  await expect(dialog).toContainText("walk_0, walk_1, walk_2, walk_3, …, walk_11");
  await dialog.getByRole("button", { name: "Name 12 frames" }).click();
  await page.keyboard.press("/");
  await page.getByRole("textbox", { name: "Part of the name" }).fill("walk_1");
  await page.getByRole("button", { name: "Pick 3" }).click();
  await expect(page.getByTestId("picked")).toContainText("3 picked");
});

/** A BMP of 24 bits a pixel, rows from the bottom up. */
function bmp(width: number, height: number, colour: (x: number, y: number) => readonly [number, number, number]): Uint8Array {
  const stride = Math.ceil((width * 3) / 4) * 4;
  const bytes = new Uint8Array(54 + stride * height);
  const view = new DataView(bytes.buffer);
  bytes.set([0x42, 0x4d]);
  view.setUint32(2, bytes.length, true);
  view.setUint32(10, 54, true);
  view.setUint32(14, 40, true);
  view.setInt32(18, width, true);
  view.setInt32(22, height, true);
  view.setUint16(26, 1, true);
  view.setUint16(28, 24, true);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) bytes.set(colour(x, height - 1 - y).toReversed(), 54 + y * stride + x * 3);
  return bytes;
}

test("pictures that only the browser reads come in with their exact colours", async ({ page }) => {
  const colour = (x: number, y: number): readonly [number, number, number] => [(x * 31) % 256, (y * 57) % 256, (x * y * 11) % 256];
  await dropFiles(page, [{ name: "tiles.bmp", bytes: bmp(17, 9, colour) }]);
  await page.getByRole("button", { name: "Use it whole" }).click();
  await expect(page.getByTestId("outcome")).toContainText("1 frame");
  const { frame } = await delivered(page);
  const tiles = frame("tiles/0");
  for (let y = 0; y < 9; y++)
    for (let x = 0; x < 17; x++) expect([...tiles.bytes.subarray((y * 17 + x) * 4, (y * 17 + x) * 4 + 4)]).toEqual([...colour(x, y), 255]);
});

test("a browser that changes the colours that pages read is not trusted with a picture, and PNG is still read", async ({ page }) => {
  // As protections do it: the lowest bit of a few values.
  const protect = (worker: Worker) =>
    worker.evaluate(() => {
      const { readPixels } = WebGL2RenderingContext.prototype;
      WebGL2RenderingContext.prototype.readPixels = function (...args: unknown[]) {
        Reflect.apply(readPixels, this, args);
        const bytes = args[6] as Uint8Array;
        for (let k = 1000; k < bytes.length; k += 50_000) bytes[k] = (bytes[k] as number) ^ 1;
      };
    });
  page.on("worker", (worker) => void protect(worker));
  await dropAndCut(page, "hero.png", figureSheet(2, 2), 2, 2);
  await dropFiles(page, [{ name: "tiles.bmp", bytes: bmp(17, 9, (x, y) => [x, y, 0]) }]);
  await goTo(page, "Sources");
  const failed = page.getByRole("alert", { name: "Files that were not imported" });
  await expect(failed).toContainText("tiles.bmp: This browser changes colours that pages read, as a protection against being recognised");
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("button")).toHaveCount(1);
});

test("half-transparent colours of a WebP are not damaged", async ({ page }) => {
  // Lossless by the browser's own writer; what it wrote is compared with what its texture reader gives.
  const made = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(16, 16);
    const context = canvas.getContext("2d") as OffscreenCanvasRenderingContext2D;
    const image = context.createImageData(16, 16);
    for (let k = 0; k < 256; k++) image.data.set([200, 100, 50, k % 2 === 0 ? 255 : 128], k * 4);
    context.putImageData(image, 0, 0);
    const blob = await canvas.convertToBlob({ type: "image/webp", quality: 1 });
    return [...new Uint8Array(await blob.arrayBuffer())];
  });
  await dropFiles(page, [{ name: "glow.webp", bytes: Uint8Array.from(made) }]);
  await page.getByRole("button", { name: "Use it whole" }).click();
  const { frame } = await delivered(page);
  const glow = frame("glow/0");
  for (let k = 0; k < 256; k++) {
    expect(glow.bytes[k * 4 + 3]).toBe(k % 2 === 0 ? 255 : 128);
    for (const [channel, value] of [200, 100, 50].entries())
      expect(Math.abs((glow.bytes[k * 4 + channel] as number) - value)).toBeLessThanOrEqual(2);
  }
});

test("a ZIP of pictures is unpacked, and one with paths outside itself is refused", async ({ page }) => {
  const zip = writeZip([
    { path: "walk/1.png", bytes: rawArt("banner1.png").bytes },
    { path: "walk/2.png", bytes: rawArt("banner2.png").bytes },
    { path: "__MACOSX/walk/._1.png", bytes: new Uint8Array([1, 2, 3]) },
  ]);
  await dropFiles(page, [{ name: "art.zip", bytes: zip }]);
  await expect(page.getByRole("dialog")).toContainText("A series of 2 pictures, 1 to 2");
  await bringIn(page);
  await expect(page.getByTestId("outcome")).toHaveText("2 frames");
  await dropFiles(page, [{ name: "evil.zip", bytes: writeZip([{ path: "../out.png", bytes: rawArt("banner1.png").bytes }]) }]);
  await expect(page.getByText("The archive contains a path outside itself")).toBeVisible();
});

test("of a series only some redrawn stills are dropped: the others stay, and a single one is recognised by its number", async ({
  page,
}) => {
  const figures = figureSheet(16, 1, { w: 24, h: 30 });
  const figure = (k: number) => crop(figures, { x: k * 24, y: 0, w: 24, h: 30 });
  const still = (number: number, k = number) => pngFile(`walk_${number}.png`, figure(k));
  const review = page.getByRole("dialog", { name: "Changed art of walk" });
  const drop = async (...files: UploadedFile[]) => {
    await dropFiles(page, files);
    const proposed = page.getByRole("dialog", { name: "Import review" });
    await expect(proposed.getByRole("radio", { name: "New art of walk" })).toBeChecked();
    await page.keyboard.press("Enter");
  };
  await openEmpty(page);
  await dropFiles(
    page,
    [1, 2, 3, 4].map((number) => still(number)),
  );
  await expect(page.getByRole("dialog", { name: "Import review" })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("outcome")).toContainText("4 frames");

  await drop(still(2, 12), still(4, 14));
  await expect(review).toContainText("2 frames the same, 2 changed, 0 new, 0 gone.");
  await expect(review.getByRole("radio", { name: "Only what was given: the other 2 pictures stay as they are" })).toBeChecked();
  await review.getByRole("radio", { name: "These 2 are all of it now" }).click();
  await expect(review).toContainText("0 frames the same, 2 changed, 0 new, 2 gone.");
  await review.getByRole("radio", { name: "Only what was given" }).click();
  await page.keyboard.press("Enter");
  await expect(review).toHaveCount(0);

  await drop(still(3, 13));
  await expect(review).toContainText("3 frames the same, 1 changed, 0 new, 0 gone.");
  await page.keyboard.press("Enter");
  await expect(review).toHaveCount(0);
  await drop(still(5));
  await expect(review).toContainText("4 frames the same, 0 changed, 1 new, 0 gone.");
  await page.keyboard.press("Enter");
  await expect(review).toHaveCount(0);

  const { names, frame } = await delivered(page);
  expect(names).toEqual([1, 2, 3, 4, 5].map((number) => `walk/${number}`));
  for (const [k, shown] of [1, 12, 13, 14, 5].entries()) expect(looksSame(frame(`walk/${k + 1}`), figure(shown))).toBe(true);
});
