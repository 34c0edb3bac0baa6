import { violationsOn } from "./axe";
import { expect, test } from "./fixtures";
import { dropFiles, figureSheet, openStudio, pngFile } from "./studio";

test.use({ firstVisit: true });

const steps = (page: import("@playwright/test").Page) => page.getByRole("region", { name: "First steps" });

test("the first visit introduces the app and shows the ways in, once", async ({ page }) => {
  await openStudio(page);
  await expect(steps(page)).toContainText("Caravan cuts sprite sheets into frames");
  await expect(steps(page).getByRole("button", { name: "Open art or a project …" })).toBeVisible();
  expect(await violationsOn(page)).toEqual([]);
  await steps(page).getByRole("button", { name: "See the demo move" }).click();
  await expect(page.getByRole("region", { name: "Ribbons" })).toBeVisible();
  await expect(steps(page)).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole("region", { name: "Ribbons" })).toBeVisible();
  await expect(steps(page)).toHaveCount(0);
});

test("art dropped onto the first page starts a new project", async ({ page }) => {
  await openStudio(page);
  await dropFiles(page, [pngFile("hero.png", figureSheet(4, 1))]);
  await expect(page.getByTestId("sheet")).toBeVisible();
  await expect(page).not.toHaveTitle(/Tamarisk/);
  await expect(steps(page)).toHaveCount(0);
  // A user who returns to the demo has already seen the introduction.
  await page.getByRole("button", { name: "Back to the demo" }).click();
  await expect(page).toHaveTitle(/Tamarisk/);
  await expect(page.getByTestId("sheet")).toBeVisible();
  await expect(steps(page)).toHaveCount(0);
});
