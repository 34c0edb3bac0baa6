/** Small windows, and large ones at 200 %: columns become drawers, and nothing is cut off. */
import { violationsOn } from "./axe";
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
