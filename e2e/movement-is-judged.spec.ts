import { clearPixels, type Pixels, paste } from "@caravan/core/raster";
import { expect, type Page, test } from "@playwright/test";
import { delivered, dropAndCut, dropFiles, figureSheet, goTo, openStudio, pngFile, startProject, typeNumber } from "./studio";

const steps = (page: Page, clip: string) => page.getByRole("list", { name: `Steps of ${clip}` }).getByRole("button");
const times = (page: Page, clip: string) =>
  steps(page, clip).evaluateAll((all) => all.map((each) => Number(/([\d.]+) ms$/.exec(each.getAttribute("aria-label") ?? "")?.[1])));
const clips = (page: Page) => page.getByRole("list", { name: "Clips" }).getByRole("button");

/** Picks all rows of a sheet and makes a clip of them. */
async function clipOfRows(page: Page, rows: number, name: string): Promise<void> {
  for (let row = 0; row < rows; row++) await page.getByRole("button", { name: `Pick row ${row}`, exact: true }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type(name);
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
}

test.beforeEach(async ({ page }) => {
  await openStudio(page);
  await startProject(page);
});

test("22 frames of a sheet with two empty cells become three clips by ranges, the first back and forth: by keys alone", async ({
  page,
}) => {
  await dropAndCut(page, "moves.png", figureSheet(6, 4, undefined, [22, 23]), 6, 4);
  await expect(page.getByTestId("outcome")).toContainText("22 frames");
  await page.keyboard.press("Escape");
  await page.keyboard.press("a");
  await page.keyboard.press("c");
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
    if (k === 0) await page.getByRole("radio", { name: "Back and forth" }).click();
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

/** Figures that stand on one line, but for one that hangs two pixels lower. */
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
  // Under each step stands how far its lowest pixel is from the ground: one is unlike the others.
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
  await page.keyboard.press("s");
  await expect(clips(page)).toHaveCount(4);
  expect((await clips(page).allTextContents()).map((text) => text.replace(/[\d.]+ s.*$/, ""))).toHaveLength(4);
});

test("20 pictures in exactly 750 ms, once, then gone", async ({ page }) => {
  await dropAndCut(page, "burst.png", figureSheet(5, 4), 5, 4);
  await clipOfRows(page, 4, "burst");
  await page.getByRole("radio", { name: "Once" }).click();
  await page.getByRole("combobox", { name: "then" }).selectOption("hide");
  await typeNumber(page, "Seconds in all", 0.75);
  await expect.poll(() => times(page, "burst")).toEqual(Array(20).fill(37.5));
  // Played to its end, nothing is left on the stage.
  await expect(page.getByRole("button", { name: "Play again" })).toBeVisible();
  await expect(page.getByTestId("stage")).toHaveAttribute("data-frame", "");
  const { atlas } = await delivered(page);
  expect(atlas.clips.burst).toMatchObject({ playback: "once", after: "hide" });
  expect(atlas.clips.burst?.steps.reduce((sum, { ms }) => sum + ms, 0)).toBe(750);
});

test("150/150 and 120/80/120/80 are typed and dragged, and a chosen step is held to fill a time", async ({ page }) => {
  await dropAndCut(page, "beat.png", figureSheet(4, 1), 4, 1);
  await clipOfRows(page, 1, "beat");
  for (const [step, ms] of [120, 80, 120, 80].entries()) {
    await steps(page, "beat").nth(step).click();
    await typeNumber(page, "Milliseconds of the chosen steps", ms);
  }
  await expect.poll(() => times(page, "beat")).toEqual([120, 80, 120, 80]);
  await typeNumber(page, "Milliseconds of the clip with this step held", 1000);
  await expect.poll(() => times(page, "beat")).toEqual([120, 80, 120, 680]);
  await page.keyboard.press("Control+z");
  // The last two go, and what is left is dragged to 150 each.
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

test("steps are swept over along the ruler, time is scrubbed there, and the bracket of later rounds is dragged", async ({ page }) => {
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
  await expect(page.getByRole("textbox", { name: "First step of each later round" })).toHaveValue("2");
  await page.getByRole("slider", { name: "Time in the round" }).focus();
  await page.keyboard.press("Home");
  await expect(page.getByTestId("reading")).toHaveText("step 0 of 6");
});

/** Eight rows of two, each row in a grey of its own, so that what is drawn tells the row. */
function roseSheet(): Pixels {
  const cell = 24;
  const sheet = clearPixels(cell * 2, cell * 8);
  for (let row = 0; row < 8; row++)
    for (let column = 0; column < 2; column++)
      for (let y = 2; y < cell; y++)
        for (let x = 6; x < 18 - column; x++)
          sheet.bytes.set([20 + row * 28, 90, 40, 255], ((row * cell + y) * sheet.width + column * cell + x) * 4);
  return sheet;
}

test("eight facings come from names, and the character turns with the pointer through all of them without jitter", async ({ page }) => {
  await dropAndCut(page, "turning.png", roseSheet(), 2, 8);
  const rose = ["e", "se", "s", "sw", "w", "nw", "n", "ne"] as const;
  await page.getByTestId("sheet").focus();
  for (const [row, facing] of rose.entries()) {
    await goTo(page, "Frames");
    // A tall sheet opens at a zoom at which its art can be judged; this one's last rows lie below.
    await page.keyboard.press("0");
    await page.getByRole("button", { name: `Pick row ${row}`, exact: true }).click();
    await page.keyboard.press("c");
    await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
    await page.keyboard.type(`march_${facing}`);
    await page.keyboard.press("Enter");
  }
  await page.getByRole("button", { name: "By names …" }).click();
  const dialog = page.getByRole("dialog", { name: "Actions by names" });
  await expect(dialog.getByRole("checkbox", { name: "march, 8 ways" })).toBeChecked();
  await expect(dialog.getByRole("listitem")).toContainText("SEmarch_se");
  await dialog.getByRole("button", { name: "Make the action" }).click();
  await expect(page.getByRole("region", { name: "Wind rose of march" }).getByRole("button")).toHaveCount(8);
  const stage = page.getByTestId("stage");
  const box = await stage.boundingBox();
  if (!box) throw new Error("No stage.");
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const looks = () => stage.getAttribute("data-facing");
  const at = (degrees: number) =>
    page.mouse.move(cx + Math.cos((degrees * Math.PI) / 180) * 80, cy + Math.sin((degrees * Math.PI) / 180) * 80);
  for (const [k, facing] of rose.entries()) {
    await at(k * 45);
    await expect.poll(looks).toBe(facing);
    // What is drawn is that row's grey.
    const red = () =>
      stage.evaluate((canvas: HTMLCanvasElement) => {
        const { width, height } = canvas;
        const { data } = canvas.getContext("2d")?.getImageData(0, 0, width, height) ?? { data: [] };
        const found = new Map<number, number>();
        for (let n = 0; n < data.length; n += 4)
          if (data[n + 3] === 255 && data[n + 1] === 90 && data[n + 2] === 40)
            found.set(data[n] as number, (found.get(data[n] as number) ?? 0) + 1);
        return [...found].sort((a, b) => b[1] - a[1])[0]?.[0];
      });
    await expect.poll(red).toBe(20 + k * 28);
  }
  // Dragged onto a petal, a clip takes its place.
  const chip = await page.getByRole("region", { name: "Clips to put in" }).getByRole("button", { name: "march_ne" }).boundingBox();
  const north = page.getByRole("button", { name: /^Facing n:/ });
  const target = await north.boundingBox();
  if (!chip || !target) throw new Error("Nothing to drag.");
  await page.mouse.move(chip.x + 12, chip.y + 12);
  await page.mouse.down();
  await page.mouse.move(chip.x + 12, chip.y - 30, { steps: 4 });
  await page.mouse.move(target.x + 40, target.y + 40, { steps: 10 });
  await page.mouse.up();
  await expect(north).toHaveAccessibleName("Facing n: march_ne");
  await page.keyboard.press("Control+z");
  await expect(north).toHaveAccessibleName("Facing n: march_n");
  // Trembling about the edge between two sectors turns it once at most.
  await at(0);
  await expect.poll(looks).toBe("e");
  const seen: (string | null)[] = [];
  for (const tremble of [20, 24, 21, 25, 22, 24.5, 20.5, 25]) {
    await at(tremble);
    await page.waitForTimeout(40);
    seen.push(await looks());
  }
  expect(new Set(seen)).toEqual(new Set(["e"]));
  await at(35);
  await expect.poll(looks).toBe("se");
  // Keys turn it too, and keep the movement going.
  await page.keyboard.press("]");
  await expect.poll(looks).toBe("s");
  await page.keyboard.press("[");
  await expect.poll(looks).toBe("se");
});

test("four facings come from three rows with the west mirrored; the mirror is drawn, delivered, and frozen into a clip", async ({
  page,
}) => {
  await dropAndCut(page, "porter.png", figureSheet(4, 3), 4, 3);
  await clipOfRows(page, 1, "one");
  await page.getByRole("button", { name: "By rows …" }).click();
  const dialog = page.getByRole("dialog", { name: "An action by rows" });
  await expect(dialog.getByRole("combobox", { name: "Facing of row 1" })).toHaveValue("e");
  await expect(dialog.getByRole("checkbox", { name: "mirror what is missing" })).toBeChecked();
  await dialog.getByRole("button", { name: "Make porter" }).click();
  const petal = (facing: string) => page.getByRole("button", { name: new RegExp(`^Facing ${facing}:`) });
  await expect(petal("w")).toHaveAccessibleName("Facing w: mirror of porter-e");
  await petal("e").click();
  const picture = async () => {
    await page.keyboard.press("Space");
    await page.getByRole("slider", { name: "Time in the round" }).focus();
    await page.keyboard.press("Home");
    await page.waitForTimeout(120);
    return page.getByTestId("stage").evaluate((canvas: HTMLCanvasElement) => {
      const { width, height } = canvas;
      return { width, height, bytes: [...(canvas.getContext("2d")?.getImageData(0, 0, width, height).data ?? [])] };
    });
  };
  await page.getByRole("checkbox", { name: "Origin" }).click();
  await page.getByRole("button", { name: "Pause" }).click();
  const east = await picture();
  await petal("w").click();
  await expect.poll(() => page.getByTestId("stage").getAttribute("data-facing")).toBe("w");
  const west = await picture();
  // Pixel by pixel the mirror picture about the standing point, the middle of the stage.
  let drawn = 0;
  let off = 0;
  for (let y = 0; y < east.height; y++)
    for (let x = 1; x < east.width; x++) {
      const a = (y * east.width + x) * 4;
      const b = (y * east.width + (east.width - 1 - x)) * 4;
      if (east.bytes[a + 3] === 0 && west.bytes[b + 3] === 0) continue;
      drawn++;
      if ([0, 1, 2, 3].some((n) => east.bytes[a + n] !== west.bytes[b + n])) off++;
    }
  expect(drawn).toBeGreaterThan(1000);
  expect(off).toBe(0);
  await page.getByRole("button", { name: "Freeze the mirror" }).click();
  await expect(petal("w")).toHaveAccessibleName("Facing w: porter-w");
  const { atlas, frame } = await delivered(page);
  expect((atlas as unknown as { actions: unknown }).actions).toEqual({
    porter: { facings: { e: { clip: "porter-e" }, s: { clip: "porter-s" }, w: { clip: "porter-w" }, n: { clip: "porter-n" } } },
  });
  const [own, mirrored] = [frame("porter/4"), frame(atlas.clips["porter-w"]?.steps[0]?.frame as string)];
  for (let y = 0; y < own.height; y++)
    for (let x = 0; x < own.width; x++) {
      const a = (y * own.width + x) * 4;
      const b = (y * own.width + own.width - 1 - x) * 4;
      if (own.bytes[a + 3] !== mirrored.bytes[b + 3]) throw new Error(`The frozen mirror differs at ${x}, ${y}.`);
    }
});

test("the origin goes to the feet for a whole action, and the character stands steady on the ground line", async ({ page }) => {
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
  await page.getByRole("button", { name: "Work on hop-" }).click();
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
  // On the player's own canvas the lowest pixel of every step lies on one line.
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

test("the origin is dragged, nudged by half pixels, set to nine places, copied, and given back to the source", async ({ page }) => {
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
  await expect(page.getByRole("textbox", { name: "Origin y as a share" })).toHaveValue("0.975");
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
  await page.getByRole("button", { name: "As the source" }).click();
  await expect(x).toHaveValue("16");
  await page.getByRole("radio", { name: "Frame" }).first().click();
  await page.getByRole("region", { name: "Origin" }).getByRole("button", { name: "Paste" }).click();
  await expect(x).toHaveValue(dragged[0] as string);
  await page.getByRole("button", { name: "Look at step 1:" }).click();
  await expect(x).toHaveValue("16");
});

test("clips are compared side by side, in step by time or by phase, and with what they were before", async ({ page }) => {
  await dropFiles(page, [pngFile("pair.png", figureSheet(4, 2))]);
  await typeNumber(page, "Columns", 4);
  await typeNumber(page, "Rows", 2);
  await clipOfRows(page, 1, "slow");
  await typeNumber(page, "Milliseconds a step", 200);
  await goTo(page, "Frames");
  await page.getByRole("button", { name: "Pick row 1", exact: true }).click();
  await page.keyboard.press("c");
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
  await page.getByRole("button", { name: "Pause" }).click();
  await page.getByRole("slider", { name: "Time in the round" }).fill("250");
  // The first lane is the chosen clip, quick: row 1 at 100 ms a step; the other is slow, row 0 at 200.
  await expect.poll(async () => (await drawn()).map(({ number }) => number)).toEqual([6, 1]);
  await page.getByRole("radio", { name: "By phase" }).click();
  await expect.poll(async () => (await drawn()).map(({ number }) => number)).toEqual([6, 2]);
  await page.getByRole("radio", { name: "By time" }).click();
  await page.getByRole("combobox", { name: "Speed of clip 2" }).selectOption("2");
  await expect.poll(async () => (await drawn()).map(({ number }) => number)).toEqual([6, 2]);
  // Slow as it was before its last edit ran twice as fast.
  await page.getByRole("combobox", { name: "Speed of clip 2" }).selectOption("1");
  await page.getByRole("checkbox", { name: "as before its last edit" }).nth(1).click();
  await expect.poll(async () => (await drawn()).map(({ number }) => number)).toEqual([6, 2]);
  await expect(page.getByRole("list", { name: "Compared clips" })).toContainText("before:");
  await page.getByRole("radio", { name: "On one another" }).click();
  await expect(lanes).toHaveCount(1);
  await page.getByRole("radio", { name: "Rhythm" }).click();
  await page.getByRole("region", { name: "Clips to lay over it" }).getByRole("button", { name: "slow" }).click();
  await expect(page.getByRole("figure")).toHaveAccessibleName(
    "Time of each step: quick, 4 steps, 100 ms each, 0.40 s; slow, 4 steps, 200 ms each, 0.80 s",
  );
  await expect(page.locator(".recharts-line-curve")).toHaveCount(2);
});

test("the stage shows ghosts, and takes its ground from the art or from the demo's country", async ({ page }) => {
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
