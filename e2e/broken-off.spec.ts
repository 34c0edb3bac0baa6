/** Interruptions by the user, the browser or the system: leaving, closing, a cancelled drag, a part that fails. */
import { expect, type Page, test } from "./fixtures";
import { atlasOf, dropFiles, figureSheet, fps, goTo, makeWalk, openEmpty, png, pngFile, saved, typeNumber } from "./studio";

test("leaving the page with unsaved work asks first, and without it does not", async ({ page }) => {
  await page.addInitScript(() => {
    const [put, set] = [IDBObjectStore.prototype.put, Storage.prototype.setItem];
    Object.assign(globalThis, { full: false, asked: 0 });
    const refuse = () => {
      if ((globalThis as unknown as { full: boolean }).full) throw new DOMException("No room.", "QuotaExceededError");
    };
    IDBObjectStore.prototype.put = function (this: IDBObjectStore, ...args: Parameters<typeof put>) {
      refuse();
      return put.apply(this, args);
    } as typeof put;
    Storage.prototype.setItem = function (...args) {
      refuse();
      set.apply(this, args);
    };
    const persist = navigator.storage.persist.bind(navigator.storage);
    navigator.storage.persist = () => {
      (globalThis as unknown as { asked: number }).asked++;
      return persist();
    };
  });
  await makeWalk(page);
  await saved(page);
  // The browser was asked to keep our storage when space gets short.
  expect(await page.evaluate(() => (globalThis as unknown as { asked: number }).asked)).toBeGreaterThan(0);
  await page.evaluate(() => Object.assign(globalThis, { full: true }));
  await typeNumber(page, "Frames per second", 4);
  await expect(page.getByTestId("saved")).toHaveText("not saved");
  const [question] = await Promise.all([page.waitForEvent("dialog"), page.close({ runBeforeUnload: true })]);
  expect(question.type()).toBe("beforeunload");
  await question.dismiss();
  await expect(fps(page)).toHaveValue("4");
  await page.evaluate(() => Object.assign(globalThis, { full: false }));
  await page.getByRole("button", { name: "Try again" }).click();
  await saved(page);
  await Promise.all([page.waitForEvent("close"), page.close({ runBeforeUnload: true })]);
});

test("a page closed during a delivery leaves a whole set: the next visit finishes it; its rename can be undone", async ({
  context,
  page,
}) => {
  // The browser's private file system stands in for the game's folder. With `stuck`, a file of that name never completes.
  await context.addInitScript(() => {
    const folder = async () => (await navigator.storage.getDirectory()).getDirectoryHandle("game", { create: true });
    Object.assign(window, { showDirectoryPicker: folder });
    const create = FileSystemFileHandle.prototype.createWritable;
    FileSystemFileHandle.prototype.createWritable = function (...options) {
      return this.name === (window as unknown as { stuck?: string }).stuck ? new Promise(() => {}) : create.apply(this, options);
    };
  });
  const there = async (at: Page) =>
    new Map(
      (
        await at.evaluate(async () => {
          const game = await (await navigator.storage.getDirectory()).getDirectoryHandle("game");
          const listed = async () => {
            const found: [string, string][] = [];
            for await (const [name, handle] of (game as unknown as { entries(): AsyncIterable<[string, FileSystemHandle]> }).entries()) {
              const file = handle instanceof FileSystemFileHandle ? await handle.getFile() : new Blob();
              found.push([name, btoa(String.fromCharCode(...new Uint8Array(await file.arrayBuffer())))]);
            }
            return found;
          };
          // The page moves its files meanwhile: listed files may be gone when they are read.
          for (let round = 0; round < 20; round++) {
            const found = await listed().catch((error: DOMException) =>
              /^Not(Found|Readable)Error$/.test(error.name) ? null : Promise.reject(error),
            );
            if (found) return found;
          }
          throw new Error("The folder did not come to rest.");
        })
      ).map(([name, base64]) => [name, new Uint8Array(Buffer.from(base64, "base64"))]),
    );
  const deliver = (at: Page) => at.getByRole("button", { name: "Deliver into game" });
  await makeWalk(page);
  await goTo(page, "Ship");
  await page.getByRole("button", { name: "Link the game's folder" }).click();
  await deliver(page).click();
  await expect(page.getByText("Delivered 2 files into game.")).toBeVisible();

  // One frame less changes the page and the atlas file; the page never gets into its place.
  await goTo(page, "Frames");
  await page.getByRole("listbox", { name: "Frames" }).getByRole("option").last().click();
  await page.getByRole("button", { name: "Drop this frame" }).click();
  await goTo(page, "Ship");
  await page.evaluate(() => Object.assign(window, { stuck: "atlas.png" }));
  await expect(page.getByTestId("proof")).toContainText("7 frames in, 7 out");
  await deliver(page).click();
  await expect.poll(async () => [...(await there(page)).keys()]).toContain(".caravan-staged");
  await page.waitForTimeout(500);
  await saved(page);
  await page.close();

  const next = await context.newPage();
  await next.goto("/");
  await goTo(next, "Ship");
  await expect.poll(async () => [...(await there(next)).keys()]).not.toContain(".caravan-staged");
  const files = await there(next);
  const { atlas } = atlasOf(files);
  expect(Object.keys(atlas.frames)).toHaveLength(7);
  const page1 = png.decode(files.get("atlas.png") as Uint8Array, "atlas.png");
  expect([page1.width, page1.height]).toEqual([atlas.pages[0]?.width, atlas.pages[0]?.height]);

  const name = next.getByRole("textbox", { name: "Name of the delivery" });
  await name.fill("walker");
  await name.press("Enter");
  await expect(deliver(next)).toBeVisible();
  await next.getByTestId("proof").click();
  await next.keyboard.press("Control+z");
  await expect(name).toHaveValue("atlas");
  await deliver(next).click();
  await expect(next.getByText("game is up to date: all 2 files of atlas are unchanged.")).toBeVisible();
});

test("a drag that the browser cancels ends there: later pointer moves change nothing, and undo takes one step", async ({ page }) => {
  await makeWalk(page);
  const edge = page.getByTestId("edge 1");
  const at = (await edge.boundingBox()) as { x: number; y: number; width: number; height: number };
  const [x, y] = [at.x + at.width / 2, at.y + at.height / 2];
  const time = () => page.getByRole("button", { name: /^Step 1:/ }).getAttribute("aria-label");
  const before = await time();
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 40, y, { steps: 4 });
  expect(await time()).not.toBe(before);
  await page.evaluate(() => window.dispatchEvent(new PointerEvent("pointercancel", { pointerId: 1, bubbles: true })));
  await edge.dispatchEvent("pointercancel", { pointerId: 1, bubbles: true });
  const cancelled = await time();
  await page.mouse.move(x + 160, y, { steps: 4 });
  await page.mouse.up();
  expect(await time()).toBe(cancelled);
  await page.getByRole("region", { name: "Ribbons" }).focus();
  if (cancelled !== before) await page.keyboard.press("Control+z");
  expect(await time()).toBe(before);
});

test("a second drop waits until the first is decided", async ({ page }) => {
  await openEmpty(page);
  const still = (name: string) => [0, 1, 2].map((k) => pngFile(`${name}-${k}.png`, figureSheet(1, 1, { w: 32, h: 40 + k })));
  await dropFiles(page, still("walk"));
  const review = page.getByRole("dialog", { name: "Import review" });
  await expect(review).toContainText("walk");
  await dropFiles(page, still("run"));
  await page.waitForTimeout(500);
  await expect(review).toContainText("walk");
  await review.getByRole("button", { name: "Import" }).click();
  await expect(review).toContainText("run");
  // Sooner it would be the second click of a double click.
  await page.waitForTimeout(600);
  await review.getByRole("button", { name: "Import" }).click();
  await expect(page.getByRole("list", { name: "Sheets" }).getByRole("button")).toHaveText([/walk/, /run/]);
});

test("a stop whose code throws shows that in its place; the rest works, and it recovers", async ({ page }) => {
  await makeWalk(page);
  await saved(page);
  await page.evaluate(() => {
    const observe = ResizeObserver.prototype.observe;
    Object.assign(globalThis, { mend: () => Object.assign(ResizeObserver.prototype, { observe }) });
    ResizeObserver.prototype.observe = () => {
      throw new Error("broken for the test");
    };
  });
  await goTo(page, "Marks");
  await expect(page.getByRole("alert").filter({ hasText: "cannot be shown" }).first()).toContainText("broken for the test");
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  expect(download.suggestedFilename()).toBe("New project.caravan");
  await page.evaluate(() => (globalThis as unknown as { mend(): void }).mend());
  const again = page.getByRole("button", { name: "Try again" });
  for (let left = await again.count(); left > 0; left--) await again.first().click();
  await expect(page.getByRole("alert").filter({ hasText: "cannot be shown" })).toHaveCount(0);
  await goTo(page, "Clips");
  await expect(fps(page)).toHaveValue("10");
});
