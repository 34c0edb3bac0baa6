/** Keyboards and numbers of other countries. */
import { expect, type Page, test } from "./fixtures";
import { clipOfRows, dropAndCut, figureSheet, openEmpty, typeNumber } from "./studio";

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
