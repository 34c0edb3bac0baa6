/** A game with its own metadata gets the demo in its shape: four files of different structure. */
import { KEYED, LINED, TABLED, TAGGED } from "../packages/core/src/example/examples.fixture";
import { expect, type Page, test } from "./fixtures";
import { atlasOf, choose, type DeliveredAtlas, figureSheet, filesOf, goTo, openStudio, pngFile } from "./studio";

async function zipNow(page: Page): Promise<Map<string, Uint8Array>> {
  await expect(page.getByTestId("proof")).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: /ZIP/ }).click()]);
  return filesOf(download);
}

/** The contents of a file written in the shape of KEYED. */
interface WrittenAsKeyed {
  frames: Record<
    string,
    {
      bounds: { x: number; y: number; w: number; h: number };
      whole: { w: number; h: number };
      trimOffset: { x: number; y: number };
      pivot: { x: number; y: number };
    }
  >;
  moves: Record<string, { frames: string[] }>;
}

const part = (page: Page) => page.getByRole("region", { name: "In the shape of an example", exact: true }).first();

async function learnFrom(page: Page, name: string, text: string): Promise<void> {
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    part(page).getByRole("button", { name: "Learn from a file" }).click(),
  ]);
  await chooser.setFiles([{ name, mimeType: "text/plain", buffer: Buffer.from(text) }]);
  await expect(page.getByRole("dialog", { name: `In the shape of ${name}` })).toBeVisible();
  await page.keyboard.press("Escape");
}

const text = (files: ReadonlyMap<string, Uint8Array>, name: string) => Buffer.from(files.get(name) as Uint8Array).toString();
const numbers = (spelled: readonly (string | undefined)[]) => spelled.map(Number);
const rects = (atlas: DeliveredAtlas) => Object.entries(atlas.frames).map(([name, { rect }]) => [name, rect.x, rect.y, rect.w, rect.h]);

test("a delivery is written in the shape of a file that the game reads, and kept so", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Ship");
  await expect(page.getByTestId("proof")).toBeVisible();

  // Dropped on its place, it becomes an example; elsewhere it would be imported as art.
  const transfer = await page.evaluateHandle((content) => {
    const data = new DataTransfer();
    data.items.add(new File([content], "hero.json"));
    return data;
  }, KEYED);
  await part(page).dispatchEvent("drop", { dataTransfer: transfer });
  const dialog = page.getByRole("dialog", { name: "In the shape of hero.json" });
  await expect(dialog.getByRole("row", { name: /frames › each › bounds › x 2 x/ })).toBeVisible();
  await expect(dialog.getByRole("region", { name: "Stays as it is" })).toContainText("by hand, in spring");
  await expect(dialog).toContainText("ping-pong playback");
  await page.keyboard.press("Escape");

  const files = await zipNow(page);
  const { atlas } = atlasOf(files);
  const file: WrittenAsKeyed = JSON.parse(text(files, "tamarisk.json"));
  const { frames, moves } = file;
  const places = Object.entries(frames).map(([name, { bounds }]) => [name.replace(/\.png$/, ""), bounds.x, bounds.y, bounds.w, bounds.h]);
  expect(places).toEqual(rects(atlas));
  expect(file).toMatchObject({
    made: "by hand, in spring",
    picture: { file: "tamarisk.png", size: { w: atlas.pages[0]?.width } },
    total: 395,
  });
  for (const [name, { size, inset, origin }] of Object.entries(atlas.frames)) {
    const { whole, trimOffset, pivot } = frames[`${name}.png`] as WrittenAsKeyed["frames"][string];
    expect([whole.w, whole.h, trimOffset.x, trimOffset.y]).toEqual([size.w, size.h, inset.x, inset.y]);
    expect(Math.abs(pivot.x * size.w - origin.x)).toBeLessThan(0.25);
  }
  expect(Object.keys(moves)).toEqual(Object.keys(atlas.clips));
  expect(moves["walk-s"]?.frames).toEqual(atlas.clips["walk-s"]?.steps.map(({ frame }) => `${frame}.png`));

  // Kept by name: after a reload it is delivered the same.
  await page.reload();
  await goTo(page, "Ship");
  await expect(page.getByRole("combobox", { name: "Example" })).toHaveText("hero.json");
  expect(text(await zipNow(page), "tamarisk.json")).toBe(text(files, "tamarisk.json"));
});

test("tags, tables and lines are learned as well", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Ship");
  await expect(page.getByTestId("proof")).toBeVisible();

  await learnFrom(page, "hero.xml", TAGGED);
  let files = await zipNow(page);
  let { atlas } = atlasOf(files);
  const parts = [...text(files, "tamarisk.xml").matchAll(/<part id='([^']*)' left='(\d+)' top='(\d+)' right='(\d+)' bottom='(\d+)'/g)];
  const places = parts.map(([, name, ...sides]) => {
    const [left = 0, top = 0, right = 0, bottom = 0] = numbers(sides);
    return [name, left, top, right - left, bottom - top];
  });
  expect(places).toEqual(rects(atlas));
  const clip = atlas.clips["walk-s"];
  const shown = /<movement name='walk-s'[^>]*>([\s\S]*?)<\/movement>/.exec(text(files, "tamarisk.xml"))?.[1] ?? "";
  expect([...shown.matchAll(/part='([^']*)' ms='([^']*)'/g)].map(([, frame, ms]) => ({ frame, ms: Number(ms) }))).toEqual(
    clip?.steps.map(({ frame, ms }) => ({ frame, ms })),
  );
  // The shape cannot hold trimming, so nothing was trimmed.
  for (const { rect, size } of Object.values(atlas.frames)) expect([rect.w, rect.h]).toEqual([size.w, size.h]);

  await learnFrom(page, "hero.csv", TABLED);
  files = await zipNow(page);
  ({ atlas } = atlasOf(files));
  const rows = text(files, "tamarisk.csv")
    .trim()
    .split("\n")
    .slice(2)
    .map((line) => line.split(";"));
  // The table has no ping-pong, so the way back is written in rows; the lantern's ends are doubled.
  const more = { glance: 2, lantern: 4 };
  const known = Object.values(atlas.clips).reduce((sum, { steps }) => sum + steps.length, 0);
  expect(rows).toHaveLength(known + more.glance + more.lantern);
  const south = rows.filter(([action, facing]) => action === "walk" && facing === "down");
  const steps = atlas.clips[atlas.actions.walk?.facings.s?.clip ?? ""]?.steps ?? [];
  expect(south.map(([, , , x, y, , , seconds]) => [Number(x), Number(y), Math.round(Number(seconds) * 1e6) / 1000])).toEqual(
    steps.map(({ frame, ms }) => [atlas.frames[frame]?.rect.x, atlas.frames[frame]?.rect.y, ms]),
  );

  await learnFrom(page, "hero.txt", LINED);
  files = await zipNow(page);
  ({ atlas } = atlasOf(files));
  const lines = text(files, "tamarisk.txt");
  expect(lines.startsWith(`tamarisk.png\n  measures: ${atlas.pages[0]?.width}, ${atlas.pages[0]?.height}\n  look: crisp\n`)).toBe(true);
  const found = [...lines.matchAll(/^(\S+)\n {2}number: \d+\n {2}turned: no\n {2}at: (\d+), (\d+)\n {2}extent: (\d+), (\d+)\n/gm)];
  expect(found.map(([, name, ...place]) => [name, ...numbers(place)])).toEqual(rects(atlas));
  await expect(page.getByRole("list", { name: "Notes" })).toContainText("tamarisk.txt: its shape cannot hold clips");

  // Four are kept; a forgotten one also disappears from the delivery, until undo.
  await page.getByRole("combobox", { name: "Example" }).click();
  await expect(page.getByRole("option")).toHaveText(["None", "hero.xml", "hero.csv", "hero.txt"]);
  await page.keyboard.press("Escape");
  await part(page).getByRole("button", { name: "Its fields" }).click();
  await page.getByRole("button", { name: "Forget this example" }).click();
  await expect(page.getByRole("combobox", { name: "Example" })).toHaveText("None");
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("combobox", { name: "Example" })).toHaveText("hero.txt");
});

test("columns with unknown names are understood by their picture", async ({ page }) => {
  // Height, width, y, x: without the picture, width and height first would fit as well.
  const rows = Array.from({ length: 8 }, (_, k) => `porter-${k};37;24;${Math.floor(k / 4) * 40 + 3};${(k % 4) * 32 + 4}`);
  const table = ["nomo;ka;lo;mi;nu", ...rows].join("\n");
  const picture = pngFile("figures.png", figureSheet(4, 2));
  await openStudio(page);
  await goTo(page, "Ship");
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    part(page).getByRole("button", { name: "Learn from a file" }).click(),
  ]);
  await chooser.setFiles([
    { name: "figures.csv", mimeType: "text/plain", buffer: Buffer.from(table) },
    { name: picture.name, mimeType: "image/png", buffer: Buffer.from(picture.bytes) },
  ]);
  const dialog = page.getByRole("dialog", { name: "In the shape of figures.csv" });
  await expect(dialog.getByRole("row", { name: /ka.*height/ })).toBeVisible();
  await expect(dialog.getByRole("row", { name: /nu.*x/ })).toBeVisible();
  await page.keyboard.press("Escape");

  const files = await zipNow(page);
  const { atlas } = atlasOf(files);
  const written = text(files, "tamarisk.csv").trim().split("\n");
  expect(written[0]).toBe("nomo;ka;lo;mi;nu");
  const places = written.slice(1).map((line) => {
    const [name, ...sides] = line.split(";");
    const [h, w, y, x] = numbers(sides);
    return [name, x, y, w, h];
  });
  expect(places).toEqual(rects(atlas));
});

test("a file without structure is refused with what was looked for, and nothing is changed", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Ship");
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    part(page).getByRole("button", { name: "Learn from a file" }).click(),
  ]);
  await chooser.setFiles([{ name: "letter.txt", mimeType: "text/plain", buffer: Buffer.from("Dear porter, the lamps are low.") }]);
  await expect(
    page.getByText(/letter\.txt: Read as table, looked for x, y, width and height.* Give the file that lists where each frame lies/),
  ).toBeVisible();
  await expect(page.getByRole("combobox", { name: "Example" })).toHaveCount(0);
});

test("an unknown field stops the delivery until a person assigns its meaning, and is then written accordingly", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Ship");
  await expect(page.getByTestId("proof")).toBeVisible();
  const bales = [
    { label: "a", left: 2, top: 2, width: 20, height: 34, reachX: 7.5, serial: 70117 },
    { label: "b", left: 24, top: 2, width: 22, height: 33, reachX: 9, serial: 4 },
    { label: "c", left: 50, top: 2, width: 19, height: 35, reachX: 4.5, serial: 33331 },
  ];
  await learnFrom(page, "bales.json", JSON.stringify({ bales }));
  const findings = page.getByRole("region", { name: "Findings", exact: true });
  await expect(findings).toContainText("bales.*.reachX differs from frame to frame and means nothing that is known");
  await expect(page.getByRole("button", { name: /ZIP/ })).toBeDisabled();
  await part(page).getByRole("button", { name: "Its fields" }).click();
  const dialog = page.getByRole("dialog", { name: "In the shape of bales.json" });
  await choose(page, dialog.getByRole("combobox", { name: "What bales › each › reachX means" }), "origin, x");
  await expect(dialog.getByRole("region", { name: "Not understood" })).toContainText("They are written as set here.");
  await page.keyboard.press("Escape");
  const files = await zipNow(page);
  const { atlas } = atlasOf(files);
  const written: { bales: { label: string; reachX: number }[] } = JSON.parse(text(files, "tamarisk.json"));
  for (const { label, reachX } of written.bales) expect(reachX).toBe(atlas.frames[label]?.origin.x);
  // It is kept with the project, and can be undone by name.
  await page.reload();
  await expect(page.getByTestId("proof")).toBeVisible();
  await page.getByRole("button", { name: "Undo: set the meaning of bales.*.reachX in bales.json" }).click();
  await expect(findings).toContainText("bales.*.reachX");
});
