import { clearPixels, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { atlasOf, dropAndCut, figureSheet, filesOf, goTo, openEmpty, typeNumber } from "./studio";

const CELL = { w: 32, h: 40 };
const frame = (page: Page, name: string) => page.getByRole("option", { name: new RegExp(`^${name}(,|$)`) });

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 3, CELL), 4, 3);
  await expect(page.getByTestId("outcome")).toContainText("12 frames");
});

/** Where a cell of the sheet is on the screen; the sheet of 128 × 120 px is shown whole, at 3×, in the middle. */
async function cellOnScreen(page: Page, column: number, row: number): Promise<{ x: number; y: number }> {
  const box = (await page.getByTestId("sheet").boundingBox()) as { x: number; y: number; width: number; height: number };
  await expect(page.getByTestId("sheet")).toContainText("3×");
  const left = box.x + (box.width - 128 * 3) / 2;
  const top = box.y + (box.height - 120 * 3) / 2;
  return { x: left + (column + 0.5) * CELL.w * 3, y: top + (row + 0.5) * CELL.h * 3 };
}

test("by click on the sheet and in the tray, in picking order, with Shift a run", async ({ page }) => {
  for (const [column, row] of [
    [2, 0],
    [0, 1],
  ] as const) {
    const { x, y } = await cellOnScreen(page, column, row);
    await page.mouse.click(x, y);
  }
  await expect(frame(page, "hero/2")).toHaveAccessibleName("hero/2, picked 1");
  await expect(frame(page, "hero/4")).toHaveAccessibleName("hero/4, picked 2");
  await frame(page, "hero/7").click({ modifiers: ["Shift"] });
  await expect(frame(page, "hero/7")).toHaveAccessibleName("hero/7, picked 5");
  await frame(page, "hero/2").click();
  await expect(frame(page, "hero/4")).toHaveAccessibleName("hero/4, picked 1");
  // A screen reader announces the frame that keys act on, and the number of frames.
  const strip = page.getByRole("listbox", { name: "Frames of hero" });
  await page.keyboard.press("ArrowRight");
  const active = page.locator(`[id="${await strip.getAttribute("aria-activedescendant")}"]`);
  await expect(active).toHaveAttribute("data-frame", "s1/c3r0");
  await expect(active).toHaveAttribute("aria-posinset", "4");
  await expect(active).toHaveAttribute("aria-setsize", "12");
  await page.keyboard.press("c");
  await expect(page.getByRole("button", { name: /^Step \d: hero/ })).toHaveCount(4);
  await expect(page.getByRole("button", { name: /^Step 0: hero\/4/ })).toBeVisible();
});

test("the wheel zooms to the pointer, a drag moves the sheet and picks nothing", { tag: "@moving" }, async ({ page }) => {
  const { x, y } = await cellOnScreen(page, 3, 2);
  await page.mouse.move(x, y);
  await page.mouse.wheel(0, -120);
  await expect(page.getByTestId("sheet")).toContainText("4×");
  // The cell under the pointer is still the same one.
  await page.mouse.click(x, y);
  await expect(frame(page, "hero/11")).toHaveAccessibleName("hero/11, picked 1");
  await page.mouse.down();
  await page.mouse.move(x - 90, y - 80, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByTestId("picked")).toHaveText("1 picked, in picking order");
  await page.mouse.click(x - 90, y - 80);
  await expect(page.getByTestId("picked")).toHaveText("click picks");
  // Space does both: held it moves the sheet, tapped it pauses.
  await page.keyboard.down(" ");
  await page.mouse.move(x - 60, y - 40, { steps: 4 });
  await page.keyboard.up(" ");
  await expect(page.getByRole("button", { name: "Pause" })).toBeVisible();
  await page.mouse.click(x - 60, y - 40);
  await expect(frame(page, "hero/11")).toHaveAccessibleName("hero/11, picked 1");
  await page.keyboard.press(" ");
  await expect(page.getByRole("button", { name: "Play", exact: true })).toBeVisible();
  await page.keyboard.press("-");
  await page.keyboard.press("-");
  await expect(page.getByTestId("sheet")).toContainText("2×");
  await page.keyboard.press("0");
  await expect(page.getByTestId("sheet")).toContainText("3×");
});

test("frames are dropped, restored and named; clips that show a dropped one say so", async ({ page }) => {
  await page.getByRole("button", { name: "Pick row 0" }).click();
  await page.keyboard.press("Shift+c");
  await expect(page.getByText("Made the clip hero of 4 frames.")).toBeVisible();
  await frame(page, "hero/1").click();
  await page.keyboard.press("Delete");
  await expect(page.getByTestId("outcome")).toHaveText("11 frames, none empty, 1 dropped, nothing left over");
  await expect(page.getByRole("button", { name: "Undo: drop 1 frame" })).toBeVisible();
  await goTo(page, "Clips");
  await expect(page.getByRole("button", { name: "Step 1: missing frame, 100 ms" })).toBeVisible();
  await goTo(page, "Frames");
  await frame(page, "hero/1").click();
  await page.getByRole("button", { name: "Restore" }).click();
  await expect(page.getByTestId("outcome")).toContainText("12 frames");
  await page.getByRole("textbox", { name: "Frame name" }).fill("lift");
  await page.keyboard.press("Enter");
  await expect(frame(page, "lift")).toBeVisible();
  await frame(page, "hero/2").click();
  await page.getByRole("textbox", { name: "Frame name" }).fill("lift");
  await page.keyboard.press("Enter");
  await expect(page.getByText('frame "lift": There is already a frame of this name.')).toBeVisible();
});

test("origins are delivered, and the grid is nudged by keys", async ({ page }) => {
  await page.keyboard.press("Alt+ArrowRight");
  await expect(page.getByRole("textbox", { name: "Margin left" })).toHaveValue("1");
  await page.keyboard.press("Alt+ArrowLeft");
  await expect(page.getByTestId("outcome")).toHaveText("12 frames, none empty, nothing left over");
  await typeNumber(page, "Origin x", 15.5);
  await typeNumber(page, "Origin y", 38);
  await goTo(page, "Ship");
  await expect(page.getByTestId("proof")).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("d")]);
  const { atlas } = atlasOf(await filesOf(download));
  for (const { origin, size } of Object.values(atlas.frames)) expect([origin, size]).toEqual([{ x: 15.5, y: 38 }, CELL]);
});

test("small pictures of two sheets with equal cells show each sheet's own art", async ({ page }) => {
  const plain = (red: number, green: number): Pixels => {
    const pixels = clearPixels(64, 32);
    for (let k = 0; k < 64 * 32; k++) pixels.bytes.set([red, green, 0, 255], k * 4);
    return pixels;
  };
  await dropAndCut(page, "red.png", plain(255, 0), 2, 1);
  await dropAndCut(page, "green.png", plain(0, 255), 2, 1);
  const isShown = async (sheet: string, colour: readonly number[]) => {
    await page
      .getByRole("list", { name: "Sheets" })
      .getByRole("button", { name: new RegExp(`^${sheet}`) })
      .click();
    const still = page
      .getByRole("listbox", { name: `Frames of ${sheet}` })
      .getByRole("option")
      .first()
      .locator("img");
    const middle = (image: HTMLImageElement) => {
      // Not loaded yet.
      if (image.naturalWidth === 0) return null;
      const context = new OffscreenCanvas(image.naturalWidth, image.naturalHeight).getContext("2d") as OffscreenCanvasRenderingContext2D;
      context.drawImage(image, 0, 0);
      return [...context.getImageData(image.naturalWidth / 2, image.naturalHeight / 2, 1, 1).data];
    };
    await expect.poll(() => still.evaluate(middle)).not.toBeNull();
    expect(await still.evaluate(middle)).toEqual(colour);
  };
  await isShown("red", [255, 0, 0, 255]);
  await isShown("green", [0, 255, 0, 255]);
});
