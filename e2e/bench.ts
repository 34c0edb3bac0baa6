/** Shared by the specs of the bench: a sheet of pieces, the canvas, and a figure of two assembled frames. */
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { expect, type Locator, type Page } from "./fixtures";
import { dropAndCut, goTo, openEmpty } from "./studio";

/** Four pieces of 8 × 8 px in a row, each of one colour with a dot in its upper left corner. */
export const COLOURS = [
  [200, 30, 40],
  [20, 130, 240],
  [60, 160, 60],
  [230, 200, 90],
] as const;
/** The sheet of them; those that have changed are grey. */
export function pieces(changed: readonly number[] = []): Pixels {
  const sheet = clearPixels(32, 8);
  for (const [k, colour] of COLOURS.entries())
    for (let y = 0; y < 8; y++)
      for (let x = 0; x < 8; x++) {
        const dot = x < 2 && y < 2;
        sheet.bytes.set([...(dot ? [0, 0, 0] : changed.includes(k) ? [90, 90, 90] : colour), 255], (y * 32 + k * 8 + x) * 4);
      }
  return sheet;
}

/** The canvas. */
export const bench = (page: Page): Locator => page.getByTestId("bench");
/** The pieces of the frame on it. */
export const stack = (page: Page) => page.getByRole("list", { name: "Stack" }).getByRole("listitem");

/** A point of the canvas on the screen. */
export async function at(page: Page, x: number, y: number): Promise<{ x: number; y: number }> {
  const box = (await bench(page).boundingBox()) as { x: number; y: number };
  const [zoom, left, top] = await Promise.all(["zoom", "left", "top"].map((name) => bench(page).getAttribute(`data-${name}`).then(Number)));
  return { x: box.x + (left as number) + x * (zoom as number), y: box.y + (top as number) + y * (zoom as number) };
}

/** A click on a point of the canvas. */
export async function clickAt(page: Page, x: number, y: number): Promise<void> {
  const point = await at(page, x, y);
  await page.mouse.move(point.x, point.y);
  await page.mouse.down();
  await page.mouse.up();
}

/** The painted colour at a point of the bench's canvas. */
export async function colourAt(page: Page, x: number, y: number): Promise<number[]> {
  const [zoom, left, top] = await Promise.all(["zoom", "left", "top"].map((name) => bench(page).getAttribute(`data-${name}`).then(Number)));
  return bench(page).evaluate(
    (canvas: HTMLCanvasElement, [px, py]) => [
      ...(canvas.getContext("2d") as CanvasRenderingContext2D).getImageData(px as number, py as number, 1, 1).data,
    ],
    [Math.round((left as number) + (x + 0.5) * (zoom as number)), Math.round((top as number) + (y + 0.5) * (zoom as number))],
  );
}

/** From an empty browser to the bench, with the sheet of pieces cut. */
export async function onTheBench(page: Page): Promise<void> {
  await openEmpty(page);
  await dropAndCut(page, "parts.png", pieces(), 4, 1);
  await goTo(page, "Frames");
  await page.getByRole("button", { name: "Put together from pieces" }).click();
  await expect(bench(page)).toBeVisible();
}

/** A piece of the sheet, offered beside the canvas. */
export const part = (page: Page, k: number) =>
  page.getByRole("list", { name: "Pieces" }).getByRole("button", { name: new RegExp(`^parts/${k},`) });

/** Two overlapping pieces, and a second frame on which the upper one is 8 px further. */
export async function twoSteps(page: Page): Promise<void> {
  await part(page, 0).click();
  await clickAt(page, 4, 12);
  await part(page, 1).click();
  await clickAt(page, 4, 4);
  await page.keyboard.press("Escape");
  await expect(stack(page)).toHaveCount(2);
  await clickAt(page, 4, 4);
  await page.keyboard.press("n");
  await expect(page.getByText("parts figure/1 ·")).toBeVisible();
  await page.keyboard.press("Shift+ArrowRight");
}
