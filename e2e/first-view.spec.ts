/** What an empty browser shows before any of the studio's code: the demo's art, where the studio is going to show it. */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { dropFiles, figureSheet, openEmpty, png, pngFile, problemOn } from "./studio";

test.use({ firstVisit: true });

/** Everything up to the first picture, packed. */
const MOST = 100_000; // bytes

const porter = png.decode(
  new Uint8Array(readFileSync(join(import.meta.dirname, "../examples/tamarisk-road/art/porter-walk.png"))),
  "porter-walk",
);

const firstView = (page: Page) => page.getByTestId("first-view");

/** Holds scripts back until the returned function is called. */
async function withoutCode(page: Page): Promise<() => void> {
  let release = () => {};
  const released = new Promise<void>((done) => {
    release = done;
  });
  await page.route("**/*.js", async (route) => {
    await released;
    await route.continue();
  });
  return release;
}

async function shot(page: Page): Promise<Pixels> {
  return png.decode(await page.screenshot(), "the page");
}

/** How many of the sheet's opaque pixels in the rows above `bottom` stand where they should, of all of them, if its corner is at (left, top). */
function share(screen: Pixels, left: number, top: number, zoom: number, bottom: number): number {
  let [all, right] = [0, 0];
  for (let y = 0; y < porter.height && top + (y + 1) * zoom < bottom; y++)
    for (let x = 0; x < porter.width; x++) {
      const from = (y * porter.width + x) * 4;
      if (porter.bytes[from + 3] !== 255) continue;
      const at = ((top + y * zoom + (zoom >> 1)) * screen.width + left + x * zoom + (zoom >> 1)) * 4;
      all++;
      if ([0, 1, 2].every((k) => screen.bytes[at + k] === porter.bytes[from + k])) right++;
    }
  return right / all;
}

for (const { width, height, left, top, zoom, bottom } of [
  { width: 1280, height: 800, left: 430, top: 303, zoom: 1, bottom: 580 },
  { width: 1920, height: 1080, left: 430, top: 293, zoom: 3, bottom: 850 },
])
  test(`at ${width} × ${height} the demo's art is there before any code, and stays in its place`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    const release = await withoutCode(page);
    let bytes = 0;
    const session = await page.context().newCDPSession(page);
    await session.send("Network.enable");
    session.on("Network.dataReceived", ({ encodedDataLength }) => {
      bytes += encodedDataLength;
    });
    await page.goto("/", { waitUntil: "commit" });
    await expect(firstView(page)).toBeVisible();
    await expect.poll(async () => share(await shot(page), left, top, zoom, bottom)).toBeGreaterThan(0.999);
    expect(bytes).toBeGreaterThan(10_000);
    expect(bytes).toBeLessThan(MOST);
    const titles = ["Sources", "Rehearse", "Ship", "porter-idle", "hand-lamp"];
    const before = await Promise.all(titles.map((title) => firstView(page).getByText(title, { exact: true }).boundingBox()));
    release();
    await expect(page.getByTestId("stage")).toBeVisible();
    await expect(firstView(page)).toHaveCount(0);
    // Grid lines and the pointed-at cell lie over the art.
    await expect.poll(async () => share(await shot(page), left, top, zoom, bottom)).toBeGreaterThan(0.98);
    const after = await Promise.all(
      titles.map((title) => page.locator("header, [data-region=list]").getByText(title, { exact: true }).boundingBox()),
    );
    for (const [k, place] of before.entries()) expect([titles[k], place?.x, place?.y]).toEqual([titles[k], after[k]?.x, after[k]?.y]);
  });

test("the porter walks before any code, and stands still for a person who wants no motion", async ({ page }) => {
  const release = await withoutCode(page);
  const moving = () => page.evaluate(() => document.getAnimations().length);
  await page.goto("/", { waitUntil: "commit" });
  await expect(firstView(page)).toBeVisible();
  expect(await moving()).toBe(0);
  await page.emulateMedia({ reducedMotion: "no-preference" });
  await expect.poll(moving).toBe(1);
  release();
});

test("a browser that was here, and an address that asks for something, begin without it, in the chosen theme", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByTestId("stage")).toBeVisible();
  await page.getByRole("button", { name: "Go to dusk" }).click();
  const release = await withoutCode(page);
  await page.reload({ waitUntil: "commit" });
  await expect(page.locator("html")).toHaveAttribute("data-theme", "dusk");
  await expect(firstView(page)).toBeHidden();
  release();
  await expect(page.getByTestId("stage")).toBeVisible();
  await page.evaluate(() => localStorage.clear());
  await openEmpty(page);
  await page.evaluate(() => localStorage.clear());
  await page.goto("/?new", { waitUntil: "commit" });
  await expect(firstView(page)).toBeHidden();
});

test("what keeps the studio from opening is not covered by it", async ({ page }) => {
  const html = await (await page.request.get("/")).text();
  // Only what the page names itself arrives: the workshop's code does not.
  await page.route("**/*.js", (route) => (html.includes(new URL(route.request().url()).pathname) ? route.continue() : route.abort()));
  await page.goto("/");
  await expect(page.getByRole("alert").filter({ hasText: "Caravan cannot be shown" })).toBeVisible();
  await expect(firstView(page)).toHaveCount(0);
  await page.unroute("**/*.js");
  await page.getByRole("button", { name: "Reload the page" }).click();
  await expect(page.getByTestId("stage")).toBeVisible();
});

test("art dropped before the code is there, and while the demo is being opened, is imported as soon as a project is open", async ({
  page,
}) => {
  const release = await withoutCode(page);
  let openDemo = () => {};
  const mayOpen = new Promise<void>((done) => {
    openDemo = done;
  });
  await page.route("**/demo.caravan", async (route) => {
    await mayOpen;
    await route.continue();
  });
  await page.goto("/", { waitUntil: "commit" });
  await expect(firstView(page)).toBeVisible();
  await dropFiles(page, [pngFile("early.png", figureSheet(4, 1))]);
  const asked = page.waitForRequest("**/demo.caravan");
  release();
  await asked;
  await dropFiles(page, [pngFile("sooner.png", figureSheet(2, 1))]);
  openDemo();
  await expect(page).not.toHaveTitle(/Tamarisk/);
  const sheets = page.getByRole("list", { name: "Sheets" }).getByRole("button");
  await expect(sheets).toHaveText([/^early/, /^sooner/]);
  await expect(problemOn(page)).toHaveCount(0);
});
