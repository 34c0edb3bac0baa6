/** Hurried hands: a double click where one is enough, a key held too long. What comes up meanwhile is not answered by them. */
import { expect, type Page, test } from "./fixtures";
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
