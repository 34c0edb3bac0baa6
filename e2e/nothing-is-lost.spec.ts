import { expect, type Page, test } from "./fixtures";
import { dropAndCut, dropFiles, figureSheet, filesOf, goTo, openEmpty, pngFile, saved, typeNumber } from "./studio";
import { crash, storageWithEnd } from "./trouble";

/** A project with a cut sheet and a clip "walk" of its first row. */
async function makeWalk(page: Page): Promise<void> {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 3), 4, 3);
  await page.getByRole("button", { name: "Pick row 0" }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("walk");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "walk" })).toBeVisible();
}

const clipNames = (page: Page) => page.getByRole("list", { name: "Clips" }).getByRole("button");
const undoName = (page: Page) => page.getByRole("button", { name: /^Undo/ });

test("after a reload the project, the current place and the undo list are still there", async ({ page }) => {
  await makeWalk(page);
  await typeNumber(page, "Frames per second", 5);
  await saved(page);
  await page.reload();
  await expect(page.getByRole("textbox", { name: "Frames per second" })).toHaveValue("5");
  await expect(undoName(page)).toHaveAccessibleName("Undo: play walk at 5 fps");
  await page.getByRole("region", { name: "Ribbons" }).focus();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("textbox", { name: "Frames per second" })).toHaveValue("10");
  await expect(undoName(page)).toHaveAccessibleName("Undo: rename hero to walk");
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect(page.getByText("No clips yet")).toBeVisible();
  for (let k = 0; k < 3; k++) await page.keyboard.press("Control+Shift+z");
  await expect(page.getByRole("textbox", { name: "Frames per second" })).toHaveValue("5");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toHaveValue("walk");
});

test("a hundred edits can be undone one by one, also after a reload", async ({ page }) => {
  await makeWalk(page);
  await page.getByRole("region", { name: "Ribbons" }).focus();
  for (let k = 0; k < 100; k++) await page.keyboard.press(k % 2 === 0 ? "o" : "l");
  await saved(page);
  await page.reload();
  await expect(clipNames(page)).toHaveCount(1);
  await page.getByRole("region", { name: "Ribbons" }).focus();
  for (let k = 0; k < 100; k++) await page.keyboard.press("Control+z");
  await expect(undoName(page)).toHaveAccessibleName("Undo: rename hero to walk");
});

test("a tab that is killed loses at most the last second", async ({ context, page }) => {
  await makeWalk(page);
  await page.waitForTimeout(1000);
  await crash(context, page);
  const next = await context.newPage();
  await next.goto("/");
  await expect(clipNames(next)).toHaveText([/walk/]);
});

test("a second tab is read-only, follows the edits, and can take over", async ({ context, page }) => {
  await makeWalk(page);
  await saved(page);
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.getByText("open in another tab. Here you can look")).toBeVisible();
  // It cannot change anything, and says so.
  await second.getByRole("button", { name: "Duplicate", exact: true }).click();
  await expect(second.getByText("It is open in another tab, so it cannot be changed here.")).toBeVisible();
  await expect(clipNames(second)).toHaveCount(1);
  // It sees what the first does.
  await page.getByRole("button", { name: "Duplicate", exact: true }).click();
  await expect(clipNames(second)).toHaveCount(2);
  // A change in the last moment is not lost when the second tab takes over.
  await page.getByRole("button", { name: "Duplicate", exact: true }).click();
  await second.getByRole("button", { name: "Work here instead" }).click();
  await expect(clipNames(second)).toHaveCount(3);
  await expect(page.getByText("open in another tab. Here you can look")).toBeVisible();
  await second.getByRole("button", { name: "Duplicate", exact: true }).click();
  await expect(clipNames(page)).toHaveCount(4);
});

test("with storage full the work can be saved to a file", async ({ page }) => {
  const room = await storageWithEnd(page);
  await makeWalk(page);
  await saved(page);
  await room.fills();
  await typeNumber(page, "Frames per second", 12);
  await expect(page.getByText("This browser has no more room for the project.")).toBeVisible();
  await dropFiles(page, [pngFile("late.png", figureSheet(2, 1))]);
  await expect(page.getByRole("list", { name: "Sheets" }).getByRole("button")).toHaveText([/hero/, /late/]);
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save to a file" }).click()]);
  const files = await filesOf(download);
  const document = JSON.parse(new TextDecoder().decode(files.get("caravan.json")));
  expect([...files.keys()]).toEqual(["caravan.json", "art/hero.png", "art/late.png"]);
  expect(document.clips[0].steps[0].ms).toBe(83.333);
  // With space again, the next retry saves it.
  await room.empties();
  await page.getByRole("button", { name: "Try again" }).click();
  await saved(page);
});

test("changing the grid and back keeps clips, names and dropped frames", async ({ page }) => {
  await makeWalk(page);
  await goTo(page, "Frames");
  await typeNumber(page, "Columns", 2);
  await goTo(page, "Clips");
  await expect(page.getByRole("button", { name: /Step \d: missing frame/ })).toHaveCount(2);
  await goTo(page, "Ship");
  await expect(page.getByRole("region", { name: "Findings" })).toContainText(
    "2 steps (2, 3) show frames that are dropped or no longer cut",
  );
  await expect(page.getByRole("button", { name: "Deliver as ZIP" })).toBeDisabled();
  await goTo(page, "Frames");
  await typeNumber(page, "Columns", 4);
  await goTo(page, "Clips");
  await expect(page.getByRole("button", { name: /Step \d: hero/ })).toHaveCount(4);
});
