import { crop, looksSame, scaled } from "@caravan/core/raster";
import { expect, test } from "./fixtures";
import { choose, delivered, dropFiles, figureSheet, goTo, openEmpty, pngFile, typeNumber } from "./studio";

const SMALL = { w: 24, h: 20 };
const small = figureSheet(4, 1, SMALL);
/** The same figures, drawn three times as large. */
const large = scaled(small, 3);

test("small art is matched to large art, shown at that size everywhere, and delivered pixel by pixel", async ({ page }) => {
  await openEmpty(page);
  for (const [name, sheet] of [
    ["large", large],
    ["small", small],
  ] as const) {
    await dropFiles(page, [pngFile(`${name}.png`, sheet)]);
    await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
    await typeNumber(page, "Columns", 4);
    await typeNumber(page, "Rows", 1);
    await page.getByRole("button", { name: "Pick row 0", exact: true }).click();
    await page.keyboard.press("c");
    await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
    await page.keyboard.type(`walk ${name}`);
    await page.keyboard.press("Enter");
  }
  await goTo(page, "Sources");
  await page.getByRole("button", { name: /^small.* px/ }).click();
  await choose(page, page.getByRole("combobox", { name: "Match" }), "large");
  const matches = page.getByRole("list", { name: "Scales that match large" });
  await expect(matches.getByRole("listitem")).toHaveText([/^×3figures \d+ px tall, as in large/]);
  await matches.getByRole("button", { name: "×3" }).click();
  await expect(page.getByRole("radio", { name: "×3" })).toBeChecked();
  await expect(page.getByRole("button", { name: /^small.* px/ })).toContainText("×3");

  // In the tray a frame says its size in the project.
  await goTo(page, "Frames");
  await page.getByRole("listbox", { name: "Frames" }).getByRole("option").first().click();
  await expect(page.getByText("72 × 60").first()).toBeVisible();

  // The player draws exactly the same pixels for both clips, and so do both lanes of Compare.
  await goTo(page, "Clips");
  const drawn: string[] = [];
  for (const name of ["walk small", "walk large"]) {
    await page
      .getByRole("list", { name: "Clips" })
      .getByRole("button", { name: new RegExp(`^${name}`) })
      .click();
    await expect(page.getByRole("heading", { name })).toBeVisible();
    await page.waitForTimeout(300);
    drawn.push(await page.getByTestId("stage").evaluate((canvas) => (canvas as HTMLCanvasElement).toDataURL()));
  }
  expect(drawn[0]).toBe(drawn[1]);
  await page.getByRole("radio", { name: "Compare" }).click();
  await choose(page, page.getByRole("combobox", { name: "Clip 1", exact: true }), "walk small");
  await choose(page, page.getByRole("combobox", { name: "Clip 2", exact: true }), "walk large");
  await expect(page.getByTestId("lane")).toHaveCount(2);
  await page.waitForTimeout(500);
  const lanes = await page.getByTestId("lane").evaluateAll((all) => all.map((canvas) => (canvas as HTMLCanvasElement).toDataURL()));
  expect(lanes[0]).toBe(lanes[1]);

  // The origin was the middle of the bottom edge and is so still, in project pixels.
  const { atlas, frame } = await delivered(page);
  for (const k of [0, 1, 2, 3]) {
    expect(looksSame(frame(`small/${k}`), frame(`large/${k}`))).toBe(true);
    expect(looksSame(frame(`small/${k}`), crop(large, { x: k * 72, y: 0, w: 72, h: 60 }))).toBe(true);
    expect(atlas.frames[`small/${k}`]?.origin).toEqual({ x: 36, y: 60 });
  }

  // Back to its own size by undo, and smaller by a number.
  await goTo(page, "Sources");
  await page.getByRole("button", { name: /^small.* px/ }).click();
  await typeNumber(page, "Scale", "0.5");
  await expect(page.getByRole("radio", { name: "×½" })).toBeChecked();
  await page.getByRole("button", { name: /^small.* px/ }).focus();
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("radio", { name: "×1" })).toBeChecked();
});

test("scales are tried out without loss: back at its own size, everything is where it was", async ({ page }) => {
  await openEmpty(page);
  await dropFiles(page, [pngFile("hero.png", small)]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await typeNumber(page, "Columns", 4);
  await typeNumber(page, "Rows", 1);
  await page.getByRole("listbox", { name: "Frames" }).getByRole("option").first().click();
  await typeNumber(page, "Origin x", 5);
  await typeNumber(page, "Origin y", 19);
  await goTo(page, "Sources");
  for (const scale of ["×¼", "×3", "×½", "×1"]) {
    await page.getByRole("radio", { name: scale, exact: true }).click();
    await expect(page.getByRole("radio", { name: scale, exact: true })).toBeChecked();
  }
  await goTo(page, "Frames");
  await expect(page.getByRole("textbox", { name: "Origin x", exact: true })).toHaveValue("5");
  await expect(page.getByRole("textbox", { name: "Origin y", exact: true })).toHaveValue("19");
});
