/** A lamp in a hand: one clip attached to another by points, over or under it at each step, mirrored with it, listed or baked. */
import { writeBundle } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { addAction, addClip, addMarkKind, addSources, cutSource, putPoint, setPetal } from "@caravan/core/edit";
import type { ActionName, ClipName, FrameRef, MarkName, SourceId } from "@caravan/core/model";
import { emptyProject } from "@caravan/core/model";
import { clearPixels, coverageOf, looksSame, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { drag, frameToScreen } from "./marks";
import { choose, delivered, dropFiles, goTo, openEmpty, png, saved, typeNumber } from "./studio";

const BODY = [40, 80, 200, 255];
const LAMP = [250, 200, 60, 255];
const HAND = { x: 12, y: 8 };

/** Four cells of 16 × 16 px with a body of 6 × 12 in the middle; below them two with a lamp of 2 × 4 hanging from the middle of the top. */
function sheet(): Pixels {
  const made = clearPixels(64, 32);
  const fill = (x: number, y: number, w: number, h: number, colour: readonly number[]) => {
    for (let v = y; v < y + h; v++) for (let u = x; u < x + w; u++) made.bytes.set(colour, (v * 64 + u) * 4);
  };
  for (let k = 0; k < 4; k++)
    fill(
      k * 16 + 5,
      3,
      8,
      13,
      BODY.map((each, c) => (c === 0 ? each + k * 10 : each)),
    );
  for (let k = 0; k < 2; k++)
    fill(
      k * 16 + 7,
      16,
      4,
      6,
      LAMP.map((each, c) => (c === 2 ? each + k * 20 : each)),
    );
  return made;
}

/** A project with a walk that has a hand on each frame, an action of it that is mirrored to the west, and a swing. */
async function openWalk(page: Page): Promise<void> {
  const pixels = sheet();
  const bytes = png.encode(pixels);
  const sha256 = sha256Hex(bytes);
  const id = "s1" as SourceId;
  const none = { x: 0, y: 0 };
  let project = addSources(emptyProject("lamp"), [{ fileName: "hero.png", sha256, width: 64, height: 32 }]);
  project = cutSource(project, id, { by: "cell", cell: { w: 16, h: 16 }, margin: none, gap: none, keepEmpty: false }, coverageOf(pixels));
  const refs = (row: number, count: number) => Array.from({ length: count }, (_, k) => `s1/c${k}r${row}` as FrameRef);
  project = addClip(addClip(project, refs(0, 4), "stroll-e"), refs(1, 2), "swing");
  project = setPetal(addAction(project, "stroll", 2), "stroll" as ActionName, "e", { clip: "stroll-e" as ClipName });
  project = setPetal(project, "stroll" as ActionName, "w", { clip: "stroll-e" as ClipName, mirror: true });
  project = addMarkKind(addMarkKind(project, "point", "hand"), "point", "grip");
  const [hand, grip] = ["hand", "grip"] as [MarkName, MarkName];
  project = putPoint(project, "stroll", refs(0, 4), hand, refs(0, 1)[0] as FrameRef, HAND);
  project = putPoint(project, "swing", refs(1, 2), grip, refs(1, 1)[0] as FrameRef, { x: 9, y: 0 });
  const bundle = writeBundle({ project, pictures: new Map([[sha256, bytes]]) });
  await openEmpty(page);
  await dropFiles(page, [{ name: "lamp.caravan", bytes: bundle }]);
  await expect(page).toHaveTitle(/^lamp/);
  await goTo(page, "Marks");
  await page
    .getByRole("list", { name: "Clips" })
    .getByRole("button", { name: /^stroll-e/ })
    .click();
}

const stage = (page: Page) => page.getByTestId("stage");

async function attach(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Attach a part …" }).click();
  await choose(page, page.getByRole("combobox", { name: "What the new part shows" }), "swing");
  await choose(page, page.getByRole("combobox", { name: "The point that the new part is attached to" }), "hand");
  await choose(page, page.getByRole("combobox", { name: "The point of the new part that is attached" }), "grip");
  await page.getByRole("button", { name: "Attach", exact: true }).click();
  await page.getByRole("textbox", { name: "Name of the part swing" }).fill("lamp");
  await page.keyboard.press("Enter");
}

test("a lamp is attached by points, plays at once, is behind on two steps, mirrored, listed in the atlas and baked", async ({ page }) => {
  await openWalk(page);
  await attach(page);
  // Hand 12, 8 with origin 8, 16; grip 9, 0: the lamp's origin, 8, 16, is 3 to the right and 8 below.
  await expect(stage(page)).toHaveAttribute("data-parts", "lamp hero/4 3,8 front");
  await page.getByRole("button", { name: "Step 1: over" }).click();
  await page.getByRole("button", { name: "Step 2: over" }).click();
  await page.getByRole("button", { name: "Step 2: under" }).click();
  await page.keyboard.press(".");
  await expect(stage(page)).toHaveAttribute("data-parts", "lamp hero/5 3,8 behind");
  await page.keyboard.press(".");
  await expect(stage(page)).toHaveAttribute("data-parts", "");
  await saved(page);
  await page.reload();
  await goTo(page, "Clips");
  await page
    .getByRole("list", { name: "Actions" })
    .getByRole("button", { name: /^stroll/ })
    .click();
  await page.keyboard.press("]");
  await expect(stage(page)).toHaveAttribute("data-facing", "w");
  await expect(stage(page)).toHaveAttribute("data-parts", /^lamp hero\/\d -3,8 /);
  const told = await delivered(page);
  const file = JSON.parse(new TextDecoder().decode([...told.files].find(([path]) => path.endsWith(".atlas.json"))?.[1]));
  expect(file.parts).toEqual([{ name: "lamp", host: "stroll", guest: "swing", at: "hand", by: "grip", time: "own", front: true }]);
  expect(file.clips["stroll-e"].steps.map(({ parts }: { parts?: unknown }) => parts)).toEqual([
    undefined,
    { lamp: { front: false } },
    { lamp: { hidden: true } },
    undefined,
  ]);
  await page.getByRole("checkbox", { name: "draw parts into their hosts" }).check();
  const baked = await delivered(page);
  expect(baked.atlas.clips["stroll-e"]?.steps.map(({ frame }) => frame)).toEqual(["hero/0+lamp", "hero/1+lamp", "hero/2", "hero/3+lamp"]);
  const [over, under] = [baked.frame("hero/0+lamp"), baked.frame("hero/1+lamp")];
  const at = (pixels: Pixels, name: string, x: number, y: number) => {
    const { origin } = baked.atlas.frames[name] as { origin: { x: number; y: number } };
    const from = ((origin.y - 16 + y) * pixels.width + origin.x - 8 + x) * 4;
    return [...pixels.bytes.subarray(from, from + 4)];
  };
  // The lamp hangs over the body's right edge, x 10 to 13, y 8 to 13.
  expect(at(over, "hero/0+lamp", 11, 9)).toEqual(LAMP);
  expect(at(under, "hero/1+lamp", 11, 9)).toEqual([50, 80, 200, 255]);
  expect(at(under, "hero/1+lamp", 13, 9)).toEqual([250, 200, 80, 255]);
  expect(looksSame(baked.frame("hero/2"), told.frame("hero/2"))).toBe(true);
});

test("a step that loses its point is found and mended; a part is removed with one press, and undo restores it with its steps", async ({
  page,
}) => {
  await openWalk(page);
  await attach(page);
  await page.getByRole("button", { name: "Step 1: over" }).click();
  await page.getByRole("list", { name: "Marks" }).getByRole("button", { name: /^hand/ }).click();
  await page.getByRole("radio", { name: "Frame", exact: true }).click();
  await page.getByTestId("marks-canvas").focus();
  await page.keyboard.press("Delete");
  await expect(stage(page)).toHaveAttribute("data-parts", "");
  const finding = page
    .getByRole("list", { name: "Findings on these marks" })
    .getByRole("listitem")
    .filter({ hasText: "so it is not drawn there" });
  await expect(finding).toContainText("Step 0 of stroll-e has no hand");
  await finding.getByRole("button", { name: "Interpolate hand" }).click();
  await expect(stage(page)).toHaveAttribute("data-parts", "lamp hero/4 3,8 front");
  await page.getByRole("button", { name: "Remove lamp" }).click();
  await expect(stage(page)).toHaveAttribute("data-parts", "");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("button", { name: "Step 1: under" })).toBeVisible();
});

test("a point gets an angle by key, by drag and typed; the lamp rotates with it, in pictures to the nearest 90°", async ({ page }) => {
  await openWalk(page);
  await attach(page);
  await page.getByRole("list", { name: "Marks" }).getByRole("button", { name: /^hand/ }).click();
  const canvas = page.getByTestId("marks-canvas");
  await canvas.focus();
  await page.keyboard.press("a");
  await expect(canvas).toHaveAttribute("aria-label", "hero/0 with hand at 12, 8, pointing to 0°");
  await expect(stage(page)).toHaveAttribute("data-parts", "lamp hero/4 3,8 front");
  await page.keyboard.press("a");
  // Rotated clockwise about the ring, 1, -16 from its origin: the origin is then left of and above it.
  await expect(stage(page)).toHaveAttribute("data-parts", "lamp hero/4 -12,-9 front 90°");
  const at = await frameToScreen(page, { w: 16, h: 16 });
  const hand = at(12, 8);
  await drag(page, { x: hand.x, y: hand.y + 26 }, { x: hand.x - 40, y: hand.y + 2 });
  await expect(canvas).toHaveAttribute("aria-label", "hero/0 with hand at 12, 8, pointing to 180°");
  await typeNumber(page, "Angle of the point", "110");
  await expect(page.getByText("here to the nearest 90°")).toBeVisible();
  await expect(stage(page)).toHaveAttribute("data-parts", "lamp hero/4 -12,-9 front 90°");
  // The whole movement has it, since the hand was chosen for all of it.
  await saved(page);
  const told = await delivered(page);
  expect([0, 1, 2, 3].map((k) => told.atlas.frames[`hero/${k}`]?.points?.hand)).toEqual([0, 1, 2, 3].map(() => ({ ...HAND, angle: 110 })));
  await goTo(page, "Marks");
  await page.getByRole("button", { name: "No angle" }).click();
  await expect(stage(page)).toHaveAttribute("data-parts", "lamp hero/4 3,8 front");
});
