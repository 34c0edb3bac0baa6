import { crop, looksSame } from "@caravan/core/raster";
import { type Download, expect, type Page, test } from "./fixtures";
import { atlasOf, dropFiles, figureSheet, filesOf, frameFrom, goTo, openStudio, pngFile, typeNumber } from "./studio";

test.use({ moving: true });

const CELL = { w: 32, h: 40 };
const sheet = figureSheet(4, 3, CELL);

/** Every frame of the sheet is in the ZIP with its very pixels, and the clip shows the middle row at 8 fps. */
async function expectDelivered(download: Download, clip: string): Promise<void> {
  const files = await filesOf(download);
  const { atlas, pages } = atlasOf(files);
  expect(Object.keys(atlas.frames)).toHaveLength(12);
  for (let number = 0; number < 12; number++) {
    const rect = { x: (number % 4) * CELL.w, y: Math.floor(number / 4) * CELL.h, ...CELL };
    expect(looksSame(frameFrom(atlas, pages, `hero/${number}`), crop(sheet, rect)), `hero/${number}`).toBe(true);
  }
  expect(atlas.clips[clip]).toMatchObject({
    playback: "loop",
    steps: [4, 5, 6, 7].map((number) => ({ frame: `hero/${number}`, ms: 125 })),
  });
}

test("by mouse: a sheet becomes a moving clip in 5 actions and a ZIP in 8", async ({ page }) => {
  await openStudio(page);
  await dropFiles(page, [pngFile("hero.png", sheet)]); // 1
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await typeNumber(page, "Columns", 4); // 2
  await typeNumber(page, "Rows", 3); // 3
  await expect(page.getByTestId("outcome")).toHaveText("12 frames, none empty, nothing left over");
  await page.getByRole("button", { name: "Pick row 1" }).click(); // 4
  await expect(page.getByTestId("picked")).toHaveText("4 picked, in picking order");
  await page.getByRole("button", { name: "Make clip" }).click(); // 5
  await expect(page.getByRole("heading", { name: /4 steps|hero/ }).first()).toBeVisible();
  await expectMotion(page);

  await typeNumber(page, "Frames per second", 8); // 6
  await expect(page.getByRole("textbox", { name: "Milliseconds a step" })).toHaveValue("125");
  await expect(page.getByRole("textbox", { name: "Seconds in all" })).toHaveValue("0.5");
  await goTo(page, "Ship"); // 7
  await expect(page.getByTestId("proof")).toContainText("12 frames in, 12 out");
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Deliver as ZIP" }).click()]); // 8
  await expectDelivered(download, "hero");

  // A double click delivers once more, not twice.
  let more = 0;
  page.on("download", () => more++);
  await page.getByRole("button", { name: "Deliver as ZIP" }).dblclick();
  await page.waitForTimeout(1500);
  expect(more).toBe(1);
});

test("by keys alone, the same", async ({ page }) => {
  await openStudio(page);
  await dropFiles(page, [pngFile("hero.png", sheet)]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  const { keyboard } = page;
  await keyboard.press("g");
  await keyboard.type("4");
  await keyboard.press("Tab");
  await keyboard.type("3");
  await keyboard.press("Enter");
  await expect(page.getByTestId("outcome")).toHaveText("12 frames, none empty, nothing left over");
  // To the first cell, one row down, and its whole row.
  await keyboard.press("ArrowRight");
  await keyboard.press("ArrowDown");
  await keyboard.press("r");
  await expect(page.getByTestId("picked")).toHaveText("4 picked, in picking order");
  await keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await keyboard.type("stroll");
  await keyboard.press("Enter");
  await expectMotion(page);
  await keyboard.press("f");
  await keyboard.type("8");
  await keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "Milliseconds a step" })).toHaveValue("125");
  await keyboard.press("6");
  await expect(page.getByTestId("proof")).toContainText("12 frames in, 12 out");
  const [download] = await Promise.all([page.waitForEvent("download"), keyboard.press("d")]);
  await expectDelivered(download, "stroll");
});

/** The player shows each of the four frames: its canvas is read at every refresh until all were seen. */
async function expectMotion(page: Page): Promise<void> {
  // The previous stop's stage may still show for a moment, with a hovered row.
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeVisible();
  await expect(page.getByTestId("stage")).toHaveAttribute("data-frame", /^hero\/[4-7]$/);
  const shown = await page.getByTestId("stage").evaluate(async (stage: HTMLCanvasElement) => {
    const seen = new Set<string>();
    const end = performance.now() + 8000;
    while (seen.size < 4 && performance.now() < end) {
      await new Promise((drawn) => requestAnimationFrame(drawn));
      if (stage.dataset.frame) seen.add(stage.dataset.frame);
    }
    return [...seen];
  });
  expect(shown.toSorted()).toEqual(["hero/4", "hero/5", "hero/6", "hero/7"]);
}
