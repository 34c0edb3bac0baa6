/** Hurried hands: a double click where one is enough, a key held too long, a dialog amid a word. What comes up meanwhile is not answered by them. */
import { expect, type Page, test } from "./fixtures";
import { slowJob } from "./slow-job";
import { dropAndCut, dropFiles, figureSheet, goTo, openEmpty, openStudio, pngFile } from "./studio";

const NAMES = ["ama", "bek", "cem"];

/** Three sheets whose art comes again, each without another frame; the first review is shown. */
async function threeReviews(page: Page) {
  await openEmpty(page);
  for (const name of NAMES) await dropAndCut(page, `${name}.png`, figureSheet(4, 3), 4, 3);
  await dropFiles(
    page,
    NAMES.map((name, k) => pngFile(`${name}.png`, figureSheet(4, 3, { w: 32, h: 40 }, [5 + k]))),
  );
  await page.getByRole("dialog").getByRole("button", { name: "Import" }).click();
  const review = page.getByRole("dialog", { name: /^Changed art of/ });
  await expect(review).toHaveAccessibleName("Changed art of ama");
  return review;
}

interface Place {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The two clicks of a double click in the middle of a place; what the first one does is there before the second, as with quick pages. */
async function doubleClickAt(page: Page, { x, y, width, height }: Place, first: () => Promise<void>) {
  await page.mouse.move(x + width / 2, y + height / 2);
  await page.mouse.down({ clickCount: 1 });
  await page.mouse.up({ clickCount: 1 });
  await first();
  await page.mouse.down({ clickCount: 2 });
  await page.mouse.up({ clickCount: 2 });
}

/** Two clicks 200 ms apart by when they were made, however busy the page is. */
async function quickDoubleClickAt(page: Page, { x, y, width, height }: Place) {
  const session = await page.context().newCDPSession(page);
  const now = Date.now() / 1000;
  const at = { x: x + width / 2, y: y + height / 2, button: "left" } as const;
  await Promise.all(
    [1, 2].flatMap((clickCount) =>
      (["mousePressed", "mouseReleased"] as const).map((type, k) =>
        session.send("Input.dispatchMouseEvent", { type, ...at, clickCount, timestamp: now - 0.45 + clickCount * 0.2 + k * 0.02 }),
      ),
    ),
  );
  await session.detach();
}

const placeOf = async (shown: ReturnType<Page["getByRole"]>) => (await shown.boundingBox()) as Place;

test("a double click answers one review, not also the next one", async ({ page }) => {
  const review = await threeReviews(page);
  const isNext = () => expect(review).toHaveAccessibleName("Changed art of bek");
  await doubleClickAt(page, await placeOf(review.getByRole("button", { name: "Use new art" })), isNext);
  // An answer would have taken this long.
  await page.waitForTimeout(500);
  await isNext();
  // Pressed for itself, it is answered.
  await review.getByRole("button", { name: "Use new art" }).click();
  await expect(review).toHaveAccessibleName("Changed art of cem");
  await review.getByRole("button", { name: "Keep old art" }).click();
  await expect(review).toHaveCount(0);
  const sheets = page.getByRole("list", { name: "Sheets" });
  await expect(sheets.getByRole("button")).toHaveText([/ama\s*11/, /bek\s*11/, /cem\s*12/]);
});

test("Enter held down answers one review, not also the next one", async ({ page }) => {
  const review = await threeReviews(page);
  await page.keyboard.down("Enter");
  await expect(review).toHaveAccessibleName("Changed art of bek");
  // What a keyboard sends while the key stays down.
  for (let k = 0; k < 5; k++) await page.keyboard.down("Enter");
  await page.keyboard.up("Enter");
  await expect(review).toHaveAccessibleName("Changed art of bek");
  await page.keyboard.press("Enter");
  await expect(review).toHaveAccessibleName("Changed art of cem");
});

test("a double click opens a dialog and does not close it again", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "ama.png", figureSheet(4, 3), 4, 3);
  const dialog = page.getByRole("dialog", { name: "Names by pattern" });
  await expect(page.getByText("Tray · 12 frames")).toBeVisible();
  await quickDoubleClickAt(page, await placeOf(page.getByText("Name …")));
  await expect(dialog).toBeVisible();
  // Later, a click beside it closes it.
  await page.waitForTimeout(600);
  await page.mouse.click(20, 700);
  await expect(dialog).toHaveCount(0);
});

test("a double click removes one source, not also the next one", async ({ page }) => {
  await openEmpty(page);
  for (const name of NAMES) await dropAndCut(page, `${name}.png`, figureSheet(2, 2), 2, 2);
  await goTo(page, "Sources");
  const cards = page.getByRole("list", { name: "Pictures" }).getByRole("button");
  await cards.filter({ hasText: "ama" }).click();
  const isRemoved = () => expect(page.getByRole("button", { name: "Undo: remove ama" })).toBeVisible();
  await doubleClickAt(page, await placeOf(page.getByRole("button", { name: "Remove", exact: true })), isRemoved);
  await isRemoved();
  await expect(cards).toHaveText([/bek/, /cem/]);
});

test("a double click on a row's cross removes that one, not the one that moves under it", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Ship");
  const sizes = page.getByRole("button", { name: /^Leave out size/ });
  await page.getByRole("button", { name: "Add a size" }).click();
  await page.getByRole("button", { name: "Add a size" }).click();
  const before = await sizes.count();
  expect(before).toBeGreaterThan(1);
  const isRemoved = () => expect(sizes).toHaveCount(before - 1);
  await doubleClickAt(page, await placeOf(sizes.first()), isRemoved);
  await isRemoved();
});

test("a double click that closes a dialog picks nothing beneath it", async ({ page }) => {
  await openEmpty(page);
  await dropAndCut(page, "ama.png", figureSheet(4, 3, { w: 175, h: 75 }), 4, 3);
  // So large that a frame is where the button will be.
  await page.getByTestId("sheet").getByRole("button", { name: "Zoom in" }).click();
  await page.getByText("Name …").click();
  const dialog = page.getByRole("dialog", { name: "Names by pattern" });
  await dialog.getByRole("textbox", { name: "Pattern" }).fill("walk_{n}");
  const place = await placeOf(dialog.getByRole("button", { name: "Name 12 frames" }));
  await doubleClickAt(page, place, () => expect(dialog).toHaveCount(0));
  await expect(page.getByRole("button", { name: "Undo: name 12 frames" })).toBeVisible();
  await expect(page.getByTestId("picked")).toHaveText("click picks");
  // Later, a click there does.
  await page.waitForTimeout(600);
  await page.mouse.click(place.x + place.width / 2, place.y + place.height / 2);
  await expect(page.getByTestId("picked")).toHaveText("1 picked, in picking order");
});

test("a dialog that opens by itself waits while a person types, and takes none of the letters nor the Enter", async ({ page }) => {
  const files = await dropOfKnown(page);
  await slowJob(page, "readArt", 700);
  const name = page.getByRole("textbox", { name: "Project name" });
  await name.focus();
  await dropFiles(page, files);
  // About three seconds: art is read while it lasts.
  await page.keyboard.type("The road to the salt well", { delay: 120 });
  await page.keyboard.press("Enter");
  await expect(name).toHaveValue("The road to the salt well");
  const review = page.getByRole("dialog", { name: "Import review" });
  await expect(review).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(review).toHaveCount(0);
});

test("a click made while a dialog opens by itself presses nothing in it and does not close it", async ({ page }) => {
  const files = await dropOfKnown(page);
  const review = page.getByRole("dialog", { name: "Import review" });
  await dropFiles(page, files);
  const cancel = await placeOf(review.getByRole("button", { name: "Cancel" }));
  await page.keyboard.press("Escape");
  for (const { x, y } of [
    { x: cancel.x + cancel.width / 2, y: cancel.y + cancel.height / 2 },
    { x: 8, y: 400 },
  ]) {
    await expect(review).toHaveCount(0);
    // Elsewhere first: Escape is an answer, a press after it is none.
    await page.mouse.click(x + 40, 790);
    await page.mouse.move(x, y);
    await clickOnceShown(page, { x, y });
    await dropFiles(page, files);
    await page.waitForFunction(() => document.documentElement.dataset.clicked !== undefined);
    await expect(review).toBeVisible();
    await page.waitForTimeout(500);
    await page.mouse.click(x, y);
    await expect(review).toHaveCount(0);
  }
});

test("a dialog that opened by itself, was seen and answered in no time does not take the press after it, where the pointer was before", async ({
  page,
}) => {
  const files = await dropOfKnown(page);
  const review = page.getByRole("dialog", { name: "Import review" });
  const ship = await placeOf(page.getByRole("navigation", { name: "Stops" }).getByRole("button", { name: "Ship" }));
  const at = { x: ship.x + ship.width / 2, y: ship.y + ship.height / 2 };
  await page.mouse.move(at.x, at.y);
  await dropFiles(page, files);
  await review.waitFor();
  // Quicker than any hand: to Cancel, and back.
  const cancel = await placeOf(review.getByRole("button", { name: "Cancel" }));
  await page.mouse.click(cancel.x + cancel.width / 2, cancel.y + cancel.height / 2);
  await review.waitFor({ state: "detached" });
  await page.mouse.click(at.x, at.y);
  await expect(page.locator('[data-region="surface"]')).toHaveAttribute("aria-label", "Ship");
});

/** Files that are reviewed when they come: sheets by their names are there already. */
async function dropOfKnown(page: Page) {
  await openEmpty(page);
  for (const name of NAMES) await dropAndCut(page, `${name}.png`, figureSheet(4, 3), 4, 3);
  return NAMES.map((name) => pngFile(`${name}.png`, figureSheet(3, 3)));
}

/** Clicks there as soon as there is a dialog, sooner than a test could. */
async function clickOnceShown(page: Page, at: { x: number; y: number }): Promise<void> {
  await page.evaluate(({ x, y }) => {
    delete document.documentElement.dataset.clicked;
    const look = () => {
      if (!document.querySelector("[role=dialog] button")) return requestAnimationFrame(look);
      const target = document.elementFromPoint(x, y) as Element;
      const how = { bubbles: true, cancelable: true, clientX: x, clientY: y, button: 0, detail: 1, pointerType: "mouse" };
      target.dispatchEvent(new PointerEvent("pointerdown", how));
      target.dispatchEvent(new MouseEvent("mousedown", how));
      target.dispatchEvent(new PointerEvent("pointerup", how));
      target.dispatchEvent(new MouseEvent("mouseup", how));
      target.dispatchEvent(new MouseEvent("click", how));
      document.documentElement.dataset.clicked = "yes";
    };
    look();
  }, at);
}
