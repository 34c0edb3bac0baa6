/** Actions in four and eight facings: made, mirrored, turned by the pointer, delivered. */
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { expect, test } from "./fixtures";
import { clipOfRows, delivered, dropAndCut, figureSheet, goTo, openEmpty } from "./studio";

test.use({ moving: true });

test.beforeEach(async ({ page }) => {
  await openEmpty(page);
});

/** Eight rows of two, each row in its own grey, so that pixels identify the row. */
function roseSheet(): Pixels {
  const cell = 24;
  const sheet = clearPixels(cell * 2, cell * 8);
  for (let row = 0; row < 8; row++)
    for (let column = 0; column < 2; column++)
      for (let y = 2; y < cell; y++)
        for (let x = 6; x < 18 - column; x++)
          sheet.bytes.set([20 + row * 28, 90, 40, 255], ((row * cell + y) * sheet.width + column * cell + x) * 4);
  return sheet;
}

test("eight facings come from names, and the character turns with the pointer through all of them without jitter", async ({ page }) => {
  await dropAndCut(page, "turning.png", roseSheet(), 2, 8);
  const rose = ["e", "se", "s", "sw", "w", "nw", "n", "ne"] as const;
  await page.getByTestId("sheet").focus();
  for (const [row, facing] of rose.entries()) {
    await goTo(page, "Frames");
    // A tall sheet opens at a zoom at which its art can be judged; the last rows of this one are below the view.
    await page.keyboard.press("0");
    await page.getByRole("button", { name: `Pick row ${row}`, exact: true }).click();
    await page.keyboard.press("c");
    await expect(page.getByRole("textbox", { name: "Clip name" })).toBeFocused();
    await page.keyboard.type(`march_${facing}`);
    await page.keyboard.press("Enter");
  }
  await page.getByRole("button", { name: "By names …" }).click();
  const dialog = page.getByRole("dialog", { name: "Actions by names" });
  await expect(dialog.getByRole("checkbox", { name: "march, 8 ways" })).toBeChecked();
  await expect(dialog.getByRole("listitem")).toContainText("SEmarch_se");
  await dialog.getByRole("button", { name: "Make the action" }).click();
  await expect(page.getByRole("region", { name: "Wind rose of march" }).getByRole("button")).toHaveCount(8);
  await page.getByRole("button", { name: "By names …" }).click();
  await expect(dialog).toContainText("Already made, with all these facings: march.");
  await expect(dialog.getByRole("checkbox")).toHaveCount(0);
  await page.keyboard.press("Escape");
  const stage = page.getByTestId("stage");
  const box = await stage.boundingBox();
  if (!box) throw new Error("No stage.");
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const looks = () => stage.getAttribute("data-facing");
  const at = (degrees: number) =>
    page.mouse.move(cx + Math.cos((degrees * Math.PI) / 180) * 80, cy + Math.sin((degrees * Math.PI) / 180) * 80);
  for (const [k, facing] of rose.entries()) {
    await at(k * 45);
    await expect.poll(looks).toBe(facing);
    // The drawn pixels have that row's grey.
    const red = () =>
      stage.evaluate((canvas: HTMLCanvasElement) => {
        const { width, height } = canvas;
        const { data } = canvas.getContext("2d")?.getImageData(0, 0, width, height) ?? { data: [] };
        const found = new Map<number, number>();
        for (let n = 0; n < data.length; n += 4)
          if (data[n + 3] === 255 && data[n + 1] === 90 && data[n + 2] === 40)
            found.set(data[n] as number, (found.get(data[n] as number) ?? 0) + 1);
        return [...found].sort((a, b) => b[1] - a[1])[0]?.[0];
      });
    await expect.poll(red).toBe(20 + k * 28);
  }
  // A clip dragged onto a petal takes its place.
  const chip = await page.getByRole("region", { name: "Clips to add" }).getByRole("button", { name: "march_ne" }).boundingBox();
  const north = page.getByRole("button", { name: /^Facing n:/ });
  const target = await north.boundingBox();
  if (!chip || !target) throw new Error("Nothing to drag.");
  await page.mouse.move(chip.x + 12, chip.y + 12);
  await page.mouse.down();
  await page.mouse.move(chip.x + 12, chip.y - 30, { steps: 4 });
  await page.mouse.move(target.x + 40, target.y + 40, { steps: 10 });
  await page.mouse.up();
  await expect(north).toHaveAccessibleName("Facing n: march_ne");
  await page.keyboard.press("Control+z");
  await expect(north).toHaveAccessibleName("Facing n: march_n");
  // Trembling about the edge between two sectors turns it once at most.
  await at(0);
  await expect.poll(looks).toBe("e");
  const seen: (string | null)[] = [];
  for (const tremble of [20, 24, 21, 25, 22, 24.5, 20.5, 25]) {
    await at(tremble);
    await page.waitForTimeout(40);
    seen.push(await looks());
  }
  expect(new Set(seen)).toEqual(new Set(["e"]));
  await at(35);
  await expect.poll(looks).toBe("se");
  // Keys turn it too, and keep the movement going.
  await page.keyboard.press("]");
  await expect.poll(looks).toBe("s");
  await page.keyboard.press("[");
  await expect.poll(looks).toBe("se");
});

test("four facings come from three rows with the west mirrored; the mirror is drawn, delivered, and frozen into a clip", async ({
  page,
}) => {
  await dropAndCut(page, "porter.png", figureSheet(4, 3), 4, 3);
  await clipOfRows(page, 1, "one");
  await page.getByRole("button", { name: "By rows …" }).click();
  const dialog = page.getByRole("dialog", { name: "Rows of a sheet" });
  await expect(dialog.getByRole("combobox", { name: "Facing of row 1" })).toHaveText("E");
  await expect(dialog.getByRole("checkbox", { name: "mirror missing facings" })).toBeChecked();
  await dialog.getByRole("button", { name: "Make porter" }).click();
  const petal = (facing: string) => page.getByRole("button", { name: new RegExp(`^Facing ${facing}:`) });
  await expect(petal("w")).toHaveAccessibleName("Facing w: mirror of porter-e");
  await petal("e").click();
  const picture = async () => {
    await page.keyboard.press("Space");
    await page.getByRole("slider", { name: "Position in the loop" }).focus();
    await page.keyboard.press("Home");
    await page.waitForTimeout(120);
    return page.getByTestId("stage").evaluate((canvas: HTMLCanvasElement) => {
      const { width, height } = canvas;
      return { width, height, bytes: [...(canvas.getContext("2d")?.getImageData(0, 0, width, height).data ?? [])] };
    });
  };
  await page.getByRole("checkbox", { name: "Origin" }).click();
  await page.getByRole("button", { name: "Pause" }).click();
  const east = await picture();
  await petal("w").click();
  await expect.poll(() => page.getByTestId("stage").getAttribute("data-facing")).toBe("w");
  const west = await picture();
  // Pixel by pixel the mirror picture about the standing point, the middle of the stage.
  let drawn = 0;
  let off = 0;
  for (let y = 0; y < east.height; y++)
    for (let x = 1; x < east.width; x++) {
      const a = (y * east.width + x) * 4;
      const b = (y * east.width + (east.width - 1 - x)) * 4;
      if (east.bytes[a + 3] === 0 && west.bytes[b + 3] === 0) continue;
      drawn++;
      if ([0, 1, 2, 3].some((n) => east.bytes[a + n] !== west.bytes[b + n])) off++;
    }
  expect(drawn).toBeGreaterThan(1000);
  expect(off).toBe(0);
  await page.getByRole("button", { name: "Freeze the mirror" }).click();
  await expect(petal("w")).toHaveAccessibleName("Facing w: porter-w");
  const { atlas, frame } = await delivered(page);
  expect((atlas as unknown as { actions: unknown }).actions).toEqual({
    porter: { facings: { e: { clip: "porter-e" }, s: { clip: "porter-s" }, w: { clip: "porter-w" }, n: { clip: "porter-n" } } },
  });
  const [own, mirrored] = [frame("porter/4"), frame(atlas.clips["porter-w"]?.steps[0]?.frame as string)];
  for (let y = 0; y < own.height; y++)
    for (let x = 0; x < own.width; x++) {
      const a = (y * own.width + x) * 4;
      const b = (y * own.width + own.width - 1 - x) * 4;
      if (own.bytes[a + 3] !== mirrored.bytes[b + 3]) throw new Error(`The frozen mirror differs at ${x}, ${y}.`);
    }
});
