import { textFromUtf8 } from "@caravan/core/codec";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { clipOfRows, delivered, dropAndCut, goTo, openEmpty, pngFile, saved } from "./studio";

const WOOL = [
  [38, 58, 99],
  [51, 89, 138],
  [76, 130, 173],
] as const;
const FIRE = ["#7a1f2e", "#ef7a28", "#fff0a8"] as const;

/** Four frames of 16 × 16 px in a row, each in stripes of three tones of one cloth. */
function sheet(): Pixels {
  const made = clearPixels(64, 16);
  for (let y = 2; y < 14; y++)
    for (let x = 0; x < 64; x++)
      if (x % 16 > 2 && x % 16 < 13) made.bytes.set([...(WOOL[Math.floor(y / 5)] ?? WOOL[0]), 255], (y * 64 + x) * 4);
  return made;
}

async function cutWithPalette(page: Page): Promise<void> {
  await openEmpty(page);
  await dropAndCut(page, "hero.png", sheet(), 4, 1);
  await clipOfRows(page, 1, "walk");
  await goTo(page, "Sources");
  await page.getByRole("button", { name: "New palette …" }).click();
  await page.getByRole("button", { name: "Add the ramp #263a63 #33598a #4c82ad" }).click();
  await page.getByRole("radio", { name: "3 + clear" }).click();
  await page.getByRole("button", { name: "Make it" }).click();
}

const pixel = ({ bytes, width }: Pixels, x: number, y: number) => [...bytes.subarray((y * width + x) * 4, (y * width + x) * 4 + 4)];

test("a drawn sheet wears a palette read from a picture, matched by brightness; the art stays, and the delivery has its colours", async ({
  page,
}) => {
  await cutWithPalette(page);
  await page.getByRole("button", { name: "New palette …" }).click();
  await page.getByRole("combobox", { name: "What the new palette replaces" }).click();
  await page.getByRole("option", { name: "replaces hero" }).click();
  const colours = page.getByRole("textbox", { name: "Colours of the new palette" });
  await colours.fill("");
  // A swatch of 4 × 4 px for each, the lightest first.
  const swatches = clearPixels(12, 4);
  for (let k = 0; k < 48; k++) {
    const value = Number.parseInt((FIRE[2 - Math.floor((k % 12) / 4)] as string).slice(1), 16);
    swatches.bytes.set([value >> 16, (value >> 8) & 255, value & 255, 255], k * 4);
  }
  const [chooser] = await Promise.all([page.waitForEvent("filechooser"), page.getByRole("button", { name: "From a picture …" }).click()]);
  const file = pngFile("swatches.png", swatches);
  await chooser.setFiles([{ name: file.name, mimeType: "image/png", buffer: Buffer.from(file.bytes) }]);
  await expect(colours).toHaveValue(FIRE.toReversed().join(" "));
  await page.getByRole("radio", { name: "by brightness" }).click();
  await page.getByRole("button", { name: "Make it" }).click();
  await page.getByRole("button", { name: "Recolour hero" }).click();
  await expect(page.locator("[data-source]")).toContainText("in hero variant");
  await saved(page);
  await page.reload();
  await expect(page.locator("[data-source]")).toContainText("in hero variant");
  const { frame, atlas } = await delivered(page);
  const first = atlas.clips.walk?.steps[0]?.frame as string;
  expect(pixel(frame(first), 5, 3)).toEqual([0x7a, 0x1f, 0x2e, 255]);
  expect(pixel(frame(first), 5, 12)).toEqual([0xff, 0xf0, 0xa8, 255]);
  await page.keyboard.press("Control+z");
  const drawn = await delivered(page);
  expect(pixel(drawn.frame(first), 5, 3)).toEqual([...WOOL[0], 255]);
});

test("a variant of a drawn sheet has its frames and clips in other colours; tiles list the palette of each", async ({ page }) => {
  await cutWithPalette(page);
  await page.getByRole("button", { name: "New palette …" }).click();
  await page.getByRole("combobox", { name: "What the new palette replaces" }).click();
  await page.getByRole("option", { name: "replaces hero" }).click();
  await page.getByRole("textbox", { name: "Colours of the new palette" }).fill(FIRE.join(" "));
  await page.getByRole("button", { name: "Make it" }).click();
  await page.getByRole("textbox", { name: "Name of the palette hero variant" }).fill("fire");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "A variant of hero" }).click();
  await expect(page.getByRole("list", { name: "Sources" }).getByRole("button")).toHaveText([/^hero/, /^hero-fire/]);
  await goTo(page, "Ship");
  await page.getByRole("checkbox", { name: "tiles and their positions" }).check();
  await page.getByRole("checkbox", { name: "treat other palettes as equal" }).check();
  await page.getByRole("button", { name: "Count tiles and colours" }).click();
  await expect(page.getByText("2 palettes in use; every tile uses the colours of one.")).toBeVisible();
  const { files, atlas, frame } = await delivered(page);
  expect(Object.keys(atlas.clips).sort()).toEqual(["walk", "walk-fire"]);
  const [plain, fire] = ["walk", "walk-fire"].map((clip) => atlas.clips[clip]?.steps[0]?.frame as string) as [string, string];
  expect([pixel(frame(plain), 5, 3), pixel(frame(fire), 5, 3)]).toEqual([
    [...WOOL[0], 255],
    [0x7a, 0x1f, 0x2e, 255],
  ]);
  const table = [...files].find(([path]) => path.endsWith(".tiles.csv"))?.[1] as Uint8Array;
  const rows = textFromUtf8(table).trim().split("\n");
  expect(rows[0]).toBe("frame,x,y,tile,flip,palette");
  const told = JSON.parse(textFromUtf8([...files].find(([path]) => path.endsWith(".tiles.json"))?.[1] as Uint8Array));
  const of = (name: string) => told.placed.filter((each: { frame: string }) => each.frame === name);
  const bare = (each: Record<string, unknown>) => ({ ...each, frame: "", palette: "" });
  expect(of(plain).map(bare)).toEqual(of(fire).map(bare));
  expect(new Set(of(fire).map(({ palette }: { palette: string }) => palette))).toEqual(new Set(["fire"]));
});
