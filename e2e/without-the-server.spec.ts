/** The copy that the browser keeps: the studio opens and works without its server, and takes a newer build when a person says so. */
import { readFileSync } from "node:fs";
import { readBundle } from "@caravan/core/bundle";
import { crop, looksSame } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { NEWER, standBefore } from "./stand";
import { clipOfRows, delivered, dropAndCut, dropFiles, figureSheet, goTo, pngFile, saved } from "./studio";

test.use({ ownContext: true, serviceWorkers: "allow" });

/** Waits until the copy is complete and answers for this page. */
async function kept(page: Page): Promise<void> {
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller?.state ?? "none")).toBe("activated");
}

const isNewer = (page: Page) =>
  page.evaluate((mark) => [...document.childNodes].some((node) => `<!--${node.nodeValue}-->` === mark), NEWER);

test("after one visit everything works without the server, also after a reload", async ({ page, baseURL }) => {
  const stand = await standBefore(baseURL ?? "");
  await page.goto(stand.url);
  await expect(page.getByTestId("stage")).toBeVisible();
  await kept(page);
  await stand.stop();

  await page.goto(`${stand.url}?new`);
  await expect(page).toHaveTitle(/^New project/);
  const sheet = figureSheet(4, 2);
  await dropAndCut(page, "hero.png", sheet, 4, 2);
  await clipOfRows(page, 1, "walk");
  await saved(page);
  await page.reload();
  await expect(page.getByRole("list", { name: "Clips" }).getByRole("button", { name: /walk/ })).toBeVisible();
  for (const stop of ["Sources", "Frames", "Marks", "Rehearse", "Clips"] as const) await goTo(page, stop);
  await goTo(page, "Ship");
  const { names, frame } = await delivered(page);
  expect(names).toHaveLength(8);
  for (const [k, name] of names.entries())
    expect(looksSame(frame(name), crop(sheet, { x: (k % 4) * 32, y: Math.floor(k / 4) * 40, w: 32, h: 40 }))).toBe(true);

  // Metadata is read, and a project saved and opened: what runs in workers is kept as well.
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const bytes = new Uint8Array(readFileSync(await download.path()));
  expect(readBundle(bytes, "saved").project.clips).toHaveLength(1);
  await dropFiles(page, [{ name: "again.caravan", bytes }]);
  await expect(page.getByText("Opened again.caravan as a project of its own.")).toBeVisible();
  await page.goto(`${stand.url}crossing`);
  await expect(page.getByRole("heading", { name: "The Crossing" })).toBeVisible();
});

for (const takes of [true, false])
  test(`a newer build is announced, waits, and is taken by one click with the work saved${takes ? "" : ", also where the former one does not give way"}`, async ({
    page,
    baseURL,
  }) => {
    const stand = await standOfNewer(page, baseURL);
    // Page and files are still those of the cached build; the newer one is only announced.
    await expect(page.getByRole("region", { name: "A newer version" })).toBeVisible();
    expect(await isNewer(page)).toBe(false);
    await dropFiles(page, [pngFile("stone.png", figureSheet(1, 1))]);
    await expect(page.getByRole("button", { name: /^Undo: / })).toBeEnabled();
    if (!takes) await keepFormer(page);
    await page.getByRole("button", { name: "Take it now" }).click();
    await expect.poll(() => isNewer(page).catch(() => false), { timeout: 30_000 }).toBe(true);
    await expect(page.getByRole("button", { name: /^Undo: / })).toBeEnabled();
    await goTo(page, "Sources");
    await expect(page.getByRole("list", { name: "Sources" }).getByText("stone")).toBeVisible();
    await expect(page.getByRole("region", { name: "A newer version" })).toBeHidden();
    // It is kept like the former one.
    await kept(page);
    await stand.stop();
    await page.reload();
    await expect(page.getByRole("list", { name: "Sources" }).getByText("stone")).toBeVisible();
    expect(await isNewer(page)).toBe(true);
  });

test("a newer build that does not take charge while there is no server leaves no dead button: it is announced again", async ({
  page,
  baseURL,
}) => {
  const stand = await standOfNewer(page, baseURL);
  await expect(page.getByRole("region", { name: "A newer version" })).toBeVisible();
  await stand.stop();
  await keepFormer(page);
  await page.getByRole("button", { name: "Take it now" }).click();
  await expect(page.locator("body[data-before]")).toHaveCount(0);
  await expect(page.getByRole("button", { name: "Take it now" })).toBeEnabled();
  expect(await isNewer(page)).toBe(false);
});

/** A page of a kept build, whose server has a newer one since. */
async function standOfNewer(page: Page, baseURL: string | undefined) {
  const stand = await standBefore(baseURL ?? "");
  await page.goto(stand.url);
  await kept(page);
  await stand.stop();
  stand.renew();
  await stand.start();
  await page.goto(`${stand.url}?new`);
  return stand;
}

/** As where a browser does not end the former service worker, whatever it is sent; until the page is loaded again. */
async function keepFormer(page: Page): Promise<void> {
  await page.evaluate(() => {
    ServiceWorker.prototype.postMessage = () => {};
    document.body.dataset.before = "yes";
  });
}

test("it can be installed: its manifest names icon, files and shortcuts, and the shortcut to the demo opens the untouched one again", async ({
  page,
}) => {
  await page.goto("/?new");
  const { manifest, icon } = await page.evaluate(async () => {
    const link = document.querySelector<HTMLLinkElement>('link[rel="manifest"]');
    const told = await (await fetch(link?.href ?? "")).json();
    return { manifest: told, icon: (await fetch(told.icons[0].src)).headers.get("content-type") };
  });
  expect(icon).toContain("image/svg");
  expect(Object.values(manifest.file_handlers[0].accept)).toEqual([[".caravan"]]);
  expect(manifest.shortcuts).toHaveLength(3);
  await page.goto("/?demo");
  await expect(page).toHaveTitle(/^The Tamarisk Road/);
  const first = new URL(page.url()).search;
  await page.goto("/?new");
  await expect(page).toHaveTitle(/^New project/);
  await page.goto("/?demo");
  await expect(page).toHaveTitle(/^The Tamarisk Road/);
  expect(new URL(page.url()).search).toBe(first);
});
