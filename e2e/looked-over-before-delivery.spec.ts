/** Everything that stops a delivery in one list at Ship: grouped, shown and mended there. */
import { expect, test } from "./fixtures";
import { delivered, dropAndCut, figureSheet, goTo, openEmpty, pngFile } from "./studio";

const sheet = figureSheet(6, 4);
/** The same figures on an opaque white. */
const onWhite = {
  ...sheet,
  bytes: sheet.bytes.map((_, k) => {
    const alpha = sheet.bytes[k - (k % 4) + 3] === 0 ? 0 : 1;
    return alpha === 0 || k % 4 === 3 ? 255 : (sheet.bytes[k] as number);
  }),
};

test("an opaque background is reported and cleared at Ship, and the delivery is transparent", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "white.png", onWhite, 6, 4);
  await goTo(page, "Ship");
  const worth = page.getByRole("region", { name: "Worth a look" });
  await expect(worth).toContainText("Its 24 frames stand on an opaque background of #ffffff, also in the game.");
  await worth.getByRole("button", { name: "Clear the background" }).click();
  await expect(worth).toHaveCount(0);
  const { frame } = await delivered(page);
  const { bytes, width } = frame("white/0");
  expect(bytes[3]).toBe(0);
  expect([...bytes.slice((20 * width + 16) * 4, (20 * width + 16) * 4 + 4)]).toEqual([
    ...sheet.bytes.slice((20 * sheet.width + 16) * 4, (20 * sheet.width + 16) * 4 + 4),
  ]);
  await page.keyboard.press("Control+z");
  await expect(worth).toContainText("opaque background");
});

test("many findings of one kind share a card, each with its place, and are mended together as one undo step", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "walker.png", sheet, 6, 4);
  for (const row of [0, 1, 2, 3]) {
    await goTo(page, "Frames");
    await page.getByRole("button", { name: `Pick row ${row}`, exact: true }).click();
    await page.keyboard.press("c");
    await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
    await page.keyboard.type(`burst${row}`);
    await page.keyboard.press("Enter");
  }
  await goTo(page, "Ship");
  const notes = page.getByRole("region", { name: "Notes" });
  const card = notes.getByRole("listitem").filter({ hasText: "Effects that never end" }).first();
  await expect(card).toContainText("4 ×");
  await card.getByText("Effects that never end").click();
  const places = card.getByRole("list", { name: "Effects that never end" }).getByRole("listitem");
  await expect(places).toHaveCount(4);
  await places.nth(2).getByRole("button", { name: "Show" }).click();
  await expect(page.getByRole("textbox", { name: "Clip name" })).toHaveValue("burst2");
  await goTo(page, "Ship");
  await card.getByRole("button", { name: "Mend all 4" }).click();
  await expect(card).toHaveCount(0);
  await page.keyboard.press("Control+z");
  await expect(card).toContainText("4 ×");
});

test("a picture missing from storage is reported with its source, and clips are whole again when it is restored", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "walker.png", sheet, 6, 4);
  await expect(page.getByTestId("saved")).toHaveText(/saved in this browser/);
  // As when a browser evicts storage.
  await page.evaluate(async () => {
    const names = (await indexedDB.databases()).map(({ name }) => name as string);
    for (const name of names) {
      const db = await new Promise<IDBDatabase>((resolve, reject) => {
        const request = indexedDB.open(name);
        request.onsuccess = () => resolve(request.result);
        request.onerror = () => reject(request.error);
      });
      if (db.objectStoreNames.contains("pictures")) {
        const transaction = db.transaction("pictures", "readwrite");
        transaction.objectStore("pictures").clear();
        await new Promise((resolve) => {
          transaction.oncomplete = resolve;
        });
      }
      db.close();
    }
  });
  await page.reload();
  await goTo(page, "Ship");
  const stops = page.getByRole("region", { name: "Stops delivery" });
  await expect(stops).toContainText("walker.png is missing. Add the art again");
  await stops.getByRole("button", { name: "Show" }).click();
  await expect(page.getByRole("textbox", { name: "Source name" })).toHaveValue("walker");
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: "Replace its art …" }).click()]);
  await chooser.setFiles([{ name: "walker.png", mimeType: "image/png", buffer: Buffer.from(pngFile("walker.png", sheet).bytes) }]);
  await expect(page.getByText("The art of walker is restored.")).toBeVisible();
  expect((await delivered(page)).names).toHaveLength(24);
  await expect(stops).toHaveCount(0);
});
