/** User data on frames, clips and events, and times in ticks, as a game finds them in the atlas. */
import { expect, type Page, test } from "./fixtures";
import { delivered, dropAndCut, figureSheet, goTo, makeWalk, openEmpty, problemOn, saved } from "./studio";

const data = (page: Page) => page.getByRole("list", { name: "Data" });

async function write(page: Page, name: string, value: string): Promise<void> {
  await page.getByRole("textbox", { name: "Name of new data" }).fill(name);
  await page.getByRole("textbox", { name: "Value of new data" }).fill(value);
  await page.keyboard.press("Enter");
}

test("data on frames, clips and events goes to the game, and is there after a reload", async ({ page }) => {
  await makeWalk(page);
  await write(page, "cost", "3");
  await write(page, "blocks", "");
  await expect(data(page).getByRole("listitem")).toHaveCount(2);
  await write(page, "cost", "4");
  await expect(problemOn(page)).toContainText('There is "cost" already');

  await page.getByRole("region", { name: "Ribbons" }).focus();
  await page.keyboard.press("ArrowRight");
  await page.getByRole("textbox", { name: "Events" }).fill("footfall");
  await page.keyboard.press("Enter");
  await page.getByRole("textbox", { name: "Value of footfall" }).fill("sand");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Step \d: .*fires footfall: sand/ })).toContainText("footfall: sand");

  await goTo(page, "Frames");
  await page.getByRole("button", { name: "Pick row 1", exact: true }).click();
  await write(page, "note", '{"by": "night"}');
  await expect(data(page).getByRole("textbox", { name: "Value of note" })).toHaveValue('{"by":"night"}');
  await saved(page);
  await page.reload();

  const { atlas } = await delivered(page);
  expect(atlas.clips.walk?.data).toEqual({ cost: 3, blocks: true });
  expect(
    Object.values(atlas.frames)
      .filter((frame) => frame.data)
      .map((frame) => frame.data),
  ).toEqual(Array(4).fill({ note: { by: "night" } }));
  expect(atlas.clips.walk?.steps.flatMap(({ eventValues }) => eventValues ?? [])).toEqual([{ footfall: "sand" }]);
});

test("different values on several frames are shown as mixed, and one value can be set for all", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 2), 4, 2);
  await page.getByRole("button", { name: "Pick row 0", exact: true }).click();
  await write(page, "weight", "1");
  await page.getByRole("button", { name: "Pick row 1", exact: true }).click();
  const value = data(page).getByRole("textbox", { name: "Value of weight" });
  await expect(value).toHaveAttribute("placeholder", "mixed");
  await value.fill("2");
  await value.press("Enter");
  await page.getByRole("button", { name: "Remove weight" }).click();
  await expect(data(page)).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(value).toHaveValue("2");
});

test("times can be delivered in ticks of the game's clock", async ({ page }) => {
  await makeWalk(page);
  await goTo(page, "Ship");
  await page.getByText("durations also in ticks").click();
  const rate = page.getByRole("textbox", { name: "Ticks a second" });
  await rate.fill("50");
  await rate.press("Enter");
  const { atlas } = await delivered(page);
  expect(atlas.ticksPerSecond).toBe(50);
  expect(atlas.clips.walk?.steps.map(({ ticks }) => ticks)).toEqual([5, 5, 5, 5]);
});
