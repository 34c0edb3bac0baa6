import { readFileSync } from "node:fs";
import { readZip } from "@caravan/core/codec";
import { expect, type Page, test } from "./fixtures";
import { clipOfRows, dropAndCut, dropFiles, figureSheet, filesOf, goTo, openEmpty, pngFile, saved, typeNumber } from "./studio";

/** Names that systems reserve, that differ only in case, or that are cut in the middle of a character. */
const NAMES = ["__proto__.png", "Run.png", "run.png", "con.png", "aux.PNG", `${"x".repeat(119)}😀.png`, "tail. .png", "😀.png"];

const sheets = (page: Page) => page.getByRole("list", { name: "Sheets" }).getByRole("button");

/** A project whose stored sources are cut off, so that it does not open. */
async function withUnopenedProject(page: Page): Promise<void> {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 2), 4, 2);
  await saved(page);
  await damage(page, "sources", "cut off");
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
async function damage(page: Page, part: "sources" | "clips" | "rest", change: "cut off" | "bad field"): Promise<void> {
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
      const text = how === "cut off" ? row.text.slice(0, -4) : row.text.replace('"frame":"s1/', '"frame":"wobble/');
      await new Promise((answer) => {
        store.put({ ...row, text }).onsuccess = answer;
      });
      database.close();
    },
    [part, change] as const,
  );
}

test("the undamaged parts of a document open with a notice, and the original is kept", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", figureSheet(4, 2), 4, 2);
  await clipOfRows(page, 1, "walk");
  await typeNumber(page, "Frames per second", 5);
  await saved(page);
  await damage(page, "clips", "bad field");
  await page.reload();
  await expect(
    page.getByText(/could not be opened as it was: .*steps.* It was opened without clip "walk"\. The undo list starts over\./),
  ).toBeVisible();
  await goTo(page, "Frames");
  await expect(sheets(page)).toHaveText([/hero/]);
  await goTo(page, "Clips");
  await expect(page.getByText("No clips yet")).toBeVisible();
  const [raw] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save the raw data" }).click()]);
  const kept = (await filesOf(raw)).get("could-not-be-opened.json");
  expect(new TextDecoder().decode(kept)).toContain("wobble");
  // What was opened is saved and opens again without a word.
  await saved(page);
  await page.reload();
  await expect(page.getByText("No clips yet")).toBeVisible();
  await expect(page.getByText(/could not be opened/)).toHaveCount(0);
});

test("an unreadable document is no dead end: other projects, its raw data, a new one", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "other.png", figureSheet(2, 1), 2, 1);
  await saved(page);
  await withUnopenedProject(page);
  const [raw] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save its raw data" }).click()]);
  const files = await filesOf(raw);
  expect([...files.keys()].filter((path) => path.startsWith("pictures/"))).toHaveLength(1);
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

test("a project's file dropped where a project cannot be opened is opened", async ({ page }) => {
  await withUnopenedProject(page);
  const demo = await (await page.request.get("/demo.caravan")).body();
  await dropFiles(page, [{ name: "road.caravan", bytes: new Uint8Array(demo) }]);
  await expect(page).toHaveTitle(/The Tamarisk Road/);
});
