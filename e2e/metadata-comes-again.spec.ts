/** A metadata file for a sheet that is there already brings its clips, and these follow when the file comes again or is read another way. */
import { readFileSync } from "node:fs";
import { expect, type Page, test } from "./fixtures";
import { played, review, taken } from "./imported";
import { choose, delivered, dropAndCut, dropFiles, figureSheet, goTo, openEmpty, pngFile, saved, type UploadedFile } from "./studio";

const clips = (page: Page) => page.getByRole("list", { name: "Clips" });

interface Move {
  readonly name: string;
  readonly from: number;
  readonly to: number;
}

/** The figures of a sheet of 4 × 2, with times of their own and moves in runs of them. */
function described(name: string, times: readonly number[], moves: readonly Move[], late: readonly number[] = times): UploadedFile {
  const figures = times.map((ms, k) => {
    const at = { x: (k % 4) * 32, y: Math.floor(k / 4) * 40, w: 32, h: 40 };
    return { name: `figure ${k}`, ...at, duration: ms, late: late[k] as number };
  });
  return { name, bytes: new TextEncoder().encode(JSON.stringify({ figures, moves })) };
}

const WALK = { name: "walk", from: 0, to: 3 };
const WAVE = { name: "wave", from: 4, to: 5 };
const EVEN = Array.from({ length: 8 }, () => 100);

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

test("clips come with a file that is dropped onto a sheet, and follow its next version; what was changed here stays", async ({ page }) => {
  await dropAndCut(page, "porter", figureSheet(4, 2), 4, 2);
  await dropFiles(page, [described("porter.json", EVEN, [WALK, WAVE])]);
  await expect(review(page)).toContainText("Cut into 8 frames with 2 clips, as porter.json says");
  await expect(review(page).getByRole("checkbox", { name: "Add its 2 clips that are not here" })).toBeChecked();
  await review(page).getByRole("button", { name: "Import" }).click();
  await expect(page.getByText("New clips: walk, wave.")).toBeVisible();
  await goTo(page, "Clips");
  await clips(page).getByText("wave").click();
  const list = page.getByRole("textbox", { name: "Durations one by one, in milliseconds" });
  await list.fill("300, 100");
  await list.press("Enter");
  // The drawing program has other times now, and one more move.
  const again = described("porter.json", [60, 60, 60, 60, 80, 80, 100, 100], [WALK, WAVE, { name: "rest", from: 6, to: 7 }]);
  await taken(page, again);
  await expect(page.getByText(/New clips: rest\. Clips updated from porter\.json: walk\./)).toBeVisible();
  await expect(page.getByText("Clips updated from porter.json, except where you changed the same: wave.")).toBeVisible();
  expect(await played(page)).toEqual({ walk: [60, 60, 60, 60], wave: [300, 80], rest: [100, 100] });
  // One step takes all of it back.
  await page.keyboard.press("Control+z");
  expect(await played(page)).toEqual({ walk: [100, 100, 100, 100], wave: [300, 100] });
  // What is compared is what the file said at this state of the project, also after a reload.
  await saved(page);
  await page.reload();
  await taken(page, again);
  expect(await played(page)).toEqual({ walk: [60, 60, 60, 60], wave: [300, 80], rest: [100, 100] });
});

test("a clip that was removed here is offered again, and left out unless it is wanted", async ({ page }) => {
  const file = described("porter.json", EVEN, [WALK, WAVE]);
  await dropFiles(page, [pngFile("porter.png", figureSheet(4, 2)), file]);
  await review(page).getByRole("button", { name: "Import" }).click();
  await goTo(page, "Clips");
  await clips(page).getByText("wave").click({ button: "right" });
  await page.getByRole("menuitem", { name: "Remove" }).click();
  await expect(clips(page).getByText("wave")).toBeHidden();
  await taken(page, file);
  await goTo(page, "Clips");
  await expect(clips(page)).not.toContainText("wave");
  await dropFiles(page, [file]);
  const tick = review(page).getByRole("checkbox", { name: "Add its clip wave" });
  await expect(tick).not.toBeChecked();
  await tick.check();
  await review(page).getByRole("button", { name: "Import" }).click();
  expect(await played(page)).toEqual({ walk: [100, 100, 100, 100], wave: [100, 100] });
});

test("with new art and a new file together clips follow the frames to where they are now", async ({ page }) => {
  const sheet = figureSheet(4, 2);
  await dropFiles(page, [pngFile("porter.png", sheet), described("porter.json", EVEN, [WALK])]);
  await review(page).getByRole("button", { name: "Import" }).click();
  await expect(page.getByTestId("outcome")).toContainText("8 frames");
  const redrawn = { ...sheet, bytes: sheet.bytes.slice() };
  redrawn.bytes.set([250, 240, 10, 255], (20 * sheet.width + 15) * 4);
  await dropFiles(page, [
    pngFile("porter.png", redrawn),
    described(
      "porter.json",
      EVEN.map(() => 40),
      [WALK, WAVE],
    ),
  ]);
  await review(page).getByRole("button", { name: "Import" }).click();
  await expect(page.getByText(/8 frames kept, 0 new, 0 gone\. New clips: wave\. Clips updated from porter\.json: walk\./)).toBeVisible();
  expect(await played(page)).toEqual({ walk: [40, 40, 40, 40], wave: [40, 40] });
});

test("new facings that come with new art and file join the action of the others, in place of mirrors", async ({ page }) => {
  const [east, south] = [
    { name: "walk-e", from: 0, to: 1 },
    { name: "walk-s", from: 2, to: 3 },
  ];
  const sheet = figureSheet(4, 2);
  await dropFiles(page, [pngFile("porter.png", sheet), described("porter.json", EVEN, [east, south])]);
  await review(page).getByRole("button", { name: "Import" }).click();
  await expect(page.getByText("Imported 1 source and the action walk.")).toBeVisible();
  expect((await delivered(page)).atlas.actions).toMatchObject({ walk: { facings: { e: { clip: "walk-e" }, w: { mirror: true } } } });
  const redrawn = { ...sheet, bytes: sheet.bytes.slice() };
  redrawn.bytes.set([250, 240, 10, 255], (20 * sheet.width + 15) * 4);
  const more = [east, south, { name: "walk-w", from: 4, to: 5 }, { name: "walk-n", from: 6, to: 7 }];
  await dropFiles(page, [pngFile("porter.png", redrawn), described("porter.json", EVEN, more)]);
  await expect(review(page)).toContainText("New clips: walk-w, walk-n.");
  await expect(review(page).getByRole("checkbox", { name: "Add to the action walk, 4 facings", exact: true })).toBeChecked();
  await review(page).getByRole("button", { name: "Import" }).click();
  await expect(page.getByText(/8 frames kept, 0 new, 0 gone\. New clips: walk-w, walk-n\./)).toBeVisible();
  const { walk, ...others } = (await delivered(page)).atlas.actions;
  expect(others).toEqual({});
  expect(walk?.facings).toMatchObject({ e: { clip: "walk-e" }, s: { clip: "walk-s" }, w: { clip: "walk-w" }, n: { clip: "walk-n" } });
  expect(walk?.facings.w?.mirror).toBeUndefined();
});

test("clips follow when the field of the times is corrected", async ({ page }) => {
  const late = EVEN.map((_, k) => 200 + k);
  await dropFiles(page, [pngFile("porter.png", figureSheet(4, 2)), described("porter.json", EVEN, [WALK], late)]);
  await review(page).getByRole("button", { name: "Import" }).click();
  await expect(page.getByTestId("outcome")).toContainText("8 frames");
  await choose(page, page.getByLabel("Path of duration"), "late");
  await expect(page.getByText("Clips updated from porter.json: walk.")).toBeVisible();
  expect(await played(page)).toEqual({ walk: [200, 201, 202, 203] });
});

test("clips follow in a project that was opened from a file saved in this browser, and of a source that was renamed", async ({ page }) => {
  await dropFiles(page, [pngFile("porter.png", figureSheet(4, 2)), described("porter.json", EVEN, [WALK])]);
  await review(page).getByRole("button", { name: "Import" }).click();
  await expect(page.getByTestId("outcome")).toContainText("8 frames");
  await goTo(page, "Sources");
  await page.keyboard.press("F2");
  await page.getByRole("textbox", { name: "Source name" }).fill("hero");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("button", { name: /^Undo: rename porter to hero/ })).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const before = page.url();
  await dropFiles(page, [{ name: "camp.caravan", bytes: readFileSync(await download.path()) }]);
  await expect(page).not.toHaveURL(before);
  await dropFiles(page, [
    described(
      "porter.json",
      EVEN.map(() => 50),
      [WALK],
    ),
  ]);
  await expect(review(page)).toContainText("8 frames kept, 0 new, 0 gone. Clips updated from porter.json: walk.");
  await review(page).getByRole("button", { name: "Import" }).click();
  expect(await played(page)).toEqual({ walk: [50, 50, 50, 50] });
});

test("a saved project has its metadata along: in another browser it is read another way, and clips follow its next version", async ({
  context,
  page,
}) => {
  const late = EVEN.map((_, k) => 200 + k);
  await dropFiles(page, [pngFile("porter.png", figureSheet(4, 2)), described("porter.json", EVEN, [WALK], late)]);
  await review(page).getByRole("button", { name: "Import" }).click();
  await expect(page.getByTestId("outcome")).toContainText("8 frames");
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const bytes = readFileSync(await download.path());
  // Another browser has nothing of it.
  await page.goto("about:blank");
  const session = await context.newCDPSession(page);
  await session.send("Storage.clearDataForOrigin", {
    origin: new URL(download.url().replace(/^blob:/, "")).origin,
    storageTypes: "indexeddb",
  });
  await openEmpty(page);
  await dropFiles(page, [{ name: "camp.caravan", bytes }]);
  await goTo(page, "Frames");
  await choose(page, page.getByLabel("Path of duration"), "late");
  await expect(page.getByText("Clips updated from porter.json: walk.")).toBeVisible();
  expect(await played(page)).toEqual({ walk: [200, 201, 202, 203] });
  await taken(
    page,
    described(
      "porter.json",
      EVEN,
      [WALK],
      late.map((ms) => ms * 2),
    ),
  );
  expect(await played(page)).toEqual({ walk: [400, 402, 404, 406] });
});
