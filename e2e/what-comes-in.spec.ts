import { clearPixels } from "@caravan/core/raster";
import { expect, test } from "./fixtures";
import { dropAndCut, dropFiles, figureSheet, goTo, openEmpty, openStudio, pngFile, problemOn, typeNumber } from "./studio";

test("several pictures are imported at once, with their facts", async ({ page }) => {
  await openEmpty(page);
  await dropFiles(page, [
    pngFile("steps.png", figureSheet(2, 1)),
    pngFile("bath.png", figureSheet(4, 3)),
    pngFile("steps.png", figureSheet(1, 1)),
  ]);
  const pictures = page.getByRole("list", { name: "Pictures" }).getByRole("button");
  await expect(pictures).toHaveCount(3);
  await expect(pictures.nth(0)).toContainText("bath");
  await expect(pictures.nth(0)).toContainText("128 × 120 px");
  await expect(pictures.nth(0)).toContainText("not cut");
  await expect(pictures.nth(2)).toContainText("steps-2");
  await expect(page.getByRole("button", { name: "Undo: add 3 pictures" })).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByText("Drop your sprite sheets here")).toBeVisible();
});

test("a sheet that is dropped twice at once is there once", async ({ page }) => {
  await openEmpty(page);
  const hero = [pngFile("hero.png", figureSheet(4, 2))];
  await Promise.all([dropFiles(page, hero), dropFiles(page, hero)]);
  const review = page.getByRole("dialog", { name: "Import review" });
  await expect(review).toContainText("hero already has this art.");
  await review.getByRole("button", { name: "Cancel" }).click();
  await goTo(page, "Sources");
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("button")).toHaveCount(1);
  await page.keyboard.press("Control+z");
  await expect(page.getByText("Drop your sprite sheets here")).toBeVisible();
});

test("an opaque background is detected", async ({ page }) => {
  await openEmpty(page);
  const white = { width: 32, height: 32, bytes: new Uint8Array(4096).fill(255) };
  await dropFiles(page, [pngFile("a white ground.png", white), pngFile("fine.png", figureSheet(1, 1))]);
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("button").first()).toContainText("opaque background");
  await expect(page.getByText("Every pixel of it is opaque")).toBeVisible();
});

test("unreadable files are listed with the reason, the others are imported, and nothing else changes", async ({ page }) => {
  await openEmpty(page);
  const good = pngFile("good.png", figureSheet(2, 2));
  await dropFiles(page, [
    { name: "empty.png", bytes: new Uint8Array(0) },
    { name: "cut-off.png", bytes: good.bytes.subarray(0, 70) },
    { name: "words.png", bytes: new TextEncoder().encode("These are only words.") },
    { name: "photo.png", bytes: Uint8Array.of(0xff, 0xd8, 0xff, 0xe0, 0, 0, 0, 0, 0, 0) },
    { name: "lost.png", bytes: new Uint8Array(300) },
    { name: "as-text.png", bytes: Uint8Array.from([...good.bytes].filter((byte, k) => !(byte === 13 && good.bytes[k + 1] === 10))) },
    good,
  ]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await goTo(page, "Sources");
  const failed = page.getByRole("alert", { name: "Files that were not imported" });
  await expect(failed).toContainText("6 files were not imported");
  await expect(failed).toContainText("empty.png: The file is empty (0 bytes).");
  await expect(failed).toContainText("cut-off.png: The PNG file is cut off");
  await expect(failed).toContainText("words.png: This is not a picture but text.");
  await expect(failed).toContainText("lost.png: All of its 300 bytes are zero");
  await expect(failed).toContainText("as-text.png: The line ends of this PNG file were converted");
  await expect(failed).toContainText("photo.png: Neither Caravan nor this browser can read it as a picture.");
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("button")).toHaveCount(1);
  // Trying again fails again with the same reasons: they do not vanish.
  await failed.getByRole("button", { name: "Try again" }).click();
  await expect(failed).toContainText("6 files were not imported");
  await failed.getByRole("button", { name: "Dismiss" }).click();
  await expect(failed).toBeHidden();
});

test("what came along with art and is none is said to be left out, without an alarm", async ({ page }) => {
  await openEmpty(page);
  const words = (text: string) => new TextEncoder().encode(text);
  await dropFiles(page, [
    pngFile("hero.png", figureSheet(2, 2)),
    { name: "README.txt", bytes: words("Thanks! hero.png has 4 frames of 32 x 40.") },
    { name: "LICENSE", bytes: words("Public domain.") },
    { name: "step.wav", bytes: Uint8Array.of(0x52, 0x49, 0x46, 0x46, 0, 0, 0, 0, 0x57, 0x41, 0x56, 0x45) },
    { name: "main.lua", bytes: words("local speed = 4") },
  ]);
  await expect(page.getByText("Left out, being neither pictures nor metadata: step.wav, LICENSE, README.txt, main.lua.")).toBeVisible();
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await goTo(page, "Sources");
  await expect(page.getByRole("alert", { name: "Files that were not imported" })).toHaveCount(0);
  // What was meant as metadata, or came alone, is not passed over.
  await dropFiles(page, [pngFile("well.png", figureSheet(1, 2)), { name: "frames.json", bytes: words('{"hello": "there"}') }]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await expect(page.getByRole("list", { name: "Sheets" })).toContainText("well");
  await dropFiles(page, [{ name: "notes.txt", bytes: words("Nothing.") }]);
  await expect(page.getByText(/^Problem:.*notes\.txt/)).toBeVisible();
  await goTo(page, "Sources");
  const failed = page.getByRole("alert", { name: "Files that were not imported" });
  await expect(failed).toContainText("2 files were not imported");
  await expect(failed).toContainText("frames.json");
  await expect(failed).toContainText("notes.txt");
});

test("a picture of one pixel is a sheet like any other", async ({ page }) => {
  await openEmpty(page);
  const dot = clearPixels(1, 1);
  dot.bytes.set([9, 8, 7, 255]);
  await dropFiles(page, [pngFile("dot.png", dot)]);
  await page.getByRole("button", { name: "Use it whole" }).click();
  await expect(page.getByTestId("outcome")).toHaveText("1 frame, none empty, nothing left over");
});

test("a grid that does not fit reports what would fit, in place, and the old one stays", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 3), 4, 3);
  await typeNumber(page, "Cell width", 200);
  await expect(problemOn(page)).toHaveText("hero: A 200 × 40 px cell exceeds the 128 × 120 px of this sheet. Use 128 × 40 or less.");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("textbox", { name: "Cell width" })).toHaveValue("32");
  await typeNumber(page, "Margin left", 128);
  await expect(problemOn(page)).toContainText("A margin of 128, 0 px leaves nothing");
  await page.keyboard.press("Escape");
  await typeNumber(page, "Rows", 200);
  await expect(problemOn(page)).toContainText("200 cells do not fit");
  await page.keyboard.press("Escape");
  await typeNumber(page, "Columns", "many");
  await expect(problemOn(page)).toHaveText("Type a number.");
  await page.keyboard.press("Escape");
  // Counts that do not divide leave pixels over, which is reported.
  await typeNumber(page, "Columns", 3);
  await expect(page.getByTestId("outcome")).toHaveText("9 frames, none empty, left over: 2 px at right");
  await expect(page.getByRole("textbox", { name: "Cell width" })).toHaveValue("42");
});

test("the row under the pointer plays while the grid is being changed", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 3, { w: 32, h: 40 }, [11]), 4, 3);
  await expect(page.getByTestId("outcome")).toHaveText("11 frames, 1 empty left out, nothing left over");
  const sheet = (await page.getByTestId("sheet").boundingBox()) as { x: number; y: number; width: number; height: number };
  await page.mouse.move(sheet.x + sheet.width / 2, sheet.y + sheet.height - 60);
  await expect(page.getByText("row 2 of hero")).toBeVisible();
  await expect(page.getByTestId("reading")).toContainText("of 3");
  await page.getByRole("textbox", { name: "Columns", exact: true }).focus();
  await page.keyboard.press("ArrowUp");
  await page.mouse.move(sheet.x + sheet.width / 2 + 5, sheet.y + sheet.height - 60);
  await expect(page.getByTestId("reading")).toContainText(/of [45]/);
  await expect(page.getByRole("textbox", { name: "Columns", exact: true })).toHaveValue("5");
});

test("art dropped onto the untouched demo starts a new project", async ({ page }) => {
  await openStudio(page);
  await dropFiles(page, [pngFile("hero.png", figureSheet(2, 2))]);
  await expect(page).toHaveTitle(/^hero/);
  await page.getByRole("button", { name: "Back to the demo" }).click();
  await expect(page).toHaveTitle(/^The Tamarisk Road/);
});

test("metadata alone dropped onto the untouched demo is for a sheet of the demo, and brings its clips", async ({ page }) => {
  await openStudio(page);
  const cells = Array.from({ length: 8 }, (_, k) => ({ name: `flame ${k}`, x: k * 32, y: 0, w: 32, h: 40 }));
  const told = { picture: "campfire.png", cells, moves: [{ name: "flicker", from: 2, to: 5 }] };
  await dropFiles(page, [{ name: "campfire.json", bytes: new TextEncoder().encode(JSON.stringify(told)) }]);
  const review = page.getByRole("dialog", { name: "Import review" });
  await expect(review.getByRole("checkbox", { name: "Add its clip flicker" })).toBeChecked();
  await review.getByRole("button", { name: "Import" }).click();
  await expect(page.getByText("New clips: flicker.")).toBeVisible();
  await expect(page).toHaveTitle(/^The Tamarisk Road/);
});
