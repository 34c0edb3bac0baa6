/** A budget for what an empty browser loads before the first picture moves, so that it does not grow unnoticed. */
import { expect, test } from "./fixtures";
import { standBefore } from "./stand";

test.use({ ownContext: true });

/** Pages, scripts and styles, for the page and its workers, packed. */
const MOST_CODE = 640_000; // bytes
/** All of it, with the demo's art and one cut of the letters. */
const MOST = 800_000; // bytes

test.describe("with a browser that keeps a copy", () => {
  // Making the copy loads everything: it must not do so before the first picture.
  test.use({ serviceWorkers: "allow" });

  test("the first picture is there before most of the code, which loads later", async ({ page, baseURL }) => {
    const stand = await standBefore(baseURL ?? "");
    await page.goto(stand.url);
    const mark = "caravan: first pictures";
    await page.waitForFunction((name) => performance.getEntriesByName(name).length > 0, mark);
    const drawn = await page.evaluate((name) => performance.timeOrigin + (performance.getEntriesByName(name)[0]?.startTime ?? 0), mark);
    await expect(page.getByTestId("stage")).toBeVisible();
    const first = stand.answers.filter(({ asked }) => asked <= drawn);
    const isCode = ({ path }: { path: string }) => /\.(js|css|wasm)$|^\/$/.test(path.split("?")[0] ?? "");
    const sum = (list: typeof first) => list.reduce((total, { bytes }) => total + bytes, 0);
    expect(sum(first.filter(isCode))).toBeLessThan(MOST_CODE);
    expect(sum(first)).toBeLessThan(MOST);
    // The rest loads by itself: nothing is missing when a stop is opened.
    await expect.poll(() => sum(stand.answers.filter(isCode)), { timeout: 20_000 }).toBeGreaterThan(MOST_CODE);
    await stand.stop();
  });
});

test("keys pressed while a stop's code is loading are for that stop", async ({ page, baseURL }) => {
  // Each file loads slowly, so that the surface appears well after its name.
  await page.route("**/_next/static/chunks/*.js", async (route) => {
    await new Promise((done) => setTimeout(done, 700));
    await route.continue();
  });
  await page.goto(`${baseURL}/?new`);
  await expect(page.getByRole("region", { name: "Sources", exact: true })).toBeVisible();
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.keyboard.press("a")]);
  expect(chooser.isMultiple()).toBe(true);
});
