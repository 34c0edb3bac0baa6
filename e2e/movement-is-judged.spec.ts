/** Clips are built by ranges, timed to the microsecond, and the frame that slips is found. */
import { clearPixels, type Pixels, paste } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { choose, clipOfRows, delivered, dropAndCut, figureSheet, openEmpty, typeNumber } from "./studio";

const steps = (page: Page, clip: string) => page.getByRole("list", { name: `Steps of ${clip}` }).getByRole("button");
const times = (page: Page, clip: string) =>
  steps(page, clip).evaluateAll((all) => all.map((each) => Number(/([\d.]+) ms$/.exec(each.getAttribute("aria-label") ?? "")?.[1])));
const clips = (page: Page) => page.getByRole("list", { name: "Clips" }).getByRole("button");

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

test("22 frames of a sheet with two empty cells become three clips by ranges, the first as a ping-pong: by keys alone", async ({
  page,
}) => {
  await dropAndCut(page, "moves.png", figureSheet(6, 4, undefined, [22, 23]), 6, 4);
  await expect(page.getByTestId("outcome")).toContainText("22 frames");
  await page.keyboard.press("Escape");
  await page.keyboard.press("a");
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("whole");
  await page.keyboard.press("Enter");
  await expect(steps(page, "whole")).toHaveCount(22);
  for (const [name, range] of [
    ["draw", "0-6"],
    ["throw", "7-15"],
    ["fall-back", "16-21"],
  ] as const) {
    await page.keyboard.press("Shift+A");
    await expect(page.getByRole("textbox", { name: "New clip of frames by number" })).toBeFocused();
    await page.keyboard.type(range);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
    await page.keyboard.type(name);
    await page.keyboard.press("Enter");
    if (name === "draw") await page.keyboard.press("b");
  }
  const { atlas } = await delivered(page);
  expect(Object.entries(atlas.clips).map(([name, { steps: all, playback }]) => [name, all.length, playback])).toEqual([
    ["whole", 22, "loop"],
    ["draw", 7, "pingpong"],
    ["throw", 9, "loop"],
    ["fall-back", 6, "loop"],
  ]);
  expect(atlas.clips["fall-back"]?.steps.map(({ frame }) => frame)).toEqual([16, 17, 18, 19, 20, 21].map((k) => `moves/${k}`));
});

test("the same three clips by mouse", async ({ page }) => {
  await dropAndCut(page, "moves.png", figureSheet(6, 4, undefined, [22, 23]), 6, 4);
  for (let row = 0; row < 4; row++) await page.getByRole("button", { name: `Pick row ${row}`, exact: true }).click();
  await page.getByRole("button", { name: "Make clip" }).click();
  for (const [k, range] of ["0-6", "7-15", "16-21"].entries()) {
    const field = page.getByRole("textbox", { name: "New clip of frames by number" });
    await field.click();
    await field.pressSequentially(range);
    await field.press("Enter");
    await expect(clips(page)).toHaveCount(k + 2);
    if (k === 0) await page.getByRole("radio", { name: "Ping-pong" }).click();
  }
  await clips(page).first().click();
  await page.getByRole("button", { name: "Remove", exact: true }).click();
  const { atlas } = await delivered(page);
  expect(Object.values(atlas.clips).map(({ steps: all, playback }) => [all.length, playback])).toEqual([
    [7, "pingpong"],
    [9, "loop"],
    [6, "loop"],
  ]);
});

/** Figures standing on one line, except one that hangs two pixels lower. */
function slippingSheet(slips: number): Pixels {
  const cell = { w: 32, h: 40 };
  const even = figureSheet(6, 1, cell);
  const sheet = clearPixels(even.width, even.height);
  for (let k = 0; k < 6; k++) {
    const rect = { x: k * cell.w, y: 0, w: cell.w, h: cell.h - 3 };
    paste(sheet, even, rect, k * cell.w, k === slips ? 3 : 1);
  }
  return sheet;
}

test("the frame whose foot slips is found by flicking, dropped from that clip only, and the clip is split in three", async ({ page }) => {
  await dropAndCut(page, "stride.png", slippingSheet(3), 6, 1);
  await clipOfRows(page, 1, "stride");
  await page.keyboard.press("d");
  await expect(clips(page)).toHaveCount(2);
  await clips(page).first().click();
  await page.getByRole("radio", { name: "Flick" }).click();
  // Under each step is the distance of its lowest pixel from the ground: one differs from the others.
  const feet = await page.getByRole("list", { name: "Steps to look at" }).getByRole("listitem").allTextContents();
  expect(feet.map((each) => each.trim())).toEqual(["-2", "-2", "-2", "0", "-2", "-2"]);
  await page.getByRole("button", { name: "Look at step 2:" }).click();
  await expect(page.getByTestId("flick-told")).toContainText("Lowest pixel: 2 px above it, then on the ground.");
  const shown = () => page.getByTestId("flick").getAttribute("data-frame");
  await expect.poll(shown).toBe("stride/2");
  const pixels = () => page.getByTestId("flick").evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  const before = await pixels();
  await page.keyboard.press("x");
  await expect.poll(shown).toBe("stride/3");
  expect(await pixels()).not.toBe(before);
  await page.keyboard.press("Delete");
  await page.getByRole("radio", { name: "Ribbons" }).click();
  await expect(steps(page, "stride")).toHaveCount(5);
  await clips(page).nth(1).click();
  await expect(page.getByRole("list", { name: /^Steps of stride/ }).getByRole("button")).toHaveCount(6);
  await clips(page).first().click();
  await steps(page, "stride").nth(2).click();
  await steps(page, "stride")
    .nth(3)
    .click({ modifiers: ["Shift"] });
  await page.keyboard.press("s");
  await expect(clips(page)).toHaveCount(4);
  expect((await clips(page).allTextContents()).map((text) => text.replace(/[\d.]+ s.*$/, ""))).toHaveLength(4);
});

test("20 pictures in exactly 750 ms, once, then hidden", { tag: "@moving" }, async ({ page }) => {
  await dropAndCut(page, "burst.png", figureSheet(5, 4), 5, 4);
  await clipOfRows(page, 4, "burst");
  await page.getByRole("radio", { name: "Once" }).click();
  await choose(page, page.getByRole("combobox", { name: "then" }), "hide");
  await typeNumber(page, "Seconds in all", 0.75);
  await expect.poll(() => times(page, "burst")).toEqual(Array(20).fill(37.5));
  // Played to its end, nothing is left on the stage.
  await expect(page.getByRole("button", { name: "Play again" })).toBeVisible();
  await expect(page.getByTestId("stage")).toHaveAttribute("data-frame", "");
  const { atlas } = await delivered(page);
  expect(atlas.clips.burst).toMatchObject({ playback: "once", after: "hide" });
  expect(atlas.clips.burst?.steps.reduce((sum, { ms }) => sum + ms, 0)).toBe(750);
});

test("150/150 and 120/80/120/80 are typed and dragged, and a selected step is held to fill a time", async ({ page }) => {
  await dropAndCut(page, "beat.png", figureSheet(4, 1), 4, 1);
  await clipOfRows(page, 1, "beat");
  for (const [step, ms] of [120, 80, 120, 80].entries()) {
    await steps(page, "beat").nth(step).click();
    await typeNumber(page, "Milliseconds of the selected steps", ms);
  }
  await expect.poll(() => times(page, "beat")).toEqual([120, 80, 120, 80]);
  await typeNumber(page, "Milliseconds of the clip with this step held", 1000);
  await expect.poll(() => times(page, "beat")).toEqual([120, 80, 120, 680]);
  await page.keyboard.press("Control+z");
  // The last two are dropped, and the rest dragged to 150 each.
  await steps(page, "beat").nth(2).click();
  await steps(page, "beat")
    .nth(3)
    .click({ modifiers: ["Shift"] });
  await page.keyboard.press("Delete");
  await expect.poll(() => times(page, "beat")).toEqual([120, 80]);
  for (const [step, wanted] of [150, 150].entries()) {
    const edge = await page.getByTestId(`edge ${step}`).boundingBox();
    const cell = await steps(page, "beat").nth(step).boundingBox();
    if (!edge || !cell) throw new Error("The edge is not in sight.");
    const [now = 1] = (await times(page, "beat")).slice(step);
    const perMs = cell.width / now;
    const [x, y] = [edge.x + edge.width / 2, edge.y + 40];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + (wanted - now) * perMs * 0.6, y, { steps: 4 });
    await page.mouse.move(x + (wanted - now) * perMs, y, { steps: 4 });
    await page.mouse.up();
  }
  await expect.poll(() => times(page, "beat")).toEqual([150, 150]);
});

test("steps are selected along the ruler, time is scrubbed there, and the bracket of later loops is dragged", async ({ page }) => {
  await dropAndCut(page, "beat.png", figureSheet(6, 1), 6, 1);
  await clipOfRows(page, 1, "beat");
  const ruler = await page.getByTestId("ruler").boundingBox();
  const last = await steps(page, "beat").nth(5).boundingBox();
  if (!ruler || !last) throw new Error("No ruler.");
  const width = (last.x + last.width - ruler.x) / 6;
  const y = ruler.y + 10;
  const drag = async (from: number, to: number) => {
    await page.mouse.move(ruler.x + width * from, y);
    await page.mouse.down();
    await page.mouse.move(ruler.x + width * to, y, { steps: 6 });
    await page.mouse.up();
  };
  await page.keyboard.down("Shift");
  await drag(1.5, 3.5);
  await page.keyboard.up("Shift");
  await expect
    .poll(() => steps(page, "beat").evaluateAll((all) => all.map((each) => each.getAttribute("aria-pressed") === "true")))
    .toEqual([false, true, true, true, false, false]);
  // Only these are played, round and round.
  await page.getByRole("checkbox", { name: "play only these steps" }).click();
  await expect(page.getByRole("region", { name: "Player", exact: true })).toContainText("only 3 steps");
  await page.getByRole("checkbox", { name: "play only these steps" }).click();
  await drag(0.2, 4.5);
  await expect(page.getByTestId("reading")).toHaveText("step 4 of 6");
  await expect(page.getByRole("button", { name: "Play", exact: true })).toBeVisible();
  const bracket = await page.getByTestId("rounds-from").boundingBox();
  if (!bracket) throw new Error("No bracket.");
  await page.mouse.move(bracket.x + 4, bracket.y + 4);
  await page.mouse.down();
  await page.mouse.move(bracket.x + 4 + width * 2, bracket.y + 4, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByRole("textbox", { name: "First step of each later loop" })).toHaveValue("2");
  const position = page.getByRole("slider", { name: "Position in the loop" });
  await position.focus();
  await page.keyboard.press("Home");
  await expect(page.getByTestId("reading")).toHaveText("step 0 of 6");
  await page.keyboard.press("ArrowRight");
  await expect(position).toHaveAttribute("aria-valuenow", "1");
  await page.keyboard.press("End");
  await expect(page.getByTestId("reading")).toHaveText("step 5 of 6");
  await expect(position).toHaveAttribute("aria-valuenow", String(await position.getAttribute("aria-valuemax")));
});
