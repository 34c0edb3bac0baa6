/** Small windows, and large ones at 200 % and at 400 %: columns become drawers, and nothing is cut off. */
import { chromium } from "@playwright/test";
import { KEYED } from "../packages/core/src/example/examples.fixture";
import { violationsOn } from "./axe";
import { BROWSER } from "./browser";
import { expect, test } from "./fixtures";
import { goTo, openStudio } from "./studio";

test("at 640 × 400 every stop is reachable, list and player open as drawers, and nothing is cut off", async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 400 });
  await openStudio(page);
  for (const stop of ["Sources", "Frames", "Clips", "Marks", "Rehearse", "Ship"] as const) {
    await goTo(page, stop);
    const inside = await page.evaluate(() => ({
      page: document.documentElement.scrollWidth <= innerWidth && document.documentElement.scrollHeight <= innerHeight,
      road: [...document.querySelectorAll("header button")].every((each) => each.getBoundingClientRect().right <= innerWidth),
    }));
    expect(inside, stop).toEqual({ page: true, road: true });
    const surface = page.getByRole("region", { name: stop, exact: true });
    // A stop begins at its top, however far the one before was scrolled.
    expect(await surface.evaluate((each) => each.scrollTop), stop).toBe(0);
    expect(await surface.evaluate((each) => each.scrollWidth <= each.clientWidth), stop).toBe(true);
    await surface.evaluate((each) => {
      each.scrollTop = 1000;
    });
  }
  await goTo(page, "Frames");
  expect((await page.getByTestId("sheet").boundingBox())?.height).toBeGreaterThan(200);

  await goTo(page, "Clips");
  await page.getByRole("button", { name: "List", exact: true }).click();
  await page
    .getByRole("list", { name: "Clips" })
    .getByRole("button", { name: /^walk-nw/ })
    .click();
  await expect(page.getByRole("heading", { name: "walk-nw" })).toBeVisible();
  expect(await violationsOn(page)).toEqual([]);
  await page.keyboard.press("Escape");
  await expect(page.getByRole("list", { name: "Clips" })).toBeHidden();
  await page.getByRole("button", { name: "Player" }).click();
  await expect(page.getByTestId("stage")).toBeVisible();
  await expect(page.getByTestId("stage")).toHaveAttribute("data-frame", /^porter-walk/);
  await page.getByRole("button", { name: "Close the drawer" }).click();
  await expect(page.getByTestId("stage")).toBeHidden();

  // Wide again, all three are side by side.
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect(page.getByTestId("stage")).toBeVisible();
  await expect(page.getByRole("list", { name: "Clips" })).toBeVisible();
});

test("at 320 × 568, a window of 1280 at 400 %, nothing of a stop or of the road is cut off, and nothing scrolls sideways", async ({
  page,
}) => {
  await page.setViewportSize({ width: 320, height: 568 });
  await openStudio(page);
  for (const stop of ["Sources", "Frames", "Clips", "Marks", "Rehearse", "Ship"] as const) {
    await goTo(page, stop);
    const road = await page.locator('[data-region="road"]').evaluate((each) => ({
      fits: each.scrollWidth <= each.clientWidth && each.scrollHeight <= each.clientHeight,
      cutOff: [...each.querySelectorAll("button")].filter((button) => button.getBoundingClientRect().right > innerWidth).length,
    }));
    expect(road, stop).toEqual({ fits: true, cutOff: 0 });
    const surface = page.getByRole("region", { name: stop, exact: true });
    expect(await surface.evaluate((each) => each.scrollWidth - each.clientWidth), stop).toBe(0);
  }
});

test("with a browser font of 24 px columns become drawers as early as with zoom, and nothing is cut off", async ({ baseURL }) => {
  const browser = await chromium.launch({ ...BROWSER, args: [...BROWSER.args, "--blink-settings=defaultFontSize=24"] });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, ...(baseURL === undefined ? {} : { baseURL }) });
    await openStudio(page);
    await goTo(page, "Clips");
    await expect(page.getByRole("button", { name: "List", exact: true })).toBeVisible();
    await expect(page.getByTestId("stage")).toBeVisible();
    const beyond = () =>
      page.locator("header button").evaluateAll((all) => all.filter((each) => each.getBoundingClientRect().right > innerWidth).length);
    await expect.poll(beyond).toBe(0);
    await page.setViewportSize({ width: 1920, height: 1080 });
    await expect(page.getByRole("list", { name: "Clips" })).toBeVisible();
    await expect.poll(beyond).toBe(0);
  } finally {
    await browser.close();
  }
});

test("columns are resized by dragging their border and by keys, and stay so after a reload", async ({ page }) => {
  await openStudio(page);
  const list = page.locator('[data-region="list"]');
  const stage = page.getByTestId("stage");
  const width = async (part: typeof list) => Math.round((await part.boundingBox())?.width ?? 0);
  const drag = async (border: string, by: number) => {
    const box = await page.getByRole("separator", { name: border }).boundingBox();
    if (!box) throw new Error(`There is no border ${border}.`);
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + by / 2, box.y + box.height / 2);
    await page.mouse.move(box.x + by, box.y + box.height / 2);
    await page.mouse.up();
  };
  const [listBefore, stageBefore] = [await width(list), await width(stage)];
  await drag("Width of the list", 70);
  await expect.poll(() => width(list)).toBeGreaterThan(listBefore + 60);
  await drag("Width of the player", -80);
  await expect.poll(() => width(stage)).toBeGreaterThan(stageBefore + 70);
  const wide = await width(list);
  await page.getByRole("separator", { name: "Width of the list" }).focus();
  await page.keyboard.press("ArrowLeft");
  await expect.poll(() => width(list)).toBeLessThan(wide);
  const [listNow, stageNow] = [await width(list), await width(stage)];
  await page.reload();
  await expect(page.getByTestId("sheet")).toBeVisible();
  await expect.poll(() => width(list)).toBe(listNow);
  await expect.poll(() => width(stage)).toBe(stageNow);
});

test("in a drawer as low as the player, the details below it can be reached", async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 400 });
  await openStudio(page);
  await goTo(page, "Ship");
  await page.getByRole("button", { name: "Player", exact: true }).click();
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser", { timeout: 20_000 }),
    page.getByRole("button", { name: "Learn from a file" }).click({ timeout: 20_000 }),
  ]);
  await chooser.setFiles([{ name: "hero.json", mimeType: "application/json", buffer: Buffer.from(KEYED) }]);
  await expect(page.getByRole("dialog", { name: "In the shape of hero.json" })).toBeInViewport({ ratio: 1 });
});
