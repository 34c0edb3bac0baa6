import { expect, type Page, test } from "./fixtures";
import { choose, clipOfRows, dropAndCut, figureSheet, openEmpty, typeNumber } from "./studio";

/** A clip of one row of four figures, and of the row below if asked. */
async function clipOf(page: Page, rows: 1 | 2): Promise<void> {
  await dropAndCut(page, "figures.png", figureSheet(4, 2), 4, 2);
  await clipOfRows(page, rows, "walk");
}

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

const steps = (page: Page, clip = "walk") => page.getByRole("list", { name: `Steps of ${clip}` }).getByRole("button");
const times = (page: Page) =>
  steps(page).evaluateAll((all) => all.map((each) => Number(/([\d.]+) ms$/.exec(each.getAttribute("aria-label") ?? "")?.[1])));

async function dragEdge(page: Page, step: number, by: number, key?: "Alt"): Promise<void> {
  const edge = await page.getByTestId(`edge ${step}`).boundingBox();
  if (!edge) throw new Error("The edge is not in sight.");
  const [x, y] = [edge.x + edge.width / 2, edge.y + 30];
  if (key) await page.keyboard.down(key);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + by / 2, y, { steps: 3 });
  await page.mouse.move(x + by, y, { steps: 3 });
  await page.mouse.up();
  if (key) await page.keyboard.up(key);
}

test("a step's edge is dragged: the others move along, or with Alt only the border moves", async ({ page }) => {
  await clipOf(page, 1);
  await expect.poll(() => times(page)).toEqual([100, 100, 100, 100]);
  await dragEdge(page, 1, 60);
  const [first, longer, ...rest] = await times(page);
  expect([first, ...rest]).toEqual([100, 100, 100]);
  expect(longer).toBeGreaterThan(115);
  await page.keyboard.press("Control+z");
  await expect.poll(() => times(page)).toEqual([100, 100, 100, 100]);
  await dragEdge(page, 1, -40, "Alt");
  const moved = await times(page);
  expect(moved[1]).toBeLessThan(95);
  expect((moved[1] as number) + (moved[2] as number)).toBe(200);
  expect([moved[0], moved[3]]).toEqual([100, 100]);
});

test("selected steps are spread over a time, made longer, scaled, duplicated, copied and reversed", async ({ page }) => {
  await clipOf(page, 1);
  await steps(page).nth(0).click();
  await steps(page)
    .nth(2)
    .click({ modifiers: ["Shift"] });
  await typeNumber(page, "Milliseconds in total", 250);
  await expect.poll(() => times(page)).toEqual([83.333, 83.333, 83.334, 100]);
  await typeNumber(page, "Milliseconds to add", 10);
  await expect.poll(() => times(page)).toEqual([93.333, 93.333, 93.334, 100]);
  await steps(page).nth(3).click();
  await typeNumber(page, "Percent", 150);
  await expect.poll(() => times(page)).toEqual([93.333, 93.333, 93.334, 150]);
  await page.keyboard.press("Control+c");
  await steps(page).nth(0).click();
  await page.keyboard.press("Control+v");
  await expect.poll(() => times(page)).toEqual([93.333, 150, 93.333, 93.334, 150]);
  await page.keyboard.press("Control+d");
  await expect(steps(page)).toHaveCount(6);
  await page.keyboard.press("Control+a");
  await page.keyboard.press("Shift+v");
  await expect.poll(() => times(page)).toEqual([150, 93.334, 93.333, 150, 150, 93.333]);
  await expect(page.getByRole("list", { name: "Findings on this clip" })).toContainText("the same frame as the one before");
});

test("frames are added by their numbers, and a wrong number is reported in place", async ({ page }) => {
  await clipOf(page, 1);
  const field = page.getByRole("textbox", { name: "Frames by number", exact: true });
  await field.fill("4-6, 0");
  await field.press("Enter");
  await expect(steps(page)).toHaveCount(8);
  await expect(steps(page).nth(7)).toHaveAccessibleName(/figures\/0/);
  await field.fill("2, 99");
  await field.press("Enter");
  await expect(page.getByText("There is no 99: numbers go from 0 to 7.")).toBeVisible();
  await expect(steps(page)).toHaveCount(8);
});

test("a clip is split by the rows of its sheet and at selected steps, and joined again", async ({ page }) => {
  await clipOf(page, 2);
  await expect(steps(page)).toHaveCount(8);
  await page.getByRole("button", { name: "Split by its 2 rows" }).click();
  await expect(steps(page)).toHaveCount(4);
  const clips = page.getByRole("region", { name: "Clips: list" });
  await expect(clips.getByRole("button", { name: /^walk/ })).toHaveCount(2);
  await steps(page).nth(1).click();
  await steps(page)
    .nth(2)
    .click({ modifiers: ["Shift"] });
  await page.keyboard.press("s");
  await expect(clips.getByRole("button", { name: /^walk/ })).toHaveCount(4);
  await expect(steps(page)).toHaveCount(1);
  const other = page.getByRole("combobox", { name: "Clip to append" });
  for (let left = 3; left > 0; left--) await choose(page, other, 0);
  await expect(steps(page)).toHaveCount(8);
  await expect(clips.getByRole("button", { name: /^walk/ })).toHaveCount(1);
});

test("steps fire events that the player shows, and later loops begin after a lead-in", { tag: "@moving" }, async ({ page }) => {
  await clipOf(page, 1);
  await steps(page).nth(2).click();
  const events = page.getByRole("textbox", { name: "Events" });
  await events.fill("foot, dust");
  await events.press("Enter");
  await expect(steps(page).nth(2)).toHaveAccessibleName(/fires foot and dust, 100 ms$/);
  await page.getByRole("button", { name: "Pause" }).click();
  await steps(page).nth(2).click();
  await expect(page.getByRole("region", { name: "Player", exact: true })).toContainText("foot, dust");
  await steps(page).nth(1).click();
  await expect(page.getByRole("region", { name: "Player", exact: true })).not.toContainText("foot");
  await typeNumber(page, "First step of each later loop", 2);
  // The step after the last is the third, not the first.
  await steps(page).nth(3).click();
  await page.keyboard.press(".");
  await expect(page.getByTestId("reading")).toContainText("step 2 of 4");
});

test("a name typed quickly is applied before the next click leads elsewhere", async ({ page }) => {
  await dropAndCut(page, "figures.png", figureSheet(4, 2), 4, 2);
  await page.getByRole("button", { name: "Pick row 0" }).click();
  // On a slow machine the Clips stop takes a while to render.
  const client = await page.context().newCDPSession(page);
  await client.send("Emulation.setCPUThrottlingRate", { rate: 8 });
  const sources = await page.getByRole("navigation", { name: "Stops" }).getByRole("button", { name: "Sources" }).boundingBox();
  if (!sources) throw new Error("No way to the sources.");
  const chosen: string[] = [];
  page.on("filechooser", () => chosen.push("a file window"));
  const typed = ["c", ..."walk", "Enter"].map((key) => page.keyboard.press(key));
  await Promise.all([...typed, page.mouse.click(sources.x + 40, sources.y + 20)]);
  await client.send("Emulation.setCPUThrottlingRate", { rate: 1 });
  await expect(page.getByRole("heading", { name: "Sources" }).first()).toBeVisible();
  expect(chosen).toEqual([]);
  await page.keyboard.press("3");
  await expect(steps(page)).toHaveCount(4);
});
