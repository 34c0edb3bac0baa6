import { violationsOn } from "./axe";
import { expect, type Page, test } from "./fixtures";
import { clipOfRows, dropAndCut, figureSheet, goTo, openEmpty, openStudio } from "./studio";

const field = (page: Page) => page.getByRole("combobox", { name: "What to find" });

async function find(page: Page, words: string): Promise<void> {
  await page.keyboard.press("Control+k");
  await field(page).fill(words);
  await page.keyboard.press("Enter");
  await expect(field(page)).toBeHidden();
}

test("Ctrl+K finds commands, clips, actions and sources by their words, and runs or opens them", async ({ page }) => {
  await openStudio(page);
  await find(page, "walk-nw");
  await expect(page.getByRole("heading", { name: "walk-nw" })).toBeVisible();
  await find(page, "idle action");
  await expect(page.getByRole("region", { name: "Wind rose of idle" })).toBeVisible();
  await find(page, "campfire source");
  await expect(page.getByRole("list", { name: "Sheets" }).getByRole("button", { name: /campfire/ })).toHaveAttribute(
    "aria-current",
    "true",
  );
  await find(page, "go to ship");
  await expect(page.getByTestId("proof")).toBeVisible();
  await page.keyboard.press("Control+k");
  await field(page).fill("no such thing");
  await expect(page.getByText("No matches.")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(field(page)).toBeHidden();
  // In day and in dusk.
  await page.keyboard.press("Control+k");
  await expect(page.getByRole("listbox", { name: "Found" }).getByRole("option").first()).toBeVisible();
  for (const colorScheme of ["light", "dark"] as const) {
    await page.emulateMedia({ colorScheme });
    expect(await violationsOn(page, { part: '[role="dialog"]' })).toEqual([]);
  }
});

test("commands at Clips do the same by Ctrl+K as by their keys, and none throws", async ({ page }) => {
  const errors: string[] = [];
  page.on("pageerror", ({ message }) => errors.push(message));
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 2), 4, 2);
  await clipOfRows(page, 1, "walk");
  await page.keyboard.press("Control+k");
  const labels = await page
    .getByRole("listbox", { name: "Found" })
    .getByRole("option")
    .evaluateAll((all) => all.filter((each) => each.querySelector("kbd")).map((each) => each.querySelector("span")?.textContent ?? ""));
  await page.keyboard.press("Escape");
  expect(labels.length).toBeGreaterThan(30);
  // Those that open the system's window for files, leave the stop, or only move a choice about are tried elsewhere.
  const others = /file|folder|picture|Go to|Deliver|ZIP|project|art|step|previous|next|selected|whole window/i;
  for (const label of labels.filter((each) => !others.test(each))) {
    await find(page, label);
    for (let k = 0; k < 2; k++) await page.keyboard.press("Escape");
    await expect(page.getByRole("dialog"), label).toHaveCount(0, { timeout: 5000 });
    await goTo(page, "Clips");
  }
  expect(errors).toEqual([]);
  // The same as by its key: a clip's steps are reversed.
  await goTo(page, "Clips");
  await page.getByRole("list", { name: "Clips" }).getByRole("button").first().click();
  const names = () =>
    page
      .getByRole("button", { name: /^Step \d+:/ })
      .evaluateAll((all) => all.map((each) => each.getAttribute("aria-label")?.replace(/^Step \d+: /, "")));
  const before = await names();
  await find(page, "reverse");
  await expect.poll(names).toEqual(before.toReversed());
  await page.keyboard.press("Control+z");
  await expect.poll(names).toEqual(before);
});
