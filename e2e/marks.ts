/** Shared by the specs of marks: kinds made as a person makes them, and places of the frame on the screen. */
import type { Pixels } from "@caravan/core/raster";
import { expect, type Page } from "./fixtures";
import { dropAndCut, openEmpty } from "./studio";

/** A clip of the four frames of a sheet, shown at Marks. */
export async function strollAtMarks(page: Page, sheet: Pixels): Promise<void> {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", sheet, 4, 1);
  await page.getByRole("button", { name: "Pick row 0" }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("stroll");
  await page.keyboard.press("Enter");
  await page.keyboard.press("4");
  await expect(page.getByTestId("marks-canvas")).toBeVisible();
}

/** New marks of a kind, named as a person would: the name waits to be typed. */
export async function newKind(page: Page, button: string, name: string): Promise<void> {
  await page.getByRole("button", { name: button }).click();
  await expect(page.getByRole("textbox", { name: "Name of the marks" })).toBeFocused();
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
}

/** The position of a frame's place on the screen, derived from the origin: the middle of its bottom edge is drawn in the centre. */
export async function frameToScreen(
  page: Page,
  { w, h }: { w: number; h: number },
): Promise<(x: number, y: number) => { x: number; y: number }> {
  const canvas = page.getByTestId("marks-canvas");
  const bounds = await canvas.boundingBox();
  if (!bounds) throw new Error("No canvas.");
  // The frame is as large as whole zooms allow, in the middle, with room around it.
  const fits = [16, 12, 10, 8, 6, 5, 4, 3, 2, 1].find((zoom) => w * zoom <= bounds.width - 60 && h * zoom <= bounds.height - 48) ?? 1;
  const left = bounds.x + Math.round(bounds.width / 2) - Math.round((w / 2) * fits);
  const top = bounds.y + Math.round((bounds.height + h * fits) / 2) - h * fits;
  return (x, y) => ({ x: left + x * fits, y: top + y * fits });
}

export async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 3 });
  await page.mouse.move(to.x, to.y, { steps: 3 });
  await page.mouse.up();
}
