/** Keyboards and numbers of other countries. */
import { utf8, writeZip } from "@caravan/core/codec";
import { crop } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { slowJob } from "./slow-job";
import { clipOfRows, dropAndCut, dropFiles, figureSheet, goTo, openEmpty, pngFile, typeNumber } from "./studio";

/** A key of a keyboard with other letters, at the place of a US key. */
async function pressOther(page: Page, key: string, code: string, { ctrl = false } = {}): Promise<void> {
  const session = await page.context().newCDPSession(page);
  const stroke = { key, code, modifiers: ctrl ? 2 : 0, windowsVirtualKeyCode: code.charCodeAt(3) };
  await session.send("Input.dispatchKeyEvent", { type: "keyDown", ...stroke, ...(ctrl ? {} : { text: key }) });
  await session.send("Input.dispatchKeyEvent", { type: "keyUp", ...stroke });
  await session.detach();
}

test("on a keyboard with other letters keys are where they are on others, and undo is undo", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 1), 4, 1);
  await page.getByRole("button", { name: "Pick row 0" }).click();
  await pressOther(page, "с", "KeyC");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  // In a field the letters are the user's own.
  await page.keyboard.type("шаг");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Steps of шаг" }).getByRole("button")).toHaveCount(4);
  await pressOther(page, "я", "KeyZ", { ctrl: true });
  await pressOther(page, "я", "KeyZ", { ctrl: true });
  await expect(page.getByRole("list", { name: /^Steps of/ })).toHaveCount(0);
});

test("Enter that ends the composing of characters does not end the field", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 1), 4, 1);
  await page.getByRole("button", { name: "Pick row 0" }).click();
  await page.keyboard.press("c");
  const name = page.getByRole("textbox", { name: "Clip name" });
  await expect(name).toBeFocused();
  const session = await page.context().newCDPSession(page);
  await session.send("Input.imeSetComposition", { text: "あるく", selectionStart: 3, selectionEnd: 3 });
  await page.keyboard.press("Enter");
  await expect(name).toBeFocused();
  await session.send("Input.insertText", { text: "歩く" });
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Steps of 歩く" })).toBeVisible();
  await session.detach();
});

test("a number that could be a thousand or a decimal is asked about, not guessed", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 1), 4, 1);
  await clipOfRows(page, 1, "walk");
  const durations = page.getByRole("textbox", { name: "Durations one by one, in milliseconds" });
  await expect(durations).toHaveValue("100 100 100 100");
  await typeNumber(page, "Durations one by one, in milliseconds", "33,3 33,3");
  await expect(page.getByText("Type decimals with a point, such as 33.3 33.3.")).toBeVisible();
  await typeNumber(page, "Durations one by one, in milliseconds", "150,150,400");
  await expect(durations).toHaveValue("150 150 400 150");
  await page.keyboard.press("2");
  await typeNumber(page, "Cell width", "1,000");
  await expect(page.getByText("It may be 1 or 1000: type it without the comma.")).toBeVisible();
  await expect(page.getByTestId("outcome")).toContainText("4 frames");
});

test("metadata in other letters than UTF-8 names its frames as it says, and a guess is said", async ({ page }) => {
  await openEmpty(page);
  const records = "name,x,y,width,height\nhéros_0,0,0,32,40\nhéros_1,32,0,32,40\nhéros_2,64,0,32,40\nhéros_3,96,0,32,40\n";
  const narrow = Uint8Array.from(records, (letter) => letter.charCodeAt(0));
  await dropFiles(page, [pngFile("hero.png", figureSheet(4, 1)), { name: "hero.csv", bytes: narrow }]);
  await expect(page.getByText("hero.csv is not in UTF-8: its letters are read as Western European.")).toBeVisible();
  await page.getByRole("dialog").getByRole("button", { name: "Import" }).click();
  await expect(page.getByTestId("outcome")).toContainText("4 frames");
  await expect(page.getByText("héros_0").first()).toBeVisible();
  // As some systems' shells write it: two bytes for each letter, after a mark.
  const wide = Uint8Array.from(
    `\ufeff${records.replaceAll("héros", "шаг")}`.split("").flatMap((unit) => [unit.charCodeAt(0) & 255, unit.charCodeAt(0) >> 8]),
  );
  await dropFiles(page, [pngFile("step.png", figureSheet(4, 2)), { name: "step.csv", bytes: wide }]);
  await page.getByRole("dialog").getByRole("button", { name: "Import" }).click();
  await expect(page.getByText("шаг_0").first()).toBeVisible();
});

test("a ZIP packed with names in old Japanese letters brings them as they were, and says that it guessed", async ({ page }) => {
  await openEmpty(page);
  const figures = figureSheet(4, 1);
  // 歩く_0.png in Shift JIS, and so on: put over names of the same length.
  const names = [0, 1, 2, 3].map((k) => Uint8Array.of(0x95, 0xe0, 0x82, 0xad, ...utf8(`_${k}.png`)));
  const files = names.map(({ length }, k) => ({
    path: `${k}`.repeat(length),
    bytes: pngFile("", crop(figures, { x: k * 32, y: 0, w: 32, h: 40 })).bytes,
  }));
  const zip = writeZip(files);
  const text = Buffer.from(zip.buffer);
  for (const [k, name] of names.entries())
    for (let at = text.indexOf(files[k]?.path ?? ""); at >= 0; at = text.indexOf(files[k]?.path ?? "", at)) zip.set(name, at);
  await dropFiles(page, [{ name: "pack.zip", bytes: zip }]);
  await expect(page.getByText("pack.zip does not say which letters its names are in: they are read as Japanese.")).toBeVisible();
  const review = page.getByRole("dialog");
  await expect(review).toContainText("歩く");
  await review.getByRole("button", { name: "Import" }).click();
  await goTo(page, "Clips");
  await expect(page.getByRole("region", { name: "Ribbons" })).toContainText("歩く");
});

test("digits typed into a field replace a value that came, or was nudged to, while the field had the focus", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 2), 4, 2);
  await slowJob(page, "suggestOutlines", 400);
  await page.getByRole("radio", { name: "Outlines" }).click();
  const distance = page.getByRole("textbox", { name: "Join distance" });
  await distance.focus();
  await expect(page.getByTestId("outcome")).toContainText("8 frames in 2 rows");
  await page.keyboard.type("9");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("outcome")).toHaveText("4 frames");
  await expect(distance).toHaveValue("9");

  await distance.focus();
  await page.keyboard.press("ArrowUp");
  await page.keyboard.type("11");
  await page.keyboard.press("Enter");
  await expect(distance).toHaveValue("11");
});
