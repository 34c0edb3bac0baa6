/** What goes out, chosen by patterns, ticks and picks; all deliveries in one act; films, sheets and sizes as people want them. */
import { readGif } from "@caravan/core/codec";
import { crop, looksSame, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { clipOfRows, delivered, dropAndCut, figureSheet, filesOf, goTo, openEmpty, png, saved } from "./studio";

const CELL = { w: 32, h: 40 };
const sheet = figureSheet(4, 3);
const cell = (column: number, row: number): Pixels => crop(sheet, { x: column * CELL.w, y: row * CELL.h, ...CELL });

/** Clips "walk" and "wave" of the first two rows of three. */
async function openTwo(page: Page): Promise<void> {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", sheet, 4, 3);
  await clipOfRows(page, 1, "walk");
  await goTo(page, "Frames");
  await page.getByRole("button", { name: "Pick row 1", exact: true }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("wave");
  await page.keyboard.press("Enter");
}

const radio = (page: Page, name: string) => page.getByRole("radio", { name, exact: true }).click();
const proof = (page: Page) => page.getByTestId("proof");

test("everything is ticked at first, matches of several patterns are listed and counted, and picked frames can be delivered alone", async ({
  page,
}) => {
  await openTwo(page);
  await goTo(page, "Ship");
  await radio(page, "Clips");
  await expect(page.getByText("2 of 2 clips included")).toBeVisible();
  await expect(proof(page)).toContainText("8 frames in, 8 out");
  await page.getByRole("button", { name: "Tick none" }).click();
  const like = page.getByRole("textbox", { name: "Names like" });
  await like.fill("run*, ?a?e");
  await like.press("Enter");
  await expect(page.getByText("Matches 1: wave.")).toBeVisible();
  await expect(proof(page)).toContainText("4 frames in, 4 out");
  await like.fill("jump");
  await like.press("Enter");
  await expect(page.getByText("Matches none of the 2 clips.")).toBeVisible();
  await goTo(page, "Frames");
  await page.getByRole("button", { name: "Pick row 2", exact: true }).click();
  await goTo(page, "Ship");
  await radio(page, "Picked frames");
  await expect(page.getByText("4 frames are chosen.")).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByRole("list", { name: "Chosen frames" }).getByRole("listitem")).toHaveCount(4);
  const { atlas, frame } = await delivered(page);
  expect(Object.keys(atlas.frames)).toEqual([8, 9, 10, 11].map((k) => `hero/${k}`));
  expect(Object.keys(atlas.clips)).toEqual([]);
  expect(looksSame(frame("hero/9"), cell(1, 2))).toBe(true);
});

test("all deliveries go out at once, in one ZIP; a failing one is reported and the others are delivered", async ({ page }) => {
  await openTwo(page);
  await goTo(page, "Ship");
  await page.getByRole("button", { name: "Add a delivery" }).click();
  await radio(page, "Films");
  await expect(proof(page)).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Deliver all 2" }).click()]);
  expect(download.suggestedFilename()).toBe("New project.zip");
  expect([...(await filesOf(download)).keys()].sort()).toEqual(
    ["atlas.atlas.json", "atlas.png", ...["walk", "wave"].flatMap((name) => [`delivery/${name}.gif`, `delivery/${name}.png`])].sort(),
  );
  // A choice that matches nothing cannot be delivered.
  await radio(page, "Clips");
  await page.getByRole("button", { name: "Tick none" }).click();
  const [again] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Deliver all 2" }).click()]);
  expect([...(await filesOf(again)).keys()].sort()).toEqual(["atlas.atlas.json", "atlas.png"]);
  await expect(page.getByText(/delivery of New project was not delivered: /)).toBeVisible();
});

test("GIFs get a background, a grid sheet one row per clip, and sizes are compared at equal screen size", async ({ page }) => {
  await openTwo(page);
  await goTo(page, "Ship");
  await radio(page, "Films");
  await page.getByRole("checkbox", { name: "background of GIFs" }).click();
  await page.getByRole("button", { name: "Background of GIFs", exact: true }).click();
  await page.getByRole("textbox", { name: "Background of GIFs as text" }).fill("#3fa9c4");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  const zip = async () => {
    await expect(proof(page)).toBeVisible();
    const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: /ZIP/ }).click()]);
    return filesOf(download);
  };
  const [first] = [...readGif((await zip()).get("atlas/walk.gif") as Uint8Array, "walk").frames(() => {})];
  expect([...(first?.pixels.bytes.subarray(0, 4) ?? [])]).toEqual([0x3f, 0xa9, 0xc4, 255]);

  await radio(page, "Grid sheet");
  await page.getByRole("checkbox", { name: "a row for each clip" }).click();
  await expect(page.getByRole("list", { name: "Notes" })).toContainText("2 rows of clips, 4 columns of 32 × 40 px.");
  const grid = png.decode((await zip()).get("atlas.png") as Uint8Array, "grid");
  for (const [column, row] of [
    [0, 0],
    [3, 0],
    [2, 1],
    [1, 2],
  ] as const)
    expect(looksSame(crop(grid, { x: column * CELL.w, y: row * CELL.h, ...CELL }), cell(column, row))).toBe(true);

  await radio(page, "Packed pages");
  await page.getByRole("button", { name: "Add a size" }).click();
  await radio(page, "Sizes compared");
  const samples = page.getByTestId("compared-size");
  await expect(samples).toHaveCount(2);
  const boxes = await Promise.all([samples.nth(0).boundingBox(), samples.nth(1).boundingBox()]);
  expect([boxes[0]?.width, boxes[0]?.height]).toEqual([boxes[1]?.width, boxes[1]?.height]);
  const middle = (k: number) =>
    samples.nth(k).evaluate((canvas: HTMLCanvasElement) => {
      const { width, height } = canvas;
      return [...(canvas.getContext("2d")?.getImageData(width >> 1, height >> 1, 1, 1).data ?? [])];
    });
  expect(await middle(1)).toEqual(await middle(0));
  expect((await middle(0))[3]).toBe(255);
});

test("pages are zoomed by the wheel, and fitted again by a button", async ({ page }) => {
  await openTwo(page);
  await goTo(page, "Ship");
  await expect(proof(page)).toBeVisible();
  const shown = page.getByTestId("page");
  const width = async () => Math.round((await shown.boundingBox())?.width ?? 0);
  const fitting = await width();
  await shown.hover();
  await page.mouse.wheel(0, -100);
  await expect.poll(width).toBeGreaterThan(fitting);
  await page.mouse.wheel(0, 100);
  await expect.poll(width).toBe(fitting);
  await page.getByRole("button", { name: "Pages smaller" }).click();
  await expect.poll(width).toBeLessThan(fitting);
  await page.getByRole("button", { name: "Fit", exact: true }).click();
  await expect.poll(width).toBe(fitting);
});
