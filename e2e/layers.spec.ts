/** Light in a separate file over the art: imported with it, cut with it, viewed with and without, delivered as separate pictures. */
import { layered } from "@caravan/core/assemble";
import { clearPixels, crop, looksSame, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { choose, delivered, dropFiles, filesOf, frameFrom, goTo, layeredFile, openEmpty, png, pngFile, saved, typeNumber } from "./studio";
import { crash, storageWithEnd } from "./trouble";

const BODY = [100, 60, 40, 255];
const LIGHT = [255, 200, 100, 128];

/** A sheet of three cells of 16 × 16 px with a block of one colour in each of `cells`. */
function sheet(colour: readonly number[], cells: readonly number[], inset: number, width = 48): Pixels {
  const made = clearPixels(width, 16);
  for (const cell of cells)
    for (let y = inset; y < 16 - inset; y++)
      for (let x = inset; x < 16 - inset; x++) made.bytes.set(colour, (y * width + cell * 16 + x) * 4);
  return made;
}

const body = sheet(BODY, [0, 1], 4);
const light = sheet(LIGHT, [1, 2], 6);
const cell = (pixels: Pixels, k: number) => crop(pixels, { x: k * 16, y: 0, w: 16, h: 16 });

/** The centre pixel of a frame in the tray, as drawn there. */
function middleInTray(page: Page, frame: number): Promise<number[]> {
  const image = page.getByRole("region", { name: "Tray" }).locator("img").nth(frame);
  return image.evaluate(async (element: HTMLImageElement) => {
    // An image is drawn anew as its frame changes: what was there a moment ago may be gone.
    const isThere = await element.decode().then(
      () => true,
      () => false,
    );
    if (!isThere) return [];
    const context = new OffscreenCanvas(element.naturalWidth, element.naturalHeight).getContext("2d") as OffscreenCanvasRenderingContext2D;
    context.drawImage(element, 0, 0);
    return [...context.getImageData(element.naturalWidth >> 1, element.naturalHeight >> 1, 1, 1).data];
  });
}

async function near(page: Page, frame: number, colour: readonly number[]): Promise<void> {
  await expect
    .poll(async () => {
      const seen = await middleInTray(page, frame);
      return seen.length > 0 ? Math.max(...seen.map((each, k) => Math.abs(each - (colour[k] as number)))) : Number.POSITIVE_INFINITY;
    })
    .toBeLessThanOrEqual(2);
}

const LIT = [228, 160, 90, 255];

async function cutInThree(page: Page, says = "3 frames"): Promise<void> {
  await typeNumber(page, "Columns", 3);
  await typeNumber(page, "Rows", 1);
  await expect(page.getByTestId("outcome")).toContainText(says);
}

async function layOver(page: Page, name: string, pixels: Pixels): Promise<void> {
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Add a layer from a file …" }).click(),
  ]);
  await chooser.setFiles([{ name, mimeType: "image/png", buffer: Buffer.from(png.encode(pixels)) }]);
}

test("a file named like a layer becomes one: cut by both, viewed with and without, two page pictures", async ({ page }) => {
  await openEmpty(page);
  await dropFiles(page, [pngFile("camp.png", body), pngFile("camp_light.png", light)]);
  const review = page.getByRole("dialog");
  await expect(review).toContainText("with the layer light");
  await review.getByRole("button", { name: "Import" }).click();
  await goTo(page, "Frames");
  await cutInThree(page);
  // The third cell has light alone, and is a frame all the same.
  await near(page, 0, BODY);
  await near(page, 1, LIT);
  await near(page, 2, LIGHT);
  await page.getByRole("button", { name: "Stage …" }).click();
  await page.getByRole("button", { name: "Hide light" }).click();
  await page.keyboard.press("Escape");
  await near(page, 1, BODY);
  await expect(page.getByText("without light")).toBeVisible();
  await page.getByRole("button", { name: "Show all" }).click();
  await near(page, 1, LIT);
  const { atlas, files, frame } = await delivered(page);
  expect(atlas.layers).toEqual([{ name: "light", blend: "add" }]);
  const lit = atlas.pages.map(({ layers = {} }) => png.decode(files.get(layers.light as string) as Uint8Array, "light"));
  for (const k of [0, 1, 2]) {
    expect(looksSame(frame(`camp/${k}`), cell(body, k))).toBe(true);
    expect(looksSame(frameFrom(atlas, lit, `camp/${k}`), cell(light, k))).toBe(true);
  }
  await expect(page.getByRole("region", { name: "Pages" })).toContainText("light over page 1");
});

test("a layered file is imported as one source with its blend modes, and is there after a reload", async ({ page }) => {
  await openEmpty(page);
  const stack = '<layer name="glow" src="glow.png" composite-op="svg:plus"/><layer name="body" src="body.png"/>';
  await dropFiles(page, [layeredFile("camp.ora", body, stack, { "glow.png": light, "body.png": body })]);
  await page.getByRole("dialog").getByRole("button", { name: "Import" }).click();
  await goTo(page, "Frames");
  await cutInThree(page);
  await near(page, 1, LIT);
  await saved(page);
  await page.reload();
  await goTo(page, "Frames");
  await near(page, 1, LIT);
  const { atlas } = await delivered(page);
  expect(atlas.layers).toEqual([{ name: "glow", blend: "add" }]);
});

test("a group whose light falls on what is below it is taken apart, and the redrawn file is new art of the same layers", async ({
  page,
}) => {
  await openEmpty(page);
  const camp = (glow: Pixels) => {
    const merged = layered([
      { blend: "normal", pixels: body },
      { blend: "add", pixels: glow },
    ]);
    const stack =
      '<stack name="lamps"><layer name="glow" src="glow.png" composite-op="svg:plus"/></stack><layer name="body" src="body.png"/>';
    return layeredFile("camp.ora", body, stack, { "glow.png": glow, "body.png": body, "mergedimage.png": merged });
  };
  const review = page.getByRole("dialog");
  await dropFiles(page, [camp(light)]);
  await expect(review).toContainText(/Its groups are taken apart: as one layer each, \d+ pixels would look different/);
  await expect(review.getByRole("radio", { name: "2 layers apart" })).toBeChecked();
  await review.getByRole("button", { name: "Import" }).click();
  await goTo(page, "Frames");
  await cutInThree(page);
  await near(page, 1, LIT);

  // The light moves one cell to the left.
  await dropFiles(page, [camp(sheet(LIGHT, [0, 1], 6))]);
  await expect(review.getByRole("radio", { name: "New art of camp" })).toBeChecked();
  await review.getByRole("button", { name: "Import" }).click();
  await page.getByRole("button", { name: "Use new art" }).click();
  await near(page, 0, LIT);

  // Chosen at Sources it is new art, too.
  await goTo(page, "Sources");
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: "Replace its art …" }).click()]);
  const { name, bytes } = camp(sheet(LIGHT, [0], 6));
  await chooser.setFiles([{ name: `final ${name}`, mimeType: "image/openraster", buffer: Buffer.from(bytes) }]);
  await page.getByRole("button", { name: "Use new art" }).click();
  await goTo(page, "Frames");
  await near(page, 1, BODY);
  const { atlas } = await delivered(page);
  expect(atlas.layers).toEqual([{ name: "lamps glow", blend: "add" }]);
});

test("at Sources a layer is added, renamed, blended and removed; one that does not fit is refused and nothing changes", async ({
  page,
}) => {
  await openEmpty(page);
  await dropFiles(page, [pngFile("camp.png", body)]);
  await cutInThree(page, "2 frames, 1 empty left out");
  await goTo(page, "Sources");
  const lay = (name: string, pixels: Pixels) => layOver(page, name, pixels);
  await lay("camp_light.png", sheet(LIGHT, [1], 6, 49));
  await expect(page.getByRole("alert").or(page.getByRole("status")).filter({ hasText: "49 × 16 px" }).first()).toContainText("48 × 16 px");
  const layers = page.getByRole("list", { name: "Layers, the topmost first" }).getByRole("listitem");
  await expect(layers).toHaveCount(0);
  await lay("camp_light.png", light);
  await expect(layers).toHaveCount(1);
  await expect(page.getByRole("combobox", { name: "Blending of light" })).toContainText("Added as light");
  await lay("camp_hair.png", sheet([20, 20, 20, 255], [0], 7));
  await expect(layers).toHaveCount(2);
  await page.getByRole("textbox", { name: "Name of the layer hair" }).fill("crown");
  await page.keyboard.press("Enter");
  await choose(page, page.getByRole("combobox", { name: "Blending of crown" }), "Multiplied as shade");
  await page.getByRole("button", { name: "crown down" }).click();
  await goTo(page, "Frames");
  // Shade of 20 in 255 over the body.
  await near(page, 0, [8, 5, 3, 255]);
  await near(page, 2, LIGHT);
  await goTo(page, "Sources");
  await page.getByRole("button", { name: "Remove light" }).click();
  await expect(layers).toHaveCount(1);
  await goTo(page, "Frames");
  await expect(page.getByTestId("outcome")).toContainText("1 empty");
  for (let k = 0; k < 6; k++) await page.keyboard.press("Control+z");
  await goTo(page, "Sources");
  await expect(layers).toHaveCount(0);
});

test("a layer added while storage is full is shown as unsaved, is in the file, and is stored when there is space; a killed tab keeps it", async ({
  context,
  page,
}) => {
  const room = await storageWithEnd(page);
  await openEmpty(page);
  await dropFiles(page, [pngFile("camp.png", body)]);
  await cutInThree(page, "2 frames, 1 empty left out");
  await saved(page);
  await goTo(page, "Sources");
  await room.fills();
  await layOver(page, "camp_light.png", light);
  // Its picture is refused first, and then it is added.
  await expect(page.getByRole("list", { name: "Layers, the topmost first" }).getByRole("listitem")).toHaveCount(1);
  await expect(page.getByText("This browser has no more room for the project.")).toBeVisible();
  await expect(page.getByTestId("saved")).not.toHaveText(/saved in this browser/);
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "Save to a file" }).click()]);
  expect([...(await filesOf(download)).keys()]).toEqual(["caravan.json", "art/camp.png", "art/camp_light.png"]);
  await room.empties();
  await page.getByRole("button", { name: "Try again" }).click();
  await saved(page);
  await page.getByRole("textbox", { name: "Name of the layer light" }).fill("glow");
  await page.keyboard.press("Enter");
  await saved(page);
  await crash(context, page);
  const next = await context.newPage();
  await next.goto("/");
  await goTo(next, "Frames");
  await near(next, 1, LIT);
  await goTo(next, "Sources");
  await expect(next.getByRole("textbox", { name: "Name of the layer glow" })).toBeVisible();
});
