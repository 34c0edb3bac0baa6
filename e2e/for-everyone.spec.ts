import { clearPixels } from "@caravan/core/raster";
import { KEYED } from "../packages/core/src/example/examples.fixture";
import { violationsOn } from "./axe";
import { expect, type Locator, type Page, test } from "./fixtures";
import { dropAndCut, dropFiles, goTo, openEmpty, openStudio, startProject } from "./studio";

/** Checks the whole page, or only a part of it if the rest was checked before, by day and by dusk. */
async function expectNothingFound(page: Page, part?: string): Promise<void> {
  expect(await violationsOn(page, { part })).toEqual([]);
  // Dusk has other colours and is otherwise the same.
  await page.emulateMedia({ colorScheme: "dark" });
  expect(await violationsOn(page, { part, rules: ["color-contrast"] })).toEqual([]);
  await page.emulateMedia({ colorScheme: "light" });
}

test.describe("by day and by dusk", () => {
  test("every stop of the demo passes", async ({ page }) => {
    await openStudio(page);
    for (const stop of ["Sources", "Frames", "Clips", "Marks", "Rehearse", "Ship"] as const) {
      await goTo(page, stop);
      if (stop === "Frames") await page.getByRole("button", { name: "Pick row 1" }).click();
      if (stop === "Clips") await page.getByRole("button", { name: /^Step 1:/ }).click();
      if (stop === "Ship") await expect(page.getByTestId("proof")).toBeVisible();
      await expectNothingFound(page);
    }
  });

  test("the bench where frames are put together passes", async ({ page }) => {
    await openEmpty(page);
    const parts = clearPixels(32, 8);
    for (let k = 0; k < 32 * 8; k++) parts.bytes.set([40 + ((k % 32) >> 3) * 60, 120, 90, 255], k * 4);
    await dropAndCut(page, "parts.png", parts, 4, 1);
    await goTo(page, "Frames");
    await page.getByRole("button", { name: "Put together from pieces" }).click();
    await page.getByRole("list", { name: "Pieces" }).getByRole("button").first().click();
    await page.getByTestId("bench").click();
    await page.keyboard.press("Escape");
    await page.getByTestId("bench").click();
    await page.getByRole("button", { name: "New palette …" }).click();
    await page.getByRole("button", { name: "All ramps" }).click();
    await expectNothingFound(page);
    await page.getByRole("button", { name: "Make it" }).click();
    await page.getByRole("button", { name: "New palette …" }).click();
    await page.getByRole("combobox", { name: "What the new palette replaces" }).click();
    await page.getByRole("option", { name: "replaces parts" }).click();
    await page.getByRole("button", { name: "Make it" }).click();
    await page.getByRole("button", { name: "Count tiles and colours" }).click();
    await expect(page.getByText(/tiles? drawn/)).toBeVisible();
    await page.getByRole("button", { name: "Find near-duplicate pieces" }).click();
    await expect(page.getByRole("list", { name: "Stack" }).getByRole("listitem")).toHaveCount(1);
    await expectNothingFound(page);
    await goTo(page, "Sources");
    await expectNothingFound(page);
  });

  test("an example's fields, a contact sheet, many findings and the game pass", async ({ page }) => {
    await openStudio(page);
    await goTo(page, "Ship");
    await page.getByRole("checkbox", { name: "contact sheet for people" }).click();
    await page.getByRole("button", { name: "Preview tamarisk.contact-0.png" }).click();
    await expect(page.getByRole("img", { name: /^Every clip with its steps/ })).toBeVisible();
    await expectNothingFound(page, '[role="dialog"]');
    await page.keyboard.press("Escape");
    const [chooser] = await Promise.all([
      page.waitForEvent("filechooser"),
      page.getByRole("button", { name: "Learn from a file" }).click(),
    ]);
    await chooser.setFiles([{ name: "hero.json", mimeType: "application/json", buffer: Buffer.from(KEYED) }]);
    await expect(page.getByRole("dialog", { name: "In the shape of hero.json" })).toBeVisible();
    await expectNothingFound(page, '[role="dialog"]');
    await page.keyboard.press("Escape");
    const [game] = await Promise.all([page.waitForEvent("popup"), page.getByRole("link", { name: "Play it in The Crossing" }).click()]);
    await expect(game.locator("#told")).toHaveText("stand · looks s");
    await expectNothingFound(game);
  });

  test("every bench at Clips passes", async ({ page }) => {
    await openStudio(page);
    await goTo(page, "Clips");
    for (const bench of ["Flick", "Compare", "Rhythm"]) {
      await page.getByRole("radio", { name: bench, exact: true }).click();
      await expect(page.getByRole("radio", { name: bench, exact: true })).toBeChecked();
      if (bench === "Rhythm") await expect(page.getByRole("figure")).toBeVisible();
      await expectNothingFound(page, 'section[aria-label="Clips"]');
    }
    await page.getByRole("button", { name: "Stage" }).click();
    await expectNothingFound(page, '[role="dialog"]');
  });

  test("boxes, points and outlines at Marks pass", async ({ page }) => {
    await openStudio(page);
    await goTo(page, "Marks");
    for (const kind of ["body", "brow"]) {
      await page
        .getByRole("list", { name: "Marks" })
        .getByRole("button", { name: new RegExp(kind) })
        .click();
      await expect(page.getByRole("textbox", { name: "Name of the marks" })).toHaveValue(kind);
      await expectNothingFound(page);
    }
    await page.getByRole("button", { name: "New outlines" }).click();
    await expect(page.getByRole("status").filter({ hasText: "Traced." })).toBeVisible();
    await page.keyboard.press("Enter");
    await page.keyboard.press("c");
    await expect(page.getByRole("textbox", { name: "Corner x" })).toBeVisible();
    await expectNothingFound(page);
  });

  test("an open menu, an open list of choices and a tooltip pass", async ({ page }) => {
    await openStudio(page);
    await goTo(page, "Clips");
    await page.getByRole("button", { name: /^Step 1:/ }).click({ button: "right" });
    await expect(page.getByRole("menu")).toBeVisible();
    await expectNothingFound(page, '[role="menu"]');
    await page.keyboard.press("Escape");
    await page.getByRole("combobox", { name: "speed" }).click();
    await expect(page.getByRole("option", { name: "2×", exact: true })).toBeVisible();
    await expectNothingFound(page, "[data-overlay]");
    await page.keyboard.press("Escape");
    await page.getByRole("button", { name: "Next step" }).hover();
    await expect(page.getByRole("tooltip")).toHaveText(/Next step/);
    await expectNothingFound(page, '[data-region="player"]');
  });

  test("an action and how it is made pass", async ({ page }) => {
    await openStudio(page);
    await goTo(page, "Clips");
    await page.getByRole("list", { name: "Actions" }).getByRole("button", { name: /^idle/ }).click();
    await expect(page.getByRole("region", { name: "Wind rose of idle" })).toBeVisible();
    await expectNothingFound(page);
    for (const way of ["By names …", "By rows …"]) {
      await page.getByRole("button", { name: way }).click();
      await expect(page.getByRole("dialog")).toBeVisible();
      await expectNothingFound(page, '[role="dialog"]');
      await page.keyboard.press("Escape");
    }
  });

  test("empty stops, dialogs and errors pass", async ({ page }) => {
    await openStudio(page);
    await page.keyboard.press("?");
    await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
    await expectNothingFound(page);
    await page.keyboard.press("Escape");
    await page.keyboard.press("p");
    await expect(page.getByRole("dialog", { name: "Projects" })).toBeVisible();
    await expectNothingFound(page);
    await page.keyboard.press("Escape");
    await startProject(page);
    await dropFiles(page, [{ name: "words.png", bytes: new TextEncoder().encode("words") }]);
    for (const stop of ["Sources", "Frames", "Clips", "Marks", "Rehearse", "Ship"] as const) {
      await goTo(page, stop);
      await expectNothingFound(page);
    }
  });
});

test("the keys panel lists what works at each stop, and the keys do it", async ({ page }) => {
  await openStudio(page);
  for (const [key, group] of [
    ["1", "Sources"],
    ["2", "The sheet"],
    ["3", "The clip"],
    ["4", "The origin"],
    ["5", "Rehearsing"],
    ["6", "Ship"],
  ] as const) {
    await page.keyboard.press(key);
    await page.keyboard.press("?");
    await expect(page.getByRole("dialog").getByRole("heading", { name: group, exact: true })).toBeVisible();
    await page.keyboard.press("Escape");
  }
});

test("day and dusk follow the system until one is chosen, and the choice is remembered", async ({ page }) => {
  const paper = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  await page.emulateMedia({ colorScheme: "light" });
  await openStudio(page);
  await expect.poll(paper).toBe("rgb(247, 242, 232)");
  await goTo(page, "Frames");
  const canvas = page.getByTestId("sheet").locator("canvas").first();
  const drawn = () => canvas.evaluate((each: HTMLCanvasElement) => each.toDataURL());
  const byDay = await drawn();
  await page.emulateMedia({ colorScheme: "dark" });
  await expect.poll(paper).toBe("rgb(29, 27, 36)");
  // What is drawn on canvases follows at once, before anything else happens there.
  await expect.poll(drawn).not.toBe(byDay);
  await page.getByRole("button", { name: "Go to day" }).click();
  await expect.poll(paper).toBe("rgb(247, 242, 232)");
  await page.reload();
  await expect(page.getByTestId("sheet")).toBeVisible();
  await expect.poll(paper).toBe("rgb(247, 242, 232)");
});

test("where the system forces its own colours, what is chosen, current and picked still shows, and changes with them", async ({ page }) => {
  const groundOf = (of: Locator) => of.evaluate((element) => getComputedStyle(element).backgroundColor);
  /** How many pixels of the sheet's canvas have nearly the colour of what is picked. */
  const picked = () =>
    page
      .getByTestId("sheet")
      .locator("canvas")
      .evaluate((canvas: HTMLCanvasElement) => {
        const one = new OffscreenCanvas(1, 1).getContext("2d") as OffscreenCanvasRenderingContext2D;
        one.fillStyle = getComputedStyle(document.querySelector('[data-testid="now-colour"]') as Element).color;
        one.fillRect(0, 0, 1, 1);
        const now = one.getImageData(0, 0, 1, 1).data;
        const { data } = (canvas.getContext("2d") as CanvasRenderingContext2D).getImageData(0, 0, canvas.width, canvas.height);
        let count = 0;
        for (let at = 0; at < data.length; at += 4)
          if ([0, 1, 2].every((k) => Math.abs((now[k] as number) - (data[at + k] as number)) < 60)) count++;
        return count;
      });
  await openStudio(page);
  await goTo(page, "Frames");
  await page.getByRole("button", { name: "Pick row 1" }).click();
  await page.evaluate(() => {
    const probe = document.createElement("i");
    probe.dataset.testid = "now-colour";
    probe.style.color = "var(--now)";
    document.body.append(probe);
  });
  expect(await picked()).toBeGreaterThan(500);
  await page.emulateMedia({ forcedColors: "active", colorScheme: "dark" });
  await expect.poll(() => page.evaluate(() => getComputedStyle(document.body).backgroundColor)).toBe("rgb(0, 0, 0)");
  // What is painted is painted anew in the system's colours.
  await expect.poll(picked).toBeGreaterThan(500);
  expect(await groundOf(page.getByRole("radio", { name: "Cells" }))).not.toBe(await groundOf(page.getByRole("radio", { name: "Regions" })));
  for (const stop of ["Clips", "Marks", "Rehearse"] as const) {
    await goTo(page, stop);
    expect(await violationsOn(page)).toEqual([]);
  }
});
