import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Rect } from "@caravan/core/model";
import { coverageOf, crop, drawnPart } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { choose, goTo, openStudio, png, problemOn, typeNumber } from "./studio";

const steps = (page: Page) => page.getByRole("button", { name: /^Step \d+:/ });
const framesShown = async (page: Page) =>
  (await steps(page).evaluateAll((all) => all.map((each) => each.getAttribute("aria-label") ?? ""))).map((label) =>
    Number(/\/(\d+),/.exec(label)?.[1]),
  );

test.beforeEach(async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Clips");
  await page
    .getByRole("list", { name: "Clips" })
    .getByRole("button", { name: /^walk-e/ })
    .click();
  await expect(steps(page)).toHaveCount(8);
});

test("steps are reordered by drag and by keys, dropped and brought back", async ({ page }) => {
  const box = async (index: number) =>
    (await steps(page).nth(index).boundingBox()) as { x: number; y: number; width: number; height: number };
  const from = await box(0);
  const to = await box(2);
  await page.mouse.move(from.x + 20, from.y + 50);
  await page.mouse.down();
  await page.mouse.move(from.x + 60, from.y + 50, { steps: 4 });
  await page.mouse.move(to.x + to.width / 2, to.y + 50, { steps: 8 });
  await page.mouse.up();
  await expect.poll(() => framesShown(page)).toEqual([17, 18, 16, 19, 20, 21, 22, 23]);
  await page.keyboard.press("Control+z");
  await expect.poll(() => framesShown(page)).toEqual([16, 17, 18, 19, 20, 21, 22, 23]);

  await page.getByRole("region", { name: "Ribbons" }).focus();
  await page.keyboard.press("Escape");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Shift+ArrowRight");
  await page.keyboard.press("Alt+ArrowRight");
  await expect.poll(() => framesShown(page)).toEqual([18, 16, 17, 19, 20, 21, 22, 23]);
  await page.keyboard.press("Delete");
  await expect.poll(() => framesShown(page)).toEqual([18, 19, 20, 21, 22, 23]);
  await expect(page.getByRole("button", { name: "Undo: drop 2 frames from walk-e" })).toBeVisible();
});

test("frames are added by drag and by key at the right place", async ({ page }) => {
  await choose(page, page.getByRole("combobox", { name: "Frames of" }), "porter-walk");
  const first = page.getByRole("option", { name: "porter-walk/0", exact: true });
  const from = (await first.boundingBox()) as { x: number; y: number };
  const to = (await steps(page).nth(3).boundingBox()) as { x: number; y: number; width: number };
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(from.x + 30, from.y - 40, { steps: 4 });
  await page.mouse.move(to.x + 8, to.y + 40, { steps: 8 });
  await page.mouse.up();
  await expect(steps(page)).toHaveCount(9);
  expect(await framesShown(page)).toContain(0);

  await page.getByRole("option", { name: "porter-walk/1", exact: true }).click();
  await page.getByRole("option", { name: "porter-walk/3", exact: true }).click({ modifiers: ["Shift"] });
  await steps(page).nth(8).click();
  await page.getByRole("region", { name: "Ribbons" }).focus();
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await framesShown(page)).slice(-3)).toEqual([1, 2, 3]);
});

test("speed can be set in three ways, and all agree", async ({ page }) => {
  const field = (name: string) => page.getByRole("textbox", { name, exact: true });
  await typeNumber(page, "Milliseconds a step", 62.5);
  await expect(field("Frames per second")).toHaveValue("16");
  await expect(field("Seconds in all")).toHaveValue("0.5");
  await typeNumber(page, "Seconds in all", 0.75);
  await expect(field("Milliseconds a step")).toHaveValue("93.75");
  await expect(steps(page).first()).toHaveAccessibleName(/93\.75 ms/);
  // A step of another length keeps its proportion when the whole gets faster.
  await steps(page).nth(2).click();
  await typeNumber(page, "Milliseconds of the selected steps", 187.5);
  await typeNumber(page, "Seconds in all", 0.421875);
  await expect(steps(page).nth(2)).toHaveAccessibleName(/93\.75 ms/);
  await expect(steps(page).nth(3)).toHaveAccessibleName(/46\.875 ms/);
  await typeNumber(page, "Frames per second", 0);
  await expect(problemOn(page)).toContainText("Type a number from");
});

test("a clip plays once, in a loop, or as a ping-pong", { tag: "@moving" }, async ({ page }) => {
  const reading = page.getByTestId("reading");
  await page.getByRole("radio", { name: "Once" }).click();
  await choose(page, page.getByRole("combobox", { name: "then" }), "hide");
  await expect(reading).toContainText("ended");
  await expect(page.getByText("nothing shown")).toBeVisible();
  await expect(page.getByTestId("stage")).toHaveAttribute("data-frame", "");
  await page.getByRole("button", { name: "Play again" }).click();
  await expect(reading).not.toContainText("ended");
  await page.getByRole("radio", { name: "Ping-pong" }).click();
  await expect(page.getByText("1.40 s a loop")).toBeVisible();
  await expect(page.getByRole("button", { name: "Undo: play walk-e as a ping-pong" })).toBeVisible();
});

test("the player steps back and forth and shows its position", { tag: "@moving" }, async ({ page }) => {
  const { keyboard } = page;
  await page.getByRole("region", { name: "Ribbons" }).focus();
  await steps(page).nth(2).click();
  await page.getByRole("button", { name: "Pause" }).click();
  await page.getByRole("region", { name: "Ribbons" }).focus();
  const start = Number(/step (\d)/.exec((await page.getByTestId("reading").textContent()) ?? "")?.[1]);
  await keyboard.press(".");
  await expect(page.getByTestId("reading")).toContainText(`step ${(start + 1) % 8} of 8`);
  await keyboard.press(",");
  await keyboard.press(",");
  await expect(page.getByTestId("reading")).toContainText(`step ${(start + 7) % 8} of 8`);
});

test("names stay unique, and an empty clip is reported and mended at Ship", async ({ page }) => {
  await page.getByRole("textbox", { name: "Clip name" }).fill("fire");
  await page.keyboard.press("Enter");
  await expect(problemOn(page)).toHaveText(/There is already a clip of this name/);
  await page.keyboard.press("Escape");
  await steps(page).first().click();
  await steps(page)
    .nth(7)
    .click({ modifiers: ["Shift"] });
  await page.keyboard.press("Delete");
  await expect(steps(page)).toHaveCount(0);
  await expect(page.getByText("Drag frames here")).toBeVisible();
  await goTo(page, "Ship");
  await expect(page.getByRole("alert").filter({ hasText: "Not delivered" })).toContainText('clip "walk-e": It has no steps');
  await page.getByRole("button", { name: "Remove the clip" }).click();
  await expect(page.getByTestId("proof")).toContainText("395 frames in, 395 out");
});

test("the player draws exactly the step's pixels, at a whole zoom", { tag: "@moving" }, async ({ page }) => {
  await page.getByRole("checkbox", { name: "Origin" }).click();
  await steps(page).nth(3).click();
  await page.getByRole("button", { name: "Pause" }).click();
  await steps(page).nth(3).click();
  await expect(page.getByTestId("stage")).toHaveAttribute("data-frame", "porter-walk/19");
  await page.waitForTimeout(200);
  const drawn = await page.getByTestId("stage").evaluate((stage: HTMLCanvasElement) => {
    const context = stage.getContext("2d") as CanvasRenderingContext2D;
    return { width: stage.width, height: stage.height, bytes: [...context.getImageData(0, 0, stage.width, stage.height).data] };
  });
  const stage = { ...drawn, bytes: Uint8Array.from(drawn.bytes) };
  const walk = png.decode(readFileSync(join(import.meta.dirname, "../examples/tamarisk-road/art/porter-walk.png")), "walk");
  const still = crop(walk, drawnPart(coverageOf(walk), { x: 3 * 40, y: 2 * 48, w: 40, h: 48 }) as Rect);
  const shown = drawnPart(coverageOf(stage), { x: 0, y: 0, w: stage.width, h: stage.height }) as Rect;
  const zoom = shown.w / still.width;
  expect([zoom, shown.h / still.height]).toEqual([4, 4]);
  const part = crop(stage, shown);
  for (let y = 0; y < part.height; y++)
    for (let x = 0; x < part.width; x++) {
      const at = (y * part.width + x) * 4;
      const from = (Math.floor(y / zoom) * still.width + Math.floor(x / zoom)) * 4;
      // Transparent pixels are transparent black on a canvas, whatever colour they have in the file.
      const same =
        part.bytes[at + 3] === still.bytes[from + 3] &&
        (part.bytes[at + 3] === 0 || [0, 1, 2].every((k) => part.bytes[at + k] === still.bytes[from + k]));
      if (!same) throw new Error(`The pixel at ${x}, ${y} differs.`);
    }
});
