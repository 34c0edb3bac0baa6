/** Origins, clips beside each other, and the stage that they are judged on. */
import { clearPixels, paste } from "@caravan/core/raster";
import { expect, test } from "./fixtures";
import { choose, clipOfRows, delivered, dropAndCut, dropFiles, figureSheet, goTo, openEmpty, pngFile, typeNumber } from "./studio";

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

test("the origin goes to the feet for a whole action, and the character stands steady on the ground line", { tag: "@moving" }, async ({
  page,
}) => {
  // Two facings of uneven boxes: the feet hang at another height in each frame.
  const cell = { w: 32, h: 40 };
  const figures = figureSheet(3, 2, cell);
  const sheet = clearPixels(figures.width, figures.height);
  for (let k = 0; k < 6; k++) {
    const [x, y] = [(k % 3) * cell.w, Math.floor(k / 3) * cell.h];
    paste(sheet, figures, { x, y: y + 4, w: cell.w, h: cell.h - 8 }, x, y + k);
  }
  await dropAndCut(page, "hopper.png", sheet, 3, 2);
  await clipOfRows(page, 2, "hop");
  await page.getByRole("button", { name: "Its rows are 2 facings" }).click();
  await page.getByRole("button", { name: "Open hop-" }).click();
  await goTo(page, "Marks");
  await page.getByRole("radio", { name: "Action" }).click();
  await expect(page.getByText("6 frames of the action hop")).toBeVisible();
  await page.getByRole("checkbox", { name: "each frame by its own drawing" }).click();
  await page.getByRole("button", { name: "Feet", exact: true }).click();
  await expect(page.getByRole("button", { name: "Undo: place the origin of the action hop" })).toBeVisible();
  const { atlas, frame, names } = await delivered(page);
  for (const name of names) {
    const { bytes, width, height } = frame(name);
    let lowest = 0;
    for (let k = 3; k < bytes.length; k += 4) if (bytes[k] !== 0) lowest = Math.floor((k - 3) / 4 / width);
    expect(lowest).toBeLessThan(height);
    expect(atlas.frames[name]?.origin.y, name).toBe(lowest + 1);
  }
  // On the player's canvas the lowest pixel of every step is on one line.
  await goTo(page, "Clips");
  await page.getByRole("checkbox", { name: "Origin", exact: true }).click();
  await page.getByRole("button", { name: "Pause" }).click();
  const lowestDrawn = () =>
    page.getByTestId("stage").evaluate((canvas: HTMLCanvasElement) => {
      const { width, height } = canvas;
      const { data } = canvas.getContext("2d")?.getImageData(0, 0, width, height) ?? { data: [] };
      for (let n = data.length - 1; n > 0; n -= 4) if (data[n] !== 0) return Math.floor(n / 4 / width);
      return -1;
    });
  const lines = new Set<number>();
  for (let k = 0; k < 3; k++) {
    await page.keyboard.press(".");
    await page.waitForTimeout(120);
    lines.add(await lowestDrawn());
  }
  expect([...lines]).toHaveLength(1);
  expect([...lines][0]).toBeGreaterThan(50);
});

test("the origin is dragged, nudged by half pixels, set to nine places, copied, and reset to the source's", async ({ page }) => {
  await dropAndCut(page, "figure.png", figureSheet(3, 1), 3, 1);
  await clipOfRows(page, 1, "stand");
  await page.keyboard.press("g");
  const x = page.getByRole("textbox", { name: "Origin x", exact: true });
  const y = page.getByRole("textbox", { name: "Origin y", exact: true });
  await expect(x).toHaveValue("16");
  await page.getByRole("button", { name: "Origin at the top left" }).click();
  await expect(x).toHaveValue("0");
  await page.keyboard.press("Alt+2");
  await expect(y).toHaveValue("40");
  await page.keyboard.press("Alt+ArrowRight");
  await page.keyboard.press("ArrowUp");
  await expect(x).toHaveValue("16.5");
  await expect(y).toHaveValue("39");
  await expect(page.getByRole("textbox", { name: "Origin y as a fraction" })).toHaveValue("0.975");
  const canvas = await page.getByTestId("marks-canvas").boundingBox();
  if (!canvas) throw new Error("No canvas.");
  await page.mouse.move(canvas.x + 200, canvas.y + 100);
  await page.mouse.down();
  await page.mouse.move(canvas.x + 140, canvas.y + 60, { steps: 6 });
  await page.mouse.up();
  expect(Number(await x.inputValue())).toBeLessThan(14);
  expect(Number(await y.inputValue())).toBeLessThan(37);
  const dragged = [await x.inputValue(), await y.inputValue()];
  await page.getByRole("button", { name: "Copy", exact: true }).first().click();
  await page.getByRole("button", { name: "Use the source’s" }).click();
  await expect(x).toHaveValue("16");
  await page.getByRole("radio", { name: "Frame" }).first().click();
  await page.getByRole("region", { name: "Origin" }).getByRole("button", { name: "Paste" }).click();
  await expect(x).toHaveValue(dragged[0] as string);
  await page.getByRole("button", { name: "Look at step 1:" }).click();
  await expect(x).toHaveValue("16");
});

test("the step on which the figure jumps is visible in the drift chart, shown, and corrected", async ({ page }) => {
  const cell = { w: 32, h: 40 };
  const figures = figureSheet(1, 1, cell);
  const sheet = clearPixels(cell.w * 6, cell.h);
  // The same figure six times; the fourth is drawn 4 px higher and 6 px further right.
  for (let k = 0; k < 6; k++) paste(sheet, figures, { x: 0, y: 4, w: 26, h: 36 }, k * cell.w + (k === 3 ? 6 : 0), k === 3 ? 0 : 4);
  await dropAndCut(page, "stander.png", sheet, 6, 1);
  await clipOfRows(page, 1, "stand");
  await goTo(page, "Marks");
  const jumps = page.getByRole("list", { name: "Steps that jump" });
  await expect(jumps.getByRole("listitem")).toHaveCount(2);
  await expect(jumps).toContainText("Feet 4 px higher on step 3 than around it");
  await expect(jumps).toContainText("Middle 6 px further right on step 3 than around it");
  await expect(page.getByRole("figure", { name: /^Drift over 6 steps: feet 1 to 5 px over the ground.*2 jumps\.$/ })).toBeVisible();
  await jumps.getByRole("button", { name: "Show it" }).first().click();
  await expect(page.getByRole("heading", { name: "stand" }).locator("..")).toContainText("step 3 of 6");
  await jumps.getByRole("button", { name: "Level the feet" }).click();
  await jumps.getByRole("button", { name: "Align it" }).click();
  await expect(jumps).toHaveCount(0);
  await expect(page.getByText("No step jumps.")).toBeVisible();
  const { atlas } = await delivered(page);
  expect(atlas.frames["stander/3"]?.origin).toEqual({ x: 22, y: 36 });
  expect(atlas.frames["stander/2"]?.origin).toEqual({ x: 16, y: 40 });
});

test("clips are compared side by side, in step by time or by phase, and with their earlier state", async ({ page }) => {
  await dropFiles(page, [pngFile("pair.png", figureSheet(4, 2))]);
  await typeNumber(page, "Columns", 4);
  await typeNumber(page, "Rows", 2);
  await clipOfRows(page, 1, "slow");
  await typeNumber(page, "Milliseconds a step", 200);
  await goTo(page, "Frames");
  await page.getByRole("button", { name: "Pick row 1", exact: true }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("quick");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await page.keyboard.press("c");
  const lanes = page.getByTestId("lane");
  await expect(lanes).toHaveCount(2);
  const drawn = async () =>
    (await lanes.evaluateAll((all) => all.map((each) => (each as HTMLElement).dataset.drawn ?? ""))).map((each) => {
      const [name = "", t = ""] = each.split("@");
      return { number: Number(name.split("/")[1]), t: Number(t) };
    });
  // The player is paused at its start: moving, it could be loops ahead on a busy machine, and time counts on from there.
  const position = page.getByRole("slider", { name: "Position in the loop" });
  const bar = await position.locator("xpath=ancestor::*[@data-orientation][1]").boundingBox();
  if (!bar) throw new Error("There is no bar of time.");
  await page.mouse.click(bar.x + (bar.width * 250) / Number(await position.getAttribute("aria-valuemax")), bar.y + bar.height / 2);
  await expect(position).toHaveAttribute("aria-valuenow", /^2[3-6]\d$/);
  // The first lane is the chosen clip, quick: row 1 at 100 ms a step; the other is slow, row 0 at 200.
  await expect.poll(async () => (await drawn()).map(({ number }) => number)).toEqual([6, 1]);
  await page.getByRole("radio", { name: "By phase" }).click();
  await expect.poll(async () => (await drawn()).map(({ number }) => number)).toEqual([6, 2]);
  await page.getByRole("radio", { name: "By time" }).click();
  await choose(page, page.getByRole("combobox", { name: "Speed of clip 2" }), "2×");
  await expect.poll(async () => (await drawn()).map(({ number }) => number)).toEqual([6, 2]);
  // The state before its last edit is slow and runs twice as fast.
  await choose(page, page.getByRole("combobox", { name: "Speed of clip 2" }), "1×");
  await page.getByRole("checkbox", { name: "as before its last edit" }).nth(1).click();
  await expect.poll(async () => (await drawn()).map(({ number }) => number)).toEqual([6, 2]);
  await expect(page.getByRole("list", { name: "Compared clips" })).toContainText("before:");
  await page.getByRole("radio", { name: "Overlaid" }).click();
  await expect(lanes).toHaveCount(1);
  await page.getByRole("radio", { name: "Rhythm" }).click();
  await page.getByRole("region", { name: "Clips to overlay" }).getByRole("button", { name: "slow" }).click();
  await expect(page.getByRole("figure")).toHaveAccessibleName(
    "Time of each step: quick, 4 steps, 100 ms each, 0.40 s; slow, 4 steps, 200 ms each, 0.80 s",
  );
  await expect(page.locator(".recharts-line-curve")).toHaveCount(2);
});

test("the stage shows ghosts, and its backdrop is a colour of the art or the demo's country", { tag: "@moving" }, async ({ page }) => {
  await dropAndCut(page, "figure.png", figureSheet(4, 1), 4, 1);
  await clipOfRows(page, 1, "stand");
  await page.getByRole("button", { name: "Pause" }).click();
  await page.getByRole("checkbox", { name: "Origin", exact: true }).click();
  const colours = () =>
    page.getByTestId("stage").evaluate((canvas: HTMLCanvasElement) => {
      const { width, height } = canvas;
      const { data } = canvas.getContext("2d")?.getImageData(0, 0, width, height) ?? { data: [] };
      let drawn = 0;
      let soft = 0;
      for (let n = 3; n < data.length; n += 4) {
        if (data[n] === 255 || data[n] === 120) drawn++;
        else if (data[n] !== 0) soft++;
      }
      return { drawn, soft, corner: [...(data.slice(0, 4) as Iterable<number>)] };
    });
  await expect.poll(async () => (await colours()).soft).toBe(0);
  await page.keyboard.press(".");
  await page.getByRole("button", { name: "Stage" }).click();
  await typeNumber(page, "Ghosts before", 1);
  await typeNumber(page, "Ghosts after", 1);
  await expect.poll(async () => (await colours()).soft).toBeGreaterThan(20);
  const tinted = await colours();
  await page.getByRole("radio", { name: "Outlines" }).click();
  await expect.poll(async () => (await colours()).soft).not.toBe(tinted.soft);
  await page.getByRole("radio", { name: "Flat" }).click();
  await page.getByRole("button", { name: "Pick from the art" }).click();
  const stage = await page.getByTestId("stage").boundingBox();
  if (!stage) throw new Error("No stage.");
  await page.mouse.click(stage.x + stage.width / 2, stage.y + stage.height / 2);
  await expect.poll(async () => (await colours()).corner[3]).toBe(255);
  await page.getByRole("button", { name: "Stage" }).click();
  await page.getByRole("radio", { name: "Desert" }).click();
  // The sky of the Tamarisk Road.
  await expect.poll(async () => (await colours()).corner.slice(0, 3)).toEqual([232, 201, 155]);
});
