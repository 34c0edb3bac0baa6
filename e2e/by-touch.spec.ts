import type { CDPSession, Locator, Page } from "@playwright/test";
import { expect, test } from "./fixtures";
import { dropFiles, figureSheet, goTo, openStudio, pngFile, startProject } from "./studio";

interface Finger {
  readonly x: number;
  readonly y: number;
}

/** Fingers on the screen, as the system tells the browser of them. */
async function touchOf(page: Page): Promise<(type: "touchStart" | "touchMove" | "touchEnd", fingers: readonly Finger[]) => Promise<void>> {
  const session: CDPSession = await page.context().newCDPSession(page);
  await session.send("Emulation.setTouchEmulationEnabled", { enabled: true, maxTouchPoints: 5 });
  return async (type, fingers) => {
    await session.send("Input.dispatchTouchEvent", { type, touchPoints: fingers.map(({ x, y }, id) => ({ x, y, id })) });
  };
}

async function middleOf(part: Locator): Promise<Finger> {
  const box = await part.boundingBox();
  if (!box) throw new Error("It is not on the screen.");
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

test("by touch alone: a sheet is cut, picked from, zoomed by two fingers, and its tray is swiped", async ({ page }) => {
  await openStudio(page);
  await startProject(page);
  const touch = await touchOf(page);
  const tap = async (part: Locator) => {
    await touch("touchStart", [await middleOf(part)]);
    await touch("touchEnd", []);
  };
  await dropFiles(page, [pngFile("figures.png", figureSheet(24, 2))]);
  await goTo(page, "Frames");
  await tap(page.getByRole("radio", { name: "Outlines" }));
  await expect(page.getByTestId("outcome")).toContainText("48 frames");

  const sheet = page.getByTestId("sheet");
  const zoomed = sheet.getByText(/ · \d+ × \d+ · /);
  const before = await zoomed.innerText();
  const { x, y } = await middleOf(sheet);
  await touch("touchStart", [{ x: x - 40, y }]);
  await touch("touchStart", [
    { x: x - 40, y },
    { x: x + 40, y },
  ]);
  for (const apart of [45, 50, 56])
    await touch("touchMove", [
      { x: x - apart, y },
      { x: x + apart, y },
    ]);
  await touch("touchEnd", []);
  await expect(zoomed).not.toHaveText(before);
  // Two fingers picked nothing and drew nothing.
  await expect(page.getByTestId("picked")).toHaveText("click picks");
  await tap(page.getByRole("button", { name: "Zoom out" }));
  await expect(zoomed).toHaveText(before);

  const strip = page.getByRole("listbox", { name: "Frames of figures" });
  const first = page.getByRole("option").first();
  await tap(first);
  await expect(page.getByTestId("picked")).toContainText("1 picked");
  const at = await middleOf(strip);
  await touch("touchStart", [{ x: at.x + 150, y: at.y }]);
  for (let k = 1; k <= 12; k++) await touch("touchMove", [{ x: at.x + 150 - k * 25, y: at.y }]);
  await touch("touchEnd", []);
  await expect.poll(() => strip.evaluate((element) => element.scrollLeft)).toBeGreaterThan(100);
  await expect(page.getByTestId("picked")).toContainText("1 picked");
});

test("two fingers on the player zoom it by whole steps", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Clips");
  const touch = await touchOf(page);
  const zoom = page.getByTestId("player-zoom");
  const before = Number.parseInt(await zoom.innerText(), 10);
  const { x, y } = await middleOf(page.getByTestId("stage"));
  await touch("touchStart", [
    { x: x - 60, y },
    { x: x + 60, y },
  ]);
  for (const apart of [50, 42, 36])
    await touch("touchMove", [
      { x: x - apart, y },
      { x: x + apart, y },
    ]);
  await touch("touchEnd", []);
  await expect.poll(async () => Number.parseInt(await zoom.innerText(), 10)).toBeLessThan(before);
});

test("one finger on the player turns an action, two move the figure", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Clips");
  await page.getByRole("list", { name: "Actions" }).getByRole("button", { name: /^walk/ }).click();
  const touch = await touchOf(page);
  const stage = page.getByTestId("stage");
  const { x, y } = await middleOf(stage);
  await touch("touchStart", [{ x, y }]);
  for (const by of [30, 60, 90]) await touch("touchMove", [{ x: x + by, y }]);
  await touch("touchEnd", []);
  await expect(stage).toHaveAttribute("data-facing", "e");
  const inTheMiddle = page.getByRole("button", { name: "Centre the figure" });
  await expect(inTheMiddle).toHaveCount(0);
  const pair = (down: number) => [
    { x: x - 40, y: y + down },
    { x: x + 40, y: y + down },
  ];
  await touch("touchStart", pair(0));
  for (const down of [10, 20, 30]) await touch("touchMove", pair(down));
  await touch("touchEnd", []);
  await inTheMiddle.click();
  await expect(inTheMiddle).toHaveCount(0);
});

test("on a tablet everything is large enough to touch, and nothing is cut off", async ({ page }) => {
  await touchOf(page);
  await openStudio(page);
  for (const size of [
    { width: 1180, height: 820 },
    { width: 820, height: 1180 },
  ]) {
    await page.setViewportSize(size);
    for (const stop of ["Sources", "Frames", "Clips", "Marks", "Rehearse", "Ship"] as const) {
      await goTo(page, stop);
      const odd = await page.evaluate(() =>
        [...document.querySelectorAll("header button, main section > * button[class*=size-7], main [role=combobox]")].flatMap((each) => {
          const { right, width, height } = each.getBoundingClientRect();
          if (!each.checkVisibility() || width === 0) return [];
          const name = each.getAttribute("aria-label") ?? each.textContent;
          return right > innerWidth + 1 || height < 36 ? [`${name} ${Math.round(right)} ${Math.round(height)}`] : [];
        }),
      );
      expect(odd).toEqual([]);
      // Its keyboard would begin names with capital letters.
      const typed = page.locator("input:not([type=checkbox], [type=range], [type=file], [type=color]), textarea");
      expect(await typed.evaluateAll((all) => all.filter((each) => each.getAttribute("autocapitalize") !== "none").length), stop).toBe(0);
    }
  }
});
