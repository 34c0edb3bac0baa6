/** From files to a character: facings from names in one review, rows into named clips in one act, art that changed underneath. */
import { clearPixels, type Pixels, paste, scaled } from "@caravan/core/raster";
import { violationsOn } from "./axe";
import { expect, type Page, test } from "./fixtures";
import { choose, delivered, dropAndCut, dropFiles, figureSheet, goTo, openEmpty, pngFile, saved, type UploadedFile } from "./studio";

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

const CELL = { w: 32, h: 40 };
const review = (page: Page) => page.getByRole("dialog", { name: "Import review" });
const bringIn = (page: Page) => page.getByRole("button", { name: "Import" }).click();
const rowsDialog = (page: Page) => page.getByRole("dialog", { name: "Rows of a sheet" });
const petal = (page: Page, facing: string) => page.getByRole("button", { name: new RegExp(`^Facing ${facing}:`) });

/** Types a list of names down the rows, and applies them. */
async function typeNames(page: Page, names: readonly string[]): Promise<void> {
  for (const [k, name] of names.entries()) {
    if (k > 0) await page.keyboard.press("Tab");
    await page.keyboard.type(name);
  }
  await page.keyboard.press("Enter");
}

/** One cell of a sheet as a separate file. */
function cellOf(sheet: Pixels, column: number, row: number, name: string): UploadedFile {
  const cell = clearPixels(CELL.w, CELL.h);
  paste(cell, sheet, { x: column * CELL.w, y: row * CELL.h, ...CELL }, 0, 0);
  return pngFile(name, cell);
}

test("eight facings come from the names of stills in one review: a drop and one button", async ({ page }) => {
  const rose = ["e", "se", "s", "sw", "w", "nw", "n", "ne"];
  const sheet = figureSheet(3, 8);
  await dropFiles(
    page,
    rose.flatMap((facing, row) => [0, 1, 2].map((k) => cellOf(sheet, k, row, `walk_${facing}_${k}.png`))),
  );
  const actions = review(page).getByRole("region", { name: "Actions" });
  await expect(actions.getByRole("checkbox", { name: "Make the action walk, 8 facings" })).toBeChecked();
  await expect(actions.getByRole("definition")).toHaveText(rose.map((facing) => `walk_${facing}`));
  expect(await violationsOn(page)).toEqual([]);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("region", { name: "Wind rose of walk" }).getByRole("button")).toHaveCount(8);
  await saved(page);
  const { atlas, frame } = await delivered(page);
  expect(Object.keys(atlas.actions.walk?.facings ?? {})).toEqual(rose);
  for (const [row, facing] of rose.entries()) {
    expect(atlas.actions.walk?.facings[facing]).toEqual({ clip: `walk_${facing}` });
    expect(atlas.clips[`walk_${facing}`]?.steps).toEqual([0, 1, 2].map((k) => ({ frame: `walk_${facing}/${k}`, ms: 100 })));
    const cell = clearPixels(CELL.w, CELL.h);
    paste(cell, sheet, { x: 2 * CELL.w, y: row * CELL.h, ...CELL }, 0, 0);
    expect(frame(`walk_${facing}/2`).bytes).toEqual(cell.bytes);
  }
  // One button imported it, and one undo takes all of it back.
  await page.keyboard.press("Control+z");
  await goTo(page, "Sources");
  await expect(page.getByText("No pictures yet.", { exact: true })).toBeVisible();
});

test("missing facings are mirrored, an unwanted action is not made, and stills keep their numbers", async ({ page }) => {
  const sheet = figureSheet(4, 3);
  const files = ["s", "e", "n"].flatMap((facing, row) =>
    [16, 17, 18, 20].map((number, k) => cellOf(sheet, k, row, `porter/idle-${facing}-${number}.png`)),
  );
  // A page's files have no folders: their names distinguish them.
  const flat = files.map(({ name, bytes }) => ({ name: name.replace("porter/", ""), bytes }));
  await dropFiles(page, [...flat, pngFile("idle-s-21.png", clearPixels(8, 8))]);
  const actions = review(page).getByRole("region", { name: "Actions" });
  await expect(actions.getByRole("checkbox")).toHaveAccessibleName("Make the action idle, 4 facings, 1 mirrored");
  await expect(review(page)).toContainText("Number 19 is missing.");
  await expect(review(page)).toContainText("Different size: idle-s-21.png (8 × 8).");
  await actions.getByRole("checkbox").uncheck();
  await page.getByRole("button", { name: "Import" }).click();
  await expect(page.getByText("Imported 3 sources.")).toBeVisible();
  await goTo(page, "Clips");
  await expect(page.getByRole("list", { name: "Actions" }).getByRole("button")).toHaveCount(0);
  await page.getByRole("button", { name: "By names …" }).click();
  await page.getByRole("button", { name: "Make the action" }).click();
  await page.getByRole("button", { name: "Mirror missing facings" }).click();
  await expect(petal(page, "w")).toHaveAccessibleName("Facing w: mirror of idle-e");
  await goTo(page, "Frames");
  await page
    .getByTestId("list")
    .getByRole("button", { name: /^idle-e/ })
    .click();
  const wall = page.getByRole("region", { name: "Pictures of idle-e" });
  await expect(wall.getByRole("listitem")).toHaveText(["16", "17", "18", "19 missing", "20"]);
  const { names } = await delivered(page);
  expect(names.filter((name) => name.startsWith("idle-e/"))).toEqual(["idle-e/16", "idle-e/17", "idle-e/18", "idle-e/20"]);
});

test("nine rows of an uncut sheet become nine named clips in eleven actions", async ({ page }) => {
  const names = ["idle", "walk", "run", "strike", "hurt", "fall", "rise", "wave", "sleep"];
  await dropFiles(page, [pngFile("porter.png", figureSheet(5, 9))]);
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
  await page.keyboard.press("Shift+R");
  await expect(rowsDialog(page).getByRole("textbox")).toHaveCount(9);
  await expect(rowsDialog(page).getByRole("textbox").first()).toBeFocused();
  expect(await violationsOn(page)).toEqual([]);
  await typeNames(page, names);
  await expect(page.getByText("Made 9 clips of the rows of porter.")).toBeVisible();
  const { atlas } = await delivered(page);
  expect(Object.keys(atlas.clips)).toEqual(names);
  for (const [row, name] of names.entries())
    expect(atlas.clips[name]?.steps.map(({ frame }) => frame)).toEqual([0, 1, 2, 3, 4].map((k) => `porter/${row * 5 + k}`));
  await page.keyboard.press("Control+z");
  await goTo(page, "Frames");
  await expect(page.getByTestId("outcome")).toContainText("Not cut yet");
});

test("only the rows of picked frames become clips, a pasted list names them, and a taken name is reported in place", async ({ page }) => {
  await dropAndCut(page, "porter.png", figureSheet(3, 4), 3, 4);
  await page.getByRole("button", { name: "Pick row 1", exact: true }).click();
  await page.getByRole("button", { name: "Pick row 3", exact: true }).click();
  await page.getByRole("button", { name: "Clips of rows …" }).click();
  const fields = rowsDialog(page).getByRole("textbox");
  await expect(fields).toHaveCount(2);
  const paste = (text: string) =>
    fields.first().evaluate((field, list) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData("text", list);
      field.dispatchEvent(new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }));
    }, text);
  await paste("go_left\ngo_left\n");
  await page.keyboard.press("Enter");
  await expect(rowsDialog(page).getByRole("alert")).toContainText("There is already a clip of this name.");
  await paste("go_left\ngo_right\n");
  await expect(rowsDialog(page).getByRole("checkbox", { name: "Also make the action go, 2 facings" })).toBeChecked();
  await rowsDialog(page).getByRole("button", { name: "Make 2 clips" }).click();
  await expect(page.getByRole("list", { name: "Clips" }).getByRole("button", { name: /^go_left/ })).toBeVisible();
  const { atlas } = await delivered(page);
  expect(atlas.actions).toEqual({ go: { facings: { e: { clip: "go_right" }, w: { clip: "go_left" } } } });
  expect(atlas.clips.go_right?.steps.map(({ frame }) => frame)).toEqual(["porter/9", "porter/10", "porter/11"]);
});

test("rows become facings directly; the first facing is remembered, and the rose turns with its names", async ({ page }) => {
  await dropAndCut(page, "porter.png", figureSheet(3, 4), 3, 4);
  await goTo(page, "Clips");
  await page.getByRole("button", { name: "By rows …" }).click();
  await choose(page, rowsDialog(page).getByRole("combobox", { name: "First facing" }), "W");
  await expect(rowsDialog(page).getByRole("combobox", { name: "Facing of row 1" })).toHaveText("N");
  await rowsDialog(page).getByRole("button", { name: "Make porter" }).click();
  await expect(petal(page, "w")).toHaveAccessibleName("Facing w: porter-w");
  await page.getByRole("button", { name: "↻" }).click();
  // The row that had looked west looks north now, and its clip is called so.
  await goTo(page, "Ship");
  const { atlas } = await delivered(page);
  expect(atlas.actions.porter?.facings.n).toEqual({ clip: "porter-n" });
  expect(atlas.clips["porter-n"]?.steps[0]?.frame).toBe("porter/0");
  await page.reload();
  await goTo(page, "Clips");
  await page.getByRole("button", { name: "By rows …" }).click();
  await expect(rowsDialog(page).getByRole("combobox", { name: "First facing" })).toHaveText("W");
});

test("rows of a sheet in a larger drop are offered as facings before the import", async ({ page }) => {
  await dropFiles(page, [
    pngFile("porter.png", figureSheet(4, 4)),
    cellOf(figureSheet(2, 1), 0, 0, "flag_1.png"),
    cellOf(figureSheet(2, 1), 1, 0, "flag_2.png"),
  ]);
  await choose(page, review(page).getByRole("combobox", { name: "How to cut porter.png" }), "4 rows as 4 facings");
  const actions = review(page).getByRole("region", { name: "Actions" });
  await expect(actions.getByRole("checkbox", { name: "Make the action porter, 4 facings, in this order" })).toBeChecked();
  await choose(page, actions.getByRole("combobox", { name: "First facing" }), "N");
  await page.getByRole("button", { name: "Import" }).click();
  await expect(page.getByRole("region", { name: "Wind rose of porter" }).getByRole("button")).toHaveCount(4);
  const { atlas } = await delivered(page);
  expect(["n", "e", "s", "w"].map((facing) => atlas.clips[`porter-${facing}`]?.steps[0]?.frame)).toEqual(
    [0, 4, 8, 12].map((k) => `porter/${k}`),
  );
});

/** A project with a clip of each of three rows. */
async function threeRows(page: Page): Promise<Pixels> {
  const sheet = figureSheet(4, 3);
  await dropAndCut(page, "porter.png", sheet, 4, 3);
  await page.keyboard.press("Shift+R");
  await expect(rowsDialog(page).getByRole("textbox").first()).toBeFocused();
  await typeNames(page, ["idle", "walk", "run"]);
  await expect(page.getByText("Made 3 clips of the rows of porter.")).toBeVisible();
  return sheet;
}

test("a dropped file with a source's name is its new art: with a row inserted on top, all clips stay right", async ({ page }) => {
  const sheet = await threeRows(page);
  const before = await delivered(page);
  const fresh = figureSheet(4, 5);
  const taller = clearPixels(sheet.width, sheet.height + CELL.h);
  paste(taller, fresh, { x: 0, y: 4 * CELL.h, w: sheet.width, h: CELL.h }, 0, 0);
  paste(taller, sheet, { x: 0, y: 0, w: sheet.width, h: sheet.height }, 0, CELL.h);
  await dropFiles(page, [pngFile("porter.png", taller)]);
  await expect(review(page).getByRole("radio", { name: "New art of porter" })).toBeChecked();
  await page.keyboard.press("Enter");
  const changed = page.getByRole("dialog", { name: "Changed art of porter" });
  await expect(changed.getByRole("radio", { name: "12 frames moved down a row: follow them" })).toBeChecked();
  await expect(changed.getByRole("img", { name: /art/ })).toBeVisible();
  expect(await violationsOn(page)).toEqual([]);
  await page.keyboard.press("Enter");
  await expect(changed).toBeHidden();
  const after = await delivered(page);
  for (const clip of ["idle", "walk", "run"]) {
    const [olds, news] = [before, after].map(({ atlas, frame }) => (atlas.clips[clip]?.steps ?? []).map((step) => frame(step.frame).bytes));
    expect(news).toEqual(olds);
  }
  // Left at their places, the same frames show what is drawn there now.
  await page.keyboard.press("Control+z");
  await dropFiles(page, [pngFile("porter.png", taller)]);
  await bringIn(page);
  await changed.getByRole("radio", { name: "Leave frames at their places" }).click();
  await changed.getByRole("button", { name: "Use new art" }).click();
  const left = await delivered(page);
  expect(left.frame(left.atlas.clips.walk?.steps[0]?.frame as string).bytes).toEqual(
    before.frame(before.atlas.clips.idle?.steps[0]?.frame as string).bytes,
  );
});

test("art in larger cells, or moved by some pixels, is cut by its new grid", async ({ page }) => {
  const sheet = await threeRows(page);
  const wide = { w: 48, h: 64 };
  const larger = clearPixels(4 * wide.w, 3 * wide.h);
  for (let row = 0; row < 3; row++)
    for (let column = 0; column < 4; column++)
      paste(larger, sheet, { x: column * CELL.w, y: row * CELL.h, ...CELL }, column * wide.w + 9, row * wide.h + 11);
  const before = await delivered(page);
  await dropFiles(page, [pngFile("porter.png", larger)]);
  await bringIn(page);
  const changed = page.getByRole("dialog", { name: "Changed art of porter" });
  await expect(changed).toContainText("Cells of 48 × 64 now: 12 of 12 drawings found there.");
  await page.keyboard.press("Enter");
  const after = await delivered(page);
  for (const clip of ["idle", "walk", "run"])
    for (const [k, { frame }] of (after.atlas.clips[clip]?.steps ?? []).entries()) {
      const old = before.frame(before.atlas.clips[clip]?.steps[k]?.frame as string);
      const now = after.frame(frame);
      const cell = clearPixels(CELL.w, CELL.h);
      paste(cell, now, { x: 9, y: 11, ...CELL }, 0, 0);
      expect(cell.bytes).toEqual(old.bytes);
      // It is where it was.
      expect(after.atlas.frames[frame]?.origin).toEqual({ x: CELL.w / 2 + 9, y: CELL.h + 11 });
    }
});

test("art whose cells moved by some pixels has its grid moved along", async ({ page }) => {
  const sheet = await threeRows(page);
  // Drawings reach the edges of their cells, so the old grid would cut through them.
  const moved = clearPixels(sheet.width + 11, sheet.height + 7);
  paste(moved, sheet, { x: 0, y: 0, w: sheet.width, h: sheet.height }, 11, 7);
  const before = await delivered(page);
  await dropFiles(page, [pngFile("porter.png", moved)]);
  await bringIn(page);
  const changed = page.getByRole("dialog", { name: "Changed art of porter" });
  await expect(changed.getByRole("radio", { name: "The grid moved by 11, 7: 12 of 12 drawings found there" })).toBeChecked();
  await page.keyboard.press("Enter");
  const after = await delivered(page);
  for (const [name, { steps }] of Object.entries(before.atlas.clips))
    expect((after.atlas.clips[name]?.steps ?? []).map(({ frame }) => after.frame(frame).bytes)).toEqual(
      steps.map(({ frame }) => before.frame(frame).bytes),
    );
});

test("several sources get new art at once, and unchanged art is skipped", async ({ page }) => {
  const sheets = [figureSheet(2, 1), figureSheet(2, 2), figureSheet(2, 3)];
  for (const [k, sheet] of sheets.entries()) {
    await dropAndCut(page, `art-${"abc"[k]}.png`, sheet, 2, k + 1);
  }
  const redrawn = sheets.map((sheet, k) => {
    const next = { ...sheet, bytes: Uint8Array.from(sheet.bytes) };
    if (k < 2) next.bytes.set([1, 2, 3, 255], (20 * sheet.width + 16) * 4);
    return pngFile(`art-${"abc"[k]}.png`, next);
  });
  await dropFiles(page, redrawn);
  await expect(review(page)).toContainText("art-c already has this art.");
  await expect(page.getByRole("button", { name: "Import 2 of 3" })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("dialog", { name: "Changed art of art-a" })).toContainText("1 frame the same, 1 changed, 0 new, 0 gone.");
  await page.getByRole("button", { name: "Use all new art (2 sources)" }).click();
  await expect(page.getByRole("dialog")).toBeHidden();
  await expect(page.getByRole("button", { name: "Undo: use the new art of art-b" })).toBeVisible();
  // Or all of them are sources of their own, in one choice.
  await page.keyboard.press("Control+z");
  await page.keyboard.press("Control+z");
  await dropFiles(page, redrawn);
  await review(page).getByRole("radio", { name: "New sources" }).click();
  await page.getByRole("button", { name: "Import 2 of 3" }).click();
  await expect(page.getByText("Imported 2 sources.")).toBeVisible();
  await goTo(page, "Sources");
  await expect(page.getByRole("list", { name: "Pictures" }).getByRole("listitem")).toHaveCount(5);
});

test("a repacked atlas dropped again with its metadata keeps names, clips and a person's settings", async ({ page }) => {
  const sheet = figureSheet(3, 1);
  const at = (places: readonly (readonly [number, number])[], height: number) => {
    const packed = clearPixels(96, height);
    for (const [k, [x, y]] of places.entries()) paste(packed, sheet, { x: k * CELL.w, y: 0, ...CELL }, x, y);
    const parts = places.map(([x, y], k) => ({ label: `bale_${k}`, left: x, top: y, width: CELL.w, height: CELL.h }));
    return [pngFile("bales.png", packed), { name: "bales.json", bytes: new TextEncoder().encode(JSON.stringify({ parts })) }];
  };
  await dropFiles(
    page,
    at(
      [
        [0, 0],
        [32, 0],
        [64, 0],
      ],
      40,
    ),
  );
  await bringIn(page);
  await page.getByRole("option", { name: "bale_1" }).click();
  await expect(page.getByTestId("picked")).toContainText("1 picked");
  await page.keyboard.press("c");
  await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
  await page.keyboard.type("roll");
  await page.keyboard.press("Enter");
  const before = await delivered(page);
  await dropFiles(
    page,
    at(
      [
        [64, 40],
        [0, 40],
        [0, 0],
      ],
      80,
    ),
  );
  await expect(review(page).getByRole("radio", { name: "New art of bales" })).toBeChecked();
  await page.keyboard.press("Enter");
  await expect(page.getByText("New art of bales, cut as bales.json says: 3 frames kept, 0 new, 0 gone.")).toBeVisible();
  const after = await delivered(page);
  expect(after.names.sort()).toEqual(["bale_0", "bale_1", "bale_2"]);
  for (const name of after.names) expect(after.frame(name).bytes).toEqual(before.frame(name).bytes);
  expect(after.atlas.clips.roll?.steps.map(({ frame }) => frame)).toEqual(["bale_1"]);
});

test("the same sheet at 200 % keeps all frames and clips, and their size in the game", async ({ page }) => {
  const sheet = await threeRows(page);
  const before = await delivered(page);
  await dropFiles(page, [pngFile("porter.png", scaled(sheet, 2, true))]);
  await bringIn(page);
  const changed = page.getByRole("dialog", { name: "Changed art of porter" });
  const same = "The same drawings, 200 % as large: frames and clips keep their size in the game";
  await expect(changed.getByRole("radio", { name: same })).toBeChecked();
  await expect(changed).toContainText("12 changed, 0 new, 0 gone");
  await page.keyboard.press("Enter");
  await expect(changed).toBeHidden();
  await goTo(page, "Sources");
  await expect(page.getByRole("textbox", { name: "Scale", exact: true })).toHaveValue("0.5");
  const after = await delivered(page);
  expect(after.atlas.clips).toEqual(before.atlas.clips);
  for (const name of before.names) expect(after.frame(name).bytes).toEqual(before.frame(name).bytes);
  // Undone as one act; and cut as before if that is what is wanted.
  await page.keyboard.press("Control+z");
  await goTo(page, "Sources");
  await expect(page.getByRole("textbox", { name: "Scale", exact: true })).toHaveValue("1");
});
