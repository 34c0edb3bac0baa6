/** The clip of an animation follows its file: its times, and pictures that are new, gone or elsewhere. */
import { writeGif } from "@caravan/core/codec";
import { crop } from "@caravan/core/raster";
import { expect, test } from "./fixtures";
import { played, review, taken } from "./imported";
import { dropFiles, figureSheet, goTo, openEmpty, saved, type UploadedFile } from "./studio";

/** A picture: which figure it shows, and for how many milliseconds. */
type Shown = readonly [figure: number, ms: number];

const FIGURES = figureSheet(8, 1);

function spark(...shown: readonly Shown[]): UploadedFile {
  const pictures = shown.map(([figure, ms]) => ({ pixels: crop(FIGURES, { x: figure * 32, y: 0, w: 32, h: 40 }), ms }));
  return { name: "spark.gif", bytes: writeGif(pictures, 0).bytes };
}

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
  await taken(page, spark([0, 100], [1, 100], [2, 200]));
});

test("a file with other times is offered as new times; times that a person set stay, and a message says so", async ({ page }) => {
  await goTo(page, "Clips");
  const list = page.getByRole("textbox", { name: "Durations one by one, in milliseconds" });
  await list.fill("40, 100, 200");
  await list.press("Enter");
  await saved(page);
  await page.reload();
  const slower = spark([0, 100], [1, 150], [2, 300]);
  await dropFiles(page, [slower]);
  await expect(review(page)).toContainText("Clips updated from spark.gif: spark.");
  await expect(review(page).getByRole("radio", { name: "New times of spark" })).toBeChecked();
  await review(page).getByRole("button", { name: "Import" }).click();
  await expect(page.getByText("Clips updated from spark.gif: spark.")).toBeVisible();
  expect(await played(page)).toEqual({ spark: [40, 150, 300] });
  await expect(page.getByRole("button", { name: /^Undo: use the new times of spark/ })).toBeVisible();
  // The same again has nothing new.
  await dropFiles(page, [slower]);
  await expect(review(page)).toContainText("spark already has this art.");
  await expect(review(page).getByRole("checkbox", { name: "Import" })).not.toBeChecked();
  await page.keyboard.press("Escape");
  // Where both changed the same, it is said.
  await dropFiles(page, [spark([0, 70], [1, 150], [2, 300])]);
  await expect(review(page)).toContainText("Clips that differ from spark.gif, and stay as they are here: spark.");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  expect(await played(page)).toEqual({ spark: [40, 100, 200] });
});

test("with new pictures the review says what becomes of its clip, and one step takes all of it back", async ({ page }) => {
  await taken(page, spark([0, 80], [4, 60], [1, 100]));
  const changed = page.getByRole("dialog", { name: "Changed art of spark" });
  await expect(changed).toContainText("1 new, 1 gone.");
  await expect(changed).toContainText("Clips updated from spark.gif: spark.");
  await expect(changed).not.toContainText("shows as missing");
  await changed.getByRole("button", { name: /Use new art/ }).click();
  await expect(changed).toBeHidden();
  expect(await played(page)).toEqual({ spark: [80, 60, 100] });
  await page.keyboard.press("Control+z");
  expect(await played(page)).toEqual({ spark: [100, 100, 200] });
});

test("a file with other times says so if no clip is left that it could change", async ({ page }) => {
  await goTo(page, "Clips");
  await page.getByRole("list", { name: "Clips" }).getByText("spark").click({ button: "right" });
  await page.getByRole("menuitem", { name: "Remove" }).click();
  await dropFiles(page, [spark([0, 50], [1, 50], [2, 50])]);
  const none = "No clip follows spark.gif: its new times change nothing.";
  await expect(review(page)).toContainText(none);
  await review(page).getByRole("button", { name: "Import" }).click();
  await expect(page.getByText(none)).toBeVisible();
});
