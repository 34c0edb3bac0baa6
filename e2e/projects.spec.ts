import { readFileSync } from "node:fs";
import { expect, type Page, test } from "./fixtures";
import { clipOfRows, dropAndCut, dropFiles, figureSheet, filesOf, goTo, openEmpty, openStudio, saved, startProject } from "./studio";

const projects = (page: Page) => page.getByRole("list", { name: "Projects", exact: true }).getByRole("listitem");
const openList = (page: Page) => page.getByRole("button", { name: "All projects" }).click();

test("projects are created, renamed, duplicated, removed and restored", async ({ page }) => {
  await openStudio(page);
  await startProject(page);
  await page.getByRole("textbox", { name: "Project name" }).fill("Salt road");
  await page.keyboard.press("Enter");
  await saved(page);
  await openList(page);
  await expect(projects(page)).toHaveCount(2);
  await projects(page).filter({ hasText: "Salt road" }).getByRole("button", { name: "Duplicate" }).click();
  await expect(projects(page)).toHaveCount(3);
  const copy = projects(page).filter({ has: page.getByRole("textbox", { name: "Name of Salt road copy" }) });
  await copy.getByRole("button", { name: "Remove" }).click();
  await expect(projects(page)).toHaveCount(2);
  await page.getByRole("list", { name: "Removed projects" }).getByRole("button", { name: "Bring back" }).click();
  await expect(projects(page)).toHaveCount(3);
  await copy.getByRole("textbox").fill("Tea road");
  await page.keyboard.press("Enter");
  await projects(page)
    .filter({ has: page.getByRole("textbox", { name: "Name of Tea road" }) })
    .getByRole("button", { name: "Open" })
    .click();
  await expect(page).toHaveTitle(/^Tea road/);
});

test("a project saved to a file opens again, with everything in it, and a damaged file is refused", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 3), 4, 3);
  await page.getByRole("button", { name: "Pick row 1" }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("walk");
  await page.keyboard.press("Enter");
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  expect(download.suggestedFilename()).toBe("New project.caravan");
  const bytes = new Uint8Array(readFileSync(await download.path()));
  expect([...(await filesOf(download)).keys()]).toEqual(["caravan.json", "art/hero.png"]);

  await startProject(page);
  await dropFiles(page, [{ name: "copy.caravan", bytes }]);
  await expect(page.getByText("Opened copy.caravan as a project of its own.")).toBeVisible();
  await page.keyboard.press("3");
  await expect(page.getByRole("button", { name: /^Step \d: hero\/[4-7]/ })).toHaveCount(4);

  await page.keyboard.press("1");
  const damaged = bytes.slice();
  damaged.fill(0, 200, 260);
  const newer = new TextEncoder().encode("no archive at all");
  await dropFiles(page, [
    { name: "damaged.caravan", bytes: damaged },
    { name: "other.caravan", bytes: newer },
  ]);
  const failed = page.getByRole("alert", { name: "Files that were not imported" });
  await expect(failed).toContainText("damaged.caravan");
  await expect(failed).toContainText("other.caravan: This is not a *.caravan file");
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("button")).toHaveCount(1);
});

test("of a project file that is cut off, what is left opens if that is wanted", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 3), 4, 3);
  await clipOfRows(page, 1, "walk");
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const bytes = new Uint8Array(readFileSync(await download.path()));
  await startProject(page);
  // In the middle of its picture.
  await dropFiles(page, [{ name: "half.caravan", bytes: bytes.subarray(0, bytes.length - 400) }]);
  await expect(page.getByText(/half\.caravan: The archive is damaged or cut off/)).toBeVisible();
  await expect(page).toHaveTitle(/^New project 2/);
  await page.getByRole("button", { name: "Open what is left of it" }).click();
  await expect(page.getByText("Opened half.caravan as a project of its own, without the art of 1 picture.")).toBeVisible();
  await goTo(page, "Clips");
  await expect(page.getByRole("list", { name: "Clips" }).getByRole("button", { name: /walk/ })).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByRole("list", { name: "Clips" }).getByRole("button", { name: /walk/ })).toBeVisible();
});

test("frames picked in one project are not picked in another", async ({ page }) => {
  await openStudio(page);
  await page.getByRole("button", { name: "Pick row 0" }).click();
  await expect(page.getByTestId("picked")).toHaveText("8 picked, in picking order");
  await startProject(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 3), 4, 3);
  await expect(page.getByTestId("picked")).toHaveText("click picks");
  // Back in the first project, the place is as it was left.
  await page.keyboard.press("3");
  await openList(page);
  await projects(page)
    .filter({ has: page.getByRole("textbox", { name: "Name of The Tamarisk Road" }) })
    .getByRole("button", { name: "Open" })
    .click();
  await expect(page).toHaveTitle(/^The Tamarisk Road/);
  await expect(page.getByTestId("sheet")).toBeVisible();
  await expect(page.getByTestId("picked")).toHaveText("click picks");
});
