import { clearPixels, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { dropAndCut, goTo, openEmpty, openStudio, typeNumber } from "./studio";

test.use({ moving: true });

/** Three frames of stripes one pixel wide, each of a colour of its own; the middle one stands lower. */
function stripes(): Pixels {
  const cell = 24;
  const sheet = clearPixels(cell * 3, cell);
  for (let column = 0; column < 3; column++)
    for (let y = 8; y < cell; y++)
      for (let x = 4; x < 20; x += 2) sheet.bytes.set([40 + column * 90, 200, 10, 255], (y * sheet.width + column * cell + x) * 4);
  return sheet;
}

async function playStripes(page: Page): Promise<void> {
  await openEmpty(page);
  await dropAndCut(page, "stripes.png", stripes(), 3, 1);
  await page.getByRole("button", { name: "Pick row 0", exact: true }).click();
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.press("Escape");
}

/** Lengths of the runs of drawn pixels in the row of a canvas, that of the stage, that has the most of them. */
const runs = (page: Page, canvas = page.getByTestId("stage")) =>
  canvas.evaluate((canvas: HTMLCanvasElement) => {
    const { width, height } = canvas;
    const { data } = canvas.getContext("2d")?.getImageData(0, 0, width, height) ?? { data: [] };
    let best: number[] = [];
    for (let y = 0; y < height; y++) {
      const found: number[] = [];
      let run = 0;
      for (let x = 0; x <= width; x++) {
        const at = (y * width + x) * 4;
        if (x < width && data[at + 1] === 200 && data[at + 2] === 10) run++;
        else if (run > 0) {
          found.push(run);
          run = 0;
        }
      }
      if (found.length > best.length) best = found;
    }
    return best;
  });

test.describe("on a display of one and a half pixels a point", () => {
  test.use({ deviceScaleFactor: 1.5, ownContext: true });
  test("every art pixel has the same width in display pixels, at each whole zoom", async ({ page }) => {
    await playStripes(page);
    for (const _ of [0, 1, 2]) {
      await expect
        .poll(async () => {
          const widths = await runs(page);
          return widths.length === 8 && new Set(widths).size === 1;
        })
        .toBe(true);
      await page.getByRole("button", { name: "Player: smaller" }).click();
    }
  });
});

test.describe("on a display of one and a quarter pixels a point", () => {
  test.use({ deviceScaleFactor: 1.25, ownContext: true });
  test("every pixel of a sheet has the same width in display pixels, at each whole zoom", async ({ page }) => {
    await openEmpty(page);
    await dropAndCut(page, "stripes.png", stripes(), 3, 1);
    const canvas = page.getByTestId("sheet").locator("canvas");
    await page.getByTestId("sheet").hover();
    for (const zoom of [6, 5, 4, 3, 2, 1]) {
      while (!(await page.getByTestId("sheet").textContent())?.endsWith(`· ${zoom}×Fit`)) await page.keyboard.press("-");
      await expect.poll(async () => [...new Set(await runs(page, canvas))]).toEqual([Math.max(1, Math.round(zoom * 1.25))]);
    }
  });
});

/** The bounding box of the art on the stage's canvas. */
const drawnBox = (page: Page) =>
  page.getByTestId("stage").evaluate((canvas: HTMLCanvasElement) => {
    const { width, height } = canvas;
    const { data } = canvas.getContext("2d")?.getImageData(0, 0, width, height) ?? { data: [] };
    let [left, top, right, bottom] = [width, height, 0, 0];
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const at = (y * width + x) * 4;
        const [g, b] = [data[at + 1] as number, data[at + 2] as number];
        // Half its size it is mixed with the ground, yet greener than that by far.
        if (g - b < 40) continue;
        [left, top, right, bottom] = [Math.min(left, x), Math.min(top, y), Math.max(right, x + 1), Math.max(bottom, y + 1)];
      }
    return { left, top, w: right - left, h: bottom - top };
  });

test("the player shows frames at half size, holds the frame still instead of the origin, and announces its state when paused", async ({
  page,
}) => {
  await playStripes(page);
  const reading = page.getByTestId("reading").locator("xpath=ancestor::*[@aria-live][1]");
  await expect(reading).toHaveAttribute("aria-live", "off");
  await page.getByRole("button", { name: "Pause", exact: true }).click();
  await expect(reading).toHaveAttribute("aria-live", "polite");
  const player = page.getByRole("region", { name: "Player" });
  const zoom = page.getByTestId("player-zoom");
  for (let k = 0; k < 20; k++) {
    const before = (await zoom.textContent()) ?? "";
    if (before === "1×") break;
    await player.getByRole("button", { name: "Player: smaller" }).click();
    await expect(zoom).not.toHaveText(before);
  }
  await expect.poll(async () => (await drawnBox(page)).h).toBe(16);
  const whole = await drawnBox(page);
  await player.getByRole("button", { name: "Player: smaller" }).click();
  await expect(zoom).toHaveText(/^(1\/2|½)×$/);
  // Half of 16, less a row at an edge that is mixed with the ground.
  await expect.poll(async () => [7, 8].includes((await drawnBox(page)).h)).toBe(true);
  expect((await drawnBox(page)).w).toBeLessThanOrEqual(whole.w / 2 + 1);
  await player.getByRole("button", { name: "Player: larger" }).click();
  // One frame's origin is raised by six pixels: with the origin held still it drops by six, with the frame held it does not.
  await page.keyboard.press("g");
  await page.getByRole("button", { name: "Look at step 1:" }).click();
  await page.getByRole("radio", { name: "Frame", exact: true }).first().click();
  await typeNumber(page, "Origin y", 18);
  const moved = async () => {
    await page.getByRole("button", { name: "Look at step 0:" }).click();
    await page.waitForTimeout(300);
    const { top } = await drawnBox(page);
    await page.getByRole("button", { name: "Look at step 1:" }).click();
    await page.waitForTimeout(300);
    return (await drawnBox(page)).top - top;
  };
  await expect.poll(moved).toBe(6);
  await page.getByRole("button", { name: "Stage …" }).click();
  await page.getByRole("radiogroup", { name: "Held still" }).getByRole("radio", { name: "Frame" }).click();
  await page.keyboard.press("Escape");
  await expect.poll(moved).toBe(0);
});

test("after a stall the player has caught up with the clock", async ({ page }) => {
  await playStripes(page);
  const pass = async () => Number(/loop (\d+)/.exec((await page.getByTestId("reading").textContent()) ?? "")?.[1] ?? 0);
  await expect.poll(pass).toBeGreaterThan(0);
  const [before, after, stalled] = await page.evaluate(async () => {
    const read = () => Number(/loop (\d+)/.exec(document.querySelector('[data-testid="reading"]')?.textContent ?? "")?.[1] ?? 0);
    const first = read();
    const begun = performance.now();
    while (performance.now() - begun < 3000);
    await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done, 50))));
    return [first, read(), performance.now() - begun];
  });
  // Three steps of 100 ms: a pass every 300 ms.
  expect(Math.abs((after as number) - (before as number) - (stalled as number) / 300)).toBeLessThanOrEqual(1.5);
});

test("the player grows: by its lower edge, by the wheel in whole steps, and to the whole window by W or a double click", async ({
  page,
}) => {
  await openStudio(page);
  await goTo(page, "Clips");
  const stage = page.getByTestId("stage");
  const height = async () => (await stage.boundingBox())?.height ?? 0;
  const zoom = () => page.getByTestId("player-zoom").textContent();
  await expect.poll(height).toBe(230);
  const edge = page.getByRole("separator", { name: "Height of the player" });
  const at = (await edge.boundingBox()) as { x: number; y: number; width: number; height: number };
  await page.mouse.move(at.x + at.width / 2, at.y + 4);
  await page.mouse.down();
  await page.mouse.move(at.x + at.width / 2, at.y + 124, { steps: 6 });
  await page.mouse.up();
  await expect.poll(height).toBe(350);
  await edge.focus();
  await page.keyboard.press("ArrowUp");
  await expect.poll(height).toBe(340);
  await page.reload();
  await expect.poll(height).toBe(340);

  await expect.poll(zoom).toBe("6×");
  await stage.hover();
  await page.mouse.wheel(0, 100);
  await expect.poll(zoom).toBe("5×");
  await page.mouse.wheel(0, -100);
  await page.mouse.wheel(0, -100);
  await expect.poll(zoom).toBe("8×");

  await page.getByRole("region", { name: "Ribbons" }).focus();
  await page.keyboard.press("w");
  await expect.poll(async () => (await stage.boundingBox())?.width).toBe(1280);
  await expect.poll(height).toBeGreaterThan(550);
  // It plays on there, by the same keys.
  const shown = await stage.getAttribute("data-frame");
  await page.keyboard.press(".");
  await expect.poll(() => stage.getAttribute("data-frame")).not.toBe(shown);
  await page.keyboard.press("Escape");
  await expect.poll(height).toBe(340);
  await stage.dblclick();
  await expect.poll(async () => (await stage.boundingBox())?.width).toBe(1280);
  await page.getByRole("button", { name: "Dock the player" }).click();
  await expect.poll(height).toBe(340);
});

test.describe("standing still", () => {
  test.use({ moving: false });

  test("the figure is dragged over the stage and centred again, and its marks are shown wherever it plays", async ({ page }) => {
    await openStudio(page);
    await goTo(page, "Clips");
    const stage = page.getByTestId("stage");
    // The content of Frames may still show for a moment: measured once the clip's figure is shown and still.
    await expect(page.getByText(/row \d+ of porter-walk/)).toHaveCount(0);
    let before = await drawnBox(page);
    const rests = async () => {
      const now = await drawnBox(page);
      const same = now.h > 20 && now.top === before.top;
      before = now;
      return same;
    };
    await expect.poll(rests, { intervals: [500] }).toBe(true);
    const box = (await stage.boundingBox()) as { x: number; y: number; width: number; height: number };
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.click(x, y);
    await expect(page.getByRole("button", { name: "Centre the figure" })).toHaveCount(0);
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x, y - 30, { steps: 4 });
    await page.mouse.up();
    await expect.poll(async () => before.top - (await drawnBox(page)).top).toBe(30);
    await page.getByRole("button", { name: "Centre the figure" }).click();
    await expect.poll(async () => (await drawnBox(page)).top).toBe(before.top);

    const plain = await stage.screenshot();
    await page.getByRole("checkbox", { name: "Marks" }).click();
    await expect.poll(async () => (await stage.screenshot()).equals(plain)).toBe(false);
    await page.getByRole("checkbox", { name: "Marks" }).click();
    await expect.poll(async () => (await stage.screenshot()).equals(plain)).toBe(true);
  });
});
