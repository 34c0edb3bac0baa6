/**
 * Checks that work survives killing the browser.
 *
 * `npm run kills -- --count 200 --seed 1` drives the built studio in Chromium with its own profile, changes a project as a person would,
 * kills all browser processes at a random moment, restarts, and checks: the project opens without complaint, it holds a prefix of the
 * changes, at most the last 500 ms are missing, and no picture is left that no project uses. Ends with exit code 1 at the first kill that
 * breaks this.
 *
 * In some rounds storage is slow (each write takes up to 40 ms longer) or becomes full: then anything missing must have been shown as
 * unsaved. In others a second tab takes the project over midway and continues.
 */
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { type BrowserContext, chromium, type Page } from "@playwright/test";
import { BROWSER } from "../e2e/browser";
import { clipOfRows, dropAndCut, dropFiles, figureSheet, goTo, pngFile, saved } from "../e2e/studio";
import { seeded } from "../examples/draw/canvas";
import { STUDIO, serveStudio } from "./serve";

const { values: options } = parseArgs({
  options: {
    count: { type: "string", default: "200" },
    seed: { type: "string", default: "1" },
    // A busy machine and the measurement itself take time, too.
    most: { type: "string", default: "500" },
  },
});
/** Anything done this many ms before the kill must be there. */
const [COUNT, SEED, MOST_LOST] = [Number(options.count), Number(options.seed), Number(options.most)];
if (!Number.isInteger(COUNT) || COUNT < 1 || !Number.isInteger(SEED) || !Number.isInteger(MOST_LOST))
  throw new Error("Write --count N, --seed N and --most MS with whole numbers.");

const random = seeded(SEED);
const profile = mkdtempSync(join(tmpdir(), "caravan-kills-"));

const opened = async (): Promise<[BrowserContext, Page]> => {
  const context = await chromium.launchPersistentContext(profile, { ...BROWSER, viewport: { width: 1280, height: 800 } });
  await context.addInitScript(STORAGE);
  return [context, context.pages()[0] ?? (await context.newPage())];
};

/** Ends every process of the browser at once, as a loss of power does for the page. */
function kill(): void {
  try {
    execFileSync("pkill", ["-9", "-f", profile]);
  } catch {
    // None was left.
  }
}

const fpsOf = (page: Page) => page.getByRole("textbox", { name: "Frames per second" });

/** One change: by keys at Clips, with a new sheet between, or while a delivery is made. */
type Way = "speed" | "import" | "deliver" | "slow" | "full" | "take-over";
const WAYS: readonly Way[] = ["speed", "speed", "import", "deliver", "slow", "full", "take-over"];

/** Storage that can be slowed and filled: injected into the page as text before anything else. */
const STORAGE = `(() => {
  const put = IDBObjectStore.prototype.put;
  const trouble = { full: false, slow: false };
  globalThis.trouble = trouble;
  IDBObjectStore.prototype.put = function (...args) {
    if (trouble.full) throw new DOMException("No room.", "QuotaExceededError");
    // The thread that writes is held up, as a slow disk does to the transaction.
    if (trouble.slow) for (const end = performance.now() + Math.random() * 40; performance.now() < end; );
    return put.apply(this, args);
  };
})()`;
const become = (page: Page, state: { full?: boolean; slow?: boolean }) => page.evaluate(`Object.assign(trouble, ${JSON.stringify(state)})`);

interface Done {
  readonly fps: number;
  readonly at: number;
  /** Whether storage was full before it had to be saved: then the page says that it is not. */
  readonly unsaved: boolean;
}

/** Changes the speed repeatedly until the browser is gone, and records each change in `done`. */
async function work(page: Page, way: Way, from: number, round: number, done: Done[]): Promise<void> {
  if (way === "deliver") {
    await goTo(page, "Ship");
    await page.keyboard.press("d");
    await goTo(page, "Clips");
  }
  if (way === "import") await dropFiles(page, [pngFile(`more-${round}.png`, figureSheet(2 + (round % 5), 1 + (round % 3)))]);
  if (way === "import") await goTo(page, "Clips");
  if (way === "slow") await become(page, { slow: true });
  const full = way === "full" ? performance.now() + random() * 1200 : Number.POSITIVE_INFINITY;
  await fpsOf(page).focus();
  for (let shown = from; shown < 60; ) {
    if (performance.now() > full) await become(page, { full: true });
    await page.keyboard.press("ArrowUp");
    const at = performance.now();
    const now = Number(await fpsOf(page).inputValue());
    // Edits made after the other tab took over are refused with a message.
    if (way === "take-over" && (await page.getByTestId("saved").textContent())?.startsWith("Read-only")) break;
    // A key that nothing came of is no work that could be lost.
    if (now !== shown) done.push({ fps: now, at, unsaved: at > full - MOST_LOST });
    else await fpsOf(page).focus();
    shown = now;
    await page.waitForTimeout(20 + random() * 120);
  }
}

/** A second tab takes the project over during work in the first, which then refuses edits and says so. */
async function takenOver(context: BrowserContext, address: string): Promise<void> {
  await new Promise((go) => setTimeout(go, 200 + random() * 800));
  const second = await context.newPage();
  await second.goto(address);
  await second
    .getByRole("button", { name: "Work here instead" })
    .click({ timeout: 10_000 })
    .catch(() => {});
}

/** Runs in the page, as text: what compiles this file puts calls into functions that a page does not have. */
const ORPHANS = `(async () => {
  const done = (asking) => new Promise((answer, refuse) => { asking.onsuccess = () => answer(asking.result); asking.onerror = () => refuse(asking.error); });
  let orphans = 0;
  for (const { name } of await indexedDB.databases()) {
    const database = await done(indexedDB.open(name));
    if (database.objectStoreNames.contains("pictures")) {
      const all = (store) => done(database.transaction(store).objectStore(store).getAll());
      const said = JSON.stringify([await all("documents"), await all("history")]);
      for (const { sha256 } of await all("pictures")) if (!said.includes(sha256)) orphans++;
    }
    database.close();
  }
  return orphans;
})()`;

const server = await serveStudio();
let bad = 0;
/** Most that was missing, by what was done when the kill came. */
const mostLost = new Map<Way, number>();
try {
  let [context, page] = await opened();
  await page.goto(`${STUDIO}?new`);
  await page.waitForFunction(() => document.title.startsWith("New project"));
  await dropAndCut(page, "hero.png", figureSheet(4, 2), 4, 2);
  await clipOfRows(page, 1, "walk");
  await fpsOf(page).fill("1");
  await fpsOf(page).press("Enter");
  await saved(page);
  const address = page.url();
  let fps = 1;
  for (let round = 0; round < COUNT && bad === 0; round++) {
    const way = WAYS[Math.floor(random() * WAYS.length)] as Way;
    const done: Done[] = [];
    if (fps > 40) {
      await fpsOf(page).fill("1");
      await fpsOf(page).press("Enter");
      await saved(page);
      fps = 1;
    }
    const working = work(page, way, fps, round, done).catch(() => {});
    if (way === "take-over") await takenOver(context, address);
    await new Promise((go) => setTimeout(go, 300 + random() * 2200));
    const killed = performance.now();
    kill();
    await working;
    await context.close().catch(() => {});
    [context, page] = await opened();
    await page.goto(address);
    await goTo(page, "Clips");
    const now = Number(await fpsOf(page).inputValue());
    const kept = done.filter((each) => each.fps <= now).at(-1);
    // With storage full nothing was promised.
    const lost = done.filter((each) => each.fps > now && each.at <= killed && !each.unsaved);
    const lostMs = lost[0] ? killed - lost[0].at : 0;
    mostLost.set(way, Math.max(mostLost.get(way) ?? 0, lostMs));
    const trouble = await page.getByText(/could not be opened as it was|cannot be/).count();
    // The last key may have done its work before anybody could read of it.
    const isPrefix = now === fps || kept?.fps === now || now === (done.at(-1)?.fps ?? fps) + 1;
    // What was left is swept a moment after the page has opened.
    let orphans = await picturesOfNobody(page);
    for (let wait = 0; orphans > 0 && wait < 40; wait++) {
      await page.waitForTimeout(250);
      orphans = await picturesOfNobody(page);
    }
    if (!isPrefix || lostMs > MOST_LOST || trouble > 0 || orphans > 0) {
      bad++;
      console.log(
        `kill ${round + 1} (${way}): had ${fps}, did up to ${done.at(-1)?.fps}, has ${now}; lost ${lostMs.toFixed(0)} ms; trouble ${trouble}; orphans ${orphans}`,
      );
    }
    fps = now;
    if ((round + 1) % 20 === 0) console.log(`${round + 1} kills, at most lost: ${lostInWords()}`);
  }
  await context.close();
} finally {
  kill();
  server.kill();
  rmSync(profile, { recursive: true, force: true, maxRetries: 10, retryDelay: 200 });
}
if (bad > 0) process.exitCode = 1;
else console.log(`${COUNT} kills: every project opened, a beginning of what was done; at most lost: ${lostInWords()} (seed ${SEED}).`);

function lostInWords(): string {
  return [...mostLost].map(([way, ms]) => `${way} ${ms.toFixed(0)} ms`).join(", ");
}

/** Pictures in storage that no stored document names. */
async function picturesOfNobody(page: Page): Promise<number> {
  return page.evaluate<number>(ORPHANS);
}
