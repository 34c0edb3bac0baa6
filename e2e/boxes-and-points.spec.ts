/** Boxes and points: drawn on frames, seen in motion, delivered to the game. */
import { expect, type Page, test } from "./fixtures";
import { drag, frameToScreen, newKind, strollAtMarks } from "./marks";
import { choose, delivered, dropAndCut, figureSheet, goTo, openEmpty, openStudio, saved, typeNumber } from "./studio";

const CELL = { w: 32, h: 40 };

async function expectBox(page: Page, x: number, y: number, w: number, h: number): Promise<void> {
  for (const [label, value] of [
    ["Box x", x],
    ["Box y", y],
    ["Box width", w],
    ["Box height", h],
  ] as const)
    await expect(page.getByRole("textbox", { name: label, exact: true })).toHaveValue(String(value));
}

test("a box is drawn, moved and resized for a whole clip, and is in the atlas file for every frame", async ({ page }) => {
  await strollAtMarks(page, figureSheet(4, 1, CELL));
  await newKind(page, "New boxes", "trunk");
  const at = await frameToScreen(page, CELL);
  // A click alone, with a hand that is not quite still, draws nothing.
  await drag(page, at(6, 4), { x: at(6, 4).x + 2, y: at(6, 4).y + 1 });
  await expect(page.getByText("This frame has no trunk.")).toBeVisible();
  await drag(page, at(6, 4), at(26, 39));
  await expectBox(page, 6, 4, 20, 35);
  await expect(page.getByRole("button", { name: "Undo: draw trunk on stroll" })).toBeVisible();
  // Inside it moves, as one change however long the way.
  await drag(page, at(16, 20), at(18, 17));
  await expectBox(page, 8, 1, 20, 35);
  await page.keyboard.press("Control+z");
  await expectBox(page, 6, 4, 20, 35);
  // At its lower edge it is resized; keys nudge it and make it wider.
  await drag(page, at(16, 39), at(16, 37));
  await expectBox(page, 6, 4, 20, 33);
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Shift+ArrowRight");
  await expectBox(page, 5, 4, 21, 33);
  await typeNumber(page, "Box height", 35);
  // One frame alone is another.
  await page.getByRole("radio", { name: "Frame", exact: true }).click();
  await page.getByRole("button", { name: "Look at step 2:" }).click();
  await typeNumber(page, "Box x", -3);
  await expect(page.getByRole("list", { name: "Marks" }).getByRole("button", { name: /^trunk/ })).toContainText("4/4");

  const { atlas, files } = await delivered(page);
  for (let k = 0; k < 4; k++) expect(atlas.frames[`hero/${k}`]?.boxes).toEqual({ trunk: [{ x: k === 2 ? -3 : 5, y: 4, w: 21, h: 35 }] });
  expect([...files.keys()].some((path) => path.endsWith(".atlas.json"))).toBe(true);
});

test("a point is set by a click, follows the figure step by step, and is saved", async ({ page }) => {
  await strollAtMarks(page, figureSheet(4, 1, CELL));
  await newKind(page, "New points", "grip");
  const at = await frameToScreen(page, CELL);
  const click = async (x: number, y: number) => {
    const { x: left, y: top } = at(x, y);
    await page.mouse.click(left, top);
  };
  await click(10, 22);
  const [x, y] = [page.getByRole("textbox", { name: "Point x" }), page.getByRole("textbox", { name: "Point y" })];
  await expect(x).toHaveValue("10");
  await page.getByRole("radio", { name: "Frame", exact: true }).click();
  for (const step of [1, 2, 3]) {
    await page.keyboard.press(".");
    await expect(page.getByRole("heading", { name: "stroll" }).locator("..")).toContainText(`step ${step} of 4`);
    await click(10 + 2 * step, 22);
    await expect(x).toHaveValue(String(10 + 2 * step));
  }
  await page.keyboard.press("Alt+ArrowDown");
  await expect(y).toHaveValue("22.5");
  await saved(page);
  await page.reload();
  await goTo(page, "Marks");
  await page.getByRole("list", { name: "Marks" }).getByRole("button", { name: /^grip/ }).click();
  const { atlas } = await delivered(page);
  const grips = [0, 1, 2, 3].map((k) => atlas.frames[`hero/${k}`]?.points?.grip);
  expect(grips).toEqual([0, 1, 2, 3].map((k) => ({ x: 10 + 2 * k, y: k === 3 ? 22.5 : 22 })));
});

test("without a pointer: a kind, a box around the drawing, its letter, and removing all of it", async ({ page }) => {
  await strollAtMarks(page, figureSheet(4, 1, CELL));
  await newKind(page, "New boxes", "trunk");
  await page.getByRole("button", { name: "Around the drawing" }).press("Enter");
  // Figures lean, so their boxes differ; the sheet's figures are drawn from row 4 to the row above the last.
  await expect(page.getByRole("textbox", { name: "Box y" })).toHaveValue("4");
  await expect(page.getByRole("textbox", { name: "Box height" })).toHaveValue("35");
  await page.getByRole("textbox", { name: "Letter" }).fill("?");
  await page.keyboard.press("Enter");
  await expect(page.getByText("letter of trunk: It is one letter or digit.")).toBeVisible();
  await page.keyboard.press("Escape");
  await choose(page, page.getByRole("combobox", { name: "Line" }), "dots");
  await page.getByRole("textbox", { name: "Name of the marks" }).fill("torso");
  await page.keyboard.press("Enter");
  const { atlas } = await delivered(page);
  expect(Object.keys(atlas.frames["hero/1"]?.boxes ?? {})).toEqual(["torso"]);
  await goTo(page, "Marks");
  await page.getByRole("button", { name: "Remove with all its marks" }).press("Enter");
  await expect(page.getByRole("list", { name: "Marks" }).getByRole("button")).toHaveText([/Origin/]);
  expect((await delivered(page)).atlas.frames["hero/1"]).not.toHaveProperty("boxes");
  await page.keyboard.press("Control+z");
  expect((await delivered(page)).atlas.frames["hero/1"]?.boxes?.torso).toHaveLength(1);
});

test("a box missing on one step is reported, shown and mended, at Ship and at Marks", async ({ page }) => {
  await strollAtMarks(page, figureSheet(4, 1, CELL));
  await newKind(page, "New boxes", "trunk");
  await page.getByRole("button", { name: "Box in the middle" }).click();
  await page.getByRole("radio", { name: "Frame", exact: true }).click();
  await page.getByRole("button", { name: "Look at step 1:" }).click();
  await page.keyboard.press("Delete");
  await expect(page.getByText("This frame has no trunk.")).toBeVisible();
  await goTo(page, "Ship");
  const card = page.getByRole("listitem").filter({ hasText: "Step 1 has no trunk, but all others do." });
  await card.getByRole("button", { name: "Show" }).click();
  await expect(page.getByText("This frame has no trunk.")).toBeVisible();
  const told = page.getByRole("list", { name: "Findings on these marks" });
  await expect(told).toContainText("Step 1 has no trunk, but all others do.");
  await told.getByRole("button", { name: "Copy it from the previous step" }).click();
  await expect(told).toHaveCount(0);
  await expectBox(page, 8, 10, 16, 20);
});

test("a prop in no clip is marked among the frames of its source", async ({ page }) => {
  await openEmpty(page);
  await goTo(page, "Marks");
  await expect(page.getByText("No frames yet")).toBeVisible();
  await goTo(page, "Sources");
  await dropAndCut(page, "jars.png", figureSheet(3, 1, CELL), 3, 1);
  await goTo(page, "Marks");
  await newKind(page, "New boxes", "lid");
  await page.keyboard.press(".");
  await page.getByRole("button", { name: "Around the drawing" }).click();
  await expect(page.getByRole("button", { name: "Undo: set lid of jars/1" })).toBeVisible();
  const { atlas } = await delivered(page);
  expect([0, 1, 2].map((k) => atlas.frames[`jars/${k}`]?.boxes?.lid?.length ?? 0)).toEqual([0, 1, 0]);
});

test("the demo's marks are painted over the moving figure, until switched off", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Marks");
  const lines = () =>
    page.getByTestId("stage").evaluate((canvas: HTMLCanvasElement) => {
      const { data, width, height } = canvas.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height) ?? {
        data: [],
        width: 0,
        height: 0,
      };
      // Columns that are black over nearly the whole height of the box are its sides.
      const columns: number[] = [];
      for (let x = 0; x < width; x++) {
        let black = 0;
        for (let y = 0; y < height; y++) {
          const at = (y * width + x) * 4;
          if (data[at] === 0 && data[at + 1] === 0 && data[at + 2] === 0 && data[at + 3] === 255) black++;
        }
        if (black > 100) columns.push(x);
      }
      return columns.length;
    });
  await expect.poll(lines).toBeGreaterThanOrEqual(2);
  await page.getByRole("checkbox", { name: "Marks" }).click();
  await expect.poll(lines).toBe(0);
});
