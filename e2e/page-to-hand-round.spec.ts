/** One HTML file, opened like a mail attachment: everything plays, and it makes no requests. */
import { writeFileSync } from "node:fs";
import { pathToFileURL } from "node:url";
import { crop, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { clipOfRows, dropAndCut, figureSheet, filesOf, goTo, openEmpty, openStudio, png } from "./studio";

/** Ticks the page at Ship, delivers, and opens what came. */
async function handedRound(page: Page, path: string): Promise<{ errors: string[]; asked: string[] }> {
  await goTo(page, "Ship");
  await page.getByRole("checkbox", { name: "page to hand round, which plays everything" }).click();
  await expect(page.getByTestId("proof")).toContainText("every pixel the same");
  await expect(page.getByRole("list", { name: "Files" })).toContainText(".html");
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("d")]);
  const files = await filesOf(download);
  const [, html] = [...files].find(([name]) => name.endsWith(".html")) ?? [];
  writeFileSync(path, html as Uint8Array);
  const errors: string[] = [];
  const asked: string[] = [];
  // The studio may still be loading what it shows later; what it asks for is not of this page.
  await page.goto("about:blank");
  page.on("pageerror", ({ message }) => errors.push(message));
  page.on("console", (message) => message.type() === "error" && errors.push(message.text()));
  page.on("request", (request) => request.url().startsWith("data:") || asked.push(request.url()));
  await page.goto(pathToFileURL(path).href);
  return { errors, asked };
}

/** What the stage shows at 1 ×, cut out around the origin. */
async function seen(page: Page, size: { w: number; h: number }): Promise<Pixels> {
  const stage = png.decode(new Uint8Array(await page.getByRole("img", { name: "Figure" }).screenshot()), "the stage");
  const [x, y] = [Math.round((stage.width - size.w) / 2), Math.round((stage.height - size.h) / 2)];
  return crop(stage, { x, y, ...size });
}

test("a clip plays in it, pixel by pixel, at any size and on any ground", async ({ page }, testInfo) => {
  const sheet = figureSheet(4, 2);
  await openEmpty(page);
  await dropAndCut(page, "hero.png", sheet, 4, 2);
  await clipOfRows(page, 1, "walk");
  const { errors, asked } = await handedRound(page, testInfo.outputPath("hero.html"));
  await expect(page.getByText(/^walk · step 1 of 4/)).toBeVisible();
  // With reduced motion, as in most of these tests, nothing moves until Play is pressed.
  await page.getByRole("combobox", { name: "backdrop" }).selectOption("white");
  await page.getByRole("combobox", { name: "size" }).selectOption("1");
  const cells = [0, 1, 2, 3].map((k) => onWhite(crop(sheet, { x: k * 32, y: 0, w: 32, h: 40 })));
  for (const [k, cell] of cells.entries()) {
    await expect(page.getByText(`walk · step ${k + 1} of 4`, { exact: false })).toBeVisible();
    await expect.poll(async () => holds(await seen(page, { w: 40, h: 48 }), cell)).toBe(true);
    await page.getByRole("button", { name: "Next step" }).click();
  }
  await page.getByRole("button", { name: "Play", exact: true }).click();
  await expect(page.getByText("walk · step 3 of 4", { exact: false })).toBeVisible();
  expect(errors).toEqual([]);
  expect(asked).toHaveLength(1);
});

test("the demo's actions turn, its behaviour is driven, and boxes and lamps are drawn", async ({ page }, testInfo) => {
  await openStudio(page);
  const { errors } = await handedRound(page, testInfo.outputPath("demo.html"));
  const stage = page.getByRole("img", { name: "Figure" });
  const list = page.getByRole("navigation", { name: "Contents" });
  await list.getByRole("button", { name: "walk", exact: true }).click();
  await page.getByRole("button", { name: "Face w", exact: true }).click();
  await expect(stage).toHaveAttribute("data-clip", "walk-w");
  await list.getByRole("button", { name: "porter", exact: true }).click();
  await expect(page.getByText(/^stand: /)).toBeVisible();
  const before = await stage.screenshot();
  await page.getByRole("checkbox", { name: "boxes, points, outlines" }).check();
  await expect.poll(async () => Buffer.compare(before, await stage.screenshot())).not.toBe(0);
  await page.getByRole("button", { name: "Play", exact: true }).click();
  await page.getByRole("spinbutton", { name: "speed" }).fill("30");
  await expect(page.getByText(/^walk: walk-/)).toBeVisible();
  await page.getByRole("checkbox", { name: "lamp" }).check();
  await expect(page.getByText(/^walk with the lamp: /)).toBeVisible();
  // The blow puts the lamp out, and the switch says so.
  await page.getByRole("button", { name: "act" }).click();
  await expect(page.getByRole("checkbox", { name: "lamp" })).not.toBeChecked();
  expect(errors).toEqual([]);
});

/** As it looks over white. */
function onWhite({ bytes, ...cell }: Pixels): Pixels {
  const over = bytes.slice();
  for (let at = 0; at < over.length; at += 4) {
    const share = (over[at + 3] as number) / 255;
    for (let k = at; k < at + 3; k++) over[k] = Math.round((over[k] as number) * share + 255 * (1 - share));
    over[at + 3] = 255;
  }
  return { ...cell, bytes: over };
}

/** Whether a picture holds another somewhere; a browser may round what it blends the other way. */
function holds(picture: Pixels, wanted: Pixels): boolean {
  for (let y = 0; y + wanted.height <= picture.height; y++)
    for (let x = 0; x + wanted.width <= picture.width; x++) {
      const { bytes } = crop(picture, { x, y, w: wanted.width, h: wanted.height });
      if (bytes.every((byte, k) => Math.abs(byte - (wanted.bytes[k] as number)) <= 1)) return true;
    }
  return false;
}
