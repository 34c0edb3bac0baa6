/**
 * Measures a project of 10,000 frames, 300 clips and 30 sheets in the built studio: opening, the time until an edit is painted, undo of an
 * edit of all frames, packing and proof. `npm run bench:large` prints it.
 *
 * The browser itself times an edit, from the key press to the next painted picture (Event Timing, in steps of 8 ms).
 */
import { writeBundle } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { addClip, addMarkKind, addSources, cutSource, setBoxes } from "@caravan/core/edit";
import { emptyProject, type FrameRef, frameRef, type MarkName, type Project, type SourceId } from "@caravan/core/model";
import { coverageOf } from "@caravan/core/raster";
import { chromium, type Page } from "@playwright/test";
import { BROWSER } from "../e2e/browser";
import { dropFiles, goTo, saved } from "../e2e/studio";
import { pngCodec } from "../packages/cli/src/png";
import { STUDIO, serveStudio } from "./serve";
import { walkers } from "./subjects";

const [SHEETS, COLUMNS, ROWS, CELL] = [30, 24, 14, 48];
const STEPS = 32;

/** The project as its file: a box on every frame, clips of 32 steps. */
function large(): Uint8Array {
  const png = pngCodec();
  const pictures = new Map<string, Uint8Array>();
  let project: Project = { ...emptyProject("Ten thousand") };
  project = addMarkKind(project, "box", "body");
  for (let k = 0; k < SHEETS; k++) {
    const sheet = walkers(COLUMNS, ROWS, CELL, k);
    const bytes = png.encode(sheet);
    const sha256 = sha256Hex(bytes);
    pictures.set(sha256, bytes);
    project = addSources(project, [{ fileName: `walker-${k}.png`, sha256, width: sheet.width, height: sheet.height }]);
    const none = { x: 0, y: 0 };
    const cut = { by: "cell", cell: { w: CELL, h: CELL }, margin: none, gap: none, keepEmpty: false } as const;
    project = cutSource(project, `s${k + 1}` as SourceId, cut, coverageOf(sheet));
    const refs = refsOf(project, k);
    for (let c = 0; c * STEPS < refs.length - STEPS; c++)
      project = addClip(project, refs.slice(c * STEPS, (c + 1) * STEPS), `walk-${k}-${c}`);
  }
  const all = project.sources.flatMap((_, k) => refsOf(project, k));
  const boxes = new Map(all.map((ref) => [ref, [{ x: 14, y: 8, w: 20, h: 38 }]]));
  project = setBoxes(project, "all", "body" as MarkName, boxes);
  console.log(`${all.length} frames, ${project.clips.length} clips, ${project.sources.length} sheets`);
  return writeBundle({ project, pictures });
}

function refsOf(project: Project, k: number): FrameRef[] {
  const source = project.sources[k] as Project["sources"][number];
  return source.frames.map((frame) => frameRef(source, frame));
}

interface Timed {
  /** From the key or the press to the picture after it, ms, of each event that took 16 ms or more. */
  readonly painted: number[];
}

const all: number[] = [];

/** Does something `count` times, each after the one before was painted, and notes how soon each was. */
async function edits(page: Page, what: string, count: number, work: (k: number) => Promise<unknown>): Promise<void> {
  await page.waitForTimeout(500);
  const times: number[] = [];
  for (let k = 0; k < count; k++) {
    await page.evaluate(() => {
      (window as unknown as Timed).painted.length = 0;
    });
    await work(k);
    await page.waitForTimeout(150);
    const painted = await page.evaluate(() => (window as unknown as Timed).painted);
    times.push(Math.max(8, ...painted));
  }
  all.push(...times);
  printTimes(what, times);
}

function printTimes(what: string, times: number[]): void {
  const sorted = times.toSorted((a, b) => a - b);
  const at = (share: number) => String(sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]).padStart(4);
  console.log(`${what.padEnd(48)} median ${at(0.5)} ms, 95th percentile ${at(0.95)} ms, worst ${at(1)} ms`);
}

const server = await serveStudio();
const browser = await chromium.launch(BROWSER);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(() => {
    const kept = window as unknown as Timed & { painted: number[] };
    Object.assign(kept, { painted: [] });
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) kept.painted.push(entry.duration);
    }).observe({ type: "event", buffered: false, durationThreshold: 16 } as PerformanceObserverInit);
  });
  await page.goto(`${STUDIO}?new`);
  await page.getByRole("navigation", { name: "Stops" }).waitFor();
  await dropFiles(page, [{ name: "large.caravan", bytes: large() }]);
  await page.waitForTimeout(15000);
  await saved(page);
  await goTo(page, "Clips");
  await page.waitForTimeout(3000);
  for (let k = 0; k < 4; k++) {
    await page.reload();
    await page.getByRole("region", { name: "Ribbons" }).waitFor();
    await page.waitForFunction(() => performance.getEntriesByName("caravan: first pictures").length > 0);
    const ms = await page.evaluate(() => performance.getEntriesByName("caravan: first pictures")[0]?.startTime ?? Number.NaN);
    console.log(`opened, the first pictures drawn: ${ms.toFixed(0)} ms after the page began`);
  }
  await page.waitForTimeout(4000);
  const stop = async (digit: string, title: string) => {
    await page.keyboard.press(digit);
    await page.getByRole("region", { name: title, exact: true }).waitFor();
  };
  await page.getByRole("region", { name: "Ribbons" }).focus();
  await edits(page, "Clips: a step chosen", 40, () => page.keyboard.press("ArrowRight"));
  await edits(page, "Clips: a step moved", 40, (k) => page.keyboard.press(k % 2 ? "Alt+ArrowLeft" : "Alt+ArrowRight"));
  await edits(page, "Clips: a step dropped", 20, () => page.keyboard.press("Delete"));
  await edits(page, "Clips: that taken back", 20, () => page.keyboard.press("Control+z"));
  const fps = page.getByRole("textbox", { name: "Frames per second" });
  await edits(page, "Clips: a speed stepped", 40, async (k) => {
    await fps.focus();
    await page.keyboard.press(k % 2 ? "ArrowUp" : "ArrowDown");
  });
  await page.getByRole("region", { name: "Ribbons" }).focus();
  await stop("2", "Frames");
  await edits(page, "Frames: all of a sheet picked, and let go", 20, (k) => page.keyboard.press(k % 2 ? "Escape" : "a"));
  await page.keyboard.press("a");
  await edits(page, "Frames: a sheet's frames dropped, and back", 20, (k) => page.keyboard.press(k % 2 ? "Control+z" : "Delete"));
  const margin = page.getByRole("textbox", { name: "Margin left", exact: true });
  await edits(page, "Frames: a margin nudged", 40, async (k) => {
    await margin.focus();
    await margin.press(k % 2 ? "ArrowDown" : "ArrowUp");
  });
  await margin.evaluate((element) => element.blur());
  await stop("4", "Marks");
  await page.getByTestId("marks-canvas").click();
  await edits(page, "Marks: an origin or a box nudged", 40, (k) => page.keyboard.press(k % 2 ? "ArrowLeft" : "ArrowRight"));
  await page.getByRole("region", { name: "Marks: list" }).getByRole("button", { name: /body/ }).first().click();
  const name = page.getByRole("textbox", { name: "Name of the marks" });
  await edits(page, "Marks: a kind on all frames renamed", 20, async (k) => {
    await name.fill(`body${k}`);
    await name.press("Enter");
  });
  await page.getByTestId("marks-canvas").click();
  await edits(page, "that taken back, an edit of all 10,000 frames", 20, () => page.keyboard.press("Control+z"));
  await edits(page, "and done again", 20, () => page.keyboard.press("Control+Shift+z"));
  printTimes("all of these", all);
  const began = performance.now();
  await stop("6", "Ship");
  await page
    .getByText(/every pixel/i)
    .first()
    .waitFor({ timeout: 120_000 });
  console.log(`Ship: packed and proved in ${((performance.now() - began) / 1000).toFixed(1)} s`);
  console.log(await page.getByTestId("proof").innerText());
} finally {
  await browser.close();
  server.kill();
}
