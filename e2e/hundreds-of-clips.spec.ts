/** Hundreds of clips and sheets: lists that are not fully rendered select, scroll and keep the focus as if they were. */
import { writeBundle } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { addClip, addSources, cutSource } from "@caravan/core/edit";
import { emptyProject, type FrameRef, type SourceId } from "@caravan/core/model";
import { coverageOf } from "@caravan/core/raster";
import { violationsOn } from "./axe";
import { expect, test } from "./fixtures";
import { dropFiles, figureSheet, goTo, openEmpty, pngFile } from "./studio";

const COUNT = 300;

function manyClips(): Uint8Array {
  const sheet = figureSheet(4, 2);
  const { bytes } = pngFile("hero.png", sheet);
  const sha256 = sha256Hex(bytes);
  const none = { x: 0, y: 0 };
  const cell = { w: sheet.width / 4, h: sheet.height / 2 };
  let project = addSources(emptyProject("Many"), [{ fileName: "hero.png", sha256, width: sheet.width, height: sheet.height }]);
  project = cutSource(project, "s1" as SourceId, { by: "cell", cell, margin: none, gap: none, keepEmpty: false }, coverageOf(sheet));
  const refs = ["s1/c0r0", "s1/c1r0", "s1/c2r0"] as FrameRef[];
  for (let k = 0; k < COUNT; k++) project = addClip(project, refs, `clip-${String(k).padStart(3, "0")}`);
  return writeBundle({ project, pictures: new Map([[sha256, bytes]]) });
}

test("of hundreds of clips only visible ones are rendered, and keys, clicks and the finder reach all", async ({ page }) => {
  await openEmpty(page);
  await dropFiles(page, [{ name: "many.caravan", bytes: manyClips() }]);
  await expect(page).toHaveTitle(/^Many/);
  await goTo(page, "Clips");
  const list = page.getByRole("list", { name: "Clips" });
  const row = (k: number) => list.getByRole("button", { name: `clip-${String(k).padStart(3, "0")}` });
  await row(0).click();
  await expect(page.getByRole("heading", { name: "clip-000" })).toBeVisible();
  expect(await list.getByRole("button").count()).toBeLessThan(100);
  await expect(list.getByRole("listitem").first()).toHaveAttribute("aria-setsize", String(COUNT));

  // Sixty rows down, far beyond what was in the document.
  for (let k = 0; k < 60; k++) await page.keyboard.press("ArrowDown");
  await expect(row(60)).toBeFocused();
  await expect(row(60)).toBeInViewport();
  await expect(page.getByRole("heading", { name: "clip-060" })).toBeVisible();

  // Scrolled to the end, what has the focus is still there.
  await page.getByRole("region", { name: "Clips: list" }).evaluate((element) => element.scrollTo(0, element.scrollHeight));
  await expect(row(299)).toBeInViewport();
  await expect(row(60)).toBeFocused();
  await row(299).click();
  await expect(page.getByRole("heading", { name: "clip-299" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Ribbons" }).getByRole("button", { name: "Select clip-298" })).toBeInViewport();

  await page.keyboard.press("Control+k");
  await page.getByRole("combobox").fill("clip-150");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "clip-150" })).toBeVisible();
  await expect(row(150)).toBeInViewport();
  await page.getByRole("button", { name: "Select clip-152" }).click();
  await expect(row(152)).toHaveAttribute("aria-current", "true");

  await goTo(page, "Rehearse");
  await expect(page.getByText(/^and 9\d more, which rules can play later$/)).toBeVisible();

  // Of those ticked for a delivery, too.
  await goTo(page, "Ship");
  await page.getByRole("radio", { name: "Clips", exact: true }).click();
  const ticks = page.getByRole("group", { name: "Chosen clips" });
  await expect(ticks.getByRole("checkbox", { name: "clip-000" })).toBeChecked();
  expect(await ticks.getByRole("checkbox").count()).toBeLessThan(100);
  await ticks.hover();
  await page.mouse.wheel(0, 20_000);
  // It stays at its end when what is there has been drawn.
  await expect(ticks.getByRole("checkbox", { name: "clip-299" })).toBeInViewport();
  await page.waitForTimeout(500);
  await expect(ticks.getByRole("checkbox", { name: "clip-299" })).toBeInViewport();
  await ticks.getByRole("checkbox", { name: "clip-299" }).click();
  await expect(page.getByText("299 of 300 clips included")).toBeVisible();
  await expect(ticks.getByRole("checkbox", { name: "clip-299" })).toBeFocused();
  await page.mouse.wheel(0, -20_000);
  await expect(ticks.getByRole("checkbox", { name: "clip-000" })).toBeInViewport();
  await expect(ticks.getByRole("checkbox", { name: "clip-299" })).toBeFocused();
});

test("of hundreds of sheets only those near the visible ones are read, and scrolling reads further ones", async ({ page }) => {
  const sheet = figureSheet(2, 1);
  const pictures = new Map<string, Uint8Array>();
  const art = Array.from({ length: 200 }, (_, k) => {
    // Each sheet is another picture.
    const pixels = { ...sheet, bytes: sheet.bytes.slice() };
    pixels.bytes.set([k, 255 - k, 90, 255], 0);
    const { bytes } = pngFile("", pixels);
    const sha256 = sha256Hex(bytes);
    pictures.set(sha256, bytes);
    return { fileName: `sheet-${String(k).padStart(3, "0")}.png`, sha256, width: sheet.width, height: sheet.height };
  });
  await openEmpty(page);
  await dropFiles(page, [{ name: "sheets.caravan", bytes: writeBundle({ project: addSources(emptyProject("Sheets"), art), pictures }) }]);
  await expect(page).toHaveTitle(/^Sheets/);
  await goTo(page, "Sources");
  const wall = page.getByRole("list", { name: "Pictures" });
  await expect(wall.getByRole("listitem")).toHaveCount(200);
  await expect(wall.getByRole("button", { name: /^sheet-000 .*colours/ })).toBeVisible();
  expect(await wall.locator("canvas").count()).toBeLessThan(60);
  const last = wall.getByRole("button", { name: /^sheet-199/ });
  await last.scrollIntoViewIfNeeded();
  await expect(last).toHaveAccessibleName(/colours/);
  // The arrow keys bring the neighbour into view.
  await last.click();
  await page.keyboard.press("ArrowLeft");
  await expect(wall.getByRole("button", { name: /^sheet-198/ })).toHaveAttribute("aria-pressed", "true");
  await expect(wall.getByRole("button", { name: /^sheet-198/ })).toBeInViewport();
});

test("one of hundreds is chosen by typing part of its name, by keys or by the pointer, and only what is in sight is rendered", async ({
  page,
}) => {
  await openEmpty(page);
  await dropFiles(page, [{ name: "many.caravan", bytes: manyClips() }]);
  await expect(page).toHaveTitle(/^Many/);
  await goTo(page, "Clips");
  const shown = page.getByRole("combobox", { name: "Clip in the player" });
  const options = page.getByRole("option");
  const list = page.getByRole("listbox", { name: "Clip in the player" });
  const chosen = page.getByRole("list", { name: "Clips" }).locator("[aria-current=true]");
  await page.getByRole("button", { name: "Select clip-002" }).click();
  await goTo(page, "Ship");
  await shown.focus();
  await page.keyboard.press("ArrowDown");
  await expect(options.filter({ hasText: "clip-002" })).toHaveAttribute("aria-selected", "true");
  await expect(options.first()).toHaveAttribute("aria-setsize", String(COUNT));
  expect(await options.count()).toBeLessThan(60);
  expect(await violationsOn(page)).toEqual([]);

  await page.keyboard.type("27");
  await expect(options).toHaveCount(13);
  await page.keyboard.press("PageDown");
  await page.keyboard.press("PageDown");
  await page.keyboard.press("ArrowUp");
  await page.keyboard.press("Enter");
  await expect(list).toBeHidden();
  await expect(shown).toHaveText("clip-278");
  await expect(shown).toBeFocused();
  await page.keyboard.type("144");
  await page.keyboard.press("Enter");
  await expect(shown).toHaveText("clip-144");

  // All are there for the wheel, too; a name that nothing has leaves the choice.
  await shown.click();
  await list.hover();
  await page.mouse.wheel(0, 20_000);
  await options.filter({ hasText: "clip-299" }).click();
  await expect(shown).toHaveText("clip-299");
  await shown.click();
  await page.keyboard.type("nothing");
  await expect(page.getByText("No matches.")).toBeVisible();
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await expect(shown).toHaveText("clip-299");
  await goTo(page, "Clips");
  await expect(chosen).toContainText("clip-299");
});
