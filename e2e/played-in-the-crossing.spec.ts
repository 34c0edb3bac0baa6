/** The user's own delivery in the example game: opened from Ship, and updated with changed art by one key. */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, type Page, test } from "./fixtures";
import { dropAndCut, figureSheet, goTo, openEmpty, openStudio, png, problemOn } from "./studio";

test.use({ moving: true });

const told = (game: Page) => game.locator("#told");

async function openGame(page: Page): Promise<Page> {
  const [game] = await Promise.all([page.waitForEvent("popup"), page.getByRole("link", { name: "Play it in The Crossing" }).click()]);
  return game;
}

/** The colour in the middle of the figure. */
const colourOfFigure = (game: Page) =>
  game.evaluate(() => {
    const canvas = document.getElementById("stage") as HTMLCanvasElement;
    const { x, y } = canvas.dataset;
    return [...(canvas.getContext("2d") as CanvasRenderingContext2D).getImageData(Number(x), Number(y) - 20, 1, 1).data];
  });

test("the demo is played from Ship by keys, and changed art reaches the running game with one key", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Ship");
  await expect(page.getByText("The rules of porter decide: arrow keys walk; Space: act; 1: lamp.")).toBeVisible();
  const game = await openGame(page);
  await expect(told(game)).toHaveText("stand · looks s");
  await game.keyboard.down("ArrowRight");
  await expect(told(game)).toHaveText("walk · looks e");
  await game.keyboard.up("ArrowRight");
  await game.keyboard.press("1");
  await expect(told(game)).toHaveText("stand with the lamp · looks e");
  await game.keyboard.press("Space");
  await expect(told(game)).toHaveText("stand · looks e");

  // The resting porter turns green.
  const path = join(import.meta.dirname, "../examples/tamarisk-road/art/porter-idle.png");
  const sheet = png.decode(new Uint8Array(readFileSync(path)), path);
  for (let k = 0; k < sheet.bytes.length; k += 4) if (sheet.bytes[k + 3] === 255) sheet.bytes.set([20, 190, 90], k);
  await page.bringToFront();
  await goTo(page, "Sources");
  await page
    .getByRole("list", { name: "Sources" })
    .getByRole("button", { name: /porter-idle/ })
    .click();
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: "Replace its art …" }).click()]);
  await chooser.setFiles([{ name: "porter-idle.png", mimeType: "image/png", buffer: Buffer.from(png.encode(sheet)) }]);
  await page
    .getByRole("dialog")
    .getByRole("button", { name: /Use new art/ })
    .click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  expect(await colourOfFigure(game)).not.toEqual([20, 190, 90, 255]);
  await page.keyboard.press("Shift+D");
  await expect(page.getByText("The Crossing plays tamarisk as it is now.")).toBeVisible();
  await expect.poll(() => colourOfFigure(game)).toEqual([20, 190, 90, 255]);

  // Neither tab minds a reload.
  await page.reload();
  await expect(page).toHaveTitle(/The Tamarisk Road/);
  await game.reload();
  await expect(told(game)).toHaveText("stand · looks s");
});

test("without a walking clip the first clip is used; without a studio the game says what to do", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "things.png", figureSheet(4, 2), 4, 2);
  await goTo(page, "Ship");
  await expect(page.getByText("plays clips: make one at Clips first")).toBeVisible();
  await goTo(page, "Frames");
  await page.getByRole("button", { name: "Pick row 0", exact: true }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("glow");
  await page.keyboard.press("Enter");
  await goTo(page, "Ship");
  await expect(page.getByText("Nothing in it sounds like walking, so arrow keys play glow; standing still shows glow.")).toBeVisible();
  const game = await openGame(page);
  await expect(told(game)).toHaveText("glow · looks s");
  await page.getByRole("checkbox", { name: "atlas file" }).click();
  await expect(page.getByText("reads the atlas file: tick it")).toBeVisible();
  await page.close();
  await game.reload();
  await expect(problemOn(game)).toContainText("The studio does not answer. Open it in another tab");
});
