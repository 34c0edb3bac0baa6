/**
 * Measures whether the screen stays fluid with large art: typical acts at each stop, and the longest time each blocked the page.
 *
 * `npm run bench:screen` needs the built studio (from `npm start` or `npm test`). It drives it in Chromium and prints, for each act, the
 * time until its result and the longest task on the page's thread, by the clock and in processor time. On a busy machine the clock includes
 * other processes; the studio answers for the processor time, with a limit of 50 ms.
 */
import { chromium, type Page } from "@playwright/test";
import { BROWSER } from "../e2e/browser";
import { dropFiles, pngFile, startProject } from "../e2e/studio";
import { STUDIO, serveStudio } from "./serve";
import { sheet } from "./subjects";

interface Act {
  readonly name: string;
  readonly ms: number;
  /** Of the longest task by the clock, 0 if none took 50 ms. */
  readonly longest: number;
  /** Of the task that kept the processor longest. */
  readonly busiest: number;
}

const acts: Act[] = [];

/** Does something, waits for its result, and notes the longest task in between. */
async function act(page: Page, name: string, work: () => Promise<unknown>): Promise<void> {
  await page.waitForTimeout(400);
  await forgetTasks(page);
  await browser.startTracing(page, { categories: ["toplevel", "blink.user_timing"] });
  const start = performance.now();
  await work();
  const ms = performance.now() - start;
  await page.waitForTimeout(400);
  const tasks = await page.evaluate(() => (window as unknown as { longTasks: number[] }).longTasks);
  const busiest = busiestTask(await browser.stopTracing());
  acts.push({ name, ms, longest: Math.max(0, ...tasks), busiest });
}

interface TraceEvent {
  readonly name: string;
  readonly ph: string;
  readonly pid: number;
  readonly tid: number;
  readonly ts: number;
  /** Thread time, µs. */
  readonly tdur?: number;
  readonly args: { readonly name?: string };
}

/** Milliseconds of processor time of the longest task that any page's main thread ran since `forgetTasks`. */
function busiestTask(trace: Buffer): number {
  const { traceEvents } = JSON.parse(trace.toString()) as { traceEvents: TraceEvent[] };
  const mains = new Set(
    traceEvents.filter(({ name, args }) => name === "thread_name" && args.name === "CrRendererMain").map(({ pid, tid }) => `${pid} ${tid}`),
  );
  const tasks = traceEvents.filter((event) => event.ph === "X" && event.name.endsWith("RunTask") && mains.has(`${event.pid} ${event.tid}`));
  const begin = Math.max(0, ...traceEvents.filter(({ name }) => name === FORGOTTEN).map(({ ts }) => ts));
  return Math.max(0, ...tasks.filter(({ ts }) => ts > begin).map(({ tdur = 0 }) => tdur / 1000));
}

/** A mark in the trace: tasks before it do not count. */
const FORGOTTEN = "tasks forgotten";

function forgetTasks(page: Page): Promise<void> {
  return page.evaluate((mark) => {
    (window as unknown as { longTasks: number[] }).longTasks = [];
    performance.mark(mark);
  }, FORGOTTEN);
}

async function largeSheet(page: Page): Promise<void> {
  const large = pngFile("crowd.png", sheet(4092, 62));
  const outcome = page.getByTestId("outcome");
  const type = async (label: string, value: number) => {
    const field = page.getByRole("textbox", { name: label, exact: true });
    await field.fill(String(value));
    await field.press("Enter");
  };
  const stop = async (digit: string, title: string) => {
    await page.keyboard.press(digit);
    await page.getByRole("region", { name: title, exact: true }).waitFor();
  };
  await stop("3", "Clips");
  await act(page, "demo: Clips to Frames", () => stop("2", "Frames"));
  await act(page, "demo: Frames to Sources", () => stop("1", "Sources"));
  await act(page, "demo: Sources to Clips", () => stop("3", "Clips"));
  await stop("2", "Frames");
  await act(page, "4092×4092 sheet dropped", async () => {
    await dropFiles(page, [large]);
    // Handing the file to the page as text is the bench's own work; what the studio does with it begins after.
    await forgetTasks(page);
    await outcome.filter({ hasText: "Not cut yet" }).waitFor({ timeout: 60_000 });
  });
  await act(page, "first cut", async () => {
    await type("Cell width", 66);
    await outcome.filter({ hasText: /62/ }).waitFor();
  });
  await act(page, "cut into 3,844 cells", async () => {
    await type("Cell height", 66);
    await outcome.filter({ hasText: /^3,?[0-9]{3} frames/ }).waitFor();
  });
  await act(page, "margin nudged ten times", async () => {
    const field = page.getByRole("textbox", { name: "Margin left", exact: true });
    await field.focus();
    for (let k = 0; k < 5; k++) await field.press("ArrowUp");
    for (let k = 0; k < 5; k++) await field.press("ArrowDown");
    await field.evaluate((element) => element.blur());
  });
  await act(page, "zoomed in and out by wheel", async () => {
    await page.getByTestId("sheet").hover();
    for (let k = 0; k < 8; k++) await page.mouse.wheel(0, k < 4 ? -120 : 120);
  });
  await act(page, "pointer moved over the rows", async () => {
    const box = await page.getByTestId("sheet").boundingBox();
    if (box) for (let y = 20; y < box.height; y += 8) await page.mouse.move(box.x + box.width / 2, box.y + y);
  });
  await act(page, "all frames picked", () => page.keyboard.press("a"));
  await act(page, "one clip made of them", async () => {
    await page.keyboard.press("c");
    await page.getByRole("region", { name: "Ribbons" }).waitFor();
  });
  await page.getByRole("textbox", { name: "Clip name" }).press("Escape");
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await act(page, "Clips to Frames", () => stop("2", "Frames"));
  await act(page, "Frames to Sources", () => stop("1", "Sources"));
  await act(page, "Sources to Ship, packed and proved", async () => {
    await stop("6", "Ship");
    await page
      .getByText(/every pixel/i)
      .first()
      .waitFor({ timeout: 120_000 });
  });
  await act(page, "Ship to Clips", () => stop("3", "Clips"));
  await act(page, "Clips to Marks, drift charted", async () => {
    await stop("4", "Marks");
    await page.getByRole("figure", { name: /^Drift over/ }).waitFor();
  });
  await marksOnAll(page);
}

/** A box on each of the clip's 3,844 frames, drawn at once, dragged and nudged at once. */
async function marksOnAll(page: Page): Promise<void> {
  await page.getByRole("button", { name: "New boxes" }).click();
  await page.keyboard.press("Enter");
  await act(page, "a box around every drawing", async () => {
    await page.getByRole("button", { name: "Around the drawing" }).click();
    await page.getByRole("textbox", { name: "Box width" }).waitFor();
  });
  const canvas = await page.getByTestId("marks-canvas").boundingBox();
  if (!canvas) throw new Error("No canvas.");
  const [x, y] = [canvas.x + canvas.width / 2, canvas.y + canvas.height / 2];
  await act(page, "all boxes dragged", async () => {
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let k = 1; k <= 24; k++) await page.mouse.move(x + k * 4, y - k * 2);
    await page.mouse.up();
  });
  await act(page, "all boxes nudged ten times", async () => {
    for (let k = 0; k < 10; k++) await page.keyboard.press(k < 5 ? "ArrowLeft" : "ArrowRight");
  });
}

/** Numbered stills, as an animation program writes them, in one drop. */
async function manyStills(page: Page): Promise<void> {
  const still = sheet(64, 1);
  const files = Array.from({ length: 500 }, (_, k) => {
    const bytes = still.bytes.slice();
    // Each another picture: a line that moves through it.
    for (let x = 0; x < 64; x++) bytes.set([k % 256, k >> 8, 99, 255], ((k % 64) * 64 + x) * 4);
    return pngFile(`walk_${String(k).padStart(4, "0")}.png`, { ...still, bytes });
  });
  await startProject(page);
  await act(page, "500 stills dropped and read", async () => {
    await dropFiles(page, files);
    await forgetTasks(page);
    await page.getByText("A series of 500 pictures").waitFor({ timeout: 120_000 });
  });
  await act(page, "500 stills brought in", async () => {
    await page.getByRole("button", { name: "Import" }).click();
    await page.getByTestId("outcome").filter({ hasText: "500 frames" }).waitFor({ timeout: 60_000 });
  });
}

async function hugeSheet(page: Page): Promise<void> {
  const huge = pngFile("huge.png", sheet(8192, 64));
  const outcome = page.getByTestId("outcome");
  await startProject(page);
  await act(page, "8192×8192 sheet dropped", async () => {
    await dropFiles(page, [huge]);
    await forgetTasks(page);
    await outcome.filter({ hasText: "Not cut yet" }).waitFor({ timeout: 120_000 });
  });
  await act(page, "8192×8192 cut into 4,096 cells", async () => {
    const field = page.getByRole("textbox", { name: "Columns", exact: true });
    await field.fill("64");
    await field.press("Enter");
    const rows = page.getByRole("textbox", { name: "Rows", exact: true });
    await rows.fill("64");
    await rows.press("Enter");
    await outcome.filter({ hasText: /^3,?[0-9]{3} frames/ }).waitFor();
  });
  await act(page, "8192×8192 zoomed by wheel", async () => {
    await page.getByTestId("sheet").hover();
    for (let k = 0; k < 8; k++) await page.mouse.wheel(0, k < 4 ? -120 : 120);
  });
  await act(page, "8192×8192 cut along outlines", async () => {
    await page.keyboard.press("o");
    await outcome.filter({ hasText: "rows" }).waitFor({ timeout: 60_000 });
  });
}

const server = await serveStudio();
const browser = await chromium.launch(BROWSER);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(() => {
    const kept = window as unknown as { longTasks: number[] };
    kept.longTasks = [];
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) kept.longTasks.push(entry.duration);
    }).observe({ type: "longtask", buffered: false });
  });
  await page.goto(STUDIO);
  await page.getByTestId("sheet").waitFor();
  await largeSheet(page);
  await manyStills(page);
  await hugeSheet(page);
} finally {
  await browser.close();
  server.kill();
  const width = Math.max(...acts.map(({ name }) => name.length));
  for (const { name, ms, longest, busiest } of acts) {
    const clock = longest === 0 ? "under 50" : `${longest.toFixed(0)}`.padStart(8);
    console.log(
      `${name.padEnd(width)}  ${ms.toFixed(0).padStart(6)} ms  longest task: ${clock} ms by the clock, ${busiest.toFixed(0).padStart(4)} ms of work`,
    );
  }
}
