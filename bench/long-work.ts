/**
 * Runs hours of work in one page, compressed.
 *
 * `npm run bench:long -- --rounds 60` drives the built studio in Chromium through the same round of work repeatedly: a sheet is imported,
 * cut and cleared, becomes clips, is judged, marked, rehearsed and packed, and everything is undone or removed, so that the project has the
 * same size after every round. Prints the page's heap after a collection and its process memory. Ends with exit code 1 if either exceeds
 * 1.2 times its value after a twelfth of the rounds, that is ten minutes of two hours.
 */
import { parseArgs } from "node:util";
import { chromium, type Page } from "@playwright/test";
import { BROWSER } from "../e2e/browser";
import { clipOfRows, dropFiles, figureSheet, goTo, openEmpty, pngFile, saved, typeNumber } from "../e2e/studio";
import { renderersMegabytes, STUDIO, serveStudio } from "./serve";

const { values: options } = parseArgs({ options: { rounds: { type: "string", default: "60" } } });
const ROUNDS = Number(options.rounds);
if (!Number.isInteger(ROUNDS) || ROUNDS < 12) throw new Error("Write --rounds N with at least 12.");
const MOST = 1.2;

interface Memory {
  readonly heap: number; // MB
  readonly process: number; // MB
}

async function memoryOf(page: Page): Promise<Memory> {
  const session = await page.context().newCDPSession(page);
  await session.send("HeapProfiler.enable");
  // Gives things released late, such as bitmaps of undone art, their time.
  await page.waitForTimeout(4000);
  for (let k = 0; k < 3; k++) await session.send("HeapProfiler.collectGarbage");
  await session.send("Performance.enable");
  const { metrics } = await session.send("Performance.getMetrics");
  const heap = metrics.find(({ name }) => name === "JSHeapUsedSize")?.value ?? 0;
  await session.detach();
  return { heap: heap / 1_048_576, process: renderersMegabytes() };
}

/** The third cell of every sheet differs in each round, so that no cache contains it. */
function roundSheet(round: number) {
  const sheet = figureSheet(8, 4, { w: 64, h: 64 });
  for (let k = 0; k < 2000; k++)
    sheet.bytes.set([round % 256, k % 256, (round >> 8) % 256, 255], ((20 + (k >> 5)) * sheet.width + 140 + (k & 31)) * 4);
  return pngFile(`round-${round}.png`, sheet);
}

async function work(page: Page, round: number): Promise<void> {
  await dropFiles(page, [roundSheet(round)]);
  await page.getByTestId("outcome").filter({ hasText: "Not cut yet" }).waitFor();
  for (const [columns, rows] of [
    [4, 4],
    [8, 2],
    [8, 4],
  ] as const) {
    await typeNumber(page, "Columns", columns);
    await typeNumber(page, "Rows", rows);
  }
  await clipOfRows(page, 2, `walk ${round}`);
  await typeNumber(page, "Frames per second", 5 + (round % 20));
  for (const key of ["k", "Escape", "c", "Escape", "h", "Escape"]) await page.keyboard.press(key);
  await goTo(page, "Marks");
  await page.waitForTimeout(300);
  await goTo(page, "Rehearse");
  await page.waitForTimeout(300);
  await goTo(page, "Ship");
  await page.getByTestId("proof").waitFor({ timeout: 60_000 });
  await goTo(page, "Sources");
  // Undoes everything of the round; its undo entries stay, up to the history's limit.
  for (let k = 0; k < 40; k++) {
    const undo = page.getByRole("button", { name: /^Undo: / });
    const label = (await undo.count()) > 0 ? await undo.getAttribute("aria-label") : null;
    if (label === null) break;
    await undo.click();
  }
}

const server = await serveStudio();
const browser = await chromium.launch(BROWSER);
try {
  const context = await browser.newContext({ baseURL: STUDIO, viewport: { width: 1280, height: 800 }, reducedMotion: "reduce" });
  const page = await context.newPage();
  page.setDefaultTimeout(60_000);
  await openEmpty(page);
  const early = Math.round(ROUNDS / 12);
  let first: Memory | null = null;
  let last: Memory | null = null;
  for (let round = 1; round <= ROUNDS; round++) {
    await work(page, round);
    if (round !== early && round % 10 !== 0 && round !== ROUNDS) continue;
    await saved(page);
    last = await memoryOf(page);
    if (round === early) first = last;
    console.log(`after ${round} rounds: heap ${last.heap.toFixed(1)} MB, process ${last.process.toFixed(0)} MB`);
  }
  if (first && last) {
    const [heap, all] = [last.heap / first.heap, last.process / first.process];
    console.log(
      `at the end ${heap.toFixed(2)} × the heap and ${all.toFixed(2)} × the process of after ${early} rounds (wish: at most ${MOST})`,
    );
    if (heap > MOST || all > MOST) process.exitCode = 1;
  }
} finally {
  await browser.close();
  server.kill();
}
