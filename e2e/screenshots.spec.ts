import { readFileSync } from "node:fs";
import { join } from "node:path";
import { KEYED } from "../packages/core/src/example/examples.fixture";
import { expect, test } from "./fixtures";
import { dropFiles, goTo, openStudio } from "./studio";

test.use({ moving: true });

/** Refreshes docs/screenshots from the demo: `npm run screenshots`. Not part of the tests. */
const to = (name: string) => join(import.meta.dirname, "../docs/screenshots", `${name}.png`);

for (const [scheme, suffix] of [
  ["light", "day"],
  ["dark", "dusk"],
] as const)
  test(`the views in ${suffix}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: scheme });
    await openStudio(page);
    await goTo(page, "Sources");
    await expect(page.getByText("41 colours").first()).toBeVisible();
    await page.screenshot({ path: to(`sources-${suffix}`) });

    await goTo(page, "Frames");
    await page.getByRole("button", { name: "Pick row 2" }).click();
    await page.mouse.move(470, 420);
    await page.waitForTimeout(400);
    await page.screenshot({ path: to(`frames-${suffix}`) });

    await page
      .getByRole("list", { name: "Sheets" })
      .getByRole("button", { name: /^camel/ })
      .click();
    await page.waitForTimeout(500);
    await page.screenshot({ path: to(`outlines-${suffix}`) });

    await page.keyboard.press("Escape");
    await goTo(page, "Clips");
    await page.getByRole("button", { name: /^Step 2:/ }).click();
    await page.getByRole("button", { name: /^Step 4:/ }).click({ modifiers: ["Shift"] });
    await page.getByRole("textbox", { name: "Milliseconds of the chosen steps" }).fill("140");
    await page.keyboard.press("Enter");
    await page.mouse.move(600, 560);
    await page.waitForTimeout(600);
    await page.screenshot({ path: to(`clips-${suffix}`) });

    // One bench or the rose in each light: they look alike in both.
    await page.keyboard.press("Escape");
    if (suffix === "day") {
      await page.getByRole("radio", { name: "Compare" }).click();
      await page.waitForTimeout(400);
      await page.screenshot({ path: to("compare-day") });
    } else {
      await page.getByRole("radio", { name: "Flick" }).click();
      await page.waitForTimeout(400);
      await page.screenshot({ path: to("flick-dusk") });
      await page.getByRole("list", { name: "Actions" }).getByRole("button", { name: /^walk/ }).click();
      await page.waitForTimeout(600);
      await page.screenshot({ path: to("rose-dusk") });
    }

    await goTo(page, "Marks");
    if (suffix === "dusk") await page.getByRole("list", { name: "Marks" }).getByRole("button", { name: /^body/ }).click();
    await page.waitForTimeout(600);
    await page.screenshot({ path: to(suffix === "day" ? "origin-day" : "marks-dusk") });

    await goTo(page, "Ship");
    await expect(page.getByTestId("proof")).toBeVisible();
    await page.waitForTimeout(300);
    await page.screenshot({ path: to(`ship-${suffix}`) });
    if (suffix === "day") {
      const [chooser] = await Promise.all([
        page.waitForEvent("filechooser"),
        page.getByRole("button", { name: "Learn from a file" }).click(),
      ]);
      await chooser.setFiles([{ name: "hero.json", mimeType: "application/json", buffer: Buffer.from(KEYED) }]);
      await page.getByRole("dialog", { name: "In the shape of hero.json" }).waitFor();
      await page.waitForTimeout(300);
      await page.screenshot({ path: to("example-day") });
      await page.keyboard.press("Escape");
    } else {
      const [game] = await Promise.all([page.waitForEvent("popup"), page.getByRole("link", { name: "Play it in The Crossing" }).click()]);
      await game.emulateMedia({ colorScheme: scheme });
      await expect(game.locator("#told")).toHaveText("idle · looks s");
      await game.keyboard.down("ArrowRight");
      await game.waitForTimeout(700);
      await game.screenshot({ path: to("crossing-dusk") });
      await game.close();
    }

    const raw = (name: string) => ({ name, bytes: new Uint8Array(readFileSync(join(import.meta.dirname, "../examples/raw", name))) });
    const banner = Array.from({ length: 12 }, (_, k) => raw(`banner${k + 1}.png`));
    await dropFiles(page, [raw("bazaar.png"), raw("bazaar.json"), ...banner, raw("well.gif"), raw("porter-on-white.png")]);
    await page.getByRole("dialog", { name: "What came in" }).waitFor();
    await page.waitForTimeout(500);
    await page.screenshot({ path: to(`arrival-${suffix}`) });
  });
