/**
 * Checks whether the player shows the right step at every display refresh, and whether ribbons stay fluid when they are long and many.
 *
 * `npm run bench:movement` needs the built studio. It opens a project of 2,000 frames, each with its own colour, plays four clips at once,
 * and reads from their canvases which frame was drawn at each of 600 refreshes, and for which time.
 */
import { timelineOf } from "@caravan/core/playback";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { chromium, type Page } from "@playwright/test";
import { BROWSER } from "../e2e/browser";
import { choose, dropFiles, pngFile, startProject } from "../e2e/studio";
import { STUDIO, serveStudio } from "./serve";

const COLUMNS = 50;
const ROWS = 40;
const CELL = 16; // px
const PICTURES = 600;

/** 2,000 cells, each with a colour that encodes its number: red its column, green its row. */
function colouredSheet(): Pixels {
  const pixels = clearPixels(COLUMNS * CELL, ROWS * CELL);
  for (let y = 0; y < pixels.height; y++)
    for (let x = 0; x < pixels.width; x++)
      pixels.bytes.set([Math.floor(x / CELL) * 5, Math.floor(y / CELL) * 6, 200, 255], (y * pixels.width + x) * 4);
  return pixels;
}

const numberOf = (red: number, green: number) => (green / 6) * COLUMNS + red / 5;

async function type(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByRole("textbox", { name: label, exact: true });
  await field.fill(value);
  await field.press("Enter");
}

/** A clip of all 2,000 frames at 40 ms, and three shorter ones at other speeds. */
const CLIPS = [
  { name: "all", range: `0-${COLUMNS * ROWS - 1}`, first: 0, count: COLUMNS * ROWS, ms: 40 },
  { name: "fast", range: "100-160", first: 100, count: 61, ms: 17 },
  { name: "odd", range: "300-306", first: 300, count: 7, ms: 33.333 },
  { name: "slow", range: "999-1010", first: 999, count: 12, ms: 125 },
] as const;

async function open(page: Page): Promise<void> {
  await startProject(page);
  await dropFiles(page, [pngFile("colours.png", colouredSheet())]);
  await page.getByTestId("outcome").filter({ hasText: "Not cut yet" }).waitFor();
  await type(page, "Columns", String(COLUMNS));
  await type(page, "Rows", String(ROWS));
  await page
    .getByTestId("outcome")
    .filter({ hasText: /^2,?000 frames/ })
    .waitFor();
  await page.keyboard.press("Escape");
  await page.keyboard.press("a");
  await page.keyboard.press("c");
  await page.getByRole("region", { name: "Ribbons" }).waitFor();
  for (const [k, { name, range, ms }] of CLIPS.entries()) {
    if (k > 0) await type(page, "New clip of frames by number", range);
    await page.getByRole("textbox", { name: "Clip name" }).fill(name);
    await page.getByRole("textbox", { name: "Clip name" }).press("Enter");
    await type(page, "Milliseconds a step", String(ms));
  }
}

interface Seen {
  /** The display's own time of the picture, in milliseconds. */
  readonly at: number;
  /** Of each canvas: the colour in its middle, and the time that it was drawn for, in microseconds. */
  readonly lanes: readonly { readonly red: number; readonly green: number; readonly t: number }[];
}

async function fourClips(page: Page): Promise<void> {
  await page.getByRole("list", { name: "Clips" }).getByRole("button", { name: /^all/ }).click();
  await page.getByRole("radio", { name: "Compare" }).click();
  for (let k = 0; k < 2; k++) await page.getByRole("button", { name: "Add all" }).click();
  for (const [k, { name }] of CLIPS.entries()) await choose(page, page.getByRole("combobox", { name: `Clip ${k + 1}`, exact: true }), name);
  await page.getByRole("checkbox", { name: "Origin", exact: true }).click();
  await page.waitForTimeout(1000);
  const seen = (await page.evaluate(`new Promise((done) => {
    const seen = [];
    const look = (at) => {
      const lanes = [...document.querySelectorAll('[data-testid="lane"]')].map((canvas) => {
        const [red, green] = canvas.getContext("2d").getImageData(canvas.width >> 1, canvas.height >> 1, 1, 1).data;
        return { red, green, t: Number(canvas.dataset.drawn.split("@")[1]) };
      });
      seen.push({ at, lanes });
      if (seen.length < ${PICTURES}) requestAnimationFrame(look);
      else done(seen);
    };
    requestAnimationFrame(look);
  })`)) as Seen[];
  let right = 0;
  let onTime = 0;
  const first = seen[0] as Seen;
  const timelines = CLIPS.map(({ count, ms }) =>
    timelineOf({
      steps: Array.from({ length: count }, () => ({ duration: Math.round(ms * 1000) })),
      playback: "loop",
      times: 0,
      loopFrom: 0,
      after: "hold",
      doubleEnds: false,
    }),
  );
  for (const { at, lanes } of seen) {
    const all = lanes.every(({ red, green, t }, k) => {
      const clip = CLIPS[k] as (typeof CLIPS)[number];
      return numberOf(red, green) === clip.first + (timelines[k]?.shownAt(Math.round(t)).step ?? -1);
    });
    if (all) right++;
    // What was drawn for is the time that has passed on the display since the first picture, to the microsecond.
    if (lanes.every(({ t }, k) => Math.abs(t - (first.lanes[k]?.t ?? 0) - (at - first.at) * 1000) < 2)) onTime++;
  }
  const seconds = ((seen.at(-1)?.at ?? 0) - first.at) / 1000;
  console.log(
    `four clips at once, 2,000 frames: the right step in ${right} of ${seen.length} pictures of the display, on time in ${onTime}`,
  );
  console.log(`  ${(seen.length / seconds).toFixed(1)} pictures a second over ${seconds.toFixed(1)} s`);
}

/** Milliseconds from a move of the pointer to the picture that shows it, while `work` moves it. */
async function paints(page: Page, work: () => Promise<void>): Promise<number[]> {
  await page.evaluate(`window.paints = []; window.noted = () => {
    const start = performance.now();
    requestAnimationFrame(() => {
      const after = new MessageChannel();
      after.port1.onmessage = () => window.paints.push(performance.now() - start);
      after.port2.postMessage(0);
    });
  }; addEventListener("pointermove", window.noted, { capture: true })`);
  await work();
  await page.waitForTimeout(200);
  return page.evaluate(`removeEventListener("pointermove", window.noted, { capture: true }), window.paints`) as Promise<number[]>;
}

function told(name: string, times: readonly number[]): void {
  const sorted = times.toSorted((a, b) => a - b);
  const at = (share: number) => (sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0).toFixed(0);
  console.log(
    `${name}: painted in ${at(0.5)} ms at the median, ${at(0.95)} ms at the 95th percentile, ${at(1)} ms at most (${times.length} moves)`,
  );
}

async function dragAlong(page: Page, testId: string, moves: number): Promise<void> {
  const box = await page.getByTestId(testId).boundingBox();
  if (!box) throw new Error(`${testId} is not in sight.`);
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let k = 1; k <= moves; k++) {
    await page.mouse.move(x + 30 * Math.sin(k / 8), y);
    await page.waitForTimeout(12);
  }
  await page.mouse.up();
}

async function longClip(page: Page): Promise<void> {
  await page.getByRole("radio", { name: "Ribbons" }).click();
  await page.getByTestId("edge 4").waitFor();
  await page.waitForTimeout(800);
  // What the browser itself needs from a move to the next picture, here and now.
  const rest = await paints(page, async () => {
    for (let k = 1; k <= 150; k++) {
      await page.mouse.move(80 + (k % 9), 300 + 20 * Math.sin(k / 8));
      await page.waitForTimeout(12);
    }
  });
  told("the pointer moved with nothing to change", rest);
  told("a step's edge dragged in a clip of 2,000 steps", await paints(page, () => dragAlong(page, "edge 4", 150)));
}

async function manyClips(page: Page): Promise<void> {
  await page.getByRole("list", { name: "Clips" }).getByRole("button", { name: /^slow/ }).click();
  await page.evaluate("document.activeElement.blur()");
  for (let k = 0; k < 296; k++) await page.keyboard.press("d");
  await page.getByRole("list", { name: "Clips" }).getByRole("button").nth(299).waitFor();
  await page.waitForTimeout(1500);
  told("a step's edge dragged among 300 clips", await paints(page, () => dragAlong(page, "edge 4", 100)));
  const times: number[] = [];
  for (let k = 0; k < 20; k++) {
    times.push(
      (await page.evaluate(`new Promise((done) => {
        const start = performance.now();
        document.querySelectorAll('ul[aria-label="Clips"] button')[${(k * 13) % 300}].click();
        requestAnimationFrame(() => { const after = new MessageChannel(); after.port1.onmessage = () => done(performance.now() - start); after.port2.postMessage(0); });
      })`)) as number,
    );
    await page.waitForTimeout(100);
  }
  told("another of 300 clips chosen", times);
}

const server = await serveStudio();
const browser = await chromium.launch(BROWSER);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.setDefaultTimeout(60_000);
  await page.goto(STUDIO);
  await page.getByTestId("sheet").waitFor();
  await open(page);
  await fourClips(page);
  await longClip(page);
  await manyClips(page);
} finally {
  await browser.close();
  server.kill();
}
