import { clearPixels, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { choose, dropAndCut, goTo, openEmpty, typeNumber } from "./studio";

/** Rows of three cells, each in its own colour. */
function rowsOfThree(rows: number): Pixels {
  const cell = 20;
  const sheet = clearPixels(cell * 3, cell * rows);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < 3; column++)
      for (let y = 3; y < cell; y++)
        for (let x = 5; x < 13 + column; x++)
          sheet.bytes.set([30 + row * 40, 60 + column * 60, 20, 255], ((row * cell + y) * sheet.width + column * cell + x) * 4);
  return sheet;
}

async function clipOfRow(page: Page, row: number, name: string): Promise<void> {
  await goTo(page, "Frames");
  await page.keyboard.press("0");
  await page.getByRole("button", { name: `Pick row ${row}`, exact: true }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
}

const chooseIn = (page: Page, list: string, name: string) =>
  page
    .getByRole("list", { name: list, exact: true })
    .getByRole("button", { name: new RegExp(`^${name}`) })
    .click();

/** Clicks a finding's mending at Ship; the finding then disappears. */
async function mend(page: Page, message: string, label: string): Promise<void> {
  await goTo(page, "Ship");
  const cards = page.getByRole("region", { name: "Findings" }).getByRole("listitem").filter({ hasText: message });
  await expect(cards.first()).toBeVisible();
  const before = await cards.count();
  await cards.first().getByRole("button", { name: label, exact: true }).click();
  await expect(cards).toHaveCount(before - 1);
}

test("facings come from numbers at the end of names, and each finding on movement is mended by its button", async ({ page }) => {
  test.setTimeout(150_000);
  await openEmpty(page);
  await dropAndCut(page, "rows.png", rowsOfThree(6), 3, 6);
  for (const [row, name] of ["turn_0", "turn_1", "turn_2", "turn_3", "burst", "burst_big"].entries()) await clipOfRow(page, row, name);

  // Numbers are matched in the order that is chosen, and shown before it is done.
  await page.getByRole("button", { name: "By names …" }).click();
  const dialog = page.getByRole("dialog", { name: "Actions by names" });
  await expect(dialog.getByRole("checkbox", { name: "turn, 4 ways, by number" })).toBeChecked();
  await choose(page, dialog.getByRole("combobox", { name: "First facing" }), "N");
  await choose(page, dialog.getByRole("combobox", { name: "Direction" }), "clockwise");
  await expect(dialog.getByRole("list", { name: "Matched actions" })).toContainText("Nturn_0");
  await expect(dialog.getByRole("list", { name: "Matched actions" })).toContainText("Eturn_1");
  await dialog.getByRole("button", { name: "Make the action" }).click();
  const petal = (facing: string) => page.getByRole("button", { name: new RegExp(`^Facing ${facing}:`) });
  await expect(petal("e")).toHaveAccessibleName("Facing e: turn_1");
  await expect(petal("w")).toHaveAccessibleName("Facing w: turn_3");

  await mend(page, "its name suggests that it happens once", "Play it once, then hide");
  await mend(page, "its name suggests that it happens once", "Play it once, then hide");
  await mend(page, "begins with this name", "Call it burst0");

  // A facing with another rhythm gets that of the others.
  await goTo(page, "Clips");
  await chooseIn(page, "Clips", "turn_2");
  await typeNumber(page, "Frames per second", 5);
  await mend(page, "turn_2", "Use the times of turn_0");
  await goTo(page, "Clips");
  await expect(page.getByRole("list", { name: "Clips", exact: true }).getByRole("button", { name: /^turn_2/ })).toContainText("0.30 s");

  // A facing left missing is filled by the mirror of the one across.
  await chooseIn(page, "Actions", "turn");
  await petal("w").click();
  await page.getByRole("button", { name: "Clear facing" }).click();
  await mend(page, "1 facing is missing", "Mirror w");
  await goTo(page, "Clips");
  await expect(petal("w")).toHaveAccessibleName(/mirror of turn_1|turn_1.*mirror/);

  // An action without clips stops the delivery until it is removed.
  await page.getByRole("button", { name: "Empty", exact: true }).click();
  await page.keyboard.press("Escape");
  await mend(page, "It has no clip in any facing", "Remove the action");

  // A clip and an action of one name.
  await goTo(page, "Clips");
  await chooseIn(page, "Actions", "turn");
  await page.getByRole("textbox", { name: "Action name" }).fill("burst0");
  await page.getByRole("textbox", { name: "Action name" }).press("Enter");
  await mend(page, "A clip has the same name", "Rename the clip to burst0-clip");

  // A walking clip does not stop by itself.
  await goTo(page, "Clips");
  await chooseIn(page, "Clips", "burst_big");
  await page.getByRole("textbox", { name: "Clip name" }).fill("walk_round");
  await page.getByRole("textbox", { name: "Clip name" }).press("Enter");
  await mend(page, "It plays once and stops", "Play it in a loop");

  // An action of one facing plays it wherever the figure looks.
  await goTo(page, "Clips");
  await chooseIn(page, "Actions", "burst0");
  await page.getByRole("radio", { name: "1 way" }).click();
  await expect(page.getByRole("region", { name: "Wind rose of burst0" }).getByRole("button")).toHaveCount(1);
});
