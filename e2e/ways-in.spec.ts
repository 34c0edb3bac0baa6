import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { utf8 } from "@caravan/core/codec";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { apngOf } from "../packages/core/src/codec/apng.fixture";
import { expect, type Page, test } from "./fixtures";
import { choose, delivered, dropFiles, figureSheet, goTo, openEmpty, png, pngFile, RAW_ART, rawArt, typeNumber } from "./studio";

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

const review = (page: Page) => page.getByRole("dialog", { name: "Import review" });
const bringIn = (page: Page) => page.getByRole("button", { name: "Import" }).click();

test("a pasted picture is imported like a dropped one", async ({ page }) => {
  const { bytes } = pngFile("pasted.png", figureSheet(4, 1));
  await page.evaluate((base64) => {
    const file = new File([Uint8Array.from(atob(base64), (each) => each.charCodeAt(0))], "image.png", { type: "image/png" });
    const clipboardData = new DataTransfer();
    clipboardData.items.add(file);
    document.body.dispatchEvent(new ClipboardEvent("paste", { clipboardData, bubbles: true }));
  }, Buffer.from(bytes).toString("base64"));
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await typeNumber(page, "Columns", 4);
  await expect(page.getByTestId("outcome")).toContainText("4 frames");
});

test("a chosen folder is imported at once, its series together", async ({ page }) => {
  await goTo(page, "Sources");
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: "Add a folder" }).click()]);
  await chooser.setFiles(RAW_ART);
  await expect(review(page)).toContainText("A series of 12 pictures, 1 to 12");
  await expect(review(page)).toContainText("A sheet with 11 frames and 1 clip, as bazaar.json says");
  await expect(review(page)).toContainText("An animation of 8 pictures");
  await bringIn(page);
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("listitem")).toHaveCount(6);
});

interface Dragged {
  readonly items: { readonly mimeType: string; readonly data: string }[];
  readonly files: string[];
}

/** Drags something from outside of the browser over the page, and drops it there. */
async function dropAsSystem(page: Page, { items, files }: Dragged): Promise<void> {
  const client = await page.context().newCDPSession(page);
  const hold = (type: "dragEnter" | "dragOver" | "drop", x: number) =>
    client.send("Input.dispatchDragEvent", { type, x, y: 400, data: { items, files, dragOperationsMask: 1 } });
  await hold("dragEnter", 600);
  // Until the page has accepted it, a drop is ignored.
  let x = 600;
  if (files.length > 0)
    await expect(async () => {
      await hold("dragOver", x++);
      await expect(page.getByText("Drop to import")).toBeVisible({ timeout: 200 });
    }).toPass();
  await hold("dragOver", x);
  await hold("drop", x);
}

test("of a whole game's folder only what was drawn for it is imported", async ({ page }) => {
  const game = mkdtempSync(join(tmpdir(), "caravan-game-"));
  const write = (path: string, bytes: Uint8Array) => {
    mkdirSync(dirname(join(game, path)), { recursive: true });
    writeFileSync(join(game, path), bytes);
  };
  for (const path of ["art/hero.png", "art/goat.png", "node_modules/pack/logo.png", ".cache/thumb.png", "__MACOSX/art/._hero.png"])
    write(path, png.encode(figureSheet(3, 2)));
  write("src/main.js", utf8("start();"));
  await dropAsSystem(page, { items: [], files: [game] });
  await expect(page.getByText("Left out, being neither pictures nor metadata: main.js.")).toBeVisible();
  await goTo(page, "Sources");
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("listitem")).toHaveText([/^goat/, /^hero/]);
  rmSync(game, { recursive: true });
});

test("a hidden file that is given by itself is imported", async ({ page }) => {
  await dropFiles(page, [pngFile(".hero.png", figureSheet(4, 1))]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
});

test("what has no file in it is not passed over in silence: a link, an empty folder", async ({ page }) => {
  const empty = mkdtempSync(join(tmpdir(), "caravan-empty-"));
  await dropAsSystem(page, { items: [], files: [empty] });
  await expect(page.getByText("There is no file to import in what you dropped.")).toBeVisible();
  const link = { mimeType: "text/uri-list", data: `${new URL("/crossing", page.url())}` };
  await dropAsSystem(page, { items: [link], files: [] });
  await expect(page.getByText(/^Problem: What you dropped is a link/)).toBeVisible();
  await expect(page).toHaveTitle(/^New project/);
  rmSync(empty, { recursive: true });
});

test("a dropped folder is imported at once, with its subfolders", async ({ page }) => {
  await goTo(page, "Sources");
  await dropAsSystem(page, { items: [], files: [RAW_ART] });
  await expect(review(page)).toContainText("A series of 12 pictures, 1 to 12");
  await bringIn(page);
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("listitem")).toHaveCount(6);
});

test("JPEG and AVIF are imported as the browser decodes them", async ({ page }) => {
  const jpeg = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(32, 16);
    const context = canvas.getContext("2d") as OffscreenCanvasRenderingContext2D;
    context.fillStyle = "#205080";
    context.fillRect(0, 0, 32, 16);
    const blob = await canvas.convertToBlob({ type: "image/jpeg", quality: 0.95 });
    return [...new Uint8Array(await blob.arrayBuffer())];
  });
  // 16 × 8, lossless: red 16 x, green 30 y, blue 7 x y.
  const avif = Buffer.from(AVIF, "base64");
  await dropFiles(page, [{ name: "sky.jpg", bytes: Uint8Array.from(jpeg) }]);
  await page.getByRole("button", { name: "Use it whole" }).click();
  await expect(page.getByTestId("outcome")).toContainText("1 frame");
  await dropFiles(page, [{ name: "grid.avif", bytes: new Uint8Array(avif) }]);
  await expect(page.getByText("grid.avif").or(page.getByText("grid · 16 × 8")).first()).toBeVisible();
  await page.getByRole("button", { name: "Use it whole" }).click();
  const { frame } = await delivered(page);
  const [red, green, blue, alpha] = frame("sky/0").bytes.subarray(200, 204);
  for (const [value, wanted] of [
    [red, 0x20],
    [green, 0x50],
    [blue, 0x80],
  ] as const)
    expect(Math.abs((value as number) - wanted)).toBeLessThan(6);
  expect(alpha).toBe(255);
  const grid = frame("grid/0");
  for (let y = 0; y < 8; y++)
    for (let x = 0; x < 16; x++)
      expect([...grid.bytes.subarray((y * 16 + x) * 4, (y * 16 + x) * 4 + 4)]).toEqual([x * 16, y * 30, (x * y * 7) % 256, 255]);
});

test("an animated PNG brings its composed pictures and its own times", async ({ page }) => {
  const noisy = (width: number, height: number, seed: number): Pixels => {
    const pixels = clearPixels(width, height);
    for (let k = 0; k < width * height; k++)
      pixels.bytes.set([(k * 7 + seed) % 256, (k * 13 + seed * 3 + (k >> 8)) % 256, (k * 31) % 256, 255], k * 4);
    return pixels;
  };
  const [whole, part] = [noisy(40, 30, 1), noisy(20, 20, 9)];
  const bytes = apngOf(
    [
      { pixels: whole, x: 0, y: 0, num: 1, den: 8, dispose: 0, blend: 0 },
      { pixels: part, x: 5, y: 5, num: 50, den: 1000, dispose: 0, blend: 0 },
    ],
    { w: 40, h: 30 },
    png,
  );
  await dropFiles(page, [{ name: "torch.png", bytes }]);
  await expect(review(page)).toContainText("An animation of 2 pictures, 40 × 30 px, 175 ms a loop");
  await bringIn(page);
  const { atlas, frame } = await delivered(page);
  expect(atlas.clips.torch?.steps.map(({ ms }) => ms)).toEqual([125, 50]);
  expect(frame("torch/0").bytes).toEqual(whole.bytes);
  const composed = frame("torch/1").bytes;
  const at = (x: number, y: number) => [...composed.subarray((y * 40 + x) * 4, (y * 40 + x) * 4 + 4)];
  expect(at(4, 4)).toEqual([...whole.bytes.subarray((4 * 40 + 4) * 4, (4 * 40 + 4) * 4 + 4)]);
  expect(at(5, 5)).toEqual([...part.bytes.subarray(0, 4)]);
});

test("checkerboard and key-colour backgrounds with soft edges are detected and cleared", async ({ page }) => {
  const figures = figureSheet(4, 1);
  const onGround = (ground: (x: number, y: number) => readonly [number, number, number]): Pixels => {
    const out = clearPixels(figures.width, figures.height);
    for (let k = 0; k < figures.width * figures.height; k++) {
      const [x, y] = [k % figures.width, Math.floor(k / figures.width)];
      const share = (figures.bytes[k * 4 + 3] as number) / 255;
      const under = ground(x, y);
      for (let c = 0; c < 3; c++)
        out.bytes[k * 4 + c] = Math.round((figures.bytes[k * 4 + c] as number) * share + (under[c] as number) * (1 - share));
      out.bytes[k * 4 + 3] = 255;
    }
    return out;
  };
  const checker = onGround((x, y) => (((x >> 3) + (y >> 3)) % 2 === 0 ? [204, 204, 204] : [255, 255, 255]));
  await dropFiles(page, [pngFile("checked.png", checker)]);
  await expect(page.getByText(/a picture of a checkerboard as its background/)).toBeVisible();
  await page.keyboard.press("u");
  await expect(page.getByRole("button", { name: "Undo: clear the background of checked" })).toBeVisible();
  await typeNumber(page, "Columns", 4);
  await expect(page.getByTestId("outcome")).toContainText("4 frames");

  await dropFiles(page, [
    pngFile(
      "keyed.png",
      onGround(() => [255, 0, 255]),
    ),
  ]);
  await expect(page.getByText(/a key colour as its background, #ff00ff/)).toBeVisible();
  await goTo(page, "Sources");
  const detail = page.getByRole("region", { name: "What is done to the art" });
  await detail.getByRole("checkbox", { name: "Also clean soft edges" }).check();
  await detail.getByRole("button", { name: "Clear the background" }).click();
  await goTo(page, "Frames");
  await typeNumber(page, "Columns", 4);
  await expect(page.getByTestId("outcome")).toContainText("4 frames");

  const { frame } = await delivered(page);
  const cut = frame("checked/2");
  const meant = (x: number, y: number) => figures.bytes[(y * figures.width + 64 + x) * 4 + 3] as number;
  for (let y = 0; y < 40; y++)
    for (let x = 0; x < 32; x++) if (meant(x, y) === 255 || meant(x, y) === 0) expect(cut.bytes[(y * 32 + x) * 4 + 3]).toBe(meant(x, y));
  // The half-covered row at the top has lost the key colour's red and blue, and is half clear again.
  const keyed = frame("keyed/0");
  const top = [...keyed.bytes.subarray((4 * 32 + 14) * 4, (4 * 32 + 14) * 4 + 4)];
  expect(top[3]).toBeGreaterThan(60);
  expect(top[3]).toBeLessThan(200);
});

test("layers of a group can be imported separately", async ({ page }) => {
  await dropFiles(page, [rawArt("lamp-bearer.ora")]);
  await review(page).getByRole("radio", { name: "4 layers apart" }).click();
  await review(page).getByRole("radio", { name: "One source per layer" }).click();
  await bringIn(page);
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("listitem")).toHaveCount(4);
});

test("records that do not fit are listed with their reasons, and the reading can be corrected after a reload", async ({ page }) => {
  const described = {
    cells: [
      { id: "a", box: [0, 0, 32, 40] },
      { id: "b", box: [32, 0, 32, 40] },
      { id: "c", box: [64, 0, 32, 40] },
      { id: "far", box: [900, 0, 32, 40] },
    ],
  };
  await dropFiles(page, [
    pngFile("trio.png", figureSheet(3, 1)),
    { name: "trio.json", bytes: new TextEncoder().encode(JSON.stringify(described)) },
  ]);
  await expect(review(page)).toContainText("1 record does not fit and is left out.");
  await review(page).getByText("Which, and why").click();
  await expect(review(page).getByRole("listitem").filter({ hasText: "outside" }).last()).toBeVisible();
  await bringIn(page);
  await expect(page.getByTestId("outcome")).toContainText("3 frames");
  await page.waitForTimeout(600);
  await page.reload();
  await expect(page.getByLabel("Path of name")).toHaveText("id");
  await expect(page.getByText("1 of its records do not fit")).toBeVisible();
  await choose(page, page.getByLabel("Path of name"), "not given");
  await expect(page.getByRole("button", { name: "Undo: cut trio as trio.json says" })).toBeVisible();
});

test("hand-drawn rectangles are made equal: feet on feet, by padding only", async ({ page }) => {
  const sheet = clearPixels(80, 40);
  const paint = (x: number, y: number, w: number, h: number) => {
    for (let row = y; row < y + h; row++)
      for (let column = x; column < x + w; column++) sheet.bytes.set([90, 60, 30, 255], (row * 80 + column) * 4);
  };
  paint(6, 10, 12, 20);
  paint(40, 4, 20, 30);
  await dropFiles(page, [pngFile("pair.png", sheet)]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await page.keyboard.press("o");
  await expect(page.getByTestId("outcome")).toContainText("2 frames");
  await page.keyboard.press("h");
  await page.getByRole("textbox", { name: "Frame name" }).waitFor();
  await page.keyboard.press("a");
  await page.getByRole("button", { name: "Fit to pixels" }).click();
  await page.getByRole("button", { name: "Equal, feet on feet" }).click();
  const { atlas, frame } = await delivered(page);
  expect(Object.values(atlas.frames).map(({ size }) => size)).toEqual([
    { w: 20, h: 30 },
    { w: 20, h: 30 },
  ]);
  const small = frame("pair/0");
  const alpha = (x: number, y: number) => small.bytes[(y * 20 + x) * 4 + 3];
  expect([alpha(3, 10), alpha(4, 10), alpha(4, 29), alpha(15, 29), alpha(16, 29), alpha(4, 9)]).toEqual([0, 255, 255, 255, 0, 0]);
});

const AVIF =
  "AAAAIGZ0eXBhdmlmAAAAAGF2aWZtaWYxbWlhZk1BMUEAAADybWV0YQAAAAAAAAAoaGRscgAAAAAAAAAAcGljdAAAAAAAAAAAAAAAAGxpYmF2aWYAAAAADnBpdG0AAAAAAAEAAAAeaWxvYwAAAABEAAABAAEAAAABAAABGgAAAP0AAAAoaWluZgAAAAAAAQAAABppbmZlAgAAAAABAABhdjAxQ29sb3IAAAAAamlwcnAAAABLaXBjbwAAABRpc3BlAAAAAAAAABAAAAAIAAAAEHBpeGkAAAAAAwgICAAAAAxhdjFDgSAAAAAAABNjb2xybmNseAABAA0AAIAAAAAXaXBtYQAAAAAAAAABAAEEAQKDBAAAAQVtZGF0EgAKCDgMv7CAhoAQMu4BEAAA3uEz+PY37DcYIP3rhsB4hGknG2fsr5V89bJP7/fcms7Lo7gq6N8bNeqdb/FvCijIbSIi6DORKdiFOQ7IU1XSJs6PKrWGyXxEpob/71q44jYQf6Wh1SD5rJxIzekb7s/HiCzIjkiBy6E7HeZfPEGY4l9ey0akYCmEXT1kEN39kvJpKgANqxmP////ziP7Yzczl9PiYi8XZwhgF35L058L06TaI84P/AGXv8y70vkOMpqcQxITP6a3TvdHnkhAPA2DuY+wN/9NB8xbyhRcA5XhjyPCntv7yp/w/CO660M9cmTmOiDnm2NqeXV6iA==";
