import type { Rect } from "@caravan/core/model";
import { clearPixels, coverageOf, crop, drawnPart, looksSame, type Pixels, paste } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { clipOfRows, delivered, dropAndCut, figureSheet, goTo, makeWalk, openEmpty, png, saved, typeNumber } from "./studio";

const fps = (page: Page) => page.getByRole("textbox", { name: "Frames per second" });
const CELL = { w: 32, h: 40 };

/** The sheet with a row of other figures put in at the top. */
function withRowOnTop(sheet: Pixels): Pixels {
  const taller = clearPixels(sheet.width, sheet.height + CELL.h);
  taller.bytes.set(sheet.bytes, CELL.h * sheet.width * 4);
  const fresh = figureSheet(4, 4, CELL);
  taller.bytes.set(fresh.bytes.subarray(3 * CELL.h * sheet.width * 4, 4 * CELL.h * sheet.width * 4), 0);
  return taller;
}

async function replaceArt(page: Page, name: string, pixels: Pixels): Promise<void> {
  await goTo(page, "Sources");
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: "Replace its art …" }).click()]);
  await chooser.setFiles([{ name, mimeType: "image/png", buffer: Buffer.from(png.encode(pixels)) }]);
}

test("a row inserted at the top of a sheet is recognised, and clips follow their drawings", async ({ page }) => {
  const sheet = figureSheet(4, 3, CELL);
  await openEmpty(page);
  await dropAndCut(page, "hero.png", sheet, 4, 3);
  await clipOfRows(page, 1, "walk");
  await replaceArt(page, "hero.png", withRowOnTop(sheet));
  const review = page.getByRole("dialog", { name: "Changed art of hero" });
  await expect(review).toContainText("0 frames the same, 12 moved, 0 changed, 4 new, 0 gone.");
  await expect(review).toContainText("12 frames moved down a row: follow them");
  await review.getByRole("button", { name: "Use new art" }).click();
  // The clip still shows the figures of its first step: the green of frame 0 is 40, 40 × 6 and so on, a row further down.
  await goTo(page, "Clips");
  await expect(page.getByRole("button", { name: /^Step \d: hero\/[4-7],/ })).toHaveCount(4);
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: /^Step \d: hero\/[0-3],/ })).toHaveCount(4);
});

test("hand-drawn frames follow their drawings when the art is rearranged", async ({ page }) => {
  const sheet = figureSheet(3, 1, CELL);
  await openEmpty(page);
  await dropAndCut(page, "hero.png", sheet, 3, 1);
  await clipOfRows(page, 1, "walk");
  await goTo(page, "Frames");
  await page.keyboard.press("h");
  await page.getByRole("textbox", { name: "Frame name" }).waitFor();
  await page.keyboard.press("a");
  await page.getByRole("button", { name: "Fit to pixels" }).click();
  // Each figure moves in a different direction.
  const after = clearPixels(CELL.w * 5, CELL.h * 2);
  for (const [k, [x, y]] of [
    [40, 9],
    [3, 30],
    [110, 2],
  ].entries())
    paste(after, sheet, { x: k * CELL.w, y: 0, ...CELL }, x as number, y as number);
  await replaceArt(page, "hero.png", after);
  const review = page.getByRole("dialog", { name: "Changed art of hero" });
  await expect(review).toContainText("0 frames the same, 3 moved, 0 changed, 0 new, 0 gone.");
  await review.getByRole("button", { name: "Use new art" }).click();
  const { frame } = await delivered(page);
  const coverage = coverageOf(sheet);
  for (const k of [0, 1, 2]) {
    const fitted = drawnPart(coverage, { x: k * CELL.w, y: 0, ...CELL }) as Rect;
    expect(looksSame(frame(`hero/${k}`), crop(sheet, fitted))).toBe(true);
  }
});

test("speeds do not drift: 10, 9, 8 fps are even steps and shown as even, and retyping changes nothing", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 1, CELL), 4, 1);
  await clipOfRows(page, 1, "walk");
  for (const speed of [10, 9, 8]) await typeNumber(page, "Frames per second", speed);
  const each = page.getByRole("button", { name: /^Step \d:.*125 ms/ });
  await expect(each).toHaveCount(4);
  await typeNumber(page, "Frames per second", 9);
  const undo = page.getByRole("button", { name: /^Undo/ });
  const before = await undo.getAttribute("aria-label");
  await fps(page).fill("9.0");
  await fps(page).press("Enter");
  await page.getByRole("textbox", { name: "Milliseconds a step" }).fill("111.111");
  await page.keyboard.press("Enter");
  await expect(undo).toHaveAttribute("aria-label", before as string);
  await page.getByRole("region", { name: "Ribbons" }).focus();
  await page.keyboard.press("Control+a");
  await expect(page.getByText("mixed, first")).toHaveCount(0);
});

test("with nothing picked C uses the row that plays, and cells are restored after trying another way", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 2, CELL), 4, 2);
  await page.getByTestId("sheet").focus();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("first");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: /^Step \d:/ })).toHaveCount(4);
  await goTo(page, "Frames");
  await expect(page.getByTestId("outcome")).toContainText("8 frames");
  const way = page.getByRole("radiogroup", { name: "Way of cutting" });
  await way.getByRole("radio", { name: "Outlines" }).click();
  await expect(page.getByRole("button", { name: /^Undo: cut hero along outlines/ })).toBeVisible();
  await way.getByRole("radio", { name: "Cells" }).click();
  await expect(page.getByTestId("outcome")).toContainText("8 frames");
  await goTo(page, "Clips");
  await expect(page.getByRole("button", { name: /^Step \d: hero\/[0-3],/ })).toHaveCount(4);
});

test("Shift+D means the same at Clips as everywhere, and a click on the time bar leaves the keys to the screen", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 1, CELL), 4, 1);
  await clipOfRows(page, 1, "walk");
  await page.getByRole("button", { name: /^Step 1:/ }).click();
  await page.getByRole("region", { name: "Ribbons" }).focus();
  await page.keyboard.press("Control+d");
  await expect(page.getByRole("button", { name: /^Step \d:/ })).toHaveCount(5);
  await page.getByRole("slider", { name: "Position in the loop" }).click();
  await page.keyboard.press("o");
  await expect(page.getByRole("radio", { name: "Once" })).toBeChecked();
  await page.keyboard.press("Shift+D");
  await expect(page.getByText("No delivery has a game folder yet")).toBeVisible();
  await expect(page.getByRole("heading", { name: "Sizes" })).toBeVisible();
});

test("pausing in the middle of a drag is still one undo step", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 1, CELL), 4, 1);
  await clipOfRows(page, 1, "walk");
  const edge = page.getByTestId("edge 1");
  const at = (await edge.boundingBox()) as { x: number; y: number; width: number; height: number };
  const [x, y] = [at.x + at.width / 2, at.y + at.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 30, y, { steps: 3 });
  await page.waitForTimeout(1500);
  await page.mouse.move(x + 60, y, { steps: 3 });
  await page.mouse.up();
  await expect(page.getByRole("button", { name: /^Step 1:.*, 100 ms/ })).toHaveCount(0);
  await page.getByRole("region", { name: "Ribbons" }).focus();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: /^Step 1:.*100 ms/ })).toHaveCount(1);
  await saved(page);
});

test("Escape restores a field's value, however much was typed", async ({ page }) => {
  await makeWalk(page);
  const undo = await page.getByRole("button", { name: /^Undo/ }).getAttribute("aria-label");
  for (const [label, typed, old] of [
    ["Clip name", "stroll", "walk"],
    ["Project name", "another", "New project"],
    ["Frames per second", "5", "10"],
    ["Frames per second", "never", "10"],
  ] as const) {
    const field = page.getByRole("textbox", { name: label, exact: true });
    await field.fill(typed);
    await field.press("Escape");
    await expect(field).toHaveValue(old);
    await expect(field).not.toBeFocused();
  }
  await expect(page.getByRole("button", { name: /^Undo/ })).toHaveAttribute("aria-label", undo ?? "");
});

test("a grid that is tried out and put back has its frames as they were, and nothing that was undone", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 2, CELL), 4, 2);
  const options = page.getByRole("listbox", { name: "Frames" }).getByRole("option");
  const name = page.getByRole("textbox", { name: "Frame name" });
  const nameLast = async (text: string) => {
    await options.nth(3).click();
    await name.fill(text);
    await name.press("Enter");
    await expect(page.getByRole("button", { name: `Undo: name a frame ${text}` })).toBeVisible();
    await page.keyboard.press("Escape");
  };
  const isBack = async () => {
    await expect(page.getByTestId("outcome")).toContainText("8 frames");
    await options.nth(3).click();
    await expect(name).toHaveValue("hero/salute");
    await page.keyboard.press("Escape");
  };
  // Named while it was still one row, a frame would be another one.
  await expect(page.getByTestId("outcome")).toContainText("8 frames");
  await nameLast("hero/salute");
  // Nudged by a pixel, it has no room for the last column.
  await page.getByTestId("sheet").focus();
  await page.keyboard.press("Alt+ArrowRight");
  await expect(page.getByTestId("outcome")).toContainText("6 frames");
  await page.keyboard.press("Alt+ArrowLeft");
  await isBack();
  // Other counts, as one tries until it fits.
  await typeNumber(page, "Columns", 3);
  await typeNumber(page, "Columns", 5);
  await expect(page.getByTestId("outcome")).toContainText("10 frames");
  await typeNumber(page, "Columns", 4);
  await isBack();
  // Outlines around two figures each, and back.
  const way = page.getByRole("radiogroup", { name: "Way of cutting" });
  await way.getByRole("radio", { name: "Outlines" }).click();
  // The usual distance is shown until the sheet's own is found; typing the same into the field would be no typing.
  await expect(page.getByTestId("outcome")).toContainText("8 frames in 2 rows");
  await typeNumber(page, "Join distance", 12);
  await expect(page.getByTestId("outcome")).toContainText("4 frames");
  await way.getByRole("radio", { name: "Cells" }).click();
  await isBack();
  // A name that was undone does not come back by the grid.
  await nameLast("hero/bow");
  await typeNumber(page, "Columns", 2);
  await expect(page.getByTestId("outcome")).toContainText("4 frames");
  await page.getByTestId("sheet").focus();
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await isBack();
  await typeNumber(page, "Columns", 2);
  await expect(page.getByTestId("outcome")).toContainText("4 frames");
  await typeNumber(page, "Columns", 4);
  await isBack();
});

test("of two cuts along outlines the later one stays, whichever is found first, and none comes after cells were chosen again", async ({
  page,
}) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 2, CELL), 4, 2);
  const way = page.getByRole("radiogroup", { name: "Way of cutting" });
  const outcome = page.getByTestId("outcome");
  for (let round = 0; round < 3; round++) {
    await way.getByRole("radio", { name: "Outlines" }).click();
    await typeNumber(page, "Join distance", 9 + round);
    await expect(outcome).toContainText("4 frames");
    // The distance that the sheet suggests keeps the rows apart.
    await page.waitForTimeout(300);
    await expect(outcome).toContainText("4 frames");
    await way.getByRole("radio", { name: "Cells" }).click();
    await expect(outcome).toContainText("8 frames, none empty");
  }
  await way.getByRole("radio", { name: "Outlines" }).click();
  await way.getByRole("radio", { name: "Cells" }).click();
  await page.waitForTimeout(1000);
  await expect(outcome).toContainText("8 frames, none empty");
});
