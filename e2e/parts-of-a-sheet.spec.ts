import { clearPixels, crop, looksSame, mirrored, type Pixels, paste } from "@caravan/core/raster";
import { violationsOn } from "./axe";
import { expect, type Page, test } from "./fixtures";
import { slowJob } from "./slow-job";
import { delivered, dropAndCut, dropFiles, figureSheet, goTo, openEmpty, pngFile, problemOn, typeNumber } from "./studio";

/** Two kinds of figures on one sheet: 4 × 2 of 32×40 above, 3 × 1 of 48×56 below. */
function mixedSheet(): Pixels {
  const sheet = clearPixels(144, 136);
  const above = figureSheet(4, 2);
  const below = figureSheet(3, 1, { w: 48, h: 56 });
  paste(sheet, above, { x: 0, y: 0, w: above.width, h: above.height }, 0, 0);
  paste(sheet, below, { x: 0, y: 0, w: below.width, h: below.height }, 0, 80);
  return sheet;
}

/** Drags on the sheet between two of its pixels. */
async function dragOnSheet(page: Page, sheet: Pixels, from: readonly [number, number], to: readonly [number, number]): Promise<void> {
  const canvas = page.getByTestId("sheet");
  // Fitted, the sheet is centred in the space that the fields above it leave.
  for (let round = 0; round < 2; round++) {
    await page.waitForTimeout(400);
    await page.keyboard.press("0");
  }
  await page.waitForTimeout(300);
  const box = await canvas.boundingBox();
  const zoom = Number((await canvas.textContent())?.match(/· (\d+)×/)?.[1]);
  if (!box || !zoom) throw new Error("The sheet is not shown at a whole zoom.");
  const at = ([x, y]: readonly [number, number]) =>
    [box.x + box.width / 2 + (x - sheet.width / 2) * zoom, box.y + box.height / 2 + (y - sheet.height / 2) * zoom] as const;
  await page.mouse.move(...at(from));
  await page.mouse.down();
  await page.mouse.move(...at([(from[0] + to[0]) / 2, (from[1] + to[1]) / 2]), { steps: 3 });
  await page.mouse.move(...at(to), { steps: 3 });
  await page.mouse.up();
}

/** Types a grid without margins or gaps; a suggested one may have some. */
async function gridOf(page: Page, columns: number, rows: number): Promise<void> {
  for (const label of ["Margin left", "Margin top", "Spacing across", "Spacing down"]) await typeNumber(page, label, 0);
  await typeNumber(page, "Columns", columns);
  await typeNumber(page, "Rows", rows);
}

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

test("what counts leave over is spread between the cells, so that figures do not drift in them", async ({ page }) => {
  const figures = figureSheet(6, 1);
  const sheet = clearPixels(200, 40);
  const places = [0, 33, 67, 100, 133, 167];
  for (const [k, x] of places.entries()) paste(sheet, figures, { x: k * 32, y: 0, w: 32, h: 40 }, x, 0);
  await dropFiles(page, [pngFile("six.png", sheet)]);
  const outcome = page.getByTestId("outcome");
  await expect(outcome).toContainText("Not cut yet");
  await gridOf(page, 6, 1);
  await expect(outcome).toContainText("left over: 2 px at right");
  const spread = page.getByRole("checkbox", { name: "spread what is left over" });
  await spread.check();
  await expect(outcome).toContainText("6 frames, none empty, 2 px spread between columns, nothing left over");
  await spread.uncheck();
  await expect(outcome).toContainText("left over: 2 px at right");
  await spread.check();
  await expect(outcome).toContainText("spread between columns");
  expect(await violationsOn(page)).toEqual([]);
  const { frame, names } = await delivered(page);
  expect(names).toHaveLength(6);
  for (const [k, x] of places.entries()) expect(looksSame(frame(`six/${k}`), crop(sheet, { x, y: 0, w: 33, h: 40 })), `${k}`).toBe(true);
});

test("a sheet made to a round size suggests equal parts of it, and one key cuts them", async ({ page }) => {
  const [columns, rows] = [5, 3];
  const figures = figureSheet(columns, rows, { w: 200, h: 330 });
  const sheet = clearPixels(1024, 1024);
  const placeOf = (column: number, row: number) => ({ x: Math.round((column * 1024) / columns), y: Math.round((row * 1024) / rows) });
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const { x, y } = placeOf(column, row);
      paste(sheet, figures, { x: column * 200, y: row * 330, w: 200, h: 330 }, x + 2, y + 6);
    }
  await dropFiles(page, [pngFile("walker.png", sheet)]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  const best = page.getByRole("toolbar", { name: "Suggested cuts" }).getByRole("button").first();
  await expect(best).toHaveAccessibleName("5 × 3 cells of 204 × 341, what is left over spread between them");
  await page.keyboard.press("q");
  await expect(page.getByTestId("outcome")).toContainText(
    "15 frames, none empty, 4 px spread between columns, 1 px spread between rows, nothing left over",
  );
  await expect(best).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("checkbox", { name: "spread what is left over" })).toBeChecked();
  expect(await violationsOn(page)).toEqual([]);
  const { frame } = await delivered(page);
  const last = placeOf(4, 2);
  expect(looksSame(frame("walker/14"), crop(sheet, { ...last, w: 204, h: 341 }))).toBe(true);
});

test("a sheet of two grids is cut in regions drawn around them", async ({ page }) => {
  const sheet = mixedSheet();
  await dropFiles(page, [pngFile("mixed.png", sheet)]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await page.keyboard.press("l");
  await expect(page.getByText("Drag on the sheet around the frames that one grid fits.")).toBeVisible();
  await dragOnSheet(page, sheet, [0, 0], [128, 80]);
  await expect(page.getByRole("button", { name: "Region 1" })).toBeVisible();
  await typeNumber(page, "Region width", 128);
  await typeNumber(page, "Region height", 80);
  await gridOf(page, 4, 2);
  await expect(page.getByTestId("outcome")).toHaveText("8 frames in 2 rows");
  await dragOnSheet(page, sheet, [2, 84], [143, 135]);
  await expect(page.getByRole("button", { name: "Region 2" })).toHaveAttribute("aria-pressed", "true");
  await typeNumber(page, "Region left", 0);
  await typeNumber(page, "Region top", 80);
  await typeNumber(page, "Region width", 144);
  await typeNumber(page, "Region height", 56);
  await gridOf(page, 3, 1);
  await expect(page.getByTestId("outcome")).toHaveText("11 frames in 3 rows");
  const { names, frame } = await delivered(page);
  expect(names).toHaveLength(11);
  expect(frame("mixed/5").bytes).toEqual(crop(sheet, { x: 32, y: 40, w: 32, h: 40 }).bytes);
  expect(frame("mixed/9").bytes).toEqual(crop(sheet, { x: 48, y: 80, w: 48, h: 56 }).bytes);
});

test("two regions drawn one right after the other both stay, however long their grids take to be found", async ({ page }) => {
  await slowJob(page, "suggestGrids", 6000);
  const sheet = mixedSheet();
  await dropFiles(page, [pngFile("mixed.png", sheet)]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await page.keyboard.press("l");
  await dragOnSheet(page, sheet, [0, 0], [128, 80]);
  await dragOnSheet(page, sheet, [2, 84], [143, 135]);
  await expect(page.getByRole("button", { name: "Region 2" })).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("button", { name: "Region 1" })).toBeVisible();
});

test("only some columns and rows of a grid become frames, and the grid moves as a whole", async ({ page }) => {
  const figures = figureSheet(5, 4);
  const sheet = clearPixels(figures.width + 6, figures.height);
  paste(sheet, figures, { x: 0, y: 0, w: figures.width, h: figures.height }, 6, 0);
  await dropFiles(page, [pngFile("figures.png", sheet)]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await typeNumber(page, "Cell width", 32);
  await typeNumber(page, "Cell height", 40);
  await typeNumber(page, "Moved right by", -26);
  await expect(page.getByTestId("outcome")).toContainText("20 frames");
  await typeNumber(page, "First of the columns", 1);
  await typeNumber(page, "Last of the columns", 2);
  await typeNumber(page, "Last of the rows", 1);
  await expect(page.getByTestId("outcome")).toContainText("4 frames, none empty, 16 cells not taken");
  await typeNumber(page, "First of the rows", 3);
  await expect(problemOn(page)).toContainText("The first is after the last");
  await page.keyboard.press("Escape");
  const { names, frame } = await delivered(page);
  expect(names).toEqual(["figures/1", "figures/2", "figures/6", "figures/7"]);
  expect(frame("figures/7").bytes).toEqual(crop(figures, { x: 64, y: 40, w: 32, h: 40 }).bytes);
});

test("frames that are cut through, empty, specked or repeated are reported, and each is mended", async ({ page }) => {
  const sheet = figureSheet(4, 2, { w: 32, h: 40 }, [3, 6]);
  // The figure at 5 is that at 4; the empty cell at 6 holds one pixel of dirt.
  paste(sheet, crop(sheet, { x: 0, y: 40, w: 32, h: 40 }), { x: 0, y: 0, w: 32, h: 40 }, 32, 40);
  sheet.bytes.set([1, 2, 3, 40], (60 * sheet.width + 80) * 4);
  // The one at 7 is that at 0 in a mirror.
  paste(sheet, mirrored(crop(sheet, { x: 0, y: 0, w: 32, h: 40 })), { x: 0, y: 0, w: 32, h: 40 }, 96, 40);
  await dropAndCut(page, "figures.png", sheet, 4, 2);
  const findings = page.getByRole("list", { name: "Findings on these frames" });
  await expect(findings.getByRole("listitem")).toHaveCount(3);
  await expect(findings).toContainText("1 pixel stands alone in 1 frame");
  await findings.getByRole("button", { name: "Clear these pixels" }).click();
  await expect(page.getByTestId("outcome")).toContainText("6 frames, 2 empty left out");
  await expect(findings).toContainText("1 frame repeats another exactly.");
  await findings.getByRole("button", { name: "Use the first of each" }).click();
  await expect(page.getByTestId("outcome")).toContainText("5 frames");
  await expect(findings.getByRole("listitem")).toHaveCount(1);
  await expect(findings).toContainText("1 frame is the mirror image of another.");
  await findings.getByRole("button", { name: "Pick it" }).click();
  await expect(page.getByTestId("picked")).toContainText("1 picked");
  await page.keyboard.press("Escape");
  await typeNumber(page, "Columns", 5);
  await expect(findings).toContainText("cut through");
  await findings.getByRole("button", { name: "Cut along outlines" }).click();
  await expect(page.getByRole("textbox", { name: "Join distance" })).toBeVisible();
  await expect(findings.getByText("Cut through")).toHaveCount(0);
});

test("the tray is reordered by dragging, several picked frames at once, and counts from 0 or 1", async ({ page }) => {
  await dropAndCut(page, "figures.png", figureSheet(4, 1), 4, 1);
  const tray = page.getByRole("listbox", { name: "Frames of figures" });
  const names = () =>
    tray.getByRole("option").evaluateAll((all) => all.map((each) => (each.getAttribute("aria-label") ?? "").split(",")[0]));
  const drag = async (from: string, to: string) => {
    const [a, b] = [await tray.getByTitle(from).boundingBox(), await tray.getByTitle(to).boundingBox()];
    if (!a || !b) throw new Error("A frame is not in sight.");
    await page.mouse.move(a.x + 20, a.y + 20);
    await page.mouse.down();
    await page.mouse.move((a.x + b.x) / 2 + 20, a.y + 22, { steps: 4 });
    await page.mouse.move(b.x + 20, b.y + 20, { steps: 4 });
    await page.mouse.up();
    // For a moment after a drag a click belongs to it: quicker than a hand can be.
    await page.waitForTimeout(100);
  };
  await expect(tray.getByRole("option")).toHaveCount(4);
  await drag("figures/0", "figures/2");
  await expect.poll(names).toEqual(["figures/1", "figures/2", "figures/0", "figures/3"]);
  await tray.getByTitle("figures/0").click();
  await tray.getByTitle("figures/3").click();
  await drag("figures/3", "figures/1");
  await expect.poll(names).toEqual(["figures/0", "figures/3", "figures/1", "figures/2"]);
  await page.getByRole("button", { name: "counted from 0" }).click();
  await page.keyboard.press("Escape");
  await expect(tray).toHaveText("1423");
  await expect(page.getByRole("heading", { name: /^Frame \d/ })).toContainText("Frame 4");
});

test("the part of a grid is dragged on the sheet: its lower edge excludes rows, its upper one sets the start", async ({ page }) => {
  // Two rows of 40, below a band of 17 that belongs to no row.
  const figures = figureSheet(4, 2);
  const sheet = clearPixels(figures.width, figures.height + 17);
  paste(sheet, figures, { x: 0, y: 0, w: figures.width, h: figures.height }, 0, 17);
  await dropFiles(page, [pngFile("banded.png", sheet)]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await typeNumber(page, "Cell width", 32);
  await typeNumber(page, "Cell height", 40);
  await expect(page.getByTestId("outcome")).toContainText("8 frames");
  await dragOnSheet(page, sheet, [50, 0], [50, 17]);
  await expect(page.getByRole("button", { name: /^Undo: cut banded/ })).toBeVisible();
  await expect(page.getByTestId("outcome")).toHaveText("8 frames, none empty, nothing left over");
  const { frame } = await delivered(page);
  expect(frame("banded/5").bytes).toEqual(crop(figures, { x: 32, y: 40, w: 32, h: 40 }).bytes);
  await goTo(page, "Frames");
  await dragOnSheet(page, sheet, [50, 97], [50, 59]);
  await expect(page.getByTestId("outcome")).toContainText("4 frames");
  // A drag elsewhere moves the sheet and leaves the cut.
  await dragOnSheet(page, sheet, [50, 30], [60, 34]);
  await expect(page.getByTestId("outcome")).toContainText("4 frames");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("outcome")).toContainText("left over: 17 px at bottom");
});
