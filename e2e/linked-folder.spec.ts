import { readFileSync } from "node:fs";
import { readBundle } from "@caravan/core/bundle";
import { readGif, sha256Hex, utf8, writeGif } from "@caravan/core/codec";
import { allPictures } from "@caravan/core/model";
import { crop, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { dropFiles, figureSheet, goTo, layeredFile, openEmpty, png, pngFile, saved, typeNumber, type UploadedFile } from "./studio";

/**
 * The browser's private file system stands in for a folder on the computer: its handles are of the same kind, and no dialog needs an
 * answer.
 */
test.beforeEach(async ({ page }) => {
  await page.addInitScript(() => {
    const folder = async () => (await navigator.storage.getDirectory()).getDirectoryHandle("art", { create: true });
    Object.assign(window, { showDirectoryPicker: folder });
  });
  await openEmpty(page);
});

async function writeArt(page: Page, { name, bytes }: UploadedFile): Promise<void> {
  await page.evaluate(
    async ({ path, base64 }) => {
      const root = await navigator.storage.getDirectory();
      let folder = await root.getDirectoryHandle("art", { create: true });
      const parts = path.split("/");
      for (const part of parts.slice(0, -1)) folder = await folder.getDirectoryHandle(part, { create: true });
      const file = await folder.getFileHandle(parts.at(-1) as string, { create: true });
      const stream = await file.createWritable();
      await stream.write(Uint8Array.from(atob(base64), (each) => each.charCodeAt(0)));
      await stream.close();
    },
    { path: name, base64: Buffer.from(bytes).toString("base64") },
  );
}

/** An uncompressed picture in a format that the project does not keep, from the top down. */
function tgaFile(name: string, { width, height, bytes }: Pixels): UploadedFile {
  const header = [0, 0, 2, 0, 0, 0, 0, 0, 0, 0, 0, 0, width & 255, width >> 8, height & 255, height >> 8, 32, 0x28];
  const drawn = Array.from(bytes, (_, k) => bytes[k % 4 === 0 ? k + 2 : k % 4 === 2 ? k - 2 : k] as number);
  return { name, bytes: Uint8Array.from([...header, ...drawn]) };
}

/** Empties what the browser keeps of metadata files. */
async function forgetTexts(page: Page): Promise<void> {
  await page.evaluate(async () => {
    const opening = indexedDB.open("caravan");
    await new Promise((answer) => opening.addEventListener("success", answer));
    const work = opening.result.transaction("texts", "readwrite");
    work.objectStore("texts").clear();
    await new Promise((answer) => work.addEventListener("complete", answer));
    opening.result.close();
  });
}

/** Like a person returning to the tab from a drawing program. */
const comeBack = (page: Page) => page.evaluate(() => window.dispatchEvent(new Event("focus")));

test("art in a linked folder is imported, watched for changes, and updated after a review", async ({ page }) => {
  const sheet = figureSheet(4, 2);
  await writeArt(page, pngFile("people/walkers.png", sheet));
  await goTo(page, "Sources");
  await page.getByRole("button", { name: "Link a folder" }).click();
  const line = page.getByRole("region", { name: "Linked folder" });
  await line.getByRole("button", { name: "Import 1 new picture" }).click({ clickCount: 2 });
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await typeNumber(page, "Columns", 4);
  await typeNumber(page, "Rows", 2);
  await page.keyboard.press("r");
  await page.keyboard.press("a");
  await page.keyboard.press("c");
  await page.getByRole("textbox", { name: "Clip name" }).press("Escape");
  await goTo(page, "Sources");
  await expect(line).toContainText("1 of 1 sources have their art in it, none changed");

  // One figure is redrawn.
  const redrawn = { ...sheet, bytes: sheet.bytes.slice() };
  redrawn.bytes.set([250, 240, 10, 255], (20 * sheet.width + 15) * 4);
  await writeArt(page, pngFile("people/walkers.png", redrawn));
  await comeBack(page);
  await expect(page.getByText("Art changed in art: walkers.")).toBeVisible();
  await line.getByRole("button", { name: "See what changed" }).click();
  const review = page.getByRole("dialog", { name: "Changed art of walkers" });
  await expect(review).toContainText("7 frames the same, 1 changed, 0 new, 0 gone.");
  await review.getByRole("button", { name: /Use new art/ }).click();
  await expect(review).toBeHidden();
  await expect(line).toContainText("none changed");
  await page
    .getByRole("button", { name: /Undo|Use the new art of walkers/ })
    .first()
    .click();
  await expect(line).toContainText("none changed");

  // After a reload the folder is still linked, and unlinking forgets it.
  await writeArt(page, pngFile("people/walkers.png", figureSheet(4, 2, { w: 32, h: 40 }, [7])));
  await page.reload();
  await expect(page.getByText("Art changed in art: walkers.")).toBeVisible();
  await expect(line).toContainText("1 changed");
  await line.getByRole("button", { name: "Unlink" }).click();
  await expect(line).toBeHidden();
});

test("an ignored picture is not offered again, and a missing file changes nothing", async ({ page }) => {
  await writeArt(page, pngFile("one.png", figureSheet(2, 1)));
  await writeArt(page, pngFile("two.png", figureSheet(3, 1)));
  await goTo(page, "Sources");
  await page.keyboard.press("l");
  const line = page.getByRole("region", { name: "Linked folder" });
  await line.getByRole("button", { name: "Ignore them" }).click();
  await expect(line.getByRole("button", { name: /Import/ })).toBeHidden();
  await comeBack(page);
  await line.getByRole("button", { name: "Look again" }).click();
  await expect(line.getByRole("button", { name: /Import/ })).toBeHidden();
  await writeArt(page, pngFile("two.png", figureSheet(4, 1)));
  await comeBack(page);
  await expect(line.getByRole("button", { name: "Import 1 new picture" })).toBeVisible();
});

test("a file that was renamed in the folder is followed by its source, and is not offered as a new picture", async ({ page }) => {
  const sheet = figureSheet(4, 1);
  await writeArt(page, pngFile("people/hero.png", sheet));
  await goTo(page, "Sources");
  await page.keyboard.press("l");
  const line = page.getByRole("region", { name: "Linked folder" });
  await line.getByRole("button", { name: "Import 1 new picture" }).click();
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await typeNumber(page, "Columns", 4);
  await goTo(page, "Sources");
  await page.evaluate(async () => {
    const root = await navigator.storage.getDirectory();
    const people = await (await root.getDirectoryHandle("art")).getDirectoryHandle("people");
    await people.removeEntry("hero.png");
  });
  await writeArt(page, pngFile("people/player.png", sheet));
  await comeBack(page);
  await expect(line).toContainText("art/hero.png is called people/player.png there now.");
  await expect(line.getByRole("button", { name: /Import/ })).toBeHidden();
  await line.getByRole("button", { name: "Follow it" }).click();
  await expect(line).toContainText("1 of 1 sources have their art in it, none changed.");
  await expect(line).not.toContainText("is called");

  // From now on it is that file's changes that are noticed.
  await writeArt(page, pngFile("people/player.png", figureSheet(4, 1, { w: 32, h: 40 }, [2])));
  await comeBack(page);
  await expect(page.getByText("Art changed in art: hero.")).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByText("art/hero.png", { exact: false }).first()).toBeVisible();
});

test("stills of a series, an animation and a layered file are watched as they lie there", async ({ page }) => {
  const figures = figureSheet(4, 1);
  const figure = (k: number) => crop(figures, { x: k * 32, y: 0, w: 32, h: 40 });
  const still = (number: number, k: number) => writeArt(page, pngFile(`people/walk_${number}.png`, figure(k)));
  const gif = (shown: number[], ms = 100) =>
    writeGif(
      shown.map((k) => ({ pixels: figure(k), ms })),
      0,
    ).bytes;
  const spark = (...shown: number[]) => writeArt(page, { name: "fx/spark.gif", bytes: gif(shown) });
  const camp = (light: number) => {
    const stack = '<layer name="light" src="light.png" composite-op="svg:plus"/><layer name="body" src="body.png"/>';
    return layeredFile("camp.ora", figure(0), stack, { "body.png": figure(0), "light.png": figure(light) });
  };
  const run = (number: number, k: number) => writeArt(page, tgaFile(`people/run_${number}.tga`, figure(k)));
  for (const number of [1, 2, 3]) await still(number, number);
  for (const number of [1, 2]) await run(number, number);
  await spark(0, 1, 2);
  await writeArt(page, camp(1));
  await goTo(page, "Sources");
  await page.keyboard.press("l");
  const line = page.getByRole("region", { name: "Linked folder" });
  await line.getByRole("button", { name: "Import 7 new pictures" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Import" }).click();
  await goTo(page, "Sources");
  await expect(line).toContainText("4 of 4 sources have their art in it, none changed.");
  await expect(line).not.toContainText("other names");
  await expect(line.getByRole("button", { name: /Import/ })).toBeHidden();

  const isUsed = async (name: string, after: () => Promise<void>) => {
    await after();
    await comeBack(page);
    await expect(line).toContainText("4 of 4 sources have their art in it, 1 changed.");
    await line.getByRole("button", { name: "See what changed" }).click();
    const review = page.getByRole("dialog", { name: `Changed art of ${name}` });
    await review.getByRole("button", { name: /Use new art/ }).click();
    await expect(line).toContainText("none changed.");
    await comeBack(page);
    await expect(line).toContainText("none changed.");
  };
  await isUsed("walk", () => still(2, 0));
  await isUsed("run", () => run(2, 3));
  await isUsed("spark", () => spark(0, 3, 2));
  // Only its times are others: there is nothing to look at, and it is said.
  await writeArt(page, { name: "fx/spark.gif", bytes: gif([0, 3, 2], 60) });
  await comeBack(page);
  await expect(line).toContainText("4 of 4 sources have their art in it, 1 changed.");
  await line.getByRole("button", { name: "See what changed" }).click();
  await expect(page.getByText("Clips updated from spark.gif: spark.")).toBeVisible();
  await expect(line).toContainText("none changed.");
  await isUsed("camp", () => writeArt(page, camp(2)));
  // A drawing program that is just writing it: nothing is said of a file that cannot be read.
  const { name, bytes } = camp(3);
  await writeArt(page, { name, bytes: bytes.subarray(0, bytes.length / 2) });
  await comeBack(page);
  await line.getByRole("button", { name: "Look again" }).click();
  await expect(line).toContainText("none changed.");
  await isUsed("camp", () => writeArt(page, camp(3)));

  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const { project } = readBundle(new Uint8Array(readFileSync(await download.path())), "saved");
  const drawn = (k: number) => sha256Hex(png.encode(figure(k)));
  const pictures = project.sources.map((source) => [source.name, ...allPictures(source).map(({ sha256 }) => sha256)]);
  expect(project.clips.find(({ name }) => name === "spark")?.steps.map(({ duration }) => duration)).toEqual([60_000, 60_000, 60_000]);
  expect(pictures.toSorted()).toEqual([
    ["camp", drawn(0), drawn(3)],
    ["run", drawn(1), drawn(3)],
    ["spark", ...[...readGif(gif([0, 3, 2]), "spark.gif").frames(() => {})].map(({ pixels }) => sha256Hex(png.encode(pixels)))],
    ["walk", drawn(1), drawn(0), drawn(3)],
  ]);
});

test("a folder for each character gives sources of distinct names with their metadata, and each is watched", async ({ page }) => {
  const walk = (who: string, missing: number[] = []) => pngFile(`${who}/walk.png`, figureSheet(4, 1, { w: 32, h: 40 }, missing));
  const told = { cells: [0, 1, 2, 3].map((k) => ({ id: `step ${k}`, box: [k * 32, 0, 32, 40] })) };
  await writeArt(page, walk("hero"));
  await writeArt(page, walk("villain", [1]));
  await writeArt(page, { name: "hero/walk.json", bytes: utf8(JSON.stringify(told)) });
  await writeArt(page, { name: "package.json", bytes: utf8("{}") });
  await goTo(page, "Sources");
  await page.keyboard.press("l");
  const line = page.getByRole("region", { name: "Linked folder" });
  await line.getByRole("button", { name: "Import 2 new pictures" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Import" }).click();
  await goTo(page, "Sources");
  const sources = page.getByRole("list", { name: "Sources" });
  await expect(sources.getByRole("button", { name: /hero-walk/ })).toHaveText(/^hero-walk\s*4$/);
  await expect(sources.getByRole("button", { name: /villain-walk/ })).toBeVisible();
  await expect(line).toContainText("2 of 2 sources have their art in it, none changed.");

  await writeArt(page, walk("villain", [2]));
  await comeBack(page);
  await expect(page.getByText("Art changed in art: villain-walk.")).toBeVisible();
});

test("of several files that fit, the one with the source's art is followed, or the one that is chosen", async ({ page }) => {
  const [sheet, other, redrawn] = [figureSheet(4, 2), figureSheet(4, 2, { w: 32, h: 40 }, [1]), figureSheet(4, 2, { w: 32, h: 40 }, [2])];
  await dropFiles(page, [pngFile("porter.png", sheet)]);
  await expect(page.getByTestId("outcome")).toBeVisible();
  await writeArt(page, tgaFile("porter.tga", sheet));
  await writeArt(page, { name: "porter.webp", bytes: utf8("being written") });
  await goTo(page, "Sources");
  await page.keyboard.press("l");
  const line = page.getByRole("region", { name: "Linked folder" });
  await expect(line).toContainText("1 of 1 sources have their art in it, none changed.");
  // When it changes, it is still the one.
  await writeArt(page, tgaFile("porter.tga", redrawn));
  await comeBack(page);
  await expect(line).toContainText("1 changed.");

  // Neither of these has the art, so nothing is followed, in so many words.
  await page.getByRole("button", { name: "Unlink" }).click();
  await writeArt(page, tgaFile("porter.tga", other));
  await page.keyboard.press("l");
  await expect(line).toContainText("Several files could be porter: until you choose, none is followed.");
  await expect(line).toContainText("0 of 1 sources have their art in it, none changed.");
  await line.getByRole("combobox", { name: "File of porter" }).click();
  await page.getByRole("option", { name: "None of these" }).click();
  await expect(line).not.toContainText("Several files");
  await expect(line.getByRole("button", { name: "See what changed" })).toHaveCount(0);

  await page.getByRole("button", { name: "Unlink" }).click();
  await page.keyboard.press("l");
  await line.getByRole("combobox", { name: "File of porter" }).click();
  await page.getByRole("option", { name: "porter.tga" }).click();
  await expect(line).toContainText("1 of 1 sources have their art in it, 1 changed.");
  await saved(page);
  await page.reload();
  await goTo(page, "Sources");
  await line.getByRole("button", { name: "See what changed" }).click();
  const review = page.getByRole("dialog");
  await review.getByRole("button", { name: /Use new art/ }).click();
  await expect(line).toContainText("1 of 1 sources have their art in it, none changed.");
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const { project, pictures } = readBundle(new Uint8Array(readFileSync(await download.path())), "saved");
  const [picture] = project.sources[0]?.pictures ?? [];
  expect(Buffer.from(png.decode(pictures.get(picture?.sha256 as string) as Uint8Array, "porter").bytes).equals(other.bytes)).toBe(true);
});

test("metadata that changes in the folder is followed with its clips, together with its art, each for its own source", async ({ page }) => {
  const figures = (who: string, ms: number, moves: readonly string[]) => ({
    name: `${who}/sheet.json`,
    bytes: utf8(
      JSON.stringify({
        cells: [0, 1, 2, 3].map((k) => ({ name: `${who} ${k}`, x: k * 32, y: 0, w: 32, h: 40, duration: ms })),
        moves: moves.map((name, k) => ({ name, from: 2 * k, to: 2 * k + 1 })),
      }),
    ),
  });
  const art = (who: string, missing: number[] = []) => pngFile(`${who}/sheet.png`, figureSheet(4, 1, { w: 32, h: 40 }, missing));
  for (const who of ["hero", "villain"]) {
    await writeArt(page, art(who, who === "hero" ? [] : [3]));
    await writeArt(page, figures(who, 100, [`${who}-walk`]));
  }
  await goTo(page, "Sources");
  await page.keyboard.press("l");
  const line = page.getByRole("region", { name: "Linked folder" });
  await line.getByRole("button", { name: "Import 2 new pictures" }).click();
  const review = page.getByRole("dialog", { name: "Import review" });
  await review.getByRole("button", { name: "Import" }).click();
  await goTo(page, "Sources");
  await expect(line).toContainText("2 of 2 sources have their art in it, none changed.");

  // A browser that has never seen the files' texts learns them from the folder, where they are still as they were.
  await saved(page);
  await forgetTexts(page);
  await page.reload();
  await expect(line).toContainText("2 of 2 sources have their art in it, none changed.");

  // Times and a new clip of one; the other is as it was, though its file is called the same.
  await writeArt(page, figures("hero", 60, ["hero-walk", "hero-rest"]));
  await comeBack(page);
  await expect(page.getByText("Metadata changed in art: hero-sheet.")).toBeVisible();
  await line.getByRole("button", { name: "See what changed" }).click();
  await expect(review.getByRole("listitem")).toHaveCount(1);
  await expect(review.getByText("hero-sheet, cut again")).toBeVisible();
  await review.getByRole("button", { name: "Import" }).click();
  await expect(
    page.getByText(/4 frames kept, 0 new, 0 gone\. New clips: hero-rest\. Clips updated from sheet\.json: hero-walk\./),
  ).toBeVisible();
  await goTo(page, "Sources");
  await expect(line).toContainText("none changed.");

  // New art with its file; cancelled, it is not reported again.
  await writeArt(page, art("villain", [1]));
  await writeArt(page, figures("villain", 80, ["villain-walk"]));
  await comeBack(page);
  await expect(line).toContainText("1 changed.");
  await line.getByRole("button", { name: "See what changed" }).click();
  await expect(review.getByText("New art of villain-sheet")).toBeVisible();
  await review.getByRole("button", { name: "Cancel" }).click();
  await expect(line).toContainText("none changed.");
  await comeBack(page);
  await line.getByRole("button", { name: "Look again" }).click();
  await expect(line).toContainText("none changed.");
  await writeArt(page, figures("villain", 90, ["villain-walk"]));
  await comeBack(page);
  await line.getByRole("button", { name: "See what changed" }).click();
  await review.getByRole("button", { name: "Import" }).click();
  await expect(page.getByText(/villain-sheet.*Clips updated from sheet\.json: villain-walk\./)).toBeVisible();

  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const { project } = readBundle(new Uint8Array(readFileSync(await download.path())), "saved");
  const times = project.clips.map(({ name, steps }) => [name, ...steps.map(({ duration }) => duration / 1000)]);
  expect(times).toEqual([
    ["hero-walk", 60, 60],
    ["villain-walk", 90, 90],
    ["hero-rest", 60, 60],
  ]);
  expect(project.sources[1]?.pictures[0]?.sha256).toBe(sha256Hex(art("villain", [1]).bytes));
});
