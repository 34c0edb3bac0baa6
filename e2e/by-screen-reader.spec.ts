/** The main job with a screen reader, found by roles, names and announcements, without a pointer. docs/screen-reader.md lists the same steps. */
import { expect, type Page, test } from "./fixtures";
import { atlasOf, figureSheet, filesOf, openEmpty, pngFile } from "./studio";

/** What is announced somewhere on the page. */
const announced = (page: Page, text: string | RegExp) =>
  page.locator("[role=status], [role=alert], [aria-live=polite], [aria-live=assertive]").filter({ hasText: text }).first();

test("a sheet becomes a clip and a delivery by names and announcements alone", async ({ page }) => {
  await openEmpty(page);
  await expect(page.getByRole("navigation", { name: "Stops" }).getByRole("button")).toHaveCount(6);
  await expect(page.getByRole("heading", { level: 1 })).toBeVisible();

  // Bring a sheet in.
  await page.keyboard.press("1");
  await expect(page.getByRole("region", { name: "Sources", exact: true })).toBeVisible();
  // The browser opens its window only shortly after a key: the surface must be there.
  await expect(page.getByRole("button", { name: /^Add pictures/ })).toBeVisible();
  const file = pngFile("hero.png", figureSheet(4, 2));
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.keyboard.press("a")]);
  await chooser.setFiles([{ name: file.name, mimeType: "image/png", buffer: Buffer.from(file.bytes) }]);

  // Cut it: two fields, and the outcome is announced.
  await expect(announced(page, "Not cut yet")).toBeVisible();
  const columns = page.getByRole("textbox", { name: "Columns", exact: true });
  await columns.focus();
  await page.keyboard.type("4");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("textbox", { name: "Rows", exact: true })).toBeFocused();
  await page.keyboard.type("2");
  await page.keyboard.press("Enter");
  await expect(announced(page, "8 frames")).toBeVisible();

  // Walk over the frames: the cursor's place is announced, and the list gives position and count.
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await expect(announced(page, "hero/1, column 1, row 0")).toBeAttached();
  await page.keyboard.press("r");
  await expect(announced(page, "hero/0, column 0, row 0, picked 1")).toBeAttached();
  const frames = page.getByRole("listbox", { name: "Frames of hero" });
  const active = page.locator(`[id="${await frames.getAttribute("aria-activedescendant")}"]`);
  await expect(active).toHaveRole("option");
  await expect(active).toHaveAccessibleName("hero/0, picked 1");
  await expect(active).toHaveAttribute("aria-selected", "true");

  // A clip of them: its name waits to be typed.
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("walk");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Steps of walk" }).getByRole("button")).toHaveCount(4);
  const pace = page.getByRole("textbox", { name: "Frames per second" });
  await pace.focus();
  await page.keyboard.type("8");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: "Step 0: hero/0, 125 ms" })).toBeVisible();

  // Deliver it: the proof is announced, and that it went out.
  await page.keyboard.press("6");
  await expect(announced(page, "8 frames in, 8 out, 0 shared, every pixel the same")).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("d")]);
  await expect(announced(page, /Delivered atlas\.zip: 2 files/)).toBeVisible();
  const { atlas } = atlasOf(await filesOf(download));
  expect(atlas.clips.walk?.steps.map(({ ms }) => ms)).toEqual([125, 125, 125, 125]);
});
