/**
 * Visits every stop with projects that nobody would make.
 *
 * `npm run visits -- --count 20 --seed 1 --acts 40` opens projects of random edits in the built studio, chooses every row of every stop's
 * list, and then acts at random: clicks, keys, text in fields, drags. Ends with exit code 1 if any of them led to an error, to words that no
 * person should read ("undefined", "NaN", "Internal error"), or to a document that is another one after a reload.
 */
import { parseArgs } from "node:util";
import { type Browser, chromium, type Page } from "@playwright/test";
import { BROWSER } from "../e2e/browser";
import { dropFiles, goTo } from "../e2e/studio";
import { diceFrom } from "../packages/core/src/edit/random-choices.fixture";
import { randomBundle } from "./random-projects";
import { STUDIO, serveStudio } from "./serve";

const { values: options } = parseArgs({
  options: { count: { type: "string", default: "20" }, seed: { type: "string", default: "1" }, acts: { type: "string", default: "40" } },
});
const [COUNT, SEED, ACTS] = [Number(options.count), Number(options.seed), Number(options.acts)];
if (![COUNT, SEED, ACTS].every(Number.isInteger) || COUNT < 1)
  throw new Error("Write --count N, --seed N and --acts N with whole numbers.");

const STOPS = ["Sources", "Frames", "Clips", "Marks", "Rehearse", "Ship"] as const;
const PARTS = "button:not([disabled]), [role=tab], [role=option], [role=checkbox], [role=combobox], [role=slider], [role=menuitem]";
const TYPED = [
  "walk",
  "",
  "9",
  "-3",
  "0",
  "12.5",
  "walk-*",
  "__proto__",
  "constructor",
  "1e9",
  "🐪",
  "100%",
  "{n}",
  "x".repeat(500),
  "a/b\\c:*?",
  "con",
  "\ud83d",
];
const KEYS = (
  "a c d g r m p s v x Space Tab Enter Escape Delete Home End F2 ? ArrowLeft ArrowRight ArrowUp ArrowDown " +
  "Shift+ArrowRight Alt+ArrowUp Control+z Control+Shift+z Control+a"
).split(" ");

/** Texts on the page that no person should read, as text for the page: what compiles this file puts calls into functions. */
const ODD_WORDS = `(() => {
  const odd = /\\bundefined\\b|\\bNaN\\b|\\[object |\\bInfinity\\b|Internal error|native code/;
  const texts = [...document.querySelectorAll("body *")].flatMap((element) => [
    ...(/^(SCRIPT|STYLE)$/.test(element.tagName) ? [] : [...element.childNodes].filter(({ nodeType }) => nodeType === 3).map(({ data }) => data)),
    element.value, element.getAttribute("aria-label"), element.getAttribute("title"),
  ]);
  return texts.filter((text) => typeof text === "string" && odd.test(text)).map((text) => text.slice(0, 200));
})()`;

/** The stored documents of the open origin, as text. */
const STORED = `(async () => {
  const done = (asking) => new Promise((answer, refuse) => { asking.onsuccess = () => answer(asking.result); asking.onerror = () => refuse(asking.error); });
  const all = [];
  for (const { name } of await indexedDB.databases()) {
    const database = await done(indexedDB.open(name));
    if (database.objectStoreNames.contains("documents")) all.push(await done(database.transaction("documents").objectStore("documents").getAll()));
    database.close();
  }
  return JSON.stringify(all);
})()`;

async function visit(browser: Browser, seed: number): Promise<string[]> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: "block", reducedMotion: "reduce" });
  await context.addInitScript(() => localStorage.setItem("caravan-met", "yes"));
  const page = await context.newPage();
  const troubles: string[] = [];
  let doing = "opening";
  const trouble = (what: string) => void troubles.push(`${doing}: ${what}`);
  page.on("pageerror", ({ message }) => trouble(message));
  page.on("console", (message) => message.type() === "error" && trouble(message.text().slice(0, 600)));
  page.on("filechooser", () => {});
  page.on("dialog", (dialog) => void dialog.accept().catch(() => {}));
  const lookOver = async () => {
    for (const words of await page.evaluate<string[]>(ODD_WORDS)) trouble(`"${words}" is shown`);
  };
  try {
    await page.goto(`${STUDIO}?new`);
    await page.waitForFunction(() => document.title.startsWith("New project"));
    await dropFiles(page, [{ name: "random.caravan", bytes: randomBundle(seed) }]);
    await page.waitForFunction(() => !document.title.startsWith("New project"));
    for (const stop of STOPS) {
      doing = stop;
      await page.keyboard.press("Escape");
      await goTo(page, stop);
      const rows = page.locator('[data-region="list"] button');
      for (let k = 0; k < Math.min(await rows.count(), 25); k++) {
        doing = `${stop}, row ${k}`;
        await rows
          .nth(k)
          .click({ timeout: 500 })
          .catch(() => {});
        if (await page.getByRole("dialog").count()) await page.keyboard.press("Escape");
      }
      await lookOver();
    }
    const dice = diceFrom(seed);
    for (let act = 0; act < ACTS; act++) {
      doing = await actAtRandom(page, dice).catch((error: unknown) => `an act that failed: ${String(error).slice(0, 80)}`);
      if (act % 5 === 4) await lookOver();
    }
    doing = "a reload";
    await page.waitForTimeout(1000);
    const before = await page.evaluate<string>(STORED);
    await page.reload();
    await page.getByRole("navigation", { name: "Stops" }).waitFor();
    await page.waitForTimeout(1000);
    if ((await page.evaluate<string>(STORED)) !== before) trouble("the stored document is another one");
  } catch (error) {
    trouble(String(error).slice(0, 600));
  }
  await context.close();
  return troubles;
}

/** Does something that a person might, and says what. */
async function actAtRandom(page: Page, dice: (sides: number) => number): Promise<string> {
  const size = page.viewportSize() ?? { width: 1, height: 1 };
  const anywhere = () => [dice(size.width), dice(size.height)] as const;
  const pick = <Each>(all: readonly Each[]): Each => all[dice(all.length)] as Each;
  switch (dice(5)) {
    case 0: {
      const field = pick(await page.locator("input:not([type=file]):not([type=range]):not([type=color]), textarea").all());
      const [text, key] = [pick(TYPED), pick(["Enter", "Tab", "ArrowUp"])];
      await field?.fill(text, { timeout: 300 }).catch(() => {});
      await field?.press(key, { timeout: 300 }).catch(() => {});
      return `typing "${text}" and ${key} into a field`;
    }
    case 1: {
      const key = pick(KEYS);
      await page.keyboard.press(key);
      return `pressing ${key}`;
    }
    case 2: {
      const [from, to] = [anywhere(), anywhere()];
      await page.mouse.move(...from);
      await page.mouse.down();
      await page.mouse.move(...to, { steps: 3 });
      await page.mouse.up();
      return `dragging from ${from} to ${to}`;
    }
    default: {
      const part = pick(await page.locator(PARTS).all());
      const name = await part
        ?.evaluate((element) => element.getAttribute("aria-label") ?? element.textContent?.slice(0, 40))
        .catch(() => "");
      await part?.click({ timeout: 300 }).catch(() => {});
      return `clicking "${name}"`;
    }
  }
}

const server = await serveStudio();
const browser = await chromium.launch(BROWSER);
let bad = 0;
try {
  for (let seed = SEED; seed < SEED + COUNT; seed++) {
    const troubles = await visit(browser, seed);
    if (troubles.length > 0) bad++;
    for (const each of troubles) console.log(`project ${seed}, ${each}`);
    if ((seed - SEED + 1) % 10 === 0) console.log(`${seed - SEED + 1} projects visited`);
  }
} finally {
  await browser.close();
  server.kill();
}
if (bad > 0) process.exitCode = 1;
else console.log(`${COUNT} random projects: every stop opened, every act went well (seed ${SEED}).`);
