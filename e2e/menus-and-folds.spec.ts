import { expect, test } from "./fixtures";
import { goTo, openStudio } from "./studio";

test("right-click opens a menu for a clip, a step, a frame, a source and marks", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Clips");
  const clips = page.getByRole("list", { name: "Clips" });
  const menuItem = (name: string) => page.getByRole("menuitem", { name });
  await clips.getByRole("button", { name: /^walk-nw/ }).click({ button: "right" });
  await menuItem("Rename").click();
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await expect(page.getByRole("textbox", { name: "Clip name" })).toHaveValue("walk-nw");
  await page.keyboard.type("stroll-nw");
  await page.keyboard.press("Enter");
  await expect(clips.getByRole("button", { name: /^stroll-nw/ })).toBeVisible();

  const steps = page.getByRole("list", { name: "Steps of stroll-nw" }).getByRole("button", { name: /^Step/ });
  const before = await steps.count();
  await steps.nth(1).click({ button: "right" });
  await menuItem("Duplicate").click();
  await expect(steps).toHaveCount(before + 1);
  await steps.nth(0).click({ button: "right" });
  await menuItem("Drop from the clip").click();
  await expect(steps).toHaveCount(before);
  await expect(page.getByRole("button", { name: /^Undo: drop/ })).toBeVisible();

  await goTo(page, "Frames");
  const frame = page.getByRole("option").nth(2);
  await frame.click({ button: "right" });
  await menuItem("Drop").click();
  await expect(frame).toHaveAccessibleName(/dropped/);
  await frame.click({ button: "right" });
  await menuItem("Restore").click();
  await expect(frame).not.toHaveAccessibleName(/dropped/);

  await goTo(page, "Marks");
  await page.getByRole("list", { name: "Marks" }).getByRole("button", { name: /^brow/ }).click({ button: "right" });
  await menuItem("Remove with all its marks").click();
  await expect(page.getByRole("button", { name: "Undo: remove brow" })).toBeVisible();

  await goTo(page, "Sources");
  await page.getByRole("list", { name: "Pictures" }).getByRole("button", { name: /camel/ }).first().click({ button: "right" });
  await menuItem("Cut it").or(menuItem("See its frames")).click();
  await expect(page.getByTestId("sheet")).toBeVisible();
});

test("clips fold under their action, details fold, and both are remembered; the selection stays visible", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Clips");
  const clips = page.getByRole("list", { name: "Clips" });
  const heading = clips.getByRole("button", { name: /^walk 8 clips/ });
  await clips.getByRole("button", { name: /^walk-nw/ }).click();
  await expect(clips.getByRole("button", { name: /^walk-nw/ })).toContainText("NW 0.80 s");
  await heading.click();
  await expect(clips.getByRole("button", { name: /^walk-/ })).toHaveCount(1);
  const whole = page.getByRole("button", { name: "The whole clip" });
  await whole.click();
  await expect(page.getByRole("button", { name: "Split by its 2 rows" })).toBeHidden();
  await page.reload();
  await expect(heading).toHaveAttribute("aria-expanded", "false");
  await expect(whole).toHaveAttribute("aria-expanded", "false");
  await clips
    .getByRole("button", { name: /^idle-s/ })
    .first()
    .click();
  await expect(clips.getByRole("button", { name: /^walk-/ })).toHaveCount(0);
  await page.getByRole("searchbox", { name: "Filter clips" }).fill("walk-n");
  await expect(clips.getByRole("button", { name: /^walk-n/ })).toHaveCount(3);
  await page.getByRole("searchbox", { name: "Filter clips" }).fill("");
  await heading.click();
  await expect(clips.getByRole("button", { name: /^walk-/ })).toHaveCount(8);
});

test("one key moves between the parts of the screen", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Clips");
  const region = () => page.evaluate(() => document.activeElement?.closest<HTMLElement>("[data-region]")?.dataset.region ?? null);
  await page.getByRole("navigation", { name: "Stops" }).getByRole("button", { name: "Clips" }).focus();
  for (const part of ["list", "surface", "tray", "player", "details", "road"]) {
    await page.keyboard.press("F6");
    await expect.poll(region).toBe(part);
  }
  await page.keyboard.press("Shift+F6");
  await expect.poll(region).toBe("details");
  // Notices are reached the same way, stay while focused, and can be dismissed.
  await page.keyboard.press("Shift+D");
  const told = page.getByText("No delivery has a game folder yet");
  await expect(told).toBeVisible();
  await page.keyboard.press("Shift+F6");
  await expect.poll(region).toBe("notices");
  await page.waitForTimeout(8000); // longer than it stays by itself
  await expect(told).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(told).toBeHidden();
});
