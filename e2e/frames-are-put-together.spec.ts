import { readFileSync } from "node:fs";
import { readBundle } from "@caravan/core/bundle";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { at, COLOURS, clickAt, colourAt, onTheBench, part, pieces, stack, twoSteps } from "./bench";
import { expect, type Page, test } from "./fixtures";
import { delivered, dropAndCut, goTo, openEmpty, pngFile } from "./studio";

/** The sheet's colours as a palette, and one that replaces it and begins with the same colours. */
async function twoPalettes(page: Page): Promise<void> {
  await page.getByRole("button", { name: "New palette …" }).click();
  await page.getByRole("button", { name: "All ramps" }).click();
  await expect(page.getByRole("status").filter({ hasText: "5 colours" })).toBeVisible();
  await page.getByRole("button", { name: "Make it" }).click();
  await page.getByRole("button", { name: "New palette …" }).click();
  await page.getByRole("combobox", { name: "What the new palette replaces" }).click();
  await page.getByRole("option", { name: "replaces parts" }).click();
  await page.getByRole("button", { name: "Make it" }).click();
}

const pixel = ({ bytes, width }: Pixels, x: number, y: number) => [...bytes.subarray((y * width + x) * 4, (y * width + x) * 4 + 4)];

test("two steps are assembled from an empty canvas, play as a clip, and are delivered pixel for pixel", async ({ page }) => {
  await onTheBench(page);
  await twoSteps(page);
  await expect.poll(() => colourAt(page, 12, 4)).toEqual([...COLOURS[1], 255]);
  await page.keyboard.press("c");
  await page.keyboard.type("walk");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "walk" })).toBeVisible();
  // They are proposed for a rehearsal, moving, although they have no picture of their own.
  await goTo(page, "Rehearse");
  await expect(page.getByRole("region", { name: "What plays when" }).locator("img").first()).toBeVisible();
  const { frame } = await delivered(page);
  const [first, second] = [frame("parts figure/0"), frame("parts figure/1")];
  expect(pixel(first, 4, 4)).toEqual([...COLOURS[1], 255]);
  expect(pixel(first, 4, 12)).toEqual([...COLOURS[0], 255]);
  expect(pixel(first, 12, 4)[3]).toBe(0);
  expect(pixel(second, 12, 4)).toEqual([...COLOURS[1], 255]);
  expect(pixel(second, 4, 4)[3]).toBe(0);
  // All of it is there after a reload, and in the saved file.
  await page.reload();
  await goTo(page, "Frames");
  await expect(stack(page)).toHaveCount(2);
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const { project } = readBundle(new Uint8Array(readFileSync(await download.path())), "saved");
  expect(project.sources[1]?.frames.map(({ pieces: own }) => own?.map(({ of, x, y }) => [of, x, y]))).toEqual([
    [
      ["s1/c0r0", 0, 8],
      ["s1/c1r0", 0, 0],
    ],
    [
      ["s1/c0r0", 0, 8],
      ["s1/c1r0", 8, 0],
    ],
  ]);
});

test("a piece is dragged, flipped and moved down, and Alt reaches a piece below another", async ({ page }) => {
  await onTheBench(page);
  await part(page, 0).click();
  await clickAt(page, 4, 4);
  await part(page, 1).click();
  await clickAt(page, 4, 4);
  await part(page, 2).click();
  await clickAt(page, 12, 4);
  await page.keyboard.press("Escape");
  await expect.poll(() => colourAt(page, 4, 4)).toEqual([...COLOURS[1], 255]);
  // The blue one, over the red one: one step down, and the red one is seen.
  await clickAt(page, 4, 4);
  await page.keyboard.press("PageDown");
  await expect.poll(() => colourAt(page, 4, 4)).toEqual([...COLOURS[0], 255]);
  await expect(page.getByRole("button", { name: "Undo: lower 1 piece of parts figure/0" })).toBeVisible();
  await clickAt(page, 4, 4);
  await page.keyboard.down("Alt");
  await clickAt(page, 4, 4);
  await page.keyboard.up("Alt");
  await expect(page.getByRole("button", { name: "parts/1", exact: false, pressed: true })).toBeVisible();
  await page.keyboard.press("Delete");
  await expect(stack(page)).toHaveCount(2);
  // In its list the stack is dragged: the green one, on top, under the red one and back.
  const rows = page.getByRole("list", { name: "Stack" }).getByRole("listitem");
  const [upper, lower] = [await rows.nth(0).boundingBox(), await rows.nth(1).boundingBox()];
  if (!upper || !lower) throw new Error("There is no stack.");
  await page.mouse.move(upper.x + 60, upper.y + 12);
  await page.mouse.down();
  await page.mouse.move(lower.x + 60, lower.y + lower.height - 4, { steps: 8 });
  await page.mouse.up();
  await expect(rows.nth(1)).toContainText("parts/2");
  await page.keyboard.press("Control+z");
  await expect(rows.nth(0)).toContainText("parts/2");
  // The green one is dragged down by a grid line and flipped: its dot moves to the right.
  const [from, to] = [await at(page, 12, 4), await at(page, 12, 13)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByRole("textbox", { name: "y of the piece" })).toHaveValue("8");
  await page.keyboard.press("x");
  await expect.poll(() => colourAt(page, 15, 8)).toEqual([0, 0, 0, 255]);
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await expect.poll(() => colourAt(page, 12, 4)).toEqual([...COLOURS[2], 255]);
});

test("the sheet of pieces is redrawn, and every frame follows; a missing piece is striped and reported", async ({ page }) => {
  await onTheBench(page);
  await twoSteps(page);
  await goTo(page, "Sources");
  const sources = page.getByRole("list", { name: "Sources" }).getByRole("button");
  await sources.first().click();
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: "Replace its art" }).click()]);
  await chooser.setFiles({ name: "parts.png", mimeType: "image/png", buffer: Buffer.from(pngFile("parts.png", pieces([1])).bytes) });
  await page.getByRole("dialog", { name: "Changed art of parts" }).getByRole("button", { name: "Use new art" }).click();
  await sources.nth(1).click();
  await goTo(page, "Frames");
  await expect.poll(() => colourAt(page, 4, 4)).toEqual([90, 90, 90, 255]);
  await goTo(page, "Sources");
  await page
    .getByRole("list", { name: "Sources" })
    .getByRole("button", { name: /^parts\b(?! figure)/ })
    .click();
  await page.getByRole("button", { name: "Remove", exact: true }).click();
  await goTo(page, "Frames");
  await expect(page.getByRole("list", { name: "Findings on this frame" })).toContainText("A striped box stands for it");
});

test("a palette of the sheet and a variant of it recolour the selected piece; the step with another one is found and mended", async ({
  page,
}) => {
  await onTheBench(page);
  await twoSteps(page);
  await twoPalettes(page);
  const text = page.getByRole("textbox", { name: "Colours of parts variant as text" });
  const colours = (await text.inputValue()).split(" ");
  expect(colours).toHaveLength(5);
  await text.fill(colours.map((each) => (each === "#1482f0" ? "#f01482" : each)).join(" "));
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Wear parts variant" }).click();
  await expect.poll(() => colourAt(page, 12, 4)).toEqual([240, 20, 130, 255]);
  // A colour slides to another hue, and the piece follows; it is one undo step.
  await page
    .getByRole("button", { name: /^Colour \d of parts variant$/ })
    .and(page.locator('[title="#f01482"]'))
    .click();
  const hue = page.getByRole("slider", { name: /^hue of Colour/ });
  await hue.focus();
  for (let k = 0; k < 40; k++) await page.keyboard.press("ArrowLeft");
  await expect.poll(async () => (await colourAt(page, 12, 4))[0]).toBeLessThan(225);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+z");
  await expect.poll(() => colourAt(page, 12, 4)).toEqual([240, 20, 130, 255]);
  await page.keyboard.press("n");
  await page.getByRole("button", { name: "Wear own colours" }).click();
  await page.keyboard.press("n");
  await page.getByRole("button", { name: "Wear parts variant" }).click();
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Escape");
  await expect(page.getByTestId("bench")).toBeVisible();
  await page.getByRole("button", { name: /Make clip/ }).click();
  await page.keyboard.type("odd");
  await page.keyboard.press("Enter");
  await goTo(page, "Frames");
  await page.keyboard.press(",");
  const findings = page.getByRole("list", { name: "Findings on this frame" });
  await expect(findings).toContainText("parts/1 wears its own colours in step 2 of odd, and parts variant before and after.");
  await findings.getByRole("button", { name: "Wear parts variant here too" }).click();
  await expect(findings).toBeHidden();
  await expect.poll(() => colourAt(page, 12, 4)).toEqual([240, 20, 130, 255]);
  // The whole clip in other colours, as frames and a clip of their own.
  await page.getByRole("button", { name: "Make 1 clip in these colours" }).click();
  await goTo(page, "Clips");
  await page.keyboard.press("c");
  await page.getByRole("button", { name: "odd in 2 colours" }).click();
  const lanes = page.getByRole("list", { name: "Compared clips" }).getByRole("combobox", { name: /^Clip \d/ });
  await expect(lanes).toHaveText(["odd", "odd-parts variant"]);
  const { atlas, frame } = await delivered(page);
  expect(Object.keys(atlas.clips)).toEqual(["odd", "odd-parts variant"]);
  const dressed = atlas.clips["odd-parts variant"]?.steps[0]?.frame as string;
  expect(pixel(frame(dressed), 4, 4)).toEqual([240, 20, 130, 255]);
  expect(pixel(frame("parts figure/0"), 4, 4)).toEqual([...COLOURS[1], 255]);
});

test("tiles and colours are counted against set limits, and each frame's own are charted", async ({ page }) => {
  await onTheBench(page);
  await twoSteps(page);
  await page.getByRole("button", { name: "Count tiles and colours" }).click();
  const budget = page.getByText(/tiles drawn/);
  await expect(budget).toContainText("4 tiles drawn, 2 distinct");
  await page.getByRole("textbox", { name: /Limit of tiles/ }).fill("1");
  await page.keyboard.press("Enter");
  await expect(page.getByText("1 too many")).toBeVisible();
  await expect(page.getByRole("img", { name: "2 of 1 tiles" })).toBeVisible();
  // A piece more, and it is counted at once.
  await part(page, 2).click();
  await clickAt(page, 4, 4);
  await page.keyboard.press("Escape");
  await expect(budget).toContainText("5 tiles drawn, 3 distinct");
  await expect(page.getByRole("figure", { name: "Tiles of each frame alone; most: parts figure/1, 1" })).toBeVisible();
  await page.reload();
  await goTo(page, "Frames");
  await page.getByRole("button", { name: "Count tiles and colours" }).click();
  await expect(page.getByText("2 too many")).toBeVisible();
});

test("drawn frames are rebuilt from their distinct tiles, flipped ones once, and stay the same to the pixel", async ({ page }) => {
  await openEmpty(page);
  // Two frames of 16 × 8 px: a piece and its mirror image, and the same piece alone.
  const one = pieces();
  const sheet = clearPixels(32, 8);
  for (let y = 0; y < 8; y++)
    for (let x = 0; x < 8; x++) {
      const colour = one.bytes.subarray((y * 32 + x) * 4, (y * 32 + x) * 4 + 4);
      for (const at of [x, 15 - x, 16 + x]) sheet.bytes.set(colour, (y * 32 + at) * 4);
    }
  await dropAndCut(page, "walk.png", sheet, 2, 1);
  await goTo(page, "Frames");
  await page.getByRole("button", { name: "Count tiles and colours" }).click();
  await expect(page.getByText(/3 tiles drawn, 1 distinct/)).toBeVisible();
  await page.getByRole("button", { name: "Put together from its tiles" }).click();
  await expect(page.getByText("2 frames of walk put together from 1 tile, every pixel the same.")).toBeVisible();
  await expect(stack(page)).toHaveCount(2);
  await goTo(page, "Ship");
  await page.getByRole("checkbox", { name: "tiles and their positions" }).check();
  const { frame, names, files } = await delivered(page);
  const told = JSON.parse(new TextDecoder().decode([...files].find(([path]) => path.endsWith(".tiles.json"))?.[1]));
  expect([told.tiles, told.placed.length]).toEqual([1, 7]);
  expect(names).toEqual(["walk/0", "walk/1", "walk tiles/0", "walk of tiles/0", "walk of tiles/1"]);
  expect([...frame("walk of tiles/0").bytes]).toEqual([...frame("walk/0").bytes]);
  expect([...frame("walk of tiles/1").bytes]).toEqual([...frame("walk/1").bytes]);
  for (let k = 0; k < 2; k++) await page.keyboard.press("Control+z");
  await goTo(page, "Sources");
  await expect(page.getByRole("list", { name: "Sources" }).getByRole("button")).toHaveCount(1);
});

test("a piece is moved and replaced in all frames at once, and every frame is recoloured", async ({ page }) => {
  await onTheBench(page);
  await twoSteps(page);
  await page.getByRole("checkbox", { name: /^in all frames/ }).click();
  await part(page, 1).click();
  await expect(page.getByText("parts/1: on 2 frames")).toBeVisible();
  await page.getByRole("button", { name: "Pick them" }).click();
  await expect(page.getByRole("listbox").getByRole("option", { selected: true })).toHaveCount(2);
  await page.keyboard.press("Escape");
  await page.keyboard.press(".");
  await clickAt(page, 12, 4);
  // The blue piece is at 0, 0 on the first frame and at 8, 0 on the second, which is on the bench.
  await page.keyboard.press("ArrowDown");
  await expect.poll(() => colourAt(page, 12, 8)).toEqual([...COLOURS[1], 255]);
  await expect(page.getByRole("button", { name: "Undo: move parts/1 in 2 frames" })).toBeVisible();
  await part(page, 3).click();
  await page.getByRole("button", { name: "Replace by parts/3" }).click();
  await page.keyboard.press("Escape");
  await expect.poll(() => colourAt(page, 12, 8)).toEqual([...COLOURS[3], 255]);
  await page.keyboard.press(",");
  await expect.poll(() => colourAt(page, 4, 7)).toEqual([...COLOURS[3], 255]);
  await twoPalettes(page);
  const text = page.getByRole("textbox", { name: "Colours of parts variant as text" });
  await text.fill((await text.inputValue()).replace("#e6c85a", "#5ae6c8"));
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Recolour every frame" }).click();
  await expect.poll(() => colourAt(page, 4, 7)).toEqual([90, 230, 200, 255]);
  await page.keyboard.press(".");
  await expect.poll(() => colourAt(page, 12, 8)).toEqual([90, 230, 200, 255]);
});

test("pieces of a group are selected and dragged together, a single one with Alt, until they are ungrouped", async ({ page }) => {
  await onTheBench(page);
  await part(page, 0).click();
  await clickAt(page, 4, 4);
  await part(page, 1).click();
  await clickAt(page, 12, 4);
  await page.keyboard.press("Escape");
  await page.keyboard.press("Control+a");
  await page.keyboard.press("g");
  await expect(page.getByRole("list", { name: "Stack" })).toContainText("group 1");
  await clickAt(page, 18, 12);
  const drag = async (from: readonly [number, number], to: readonly [number, number]) => {
    const [start, end] = [await at(page, ...from), await at(page, ...to)];
    await page.mouse.move(start.x, start.y);
    await page.mouse.down();
    await page.mouse.move(end.x, end.y, { steps: 5 });
    await page.mouse.up();
  };
  await drag([4, 4], [4, 12]);
  await expect.poll(() => colourAt(page, 4, 12)).toEqual([...COLOURS[0], 255]);
  await expect.poll(() => colourAt(page, 12, 12)).toEqual([...COLOURS[1], 255]);
  await page.keyboard.down("Alt");
  await clickAt(page, 12, 12);
  await page.keyboard.up("Alt");
  await page.keyboard.press("Shift+ArrowUp");
  await expect.poll(() => colourAt(page, 12, 4)).toEqual([...COLOURS[1], 255]);
  await expect.poll(() => colourAt(page, 4, 12)).toEqual([...COLOURS[0], 255]);
  await page.keyboard.press("Shift+g");
  await clickAt(page, 4, 12);
  await page.keyboard.press("Delete");
  await expect(stack(page)).toHaveCount(1);
});

test("near-duplicate pieces are shown in place, and one replaces both: the frames follow, the art stays", async ({ page }) => {
  const sheet = pieces();
  // The second piece becomes the first one's mirror, but for three pixels.
  for (let y = 0; y < 8; y++)
    for (let x = 0; x < 8; x++) {
      const dot = x >= 6 && y < 2;
      const slip = y === 7 && x < 3;
      sheet.bytes.set([...(dot ? [0, 0, 0] : slip ? [90, 90, 90] : COLOURS[0]), 255], (y * 32 + 8 + x) * 4);
    }
  await openEmpty(page);
  await dropAndCut(page, "parts.png", sheet, 4, 1);
  await goTo(page, "Frames");
  await page.getByRole("button", { name: "Put together from pieces" }).click();
  await part(page, 0).click();
  await clickAt(page, 4, 4);
  await part(page, 1).click();
  await clickAt(page, 12, 4);
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Count tiles and colours" }).click();
  await page.getByRole("button", { name: "Find near-duplicate pieces" }).click();
  const pairs = page.getByRole("list", { name: "Near-duplicate pieces" }).getByRole("listitem");
  await expect(pairs).toHaveCount(1);
  await expect(pairs).toContainText("They differ in 3 pixels, flipped across.");
  await pairs.getByTitle("Use parts/0 for both").click();
  await expect(pairs).toHaveCount(0);
  await expect.poll(() => colourAt(page, 9, 7)).toEqual([...COLOURS[0], 255]);
  await expect.poll(() => colourAt(page, 15, 0)).toEqual([0, 0, 0, 255]);
  await expect(page.getByText(/tiles? drawn/)).toContainText("2 tiles drawn, 1 distinct");
  await page.keyboard.press("Control+z");
  await expect(pairs).toHaveCount(1);
  await expect.poll(() => colourAt(page, 9, 7)).toEqual([90, 90, 90, 255]);
});

test("with several frames picked, a piece is moved only in those", async ({ page }) => {
  await onTheBench(page);
  await part(page, 0).click();
  await clickAt(page, 4, 4);
  await page.keyboard.press("Escape");
  for (let k = 0; k < 2; k++) await page.keyboard.press("n");
  await expect(page.getByText("parts figure/2 ·")).toBeVisible();
  const tray = page.getByRole("listbox").getByRole("option");
  await tray.nth(0).click();
  await tray.nth(1).click({ modifiers: ["Shift"] });
  await clickAt(page, 4, 4);
  await page.getByRole("checkbox", { name: /^in all frames/ }).click();
  await page
    .getByTestId("bench")
    .focus()
    .catch(() => undefined);
  await page.keyboard.press("Shift+ArrowDown");
  await expect(page.getByRole("button", { name: "Undo: move parts/0 in 2 frames" })).toBeVisible();
});
