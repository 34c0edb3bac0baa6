/** Marks and origins along a clip: steadied in one act, filled in, copied to the opposite facing. */
import { writeBundle } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { addAction, addClip, addSources, cutSource, setPetal } from "@caravan/core/edit";
import { type ActionName, type ClipName, emptyProject, type FrameRef, type SourceId } from "@caravan/core/model";
import { clearPixels, coverageOf, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { newKind, strollAtMarks } from "./marks";
import { delivered, dropFiles, goTo, openEmpty, png, saved } from "./studio";

/** Four cells of 24 × 24 px with one figure, each cut too far to the right and down by a given offset. */
const SHIFTS = [
  [0, 0],
  [2, 1],
  [-1, 2],
  [1, -1],
] as const;

function unevenSheet(): Pixels {
  const made = clearPixels(96, 24);
  for (const [k, [dx, dy]] of SHIFTS.entries())
    for (let y = 4; y < 20; y++)
      for (let x = 8; x < 16; x++)
        if (y > 9 || (x > 9 && x < 14)) made.bytes.set([180, 80 + k, 40, 255], ((y + dy) * 96 + k * 24 + x + dx) * 4);
  return made;
}

const canvas = (page: Page) => page.getByTestId("marks-canvas");
const look = (page: Page, step: number) => page.getByRole("button", { name: new RegExp(`^Look at step ${step}:`) }).click();

test("an unevenly cut clip is steadied in one act; the chart shows before and after, and undo reverts it", async ({ page }) => {
  await strollAtMarks(page, unevenSheet());
  const chart = page.getByRole("region", { name: "Drift" });
  await expect(chart.getByRole("figure")).toHaveAccessibleName(/feet 2 to 5 px/);
  await page.getByRole("button", { name: "Steady the clip" }).click();
  await expect(page.getByText("Steadied stroll: 3 frames moved.")).toBeVisible();
  await expect(chart.getByRole("figure")).toHaveAccessibleName(
    /feet 4 px over the ground, middle .* Before it was steadied: feet 2 to 5 px/,
  );
  for (const [k, [dx, dy]] of SHIFTS.entries()) {
    await look(page, k);
    await expect(canvas(page)).toHaveAttribute("aria-label", `hero/${k} with its origin at ${12 + dx}, ${24 + dy}`);
  }
  await page.getByRole("button", { name: "Steady the clip" }).click();
  await expect(page.getByText("stroll is already steady:")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(chart.getByRole("figure")).not.toHaveAccessibleName(/before it was steadied/);
  await expect(canvas(page)).toHaveAttribute("aria-label", "hero/3 with its origin at 12, 24");
  // Along one axis alone, and from the drawing too.
  await page.getByRole("radio", { name: "y", exact: true }).click();
  await page.getByRole("button", { name: "Steady the clip, y alone" }).click();
  await expect(canvas(page)).toHaveAttribute("aria-label", "hero/3 with its origin at 12, 23");
  await page.getByRole("checkbox", { name: "each frame by its own drawing" }).check();
  await page.getByRole("radio", { name: "x", exact: true }).click();
  await page.getByRole("button", { name: "Feet", exact: true }).click();
  await expect(canvas(page)).toHaveAttribute("aria-label", "hero/3 with its origin at 13, 23");
});

test("a hand set on two steps is interpolated between, and copied to the opposite facing", async ({ page }) => {
  await strollAtMarks(page, unevenSheet());
  await newKind(page, "New points", "hand");
  await page.getByRole("radio", { name: "Frame", exact: true }).click();
  const put = async (step: number, left: number) => {
    await look(page, step);
    await page.getByRole("button", { name: "At the origin" }).click();
    for (let k = 0; k < left; k++) {
      await canvas(page).focus();
      await page.keyboard.press("ArrowLeft");
    }
  };
  await put(0, 0);
  await put(2, 4);
  await expect(page.getByRole("list", { name: "Steps to look at" })).toContainText("no hand");
  await page.getByRole("button", { name: "Fill in the 2 missing steps" }).click();
  for (const [step, x] of [12, 10, 8, 10].entries()) {
    await look(page, step);
    await expect(canvas(page)).toHaveAttribute("aria-label", `hero/${step} with hand at ${x}, 24`);
  }
  await expect(page.getByRole("list", { name: "Steps to look at" })).not.toContainText("no hand");
});

test("marks of one facing are copied to the opposite one, mirrored, if there is one", async ({ page }) => {
  const pixels = unevenSheet();
  const bytes = png.encode(pixels);
  const sha256 = sha256Hex(bytes);
  const cut = { by: "cell", cell: { w: 24, h: 24 }, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, keepEmpty: false } as const;
  const refs = [0, 1, 2, 3].map((k) => `s1/c${k}r0` as FrameRef);
  let project = addSources(emptyProject("sides"), [{ fileName: "hero.png", sha256, width: 96, height: 24 }]);
  project = cutSource(project, "s1" as SourceId, cut, coverageOf(pixels));
  project = addClip(addClip(addClip(project, refs.slice(0, 2), "walk-e"), refs.slice(2), "walk-w"), refs, "idle");
  project = setPetal(addAction(project, "walk", 2), "walk" as ActionName, "e", { clip: "walk-e" as ClipName });
  project = setPetal(project, "walk" as ActionName, "w", { clip: "walk-w" as ClipName });
  await openEmpty(page);
  await dropFiles(page, [{ name: "sides.caravan", bytes: writeBundle({ project, pictures: new Map([[sha256, bytes]]) }) }]);
  await expect(page).toHaveTitle(/^sides/);
  await goTo(page, "Marks");
  await page
    .getByRole("list", { name: "Clips" })
    .getByRole("button", { name: /^walk-e/ })
    .click();
  await newKind(page, "New points", "hand");
  await page.getByRole("button", { name: "At the origin" }).click();
  for (let k = 0; k < 3; k++) {
    await canvas(page).focus();
    await page.keyboard.press("ArrowLeft");
  }
  await page.getByRole("button", { name: "Copy to walk-w, mirrored" }).click();
  await page.getByRole("list", { name: "Clips" }).getByRole("button", { name: /^idle/ }).click();
  await expect(page.getByRole("button", { name: /^Copy to/ })).toHaveCount(0);
  await saved(page);
  const { atlas } = await delivered(page);
  expect([0, 1, 2, 3].map((k) => atlas.frames[`hero/${k}`]?.points?.hand)).toEqual([9, 9, 15, 15].map((x) => ({ x, y: 24 })));
});
