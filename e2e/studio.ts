/** What the specs share: opening the studio as a person would, sheets to work on, and looking into what was delivered. */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { readZip, utf8, writeZip } from "@caravan/core/codec";
import { clearPixels, type Pixels } from "@caravan/core/raster";

import { pngCodec } from "../packages/cli/src/png";
import { type Download, expect, type Locator, type Page } from "./fixtures";

export const png = pngCodec();

export interface UploadedFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** A sheet of little figures, each in its own colours and leaning its own way; those in `empty` are left out. */
export function figureSheet(columns: number, rows: number, cell = { w: 32, h: 40 }, empty: readonly number[] = []): Pixels {
  const sheet = clearPixels(columns * cell.w, rows * cell.h);
  for (let number = 0; number < columns * rows; number++) {
    if (empty.includes(number)) continue;
    const left = (number % columns) * cell.w;
    const top = Math.floor(number / columns) * cell.h;
    for (let y = 4; y < cell.h - 1; y++)
      for (let x = 6; x < cell.w - 6; x++) {
        const lean = Math.round(Math.sin(number + y / 9) * 2);
        if (x < 9 + lean || x > cell.w - 10 + lean) continue;
        sheet.bytes.set([40 + number * 13, (y * 6) % 256, (x * 8) % 256, y === 4 ? 120 : 255], ((top + y) * sheet.width + left + x) * 4);
      }
  }
  return sheet;
}

export function pngFile(name: string, pixels: Pixels): UploadedFile {
  return { name, bytes: png.encode(pixels) };
}

/** An OpenRaster file of `stack`, which is what its stack.xml has within the picture, with its pictures by path. */
export function layeredFile(
  name: string,
  { width, height }: Pixels,
  stack: string,
  pictures: Readonly<Record<string, Pixels>>,
): UploadedFile {
  const files = [
    { path: "mimetype", bytes: utf8("image/openraster") },
    { path: "stack.xml", bytes: utf8(`<image w="${width}" h="${height}"><stack>${stack}</stack></image>`) },
    ...Object.entries(pictures).map(([path, pixels]) => ({ path, bytes: png.encode(pixels) })),
  ];
  return { name, bytes: writeZip(files) };
}

/** Opens the studio in an empty browser; the demo is there when this returns. */
export async function openStudio(page: Page): Promise<void> {
  await page.goto("/");
  await expect(page).toHaveTitle(/The Tamarisk Road/);
  await expect(page.getByTestId("sheet")).toBeVisible();
}

/** Opens the studio with an empty project, as its address can ask for. */
export async function openEmpty(page: Page): Promise<void> {
  await page.goto("/?new");
  await expect(page).toHaveTitle(/^New project/);
}

/** Starts an empty project. */
export async function startProject(page: Page): Promise<void> {
  await page.getByRole("button", { name: "All projects" }).click();
  await page.getByRole("button", { name: "New project" }).click();
  await expect(page).toHaveTitle(/^New project/);
}

/** Drops files onto the page, as from a file window. */
export async function dropFiles(page: Page, files: readonly UploadedFile[]): Promise<void> {
  const contents = files.map(({ name, bytes }) => ({ name, base64: Buffer.from(bytes).toString("base64") }));
  const transfer = await page.evaluateHandle((list) => {
    const data = new DataTransfer();
    for (const { name, base64 } of list) {
      const bytes = Uint8Array.from(atob(base64), (each) => each.charCodeAt(0));
      data.items.add(new File([bytes], name, { type: name.endsWith(".png") ? "image/png" : "" }));
    }
    return data;
  }, contents);
  await page.dispatchEvent("body", "dragover", { dataTransfer: transfer });
  await page.dispatchEvent("body", "drop", { dataTransfer: transfer });
}

/** Opens a stop by its place on the road, and waits until it is shown: lists of two stops have the same name. */
export async function goTo(page: Page, stop: "Sources" | "Frames" | "Clips" | "Marks" | "Rehearse" | "Ship"): Promise<void> {
  await page.getByRole("navigation", { name: "Stops" }).getByRole("button", { name: stop }).click();
  await expect(page.locator('[data-region="surface"]')).toHaveAttribute("aria-label", stop, { timeout: 30_000 });
}

/** Drops a sheet, waits until it is shown, and cuts it by counts. */
export async function dropAndCut(page: Page, name: string, sheet: Pixels, columns: number, rows: number): Promise<void> {
  await dropFiles(page, [pngFile(name, sheet)]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await typeNumber(page, "Columns", columns);
  await typeNumber(page, "Rows", rows);
}

/** Errors shown in place; the framework's own silent announcer is excluded. */
export function problemOn(page: Page): Locator {
  return page.getByRole("alert").filter({ hasText: /./ });
}

/** Picks all rows of a sheet and makes a clip of them. */
export async function clipOfRows(page: Page, rows: number, name: string): Promise<void> {
  for (let row = 0; row < rows; row++) await page.getByRole("button", { name: `Pick row ${row}`, exact: true }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
}

export const fps = (page: Page): Locator => page.getByRole("textbox", { name: "Frames per second" });

/** A project with a clip "walk", open at Clips. */
export async function makeWalk(page: Page): Promise<void> {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 2), 4, 2);
  await clipOfRows(page, 1, "walk");
  await expect(page.getByRole("heading", { name: "walk" })).toBeVisible();
}

export async function typeNumber(page: Page, label: string, value: number | string): Promise<void> {
  const field = page.getByRole("textbox", { name: label, exact: true });
  await field.fill(String(value));
  await field.press("Enter");
}

/** The files of a ZIP that the page gave for download, by path. */
export async function filesOf(download: Download): Promise<Map<string, Uint8Array>> {
  const bytes = new Uint8Array(readFileSync(await download.path()));
  return new Map(readZip(bytes, download.suggestedFilename()).map((file) => [file.path, file.bytes]));
}

interface DeliveredClip {
  steps: { frame: string; ms: number; ticks?: number; eventValues?: Record<string, unknown> }[];
  playback: string;
  data?: Record<string, unknown>;
}

export interface DeliveredAtlas {
  ticksPerSecond?: number;
  layers?: { name: string; blend: string }[];
  pages: { image: string; width: number; height: number; layers?: Record<string, string> }[];
  frames: Record<
    string,
    {
      page: number;
      rect: { x: number; y: number; w: number; h: number };
      turned: boolean;
      inset: { x: number; y: number };
      size: { w: number; h: number };
      origin: { x: number; y: number };
      boxes?: Record<string, { x: number; y: number; w: number; h: number }[]>;
      outlines?: Record<string, { x: number; y: number }[][]>;
      points?: Record<string, { x: number; y: number }>;
      data?: Record<string, unknown>;
    }
  >;
  clips: Record<string, DeliveredClip>;
  actions: Record<string, { facings: Record<string, { clip: string; mirror?: boolean }> }>;
}

/** The atlas file and the pages of a delivery, decoded. */
export function atlasOf(files: ReadonlyMap<string, Uint8Array>): { atlas: DeliveredAtlas; pages: Pixels[] } {
  const [, bytes] = [...files].find(([path]) => path.endsWith(".atlas.json")) as [string, Uint8Array];
  const atlas: DeliveredAtlas = JSON.parse(new TextDecoder().decode(bytes));
  return { atlas, pages: atlas.pages.map(({ image }) => png.decode(files.get(image) as Uint8Array, image)) };
}

/** A frame as a reader rebuilds it: a small one of the tests' own, for upright frames. */
export function frameFrom(atlas: DeliveredAtlas, pages: readonly Pixels[], name: string): Pixels {
  const { page, rect, turned, inset, size } = atlas.frames[name] as DeliveredAtlas["frames"][string];
  if (turned) throw new Error("Nothing is turned here.");
  const from = pages[page] as Pixels;
  const frame = clearPixels(size.w, size.h);
  for (let y = 0; y < rect.h; y++) {
    const start = ((rect.y + y) * from.width + rect.x) * 4;
    frame.bytes.set(from.bytes.subarray(start, start + rect.w * 4), ((inset.y + y) * size.w + inset.x) * 4);
  }
  return frame;
}

/** Waits until the last change is in storage. */
export async function saved(page: Page): Promise<void> {
  await expect(page.getByTestId("saved")).toHaveText(/saved in this browser/);
}

/** Delivers at Ship, and gives every frame as a game would get it. */
export async function delivered(page: Page) {
  await goTo(page, "Ship");
  await expect(page.getByTestId("proof")).toContainText("every pixel the same", { timeout: 40_000 });
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("d")]);
  const files = await filesOf(download);
  const { atlas, pages } = atlasOf(files);
  return { files, atlas, names: Object.keys(atlas.frames), frame: (name: string) => frameFrom(atlas, pages, name) };
}

/** A file of the demo's raw art, before any processing. */
export function rawArt(name: string): UploadedFile {
  return { name, bytes: new Uint8Array(readFileSync(join(RAW_ART, name))) };
}

export const RAW_ART = join(import.meta.dirname, "../examples/raw");

/** Chooses from a list: an option by its words, or by its place. */
export async function choose(page: Page, list: Locator, option: string | number): Promise<void> {
  await list.click();
  await (typeof option === "number"
    ? page.getByRole("option").nth(option)
    : page.getByRole("option", { name: option, exact: true })
  ).click();
  await expect(page.locator("[data-overlay]")).toHaveCount(0);
}
