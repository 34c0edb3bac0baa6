import { clearPixels, type Pixels } from "@caravan/core/raster";
import { expect, test } from "./fixtures";
import { delivered, dropFiles, figureSheet, openEmpty, pngFile, type UploadedFile } from "./studio";

const CELL = { w: 32, h: 40 };

function cellOf(sheet: Pixels, column: number): string {
  const cell = clearPixels(CELL.w, CELL.h);
  for (let y = 0; y < CELL.h; y++) {
    const start = (y * sheet.width + column * CELL.w) * 4;
    cell.bytes.set(sheet.bytes.subarray(start, start + CELL.w * 4), y * CELL.w * 4);
  }
  return Buffer.from(cell.bytes).toString("base64");
}

function text(name: string, content: string): UploadedFile {
  return { name, bytes: new TextEncoder().encode(content) };
}

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

test("one metadata file cuts all the pictures that it describes, and a clip across them is one clip", async ({ page }) => {
  const sheets = [figureSheet(4, 1), figureSheet(3, 1, CELL, []), figureSheet(2, 2)];
  const records = ["north.png", "south.png"].flatMap((image, page) =>
    Array.from({ length: page === 0 ? 4 : 3 }, (_, k) => ({
      id: `${image.slice(0, 5)}${k}`,
      image,
      left: k * 32,
      top: 0,
      width: 32,
      height: 40,
    })),
  );
  const moves = [{ title: "march", loop: "once", ms: 80, parts: ["north0", "south2", "north1", "south0"] }];
  await dropFiles(page, [
    pngFile("north.png", sheets[0] as Pixels),
    pngFile("south.png", sheets[1] as Pixels),
    pngFile("apart.png", sheets[2] as Pixels),
    text("packed.json", JSON.stringify({ pieces: records, moves })),
  ]);
  const review = page.getByRole("dialog", { name: "Import review" });
  await expect(review).toContainText("A sheet with 4 frames and 1 clip, as packed.json says");
  await expect(review).toContainText("A sheet with 3 frames and 1 clip, as packed.json says");
  await expect(review).toContainText("A sheet of 64 × 80 px");
  await expect(review).not.toContainText("do not fit");
  await page.getByRole("button", { name: "Import" }).click();
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("button")).toHaveCount(3);
  const { atlas, names, frame } = await delivered(page);
  expect(names.toSorted()).toEqual(records.map(({ id }) => id).toSorted());
  expect(atlas.clips.march).toMatchObject({
    playback: "once",
    steps: ["north0", "south2", "north1", "south0"].map((each) => ({ frame: each, ms: 80 })),
  });
  expect(Object.keys(atlas.clips)).toHaveLength(1);
  for (const { id, image, left } of records) {
    const sheet = sheets[image === "north.png" ? 0 : 1] as Pixels;
    expect(Buffer.from(frame(id).bytes).toString("base64"), id).toBe(cellOf(sheet, left / 32));
  }

  // The file alone, with other times and one more clip across both sheets.
  const more = [
    { ...moves[0], ms: 50 },
    { title: "turn", loop: "once", ms: 90, parts: ["south1", "north3"] },
  ];
  await dropFiles(page, [text("packed.json", JSON.stringify({ pieces: records, moves: more }))]);
  await expect(review.getByRole("listitem")).toHaveCount(2);
  await page.getByRole("button", { name: "Import" }).click();
  const { atlas: next } = await delivered(page);
  const steps = (parts: string[], ms: number) => ({ steps: parts.map((each) => ({ frame: each, ms })) });
  expect(Object.keys(next.clips)).toEqual(["march", "turn"]);
  expect(next.clips.march).toMatchObject(steps(["north0", "south2", "north1", "south0"], 50));
  expect(next.clips.turn).toMatchObject(steps(["south1", "north3"], 90));
});

test("sectioned text cuts a picture: its sections are the clips", async ({ page }) => {
  const sheet = figureSheet(5, 1);
  const sections = Array.from(
    { length: 5 },
    (_, k) => `[${k < 3 ? `stride${k}` : `rest${k - 3}`}]\nx=${k * 32}\ny=0\nwidth=32\nheight=40\n`,
  );
  await dropFiles(page, [pngFile("walker.png", sheet), text("walker.txt", `; placed by hand\n${sections.join("\n")}`)]);
  await expect(page.getByRole("dialog", { name: "Import review" })).toContainText("A sheet with 5 frames");
  await page.getByRole("button", { name: "Import" }).click();
  const { names, frame } = await delivered(page);
  expect(names).toEqual(["stride0", "stride1", "stride2", "rest0", "rest1"]);
  for (const [k, name] of names.entries()) expect(Buffer.from(frame(name).bytes).toString("base64")).toBe(cellOf(sheet, k));
});

test("a drop of 500 stills can be stopped half way: the stills read so far are offered, and nothing is imported yet", async ({ page }) => {
  const still = pngFile("", figureSheet(1, 1));
  await dropFiles(
    page,
    Array.from({ length: 500 }, (_, k) => ({ name: `dust${k + 1}.png`, bytes: still.bytes })),
  );
  const progress = page.getByRole("progressbar");
  await expect.poll(async () => Number(await progress.getAttribute("aria-valuenow"))).toBeGreaterThan(5);
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(progress).toBeHidden();
  const review = page.getByRole("dialog", { name: "Import review" });
  const told = await review.getByText(/A series of \d+ pictures/).textContent();
  const count = Number(/of (\d+) pictures/.exec(told ?? "")?.[1]);
  expect(count).toBeGreaterThan(10);
  expect(count).toBeLessThan(500);
  await page.getByRole("button", { name: "Import" }).click();
  await expect(page.getByTestId("outcome")).toContainText(`${count} `);
  await page.keyboard.press("Control+z");
  await expect(page.getByText("Nothing to cut yet")).toBeVisible();
});
