/**
 * A metadata file with meaningless names is read by its numbers, called doubtful, and corrected by hand; the next such file is read
 * correctly at once.
 */
import { expect, type Page, test } from "./fixtures";
import { choose, delivered, dropFiles, figureSheet, openEmpty, pngFile } from "./studio";

const review = (page: Page) => page.getByRole("dialog", { name: "Import review" });
const bringIn = (page: Page) => page.getByRole("button", { name: "Import" }).click();

/** Twelve cells of a sheet of 4 × 3 figures, in no order: nothing says which way y counts. */
function described(name: string, called: string) {
  const cells = [5, 2, 9, 0, 7, 4, 11, 1, 10, 3, 8, 6].map((k) => {
    const row = Math.floor(k / 4);
    return { qua: `${called} ${k}`, blip: (k % 4) * 32, dorn: (2 - row) * 40, fesk: 32, grum: 40 };
  });
  return { name, bytes: new TextEncoder().encode(JSON.stringify({ yolp: cells })) };
}

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

test("a doubtful reading is marked, corrected by hand, reused for the next file, and shown as a command", async ({ page }) => {
  await dropFiles(page, [pngFile("poses.png", figureSheet(4, 3)), described("poses.json", "pose")]);
  await expect(review(page)).toContainText("Not sure: ");
  await expect(review(page)).toContainText("y may be counted up");
  await bringIn(page);
  await expect(page.getByTestId("outcome")).toContainText("12 frames");
  await expect(page.getByTestId("doubt")).toContainText("y may be counted up: the picture fits as well");
  await choose(page, page.getByLabel("How y is counted"), "y up, to the lower edge");
  await expect(page.getByRole("button", { name: "Undo: cut poses as poses.json says" })).toBeVisible();
  // Who set it has looked at it.
  await expect(page.getByTestId("doubt")).toHaveCount(0);
  await page.getByText("The same on the command line").click();
  await expect(page.getByTestId("reading-command")).toHaveText(
    "caravan cut poses.png --meta poses.json --read blip=x --read dorn=y --read fesk=w --read grum=h --read qua=name",
  );
  await dropFiles(page, [pngFile("others.png", figureSheet(4, 3)), described("others.json", "stance")]);
  await expect(review(page)).not.toContainText("Not sure");
  await bringIn(page);
  // Each figure of the sheet has its own red: 40, and 13 more for each further cell.
  const { frame } = await delivered(page);
  for (const called of ["pose", "stance"])
    for (const k of [0, 7, 11]) {
      const { bytes, width, height } = frame(`${called} ${k}`);
      expect(bytes[((height >> 1) * width + (width >> 1)) * 4], `${called} ${k}`).toBe(40 + 13 * k);
    }
});
