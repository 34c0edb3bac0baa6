/** Outlines for collisions: traced, steadied, edited by mouse and keys, traced again with new art, delivered to the game. */
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { drag, frameToScreen, newKind, strollAtMarks } from "./marks";
import { choose, delivered, goTo, pngFile, saved, typeNumber } from "./studio";

const CELL = { w: 16, h: 16 };

/** Four frames with a block of 8 × 10 px whose bottom is at y 14; the third is `dip` px lower. With `wide`, blocks are 10 px wide. */
function blocks(dip: number, wide = false): Pixels {
  const sheet = clearPixels(64, 16);
  for (let cell = 0; cell < 4; cell++)
    for (let y = 4; y < 14; y++)
      for (let x = 4; x < (wide ? 14 : 12); x++)
        sheet.bytes.set([200, 90 + cell * 20, 40, 255], ((y + (cell === 2 ? dip : 0)) * 64 + cell * 16 + x) * 4);
  return sheet;
}

const block = (top: number, bottom: number, right = 12) => `4, ${top} ${right}, ${top} ${right}, ${bottom} 4, ${bottom}`;

async function strollWithOutlines(page: Page, dip: number): Promise<void> {
  await strollAtMarks(page, blocks(dip));
  await newKind(page, "New outlines", "solid");
}

/** After a reload, the outlines chosen again. */
async function again(page: Page): Promise<void> {
  await page.reload();
  await goTo(page, "Marks");
  await page
    .getByRole("list", { name: "Marks" })
    .getByRole("button", { name: /^solid/ })
    .click();
}

const canvas = (page: Page) => page.getByTestId("marks-canvas");
const shown = (page: Page, of: string, corners: string) =>
  expect(canvas(page)).toHaveAttribute("aria-label", corners === "" ? `${of} without solid` : `${of} with solid at ${corners}`);
const corners = (text: string) =>
  text.split(/ (?=\d+,)/).map((each) => ({ x: Number(each.split(", ")[0]), y: Number(each.split(", ")[1]) }));

test("an outline that dips on one step is found, charted, shared over the clip, and delivered", async ({ page }) => {
  await strollWithOutlines(page, 2);
  await shown(page, "hero/0", block(4, 14));
  await expect(page.getByRole("list", { name: "Marks" }).getByRole("button", { name: /^solid/ })).toContainText("4/4");
  await expect(page.getByRole("figure", { name: /^Outline over 4 steps: bottom 0 to 2 px/ })).toBeVisible();
  const findings = page.getByRole("list", { name: "Findings on these marks" });
  await expect(findings).toContainText("On one step the lower edge of solid lies 2 px lower than on the others");
  await findings.getByRole("button", { name: "One outline for all of stroll" }).click();
  await expect(findings).toBeHidden();
  await expect(page.getByRole("figure", { name: /^Outline over 4 steps: bottom 2 px/ })).toBeVisible();
  for (let k = 0; k < 2; k++) await page.keyboard.press(".");
  await shown(page, "hero/2", block(4, 14));
  await choose(page, page.getByRole("combobox", { name: "One outline for all of stroll" }), "what any frame covers");
  await shown(page, "hero/2", block(4, 16));
  await page.keyboard.press("Control+z");
  await shown(page, "hero/2", block(4, 14));
  const { atlas, names } = await delivered(page);
  for (const name of names) expect(atlas.frames[name]?.outlines).toEqual({ solid: [corners(block(4, 14))] });
  // All of it is there after a reload.
  await again(page);
  await shown(page, "hero/0", block(4, 14));
});

test("corners are moved by keys and pointer, added on edges and removed, and the traced line can be restored", async ({ page }) => {
  await strollWithOutlines(page, 0);
  await shown(page, "hero/0", block(4, 14));
  await page.getByRole("radio", { name: "Frame", exact: true }).click();
  await page.keyboard.press("c");
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Corner x" })).toHaveValue("12");
  await expect(page.getByRole("textbox", { name: "Corner y" })).toHaveValue("4");
  for (let k = 0; k < 3; k++) await page.keyboard.press("ArrowRight");
  await shown(page, "hero/0", "4, 4 15, 4 12, 14 4, 14");
  await expect(page.getByText("Your own corners.")).toBeVisible();
  // Moved three times, one step back.
  await page.keyboard.press("Control+z");
  await shown(page, "hero/0", block(4, 14));
  await expect(page.getByText("80 px² Traced.")).toBeVisible();
  const screen = await frameToScreen(page, CELL);
  await drag(page, screen(12, 14), screen(14, 15));
  await shown(page, "hero/0", "4, 4 12, 4 14, 15 4, 14");
  await drag(page, screen(4, 9), screen(1, 9));
  await shown(page, "hero/0", "4, 4 12, 4 14, 15 4, 14 1, 9");
  // A corner that would make it cross itself is refused in words, and nothing is changed.
  await drag(page, screen(1, 9), screen(15, 2));
  await expect(page.getByText("It would cross or touch itself", { exact: false })).toBeVisible();
  await shown(page, "hero/0", "4, 4 12, 4 14, 15 4, 14 1, 9");
  await page.mouse.click(screen(1, 9).x, screen(1, 9).y);
  await page.keyboard.press("Delete");
  await shown(page, "hero/0", "4, 4 12, 4 14, 15 4, 14");
  await page.keyboard.press(".");
  await shown(page, "hero/1", block(4, 14));
  await page.keyboard.press(",");
  await page.getByRole("button", { name: "Remove outline" }).click();
  await shown(page, "hero/0", "");
  // Drawn by hand, for the whole clip; then a number is typed.
  await page.getByRole("radio", { name: "Clip", exact: true }).click();
  await drag(page, screen(2, 2), screen(9, 6));
  await shown(page, "hero/0", "2, 2 9, 2 9, 6 2, 6");
  await page.keyboard.press(".");
  await shown(page, "hero/1", "2, 2 9, 2 9, 6 2, 6");
  await page.keyboard.press("c");
  await typeNumber(page, "Corner x", 1);
  await shown(page, "hero/1", "1, 2 9, 2 9, 6 2, 6");
  await page.getByRole("textbox", { name: "Corner y" }).fill("30");
  await page.keyboard.press("Enter");
  await expect(page.getByText("It would cross or touch itself", { exact: false }).last()).toBeVisible();
  await page.keyboard.press("Escape");
  await saved(page);
  await again(page);
  await shown(page, "hero/0", "1, 2 9, 2 9, 6 2, 6");
  await page.getByRole("button", { name: "Trace it again" }).click();
  await shown(page, "hero/0", block(4, 14));
});

test("tracing settings are changed by numbers, and redrawn art is traced again while a person's corners stay", async ({ page }) => {
  await strollWithOutlines(page, 0);
  await typeNumber(page, "Grow by", 2);
  await expect(page.getByRole("status").filter({ hasText: "12 × 14 px" })).toBeVisible();
  await typeNumber(page, "Grow by", 0);
  await expect(page.getByText("80 px² Traced.")).toBeVisible();
  await page.getByRole("radio", { name: "Frame", exact: true }).click();
  await page.keyboard.press("c");
  await page.keyboard.press("ArrowUp");
  await shown(page, "hero/0", "4, 3 12, 4 12, 14 4, 14");
  await goTo(page, "Sources");
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: "Replace its art" }).click()]);
  await chooser.setFiles({ name: "hero.png", mimeType: "image/png", buffer: Buffer.from(pngFile("hero.png", blocks(0, true)).bytes) });
  await page.getByRole("dialog", { name: "Changed art of hero" }).getByRole("button", { name: "Use new art" }).click();
  await goTo(page, "Marks");
  await shown(page, "hero/0", "4, 3 12, 4 12, 14 4, 14");
  await page.keyboard.press(".");
  await shown(page, "hero/1", block(4, 14, 14));
  const { atlas } = await delivered(page);
  expect(atlas.frames["hero/0"]?.outlines).toEqual({ solid: [corners("4, 3 12, 4 12, 14 4, 14")] });
  expect(atlas.frames["hero/3"]?.outlines).toEqual({ solid: [corners(block(4, 14, 14))] });
});
