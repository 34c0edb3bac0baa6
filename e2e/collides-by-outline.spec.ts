/** A tapering figure among a platform, a zone and a target: its outline collides, not the rectangle around it. */
import { writeBundle } from "@caravan/core/bundle";
import { sha256Hex } from "@caravan/core/codec";
import { addClip, addMarkKind, addRehearsal, addSources, cutSource, setOutlines, setStage } from "@caravan/core/edit";
import { emptyProject, type FrameRef, type MarkName, type SourceId, type Stage, type StageName } from "@caravan/core/model";
import { clearPixels, coverageOf } from "@caravan/core/raster";
import { guessedRoles, proposed } from "@caravan/core/stage";
import { expect, type Page, test } from "./fixtures";
import { dropFiles, goTo, openEmpty, png } from "./studio";

const SOLID = "solid" as MarkName;
const WIDE = 24;

/** Two frames of a top standing on its tip, 24 px wide above and 1 px below; its origin is at the tip. */
function topSheet() {
  const made = clearPixels(WIDE * 2, WIDE);
  for (let frame = 0; frame < 2; frame++)
    for (let y = 0; y < WIDE; y++) {
      const half = (WIDE - y) / 2;
      for (let x = Math.ceil(12 - half); x < 12 + half; x++)
        made.bytes.set([220, 120 + frame * 40, 60, 255], (y * made.width + frame * WIDE + x) * 4);
    }
  return made;
}

async function openTop(page: Page, change: Partial<Stage>): Promise<void> {
  const pixels = topSheet();
  const bytes = png.encode(pixels);
  const sha256 = sha256Hex(bytes);
  const none = { x: 0, y: 0 };
  let project = addSources(emptyProject("top"), [{ fileName: "top.png", sha256, width: pixels.width, height: pixels.height }]);
  project = cutSource(
    project,
    "s1" as SourceId,
    { by: "cell", cell: { w: WIDE, h: WIDE }, margin: none, gap: none, keepEmpty: false },
    coverageOf(pixels),
  );
  const refs = ["s1/c0r0", "s1/c1r0"] as FrameRef[];
  project = addClip(addClip(project, refs.slice(0, 1), "idle"), refs, "walk");
  project = setOutlines(addMarkKind(project, "outline", SOLID), "all", refs, SOLID, refs[0] as FrameRef, [
    [{ x: 0, y: 0 }, { x: WIDE, y: 0 }, { x: 12, y: WIDE }], // biome-ignore format: corners
  ]);
  const { behaviour, stage } = proposed(project, guessedRoles(project), "top");
  project = addRehearsal(project, behaviour, { ...stage, name: "road" as StageName });
  project = setStage(project, "road" as StageName, { movement: { speed: 40, start: 0, stop: 0, jump: 0, gravity: 900 }, ...change });
  await openEmpty(page);
  await dropFiles(page, [{ name: "top.caravan", bytes: writeBundle({ project, pictures: new Map([[sha256, bytes]]) }) }]);
  await expect(page).toHaveTitle(/^top/);
  await goTo(page, "Rehearse");
  await expect(page.getByTestId("rehearsal")).toBeVisible();
}

/** The figure's lowest pixel in the world, found on the stage by its colour. */
async function tip(page: Page): Promise<{ x: number; y: number }> {
  const shot = png.decode(new Uint8Array(await page.getByTestId("rehearsal").screenshot()), "the stage");
  const zoom = shot.width / 320;
  let lowest = { x: -1, y: -1 };
  for (let y = 0; y < 180; y++)
    for (let x = 0; x < 304; x++) {
      const at = (Math.floor((y + 0.5) * zoom) * shot.width + Math.floor((x + 0.5) * zoom)) * 4;
      const [r = 0, g = 0, b = 0] = shot.bytes.subarray(at, at + 3);
      if (r > 200 && g > 90 && g < 190 && b < 90) lowest = { x: x + 0.5, y: y + 1 };
    }
  return lowest;
}

test("a figure stands on a platform, enters a zone and hits a target by its outline", async ({ page }) => {
  await openTop(page, {
    start: { x: 160, y: 60, facing: "e" },
    camera: "fixed",
    platforms: [{ x: 164, y: 110, w: 40, h: 8 }],
    zones: [{ name: "lamp", area: { x: 226, y: 138, w: 40, h: 4 }, on: "inside" }],
    extras: [{ name: "other", play: "idle", facing: "e", x: 316, y: 150 }],
    hits: [{ ours: SOLID, theirs: SOLID }],
  });
  // Time runs slowly, so that a busy machine misses nothing.
  await page.getByRole("radiogroup", { name: "Speed of time" }).getByRole("radio", { name: "½" }).click();
  // By its bottom centre, 12 px wide, it comes to stand over the edge with nothing below its tip.
  await page.keyboard.press("Enter");
  await expect.poll(async () => (await tip(page)).y).toBe(110);

  await page.getByRole("combobox", { name: "What of the figure collides" }).click();
  await page.getByRole("option", { name: "solid" }).click();
  await page.getByTestId("rehearsal").click({ position: { x: 5, y: 5 } });
  await page.keyboard.press("Home");
  // By its outline it leans against the edge: 4 px to the right of its tip, it is 8 px higher.
  await expect.poll(async () => (await tip(page)).y).toBe(118);
  await page.keyboard.down("ArrowRight");
  await expect.poll(async () => (await tip(page)).y).toBe(110);
  await expect.poll(async () => (await tip(page)).y).toBe(150);
  await expect(page.getByText("the figure is in it")).toBeVisible();
  await expect(page.getByText("it hits")).toBeHidden();
  await expect(page.getByText("it hits")).toBeVisible();
  await page.keyboard.up("ArrowRight");
});
