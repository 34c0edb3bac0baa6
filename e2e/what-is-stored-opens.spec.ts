import { readFileSync } from "node:fs";
import { readZip } from "@caravan/core/codec";
import { violationsOn } from "./axe";
import { expect, type Page, test } from "./fixtures";
import {
  clipOfRows,
  delivered,
  dropAndCut,
  dropFiles,
  figureSheet,
  filesOf,
  fps,
  goTo,
  openEmpty,
  pngFile,
  saved,
  typeNumber,
} from "./studio";

/** Names that systems reserve, that differ only in case, or that are cut in the middle of a character. */
const NAMES = ["__proto__.png", "Run.png", "run.png", "con.png", "aux.PNG", `${"x".repeat(119)}😀.png`, "tail. .png", "😀.png"];

const sheets = (page: Page) => page.getByRole("list", { name: "Sheets" }).getByRole("button");

/** The demo from its file: what it was before is in no list of changes. */
async function openFromFile(page: Page): Promise<void> {
  const demo = await (await page.request.get("/demo.caravan")).body();
  await dropFiles(page, [{ name: "road.caravan", bytes: new Uint8Array(demo) }]);
  await expect(page).toHaveTitle(/The Tamarisk Road/);
  await saved(page);
}

/** A project that does not open, because its stored sources cannot be read. */
async function withUnopenedProject(page: Page): Promise<void> {
  await openEmpty(page);
  await openFromFile(page);
  await damage(page, "sources", "gone");
  await page.reload();
  await expect(page.getByRole("heading", { name: "The project could not be opened" })).toBeVisible();
}

test("files with hostile names are imported, and the project opens after a reload and from its own file", async ({ page }) => {
  await openEmpty(page);
  await dropFiles(
    page,
    NAMES.map((name, k) => pngFile(name, figureSheet(2, 1, { w: 20 + k, h: 24 }))),
  );
  await expect(page.getByText(`Imported ${NAMES.length} sources.`)).toBeVisible();
  await goTo(page, "Frames");
  await expect(sheets(page)).toHaveCount(NAMES.length);
  await saved(page);
  await page.reload();
  await expect(sheets(page)).toHaveCount(NAMES.length);
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const files = await filesOf(download);
  expect(files.size).toBe(NAMES.length + 1);
  expect(new Set([...files.keys()].map((path) => path.toLowerCase())).size).toBe(files.size);
  for (const path of files.keys()) expect(path).not.toMatch(/(^|\/)(con|aux|__proto__)\.png$/i);
  await dropFiles(page, [{ name: "again.caravan", bytes: new Uint8Array(readFileSync(await download.path())) }]);
  await expect(page.getByText("Opened again.caravan as a project of its own.")).toBeVisible();
  await goTo(page, "Frames");
  await expect(sheets(page)).toHaveCount(NAMES.length);
});

test("two series of more than a hundred stills with the same name keep their pictures apart", async ({ page }) => {
  await openEmpty(page);
  const series = (shade: number) =>
    Array.from({ length: 101 }, (_, k) => {
      const still = figureSheet(1, 1, { w: 16, h: 16 });
      still.bytes.set([shade, k, 9, 255], (8 * 16 + 8) * 4);
      return pngFile(`run_${k}.png`, still);
    });
  for (const shade of [10, 200]) {
    await dropFiles(page, series(shade));
    // A file with a source's name is offered as its new art.
    if (shade === 200) await page.getByRole("radio", { name: "A new source" }).click();
    await page.getByRole("button", { name: "Import", exact: true }).click();
    await expect(page.getByRole("dialog")).toHaveCount(0);
  }
  await saved(page);
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const paths = readZip(new Uint8Array(readFileSync(await download.path())), "x").map(({ path }) => path);
  expect([paths.length, new Set(paths).size]).toEqual([203, 203]);
});

test("a pattern with a dash selects clips at Ship, and the project opens after a reload", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 2), 4, 2);
  await clipOfRows(page, 1, "walk-e");
  await goTo(page, "Ship");
  await page.getByRole("radio", { name: "Clips", exact: true }).click();
  const pattern = page.getByRole("textbox", { name: "Names like" });
  for (const text of ["walk-*", `${"*a".repeat(40)}b`, "[walk-e]", "walk-*"]) {
    await pattern.fill(text);
    await pattern.press("Enter");
  }
  await expect(page.getByTestId("proof")).toContainText("every pixel the same");
  await saved(page);
  await page.reload();
  await expect(pattern).toHaveValue("walk-*");
  await expect(page.getByTestId("proof")).toContainText("every pixel the same");
});

/** Modifies storage, as a bug of an earlier version might have left it. */
async function damage(page: Page, part: "sources" | "clips" | "rest", change: "gone" | "cut off" | "bad field"): Promise<void> {
  await page.evaluate(
    async ([which, how]) => {
      const open = indexedDB.open("caravan");
      const database = await new Promise<IDBDatabase>((answer) => {
        open.onsuccess = () => answer(open.result);
      });
      const id = new URLSearchParams(location.search).get("project") as string;
      const store = database.transaction("documents", "readwrite").objectStore("documents");
      const row = await new Promise<{ text: string }>((answer) => {
        const request = store.get([id, which]);
        request.onsuccess = () => answer(request.result);
      });
      const texts = {
        gone: `wobble ${row.text}`,
        "cut off": row.text.slice(0, -4),
        "bad field": row.text.replace(/"frame":"s\d+\//, '"frame":"wobble/'),
      };
      const text = texts[how];
      await new Promise((answer) => {
        store.put({ ...row, text }).onsuccess = answer;
      });
      database.close();
    },
    [part, change] as const,
  );
}

test("a document whose sources cannot be read is made again from the list of its changes, and can still be undone", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 2), 4, 2);
  await clipOfRows(page, 1, "walk");
  await typeNumber(page, "Frames per second", 5);
  await saved(page);
  await damage(page, "sources", "gone");
  await page.reload();
  await expect(
    page.getByText(/could not be opened as it was: .* It was made again from the list of its changes; nothing is/),
  ).toBeVisible();
  await saved(page);
  await goTo(page, "Clips");
  await expect(page.getByRole("heading", { name: "walk" })).toBeVisible();
  await expect(fps(page)).toHaveValue("5");
  await page.keyboard.press("Control+z");
  await expect(fps(page)).not.toHaveValue("5");
  await page.keyboard.press("Control+y");
  const { names } = await delivered(page);
  expect(names).toHaveLength(8);
  await page.reload();
  await expect(page.getByText(/could not be opened/)).toHaveCount(0);
});

test("the undamaged parts of a document open with a notice, and the original is kept", async ({ page }) => {
  await openEmpty(page);
  await openFromFile(page);
  await goTo(page, "Clips");
  const clips = page.getByRole("list", { name: "Clips" }).getByRole("button");
  const before = await clips.count();
  await damage(page, "clips", "bad field");
  await page.reload();
  await expect(
    page.getByText(/could not be opened as it was: .*steps.* It was opened without clip ".*\. The undo list starts over\./),
  ).toBeVisible();
  await expect(clips).toHaveCount(before - 1);
  const [raw] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save the raw data" }).click()]);
  const kept = (await filesOf(raw)).get("could-not-be-opened.json");
  expect(new TextDecoder().decode(kept)).toContain("wobble");
  // What was opened is saved and opens again without a word.
  await saved(page);
  await page.reload();
  await expect(clips).toHaveCount(before - 1);
  await expect(page.getByText(/could not be opened/)).toHaveCount(0);
});

test("sources are opened up to a damaged place", async ({ page }) => {
  await openEmpty(page);
  await openFromFile(page);
  const before = await sheets(page).count();
  await damage(page, "sources", "cut off");
  await page.reload();
  await expect(page.getByText(/It was opened without .*what follows a damaged place in its sources/)).toBeVisible();
  await expect.poll(() => sheets(page).count()).toBeGreaterThan(before - 3);
  await saved(page);
});

test("an unreadable document is no dead end: other projects, its raw data, a new one", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "other.png", figureSheet(2, 1), 2, 1);
  await saved(page);
  await withUnopenedProject(page);
  const [raw] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save its raw data" }).click()]);
  const files = await filesOf(raw);
  expect([...files.keys()].filter((path) => path.startsWith("pictures/")).length).toBeGreaterThan(30);
  expect(files.has("document/sources.json")).toBe(true);
  await page
    .getByRole("list", { name: "Projects" })
    .getByRole("listitem")
    .filter({ hasText: "New project" })
    .last()
    .getByRole("button")
    .click();
  await expect(sheets(page)).toHaveText([/other/]);
});

test("where a project cannot be opened, a dropped file says what is wrong with it, art begins a project, a project's file opens", async ({
  page,
}) => {
  await withUnopenedProject(page);
  await dropFiles(page, [{ name: "broken.caravan", bytes: new Uint8Array([1, 2, 3]) }]);
  await expect(page.getByRole("status")).toContainText("broken.caravan");
  const address = page.url();
  // Two drops at once are for the same new project.
  await Promise.all([dropFiles(page, [pngFile("hero.png", figureSheet(4, 2))]), dropFiles(page, [pngFile("mage.png", figureSheet(3, 2))])]);
  await expect(page).toHaveTitle(/^New project/);
  await expect(sheets(page)).toHaveText([/hero|mage/, /hero|mage/]);
  await saved(page);

  await page.goto(address);
  await expect(page.getByRole("heading", { name: "The project could not be opened" })).toBeVisible();
  await openFromFile(page);
  await expect(page.getByTestId("sheet")).toBeVisible();
});

test("where a browser may store nothing, the page says so and what to do, in words", async ({ page }) => {
  const errors: string[] = [];
  page.on("pageerror", ({ message }) => errors.push(message));
  // As browsers do it whose settings forbid it: the mere name of a storage throws.
  await page.addInitScript(() => {
    const refuse = () => {
      throw new DOMException("Access is denied for this document.", "SecurityError");
    };
    for (const name of ["indexedDB", "localStorage", "sessionStorage"]) Object.defineProperty(window, name, { get: refuse });
  });
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Nothing can be stored here" })).toBeVisible();
  await expect(page.getByText("This browser does not allow Caravan to store anything")).toBeVisible();
  await expect(page.getByRole("button")).toHaveText(["Try again"]);
  expect(await violationsOn(page)).toEqual([]);
  expect(errors).toEqual([]);
});

test("a database that does not open is said in words, with the browser's report, and opens when it can", async ({ page }) => {
  await page.addInitScript(() => {
    if (sessionStorage.getItem("mended") !== null) return;
    IDBFactory.prototype.open = () => {
      throw new DOMException("Internal error opening backing store for indexedDB.open.", "UnknownError");
    };
  });
  await page.goto("/");
  await expect(page.getByText("This browser's storage does not open, as when its disk is full or its data is damaged.")).toBeVisible();
  await expect(page.getByText("Internal error opening backing store")).toBeVisible();
  await page.evaluate(() => sessionStorage.setItem("mended", "yes"));
  await page.getByRole("button", { name: "Try again" }).click();
  await expect(page).toHaveTitle(/The Tamarisk Road/);
});
