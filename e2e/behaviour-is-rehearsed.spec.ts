import { readFileSync } from "node:fs";
import { readBundle } from "@caravan/core/bundle";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { expect, type Page, test } from "./fixtures";
import { dropFiles, goTo, openEmpty, openStudio, pngFile, typeNumber } from "./studio";

/** A walker with four frames and a stander with two, in a file each, named as people would. */
function walker(frames: number, shade: number): Pixels {
  const sheet = clearPixels(frames * 24, 32);
  for (let frame = 0; frame < frames; frame++)
    for (let y = 6; y < 32; y++)
      for (let x = 8; x < 16; x++) {
        const lean = y > 22 ? (frame % 2 === 0 ? 2 : -2) : 0;
        sheet.bytes.set([shade, 90 + frame * 30, (y * 7) % 256, 255], (y * sheet.width + frame * 24 + x + lean) * 4);
      }
  return sheet;
}

/** What shows on the stage, as reported by the canvas: rule, clip and time. */
const shows = async (page: Page) => {
  const stage = page.getByTestId("rehearsal");
  return { rule: await stage.getAttribute("data-rule"), clip: await stage.getAttribute("data-clip") };
};
/** The rule shows now, and stays until something is done. */
const expectRule = (page: Page, rule: string) => expect(page.getByTestId("rehearsal")).toHaveAttribute("data-rule", rule);
/** The rule has shown: what lasts for a moment only may be over before one looks. */
const expectShown = (page: Page, rule: string) =>
  expect(
    page
      .getByRole("list", { name: "What showed and why" })
      .getByRole("listitem")
      .filter({ hasText: `s: ${rule} plays ` }),
  ).not.toHaveCount(0);

/** A project with the clips idle, walk and strike, which plays once. */
async function withClips(page: Page): Promise<void> {
  await openEmpty(page);
  await dropFiles(page, [
    pngFile("hero-idle-0.png", walker(1, 40)),
    pngFile("hero-idle-1.png", walker(1, 60)),
    ...[0, 1, 2, 3].map((k) => pngFile(`hero-walk-${k}.png`, walker(1, 100 + k * 20))),
    ...[0, 1, 2].map((k) => pngFile(`hero-strike-${k}.png`, walker(1, 200 + k * 20))),
  ]);
  await page.getByRole("button", { name: /^Import/ }).click();
  await goTo(page, "Clips");
  await page
    .getByRole("list", { name: "Clips" })
    .getByRole("button", { name: /strike/ })
    .click();
  await page.keyboard.press("o");
  // Long enough to be seen by a test on a busy machine.
  await typeNumber(page, "Milliseconds a step", 500);
}

async function propose(page: Page): Promise<void> {
  await goTo(page, "Rehearse");
  await page.getByRole("button", { name: "Rehearse it" }).click();
  await expect(page.getByTestId("rehearsal")).toBeVisible();
}

test("from clips to driving in two actions, and back to standing when the key is let go", async ({ page }) => {
  await withClips(page);
  await propose(page);
  await expectRule(page, "hero-idle");
  await page.keyboard.down("ArrowRight");
  await expectRule(page, "hero-walk");
  const before = await page.getByTestId("rehearsal").screenshot();
  await page.waitForTimeout(400);
  expect(Buffer.compare(before, await page.getByTestId("rehearsal").screenshot())).not.toBe(0);
  await page.keyboard.up("ArrowRight");
  await expectRule(page, "hero-idle");
  await expect(page.getByRole("list", { name: "What showed and why" })).toContainText("hero-walk plays hero-walk, an input");
  // The rule that shows is lit, the others say why they do not show.
  const rules = page.getByRole("list", { name: "Rules" });
  await expect(rules.locator('[data-rule="hero-walk"]')).toContainText("not now: speed is 0");
  await expect(rules.locator('[data-rule="hero-idle"]')).toContainText("shows since");
});

test("a blow shows for its whole length, can be cut by the rules that may cut it, and lasts at least its time", async ({ page }) => {
  await withClips(page);
  await propose(page);
  await page.keyboard.press("Space");
  await expectShown(page, "hero-strike");
  await page.keyboard.down("ArrowRight");
  await page.waitForTimeout(60);
  await expectRule(page, "hero-walk");
  await page.keyboard.up("ArrowRight");
  const starts = page.getByRole("list", { name: "What showed and why" });
  await expect(starts).toContainText("hero-walk plays hero-walk, what was kept or played has ended");

  // Walking may cut it from now on.
  const rules = page.getByRole("list", { name: "Rules" });
  await rules.getByRole("button", { name: "hero-strike", exact: true }).first().click();
  await page.getByRole("button", { name: "cut by …" }).click();
  await page.getByRole("dialog", { name: "Rules that may cut it" }).getByRole("checkbox", { name: "hero-walk" }).click();
  await page.keyboard.press("Escape");
  await expect(rules.locator('[data-rule="hero-strike"]')).toContainText("hero-walk may cut it");
  await page.getByTestId("rehearsal").click({ position: { x: 5, y: 5 }, modifiers: ["Shift"] });
  await page.keyboard.press("Home");
  await page.keyboard.press("Space");
  await page.keyboard.down("ArrowRight");
  await expectRule(page, "hero-walk");
  await page.keyboard.up("ArrowRight");
  await expect(starts.getByRole("listitem").filter({ hasText: "hero-walk plays hero-walk" }).last()).toContainText("an input");
});

test("entering a zone arms the figure: other clips show from then on, with an effect at the zone", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Rehearse");
  await expectRule(page, "stand");
  await page.keyboard.down("ArrowRight");
  await expectShown(page, "walk");
  await expectRule(page, "walk with the lamp");
  expect((await shows(page)).clip).toBe("lamp-walk-e");
  await page.keyboard.up("ArrowRight");
  await expectRule(page, "stand with the lamp");
  await expect(page.getByText("the figure is in it")).toBeVisible();
  await page.keyboard.press("Space");
  await expectRule(page, "stand");
  await expect(page.getByRole("list", { name: "Inputs" })).toContainText("off");
});

test("a kept drive is replayed after a change, and differences are marked; undo removes them", async ({ page }) => {
  await withClips(page);
  await propose(page);
  await page.keyboard.press("r");
  await page.keyboard.press("Space");
  await expectShown(page, "hero-strike");
  await expectRule(page, "hero-idle");
  await page.keyboard.press("r");
  await expect(page.getByText("Same as when it was kept.")).toBeVisible();
  await page.getByRole("textbox", { name: "Name of the drive" }).fill("one blow");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Drives" }).getByRole("button", { name: /one blow/ })).toBeVisible();

  await goTo(page, "Clips");
  await typeNumber(page, "Milliseconds a step", 50);
  await goTo(page, "Rehearse");
  await page
    .getByRole("list", { name: "Drives" })
    .getByRole("button", { name: /one blow/ })
    .click();
  await expect(page.getByText(/^Differs from when it was kept, from \d/)).toBeVisible();
  await page.keyboard.press("Control+z");
  await expect(page.getByText("Same as when it was kept.")).toBeVisible();
  // A reload has it all.
  await page.reload();
  await page
    .getByRole("list", { name: "Drives" })
    .getByRole("button", { name: /one blow/ })
    .click();
  await expect(page.getByText("Same as when it was kept.")).toBeVisible();
});

test("an effect leaves the point of the frame, on the step of its event", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Rehearse");
  await page.getByRole("list", { name: "Stages" }).getByRole("button", { name: "ridge" }).click();
  await page.getByRole("button", { name: "New effect" }).click();
  const pick = async (label: string, option: string) => {
    await page.getByRole("combobox", { name: label }).last().click();
    await page.getByRole("option", { name: option, exact: true }).click();
  };
  await pick("Event of dust-whirl", "when footfall comes");
  await pick("Where dust-whirl begins", "at brow");
  await page.getByRole("button", { name: "Restart" }).click();
  await page.keyboard.down("ArrowRight");
  await expectRule(page, "walk");
  const stage = page.getByTestId("rehearsal");
  await expect.poll(() => stage.getAttribute("data-at").then(Number)).toBeGreaterThan(1500);
  await page.keyboard.up("ArrowRight");
  await page.keyboard.press("Enter");
  // The first footfall is on step 2 of the walk, which begins with the idle's own time: 200 ms after the start of a step.
  const lanes = page.getByTestId("lanes");
  const { width } = (await lanes.boundingBox()) as { width: number };
  const at = async (ms: number) => {
    const span = Math.max(6000, Number(await lanes.getAttribute("data-end")));
    await lanes.click({ position: { x: 58 + (ms / span) * (width - 58), y: 8 } });
    await page.mouse.move(10, 300);
    await expect.poll(async () => Math.abs(Number(await stage.getAttribute("data-at")) - ms)).toBeLessThan(12);
    // Only sky is above his turban while he walks.
    return stage.evaluate((canvas: HTMLCanvasElement) => {
      const { data } = (canvas.getContext("2d") as CanvasRenderingContext2D).getImageData(0, 0, canvas.width, (150 - 50) * 2);
      return data.reduce((sum, each) => (sum * 31 + each) % 1_000_003, 7);
    });
  };
  const footfall = Number(await lanes.getAttribute("data-first-event"));
  const before = await at(footfall - 120);
  expect(await at(footfall - 20)).toBe(before);
  // The dust is attached to his brow, and so rises above it.
  expect(await at(footfall + 300)).not.toBe(before);
});

test("sliding feet are shown, and one click sets the speed at which they do not slide", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Rehearse");
  const card = page.getByRole("region", { name: "Feet against ground" });
  await expect(card).toContainText("Feet stay where they are");
  await page.getByRole("textbox", { name: "top speed, px/s" }).fill("55");
  await page.keyboard.press("Enter");
  await expect(card).toContainText("Feet slide 2.5 px a step");
  await goTo(page, "Ship");
  await expect(page.getByText("Planted feet of lamp-walk-e slide by up to 2.5 px a step at 55 px/s; at 30 px/s by 0 px.")).toBeVisible();
  await goTo(page, "Rehearse");
  await card.getByRole("button", { name: "Walk at 30 px/s" }).click();
  await expect(card).toContainText("They slide 0 px at most");
});

test("keys can be reassigned, rules move by key, and everything is undone by name", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Rehearse");
  await page.getByRole("button", { name: "Key for act" }).click();
  await page.keyboard.press("g");
  await expect(page.getByRole("button", { name: "Key for act" })).toHaveText("G");
  await expect(page.getByRole("button", { name: "Undo: change the keys of camp" })).toBeVisible();
  // A zone is drawn with the pointer; with keys it appears in front of the figure.
  await page.getByRole("button", { name: "Draw a zone" }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "x of zone", exact: true })).toHaveValue("160");
  await page.keyboard.press("Control+z");
  await page.getByRole("button", { name: "Move the rule stand", exact: true }).focus();
  await page.keyboard.press("ArrowUp");
  await expect(page.getByRole("button", { name: "Undo: move the rule stand to place 6" })).toBeVisible();
  // Below what always holds, nothing shows any more: it is said, with its mending.
  await expect(page.getByRole("list", { name: "Findings on this behaviour" })).toContainText("It is below stand, which always holds");
  await page.getByRole("button", { name: "Move it above stand" }).click();
  await expect(page.getByRole("list", { name: "Findings on this behaviour" })).toBeHidden();
});

test("one display refresh forward and back shows the same again", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Rehearse");
  await page.getByRole("list", { name: "Drives" }).getByRole("button").first().click();
  const stage = page.getByTestId("rehearsal");
  await expect(stage).toHaveAttribute("data-at", "20000");
  await page.getByTestId("lanes").click({ position: { x: 250, y: 8 } });
  await expect(stage).not.toHaveAttribute("data-at", "20000");
  const at = await stage.getAttribute("data-at");
  await page.mouse.move(10, 10);
  await expect(stage).toHaveAttribute("data-at", String(at));
  const before = await stage.screenshot();
  for (const key of [".", ".", ",", ","]) await page.keyboard.press(key);
  await expect.poll(async () => Buffer.compare(before, await stage.screenshot())).toBe(0);
});

test("behaviour, stage and drive are in the saved file", async ({ page }) => {
  await withClips(page);
  await propose(page);
  await page.keyboard.press("r");
  await page.keyboard.press("Space");
  await expectShown(page, "hero-strike");
  await page.keyboard.press("r");
  const [download] = await Promise.all([page.waitForEvent("download"), page.keyboard.press("Control+s")]);
  const { project } = readBundle(new Uint8Array(readFileSync(await download.path())), "saved");
  expect(project.behaviours?.map(({ rules }) => rules.map(({ name }) => name))).toEqual([["hero-strike", "hero-walk", "hero-idle"]]);
  expect(project.stages?.map(({ behaviour }) => behaviour)).toEqual(project.behaviours?.map(({ name }) => name));
  expect(project.drives?.[0]?.track.some((entry) => "press" in entry && entry.press === "hero-strike")).toBe(true);
});

test("zones and others are dragged over the stage, and resized by an edge; the figure stays where it is", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Rehearse");
  await expectRule(page, "stand");
  await page.getByRole("button", { name: "Move things" }).click();
  const stage = page.getByTestId("rehearsal");
  const box = (await stage.boundingBox()) as { x: number; y: number; width: number };
  const zoom = box.width / 320;
  // The camera's corner is at 0, 78 of the world while the figure is at its start.
  const drag = async (from: readonly [number, number], to: readonly [number, number]) => {
    const on = ([x, y]: readonly [number, number]) => [box.x + x * zoom, box.y + (y - 78) * zoom] as const;
    await page.mouse.move(...on(from));
    await page.mouse.down();
    await page.mouse.move(...on(to), { steps: 6 });
    await page.mouse.up();
  };
  const side = (name: string) => page.getByRole("textbox", { name, exact: true });
  await drag([224, 160], [204, 170]);
  await expect(side("x of near the lamp")).toHaveValue("194");
  await expect(side("y of near the lamp")).toHaveValue("160");
  await drag([250, 182], [270, 182]);
  await expect(side("width of near the lamp")).toHaveValue("76");
  await expect(side("x of near the lamp")).toHaveValue("194");
  await drag([242, 170], [222, 186]);
  await expect(side("x of fire")).toHaveValue("222");
  await expect(side("y of fire")).toHaveValue("192");
  await expectRule(page, "stand");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Move things" })).toHaveAttribute("aria-pressed", "false");
  for (let k = 0; k < 3; k++) await page.keyboard.press("Control+z");
  await expect(side("x of near the lamp")).toHaveValue("214");
  await expect(side("x of fire")).toHaveValue("242");
});

test("a running recording is kept before another drive plays", async ({ page }) => {
  await openStudio(page);
  await goTo(page, "Rehearse");
  const drives = page.getByRole("list", { name: "Drives" }).getByRole("button");
  await page.keyboard.press("r");
  await page.keyboard.down("ArrowRight");
  await expectRule(page, "walk");
  await page.keyboard.up("ArrowRight");
  await expectShown(page, "halt");
  await drives.first().click();
  await expect(page.getByText("Kept as drive 2")).toBeVisible();
  await expect(drives).toHaveCount(2);
  await expect(page.getByTestId("rehearsal")).toHaveAttribute("data-at", "20000");
});

test("a gamepad drives: its stick moves the figure, its first button is the first act", async ({ page }) => {
  await page.addInitScript(() => {
    const pad = { connected: true, axes: [0, 0], buttons: Array.from({ length: 16 }, () => ({ pressed: false })) };
    Object.assign(window, { pad });
    navigator.getGamepads = () => [pad as unknown as Gamepad];
  });
  await withClips(page);
  await propose(page);
  await expectRule(page, "hero-idle");
  const work = (axes: number[], pressed: boolean) =>
    page.evaluate(
      ([x, y, down]) => Object.assign((window as unknown as { pad: object }).pad, { axes: [x, y], buttons: [{ pressed: down === 1 }] }),
      [...axes, pressed ? 1 : 0],
    );
  await work([0.9, 0], false);
  await expectRule(page, "hero-walk");
  await work([0, 0], false);
  await expectRule(page, "hero-idle");
  await work([0, 0], true);
  await expectShown(page, "hero-strike");
});
