/** Sheets with lines between their cells, boxes around them or colours behind them: no frame shows any of them. */
import { clearPixels, crop, lay, looksSame, type Pixels, paste } from "@caravan/core/raster";
import { expect, test } from "./fixtures";
import { delivered, dropFiles, figureSheet, openEmpty, pngFile, saved } from "./studio";

const CELL = { w: 32, h: 40 };
const [COLUMNS, ROWS] = [4, 3];
const figures = figureSheet(COLUMNS, ROWS, CELL);

type Colour = readonly [number, number, number, number];
const WHITE: Colour = [250, 250, 250, 255];
const RED: Colour = [220, 20, 40, 255];

function fill(pixels: Pixels, x: number, y: number, w: number, h: number, colour: Colour): void {
  for (let row = y; row < y + h; row++)
    for (let column = x; column < x + w; column++) pixels.bytes.set(colour, (row * pixels.width + column) * 4);
}

const cells = Array.from({ length: COLUMNS * ROWS }, (_, k) => ({ column: k % COLUMNS, row: Math.floor(k / COLUMNS) }));
const figureAt = ({ column, row }: { column: number; row: number }) => crop(figures, { x: column * CELL.w, y: row * CELL.h, ...CELL });

/** A box of 1 px around each figure, boxes 3 px apart. */
const boxed = clearPixels(COLUMNS * (CELL.w + 5) + 3, ROWS * (CELL.h + 5) + 3);
for (const cell of cells) {
  const [x, y] = [3 + cell.column * (CELL.w + 5), 3 + cell.row * (CELL.h + 5)];
  fill(boxed, x, y, CELL.w + 2, CELL.h + 2, RED);
  paste(boxed, figureAt(cell), { x: 0, y: 0, ...CELL }, x + 1, y + 1);
}

/** Figures on white with red lines between them, none around the sheet. */
const ruled = clearPixels(COLUMNS * (CELL.w + 1) - 1, ROWS * (CELL.h + 1) - 1);
fill(ruled, 0, 0, ruled.width, ruled.height, RED);
for (const cell of cells) {
  const [x, y] = [cell.column * (CELL.w + 1), cell.row * (CELL.h + 1)];
  fill(ruled, x, y, CELL.w, CELL.h, WHITE);
  lay(ruled, figureAt(cell), x, y, true);
}

test("boxes around figures lie outside of every frame, with one key", async ({ page }) => {
  await openEmpty(page);
  await dropFiles(page, [pngFile("boxed.png", boxed)]);
  await expect(page.getByRole("button", { name: "4 × 3 cells of 32 × 40, between drawn lines, margin 4, 4, spacing 5, 5" })).toBeVisible();
  await page.keyboard.press("q");
  await expect(page.getByTestId("outcome")).toHaveText(
    "12 frames, none empty, nothing left over but a border: 4 px at right, 4 px at bottom",
  );
  const { frame } = await delivered(page);
  for (const [k, cell] of cells.entries()) expect(looksSame(frame(`boxed/${k}`), figureAt(cell)), `boxed/${k}`).toBe(true);
});

test("lines between cells of an opaque ground are found before it is cleared, and lie in no frame", async ({ page }) => {
  await openEmpty(page);
  await dropFiles(page, [pngFile("ruled.png", ruled)]);
  await expect(page.getByRole("button", { name: "4 × 3 cells of 32 × 40, between drawn lines, spacing 1, 1" })).toBeVisible();
  await page.keyboard.press("q");
  await expect(page.getByTestId("outcome")).toHaveText("12 frames, none empty, nothing left over");
  const { frame } = await delivered(page);
  for (const [k, { column, row }] of cells.entries()) {
    const rect = { x: column * (CELL.w + 1), y: row * (CELL.h + 1), ...CELL };
    expect(looksSame(frame(`ruled/${k}`), crop(ruled, rect)), `ruled/${k}`).toBe(true);
  }
});

/** Opaque figures on green cells, magenta between them. */
const twoTone = clearPixels(COLUMNS * (CELL.w + 4) + 4, ROWS * (CELL.h + 4) + 4);
fill(twoTone, 0, 0, twoTone.width, twoTone.height, [255, 0, 255, 255]);
const opaqueAt = (cell: { column: number; row: number }) => {
  const figure = figureAt(cell);
  for (let k = 0; k < figure.bytes.length; k += 4) if (figure.bytes[k + 3] !== 255) figure.bytes.fill(0, k, k + 4);
  return figure;
};
for (const cell of cells) {
  const [x, y] = [4 + cell.column * (CELL.w + 4), 4 + cell.row * (CELL.h + 4)];
  fill(twoTone, x, y, CELL.w, CELL.h, [0, 255, 0, 255]);
  lay(twoTone, opaqueAt(cell), x, y, true);
}

test("a colour behind each cell is offered for clearing once the colour between them is gone", async ({ page }) => {
  await openEmpty(page);
  await dropFiles(page, [pngFile("two.png", twoTone)]);
  await expect(page.getByText("This sheet has a key colour as its background, #ff00ff")).toBeVisible();
  await page.keyboard.press("q");
  await expect(page.getByTestId("outcome")).toHaveText(
    "12 frames, none empty, nothing left over but a border: 4 px at right, 4 px at bottom",
  );
  await page.keyboard.press("u");
  await expect(page.getByText("Its figures stand in front of blocks of #00ff00")).toBeVisible();
  await page.keyboard.press("u");
  await expect(page.getByRole("button", { name: "Clear the blocks" })).toHaveCount(0);
  // Undone it is offered again, also after a reload; done again it is not.
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: "Clear the blocks" })).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByRole("button", { name: "Clear the blocks" })).toBeVisible();
  await page.keyboard.press("u");
  await expect(page.getByRole("button", { name: "Clear the blocks" })).toHaveCount(0);
  await expect(page.getByTestId("outcome")).toContainText("12 frames");
  const { frame } = await delivered(page);
  for (const [k, cell] of cells.entries()) expect(looksSame(frame(`two/${k}`), opaqueAt(cell)), `two/${k}`).toBe(true);
});
