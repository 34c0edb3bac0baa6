import { type BrowserContext, expect, type Page, test } from "./fixtures";
import { dropAndCut, dropFiles, figureSheet, fps, goTo, makeWalk, openEmpty, pngFile, saved, typeNumber } from "./studio";
import { storageWithEnd } from "./trouble";

const sheets = (page: Page) => page.getByRole("list", { name: "Sheets" }).getByRole("button");

/** The hashes of all stored pictures; before that, one is put there that nothing refers to. */
function picturesStored(page: Page, left?: string): Promise<string[]> {
  return page.evaluate(async (sha256) => {
    const [found] = await indexedDB.databases();
    const opening = indexedDB.open(found?.name ?? "");
    await new Promise((answer) => {
      opening.onsuccess = answer;
    });
    const database = opening.result;
    const pictures = database.transaction("pictures", "readwrite").objectStore("pictures");
    if (sha256) pictures.put({ sha256, blob: new Blob(["left"]) });
    const asking = pictures.getAllKeys();
    await new Promise((answer) => {
      asking.onsuccess = answer;
    });
    database.close();
    return asking.result as string[];
  }, left);
}

test("an edit that is followed at once by a reload is there afterwards", async ({ page }) => {
  await makeWalk(page);
  await saved(page);
  for (const speed of [5, 7, 9]) {
    await fps(page).fill(String(speed));
    await Promise.all([
      page.waitForEvent("load"),
      fps(page)
        .press("Enter")
        .then(() => page.evaluate(() => location.reload())),
    ]);
    await expect(fps(page)).toHaveValue(String(speed));
  }
  await saved(page);
  await page.getByRole("region", { name: "Ribbons" }).focus();
  await page.keyboard.press("Control+z");
  await expect(fps(page)).toHaveValue("7");
});

test("art that does not fit into storage is shown as unsaved, waits, and is stored when there is space", async ({ page }) => {
  const room = await storageWithEnd(page, { only: "pictures" });
  await openEmpty(page);
  await room.fills();
  await dropAndCut(page, "late.png", figureSheet(4, 2), 4, 2);
  await expect(page.getByTestId("saved")).toHaveText("not saved");
  await typeNumber(page, "Columns", 2);
  await expect(page.getByText("This browser has no more room for the project.")).toBeVisible();
  await expect(page.getByTestId("saved")).toHaveText("not saved");
  await room.empties();
  await page.getByRole("button", { name: "Try again" }).click();
  await saved(page);
  await page.reload();
  await expect(sheets(page)).toHaveText([/late/]);
  await goTo(page, "Ship");
  await expect(page.getByTestId("proof")).toContainText("every pixel the same");
});

test("a project that cannot be saved is left only after asking: stay, discard, or save to a file", async ({ page }) => {
  const room = await storageWithEnd(page);
  await makeWalk(page);
  await saved(page);
  await room.fills();
  await typeNumber(page, "Frames per second", 4);
  await expect(page.getByTestId("saved")).toHaveText("not saved");
  const dialog = page.getByRole("dialog", { name: "New project has unsaved changes" });
  // Nothing new can be stored, so an existing project is opened.
  const leave = async () => {
    await page.keyboard.press("p");
    await page.getByRole("list", { name: "Projects", exact: true }).getByRole("button", { name: "Open", exact: true }).first().click();
  };
  await room.empties();
  const other = await page.context().newPage();
  await openEmpty(other);
  await saved(other);
  await other.close();
  await room.fills();
  await typeNumber(page, "Frames per second", 3);
  await page.getByRole("region", { name: "Ribbons" }).focus();
  await leave();
  await expect(dialog).toBeVisible();
  await dialog.getByRole("button", { name: "Stay here" }).click();
  await expect(fps(page)).toHaveValue("3");
  await page.getByRole("region", { name: "Ribbons" }).focus();
  await leave();
  const [download] = await Promise.all([page.waitForEvent("download"), dialog.getByRole("button", { name: "Save to a file" }).click()]);
  expect(download.suggestedFilename()).toBe("New project.caravan");
  await expect(page).toHaveTitle(/^New project 2/);
});

test("opening another project ends work begun in the first one, and nothing of it enters the second", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "first.png", figureSheet(4, 2), 4, 2);
  await saved(page);
  await openEmpty(page);
  // A large sheet, so that cutting along its outlines takes a while.
  await dropAndCut(page, "second.png", figureSheet(60, 40, { w: 32, h: 40 }), 60, 40);
  await saved(page);
  await page.getByTestId("sheet").focus();
  await page.keyboard.press("o");
  await page.keyboard.press("p");
  await page.getByRole("list", { name: "Projects", exact: true }).getByRole("button", { name: "Open", exact: true }).first().click();
  await expect(sheets(page)).toHaveText([/first/]);
  await page.waitForTimeout(2500);
  await expect(page.getByTestId("outcome")).toContainText("8 frames");
  await saved(page);
  await page.reload();
  await expect(page.getByTestId("outcome")).toContainText("8 frames");
});

test("a project that another tab has open is not deleted or renamed under it", async ({ context, page }) => {
  await makeWalk(page);
  await saved(page);
  const second = await (context as BrowserContext).newPage();
  await openEmpty(second);
  await second.keyboard.press("p");
  const row = second
    .getByRole("list", { name: "Projects", exact: true })
    .getByRole("listitem")
    .filter({ has: second.getByRole("textbox", { name: "Name of New project", exact: true }) });
  await row.getByRole("button", { name: "Remove" }).click();
  await expect(second.getByText(/It is open in another tab/).first()).toBeVisible();
  await row.getByRole("textbox").fill("Stolen");
  await second.keyboard.press("Enter");
  await typeNumber(page, "Frames per second", 6);
  await saved(page);
  await page.reload();
  await expect(page).toHaveTitle(/^New project –/);
  await expect(fps(page)).toHaveValue("6");
});

/** As when it is deleted by another tab. */
async function emptyStorage(page: Page): Promise<void> {
  await page.evaluate(async () => {
    const open = indexedDB.open("caravan");
    const database = await new Promise<IDBDatabase>((answer) => {
      open.onsuccess = () => answer(open.result);
    });
    const stores = ["projects", "documents", "history", "pictures"];
    const clearing = database.transaction(stores, "readwrite");
    for (const name of stores) clearing.objectStore(name).clear();
    await new Promise((answer) => {
      clearing.oncomplete = answer;
    });
    database.close();
  });
}

/** As a person does it in the browser's settings. */
async function clearBrowser(page: Page): Promise<void> {
  const session = await page.context().newCDPSession(page);
  await session.send("Storage.clearDataForOrigin", { origin: new URL(page.url()).origin, storageTypes: "indexeddb,local_storage" });
  await session.detach();
}

/** Counts the files from storage that the page has read into memory, in `copied`: clearing the browser leaves it no others. */
async function countCopies(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const counted = Object.assign(window, { copied: 0 });
    const { arrayBuffer } = Blob.prototype;
    Blob.prototype.arrayBuffer = async function () {
      const bytes = await arrayBuffer.call(this);
      if (!(this instanceof File)) setTimeout(() => counted.copied++);
      return bytes;
    };
  });
}

for (const [how, clear] of [
  ["deleted elsewhere", emptyStorage],
  ["cleared in the browser", clearBrowser],
] as const)
  for (const from of ["just made", "opened before"])
    test(`when all stored data is ${how}, the next save of a project ${from} restores it, pictures included`, async ({ page }) => {
      await countCopies(page);
      await makeWalk(page);
      await saved(page);
      if (from === "opened before") await page.reload();
      await expect(fps(page)).toBeVisible();
      await expect.poll(() => page.evaluate(() => (window as unknown as { copied: number }).copied)).toBeGreaterThan(0);
      await clear(page);
      await typeNumber(page, "Frames per second", 6);
      await saved(page);
      await page.reload();
      await goTo(page, "Clips");
      await expect(fps(page)).toHaveValue("6");
      await goTo(page, "Ship");
      await expect(page.getByTestId("proof")).toContainText("every pixel the same");
    });

test("art that is lost with all stored data is said to be, and comes back when it is dropped again", async ({ page }) => {
  // The page keeps no copy of it, as of very large art, and its file is gone.
  await page.addInitScript(() => {
    const { arrayBuffer } = Blob.prototype;
    Blob.prototype.arrayBuffer = function () {
      if (this instanceof File) return arrayBuffer.call(this);
      return Promise.reject(new DOMException("The file could not be found.", "NotFoundError"));
    };
  });
  await makeWalk(page);
  await saved(page);
  await emptyStorage(page);
  await typeNumber(page, "Frames per second", 6);
  await expect(
    page.getByText("What this browser stores was deleted while the project was open, and 1 of its pictures are gone."),
  ).toBeVisible();
  await saved(page);
  await goTo(page, "Ship");
  await expect(page.getByText("hero.png is missing. Add the art again").first()).toBeVisible();
  await goTo(page, "Sources");
  await dropFiles(page, [pngFile("hero.png", figureSheet(4, 2))]);
  await expect(page.getByText("The art of hero is restored.")).toBeVisible();
  await page.reload();
  await goTo(page, "Ship");
  await expect(page.getByTestId("proof")).toContainText("every pixel the same");
});

test("art left by a killed page is swept at the next start; anything that a project, undo or another tab may need stays", async ({
  page,
  context,
}) => {
  await makeWalk(page);
  // Removed from the document, and one undo away.
  await dropFiles(page, [pngFile("more.png", figureSheet(2, 1))]);
  await expect(sheets(page)).toHaveText([/hero/, /more/]);
  await page.keyboard.press("Control+z");
  await expect(sheets(page)).toHaveText([/hero/]);
  await saved(page);
  const stored = () => picturesStored(page);
  const two = await stored();
  expect(two).toHaveLength(2);
  const left = "ab".repeat(32);
  await picturesStored(page, left);
  const other = await context.newPage();
  await other.goto("/?new");
  await expect(other).toHaveTitle(/^New project/);
  await page.reload();
  await page.waitForTimeout(2500);
  expect((await stored()).sort()).toEqual([...two, left].sort());
  await other.close();
  await page.reload();
  await expect.poll(async () => (await stored()).sort(), { timeout: 15_000 }).toEqual(two.sort());
  await page.keyboard.press("Control+Shift+z");
  await expect(sheets(page)).toHaveText([/hero/, /more/]);
});

test("a failing part of the screen leaves the rest working, and the project can be saved to a file", async ({ page }) => {
  // The code of Rehearse never arrives, as after an update of the server.
  await page.route(/\/_next\/static\/chunks\//, async (route) => {
    const answer = await route.fetch();
    if ((await answer.text()).includes("Name of the drive")) await route.abort();
    else await route.fulfill({ response: answer });
  });
  await makeWalk(page);
  await saved(page);
  await goTo(page, "Rehearse");
  await expect(page.getByRole("alert").filter({ hasText: "Rehearse cannot be shown" })).toContainText("could not be loaded");
  await goTo(page, "Frames");
  await dropFiles(page, [pngFile("more.png", figureSheet(2, 1))]);
  await expect(sheets(page)).toHaveText([/hero/, /more/]);
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  expect(download.suggestedFilename()).toBe("New project.caravan");
});
