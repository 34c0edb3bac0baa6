/** What is asked for while a worker is still busy with something before it: nothing of it is lost, and the last is what stays. */
import { clearPixels } from "@caravan/core/raster";
import { KEYED } from "../packages/core/src/example/examples.fixture";
import { expect, test } from "./fixtures";
import { slowJob } from "./slow-job";
import { choose, dropFiles, figureSheet, goTo, openEmpty, openStudio, pngFile, rawArt, typeNumber } from "./studio";

test("the key for the best suggestion waits until one is found, and says so if there is none", async ({ page }) => {
  await openEmpty(page);
  await slowJob(page, "suggestCuts", 3000);
  await dropFiles(page, [pngFile("figures.png", figureSheet(4, 3, { w: 32, h: 40 }))]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await page.keyboard.press("q");
  await expect(page.getByTestId("outcome")).toContainText("12 frames");
  await dropFiles(page, [pngFile("empty.png", clearPixels(64, 64))]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await page.keyboard.press("q");
  await expect(page.getByText("This picture suggests no cells")).toBeVisible();
});

test("two fields of a reading corrected one right after the other are both corrected", async ({ page }) => {
  await openEmpty(page);
  await slowJob(page, "readAs", 2000);
  await dropFiles(page, [rawArt("bazaar.json"), rawArt("bazaar.png")]);
  await page.getByRole("dialog").getByRole("button", { name: "Import" }).click();
  await expect(page.getByTestId("outcome")).toContainText("11 frames");
  await choose(page, page.getByLabel("Path of untrimmed width"), "not given");
  await choose(page, page.getByLabel("Path of untrimmed height"), "not given");
  await expect(page.getByLabel("Path of untrimmed height")).toHaveText("not given");
  await expect(page.getByLabel("Path of untrimmed width")).toHaveText("not given");
});

test("a background restored while another clearing is still computed is restored", async ({ page }) => {
  const figures = figureSheet(4, 1, { w: 32, h: 40 });
  const sheet = clearPixels(figures.width, figures.height);
  for (let k = 0; k < sheet.bytes.length; k += 4) sheet.bytes.set([255, 0, 255, 255], k);
  for (let k = 0; k < sheet.bytes.length; k += 4) if (figures.bytes[k + 3] === 255) sheet.bytes.set(figures.bytes.subarray(k, k + 4), k);
  await openEmpty(page);
  await dropFiles(page, [pngFile("keyed.png", sheet)]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await page.keyboard.press("u");
  await expect(page.getByRole("button", { name: "Undo: clear the background of keyed" })).toBeVisible();
  await goTo(page, "Sources");
  const detail = page.getByRole("region", { name: "What is done to the art" });
  await expect(detail.getByRole("button", { name: "Restore background" })).toBeVisible();
  // The sheet as it is has been read; as it would be takes long.
  await slowJob(page, "readPicture", 2500);
  await typeNumber(page, "Tolerance", 9);
  await detail.getByRole("button", { name: "Apply" }).click();
  await detail.getByRole("button", { name: "Restore background" }).click();
  await expect(page.getByRole("button", { name: "Undo: restore the background of keyed" })).toBeVisible();
  await expect(detail.getByRole("button", { name: "Restore background" })).toHaveCount(0);
  // What was applied before it is one undo away.
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("textbox", { name: "Tolerance" })).toHaveValue("9");
  await expect(detail.getByRole("button", { name: "Restore background" })).toBeVisible();
});

test("an example's file is not given to another delivery when its own is removed while it is read", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Ship");
  const deliveries = page.getByRole("list", { name: "Deliveries" }).getByRole("button");
  const before = await deliveries.count();
  await page.getByRole("button", { name: "Add a delivery" }).click();
  await expect(deliveries).toHaveCount(before + 1);
  await slowJob(page, "learnExample", 2500);
  const part = page.getByRole("region", { name: "In the shape of an example", exact: true }).first();
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), part.getByRole("button", { name: "Learn from a file" }).click()]);
  await chooser.setFiles([{ name: "hero.json", mimeType: "text/plain", buffer: Buffer.from(KEYED) }]);
  await page.getByRole("button", { name: "Remove it" }).click();
  await expect(deliveries).toHaveCount(before);
  await expect(page.getByText("The delivery was removed or renamed meanwhile.")).toBeVisible();
  // Nothing was done after the removal.
  await expect(page.getByRole("button", { name: /^Undo: remove the delivery/ })).toBeVisible();
});
