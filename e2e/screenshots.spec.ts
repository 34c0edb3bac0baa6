import { readFileSync } from "node:fs";
import { join } from "node:path";
import { crop } from "@caravan/core/raster";
import { PORTER_SIZE } from "../examples/draw/porter";
import { KEYED } from "../packages/core/src/example/examples.fixture";
import { expect, test } from "./fixtures";
import { dropFiles, goTo, openEmpty, openStudio, png, pngFile, rawArt } from "./studio";

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
    if (suffix === "day") await page.screenshot({ path: to("sources-day") });

    await goTo(page, "Frames");
    await page.getByRole("button", { name: "Pick row 2" }).click();
    await page.mouse.move(470, 420);
    await page.waitForTimeout(400);
    if (suffix === "day") await page.screenshot({ path: to("frames-day") });

    await page
      .getByRole("list", { name: "Sheets" })
      .getByRole("button", { name: /^camel/ })
      .click();
    await page.waitForTimeout(500);
    if (suffix === "day") await page.screenshot({ path: to("outlines-day") });

    await page.keyboard.press("Escape");
    await page
      .getByRole("list", { name: "Sheets" })
      .getByRole("button", { name: /^bearer\s*\d/ })
      .click();
    await page
      .getByRole("listbox")
      .getByRole("option", { name: /^bearer-lamp-s\/1/ })
      .first()
      .click();
    await page.keyboard.press("Escape");
    await page
      .getByRole("list", { name: "Stack" })
      .getByRole("button", { name: /^head-s/ })
      .click();
    await page.getByRole("combobox", { name: "Ghosts" }).click();
    await page.getByRole("option", { name: "both", exact: true }).click();
    await page.mouse.move(600, 760);
    await page.waitForTimeout(700);
    await page.screenshot({ path: to(`bench-${suffix}`) });
    await page.getByRole("combobox", { name: "Sheet", exact: true }).click();
    await page.getByRole("option", { name: "porter-walk", exact: true }).click();

    await page.keyboard.press("Escape");
    await goTo(page, "Clips");
    await page.getByRole("button", { name: /^Step 2:/ }).click();
    await page.getByRole("button", { name: /^Step 4:/ }).click({ modifiers: ["Shift"] });
    await page.getByRole("textbox", { name: "Milliseconds of the selected steps" }).fill("140");
    await page.keyboard.press("Enter");
    await page.mouse.move(600, 560);
    await page.waitForTimeout(600);
    if (suffix === "day") await page.screenshot({ path: to("clips-day") });

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
    if (suffix === "dusk") {
      await page.getByRole("button", { name: "New outlines" }).click();
      await page.keyboard.type("solid");
      await page.keyboard.press("Enter");
      await expect(page.getByRole("status").filter({ hasText: "Traced." })).toBeVisible();
    }
    await page.waitForTimeout(900);
    await page.screenshot({ path: to(suffix === "day" ? "origin-day" : "marks-dusk") });
    for (let k = 0; suffix === "dusk" && k < 2; k++) await page.keyboard.press("Control+z");

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
      await expect(game.locator("#told")).toHaveText("stand · looks s");
      await game.keyboard.down("ArrowRight");
      await game.waitForTimeout(700);
      await game.screenshot({ path: to("crossing-dusk") });
      await game.close();
    }

    await goTo(page, "Rehearse");
    if (suffix === "day") {
      await page.getByRole("list", { name: "Drives" }).getByRole("button").first().click();
      await page.getByTestId("lanes").click({ position: { x: 243, y: 8 } });
    } else {
      await page.getByRole("list", { name: "Stages" }).getByRole("button", { name: "ridge" }).click();
      await page.keyboard.down("ArrowRight");
      await page.waitForTimeout(3600);
    }
    await page.mouse.move(600, 60);
    await page.waitForTimeout(400);
    await page.screenshot({ path: to(`rehearse-${suffix}`) });
    await page.keyboard.up("ArrowRight");

    // A file with a source's name would be offered as its new art.
    await openEmpty(page);
    if (suffix === "day") {
      const banner = Array.from({ length: 12 }, (_, k) => rawArt(`banner${k + 1}.png`));
      await dropFiles(page, [rawArt("bazaar.png"), rawArt("bazaar.json"), ...banner, rawArt("well.gif"), rawArt("porter-on-white.png")]);
    } else await dropFiles(page, walkingStills());
    await page.getByRole("dialog", { name: "Import review" }).waitFor();
    await page.waitForTimeout(700);
    await page.screenshot({ path: to(suffix === "day" ? "arrival-day" : "facings-dusk") });
  });

/** The porter's walk as stills, named by facing; its west side is left to be mirrored. */
function walkingStills() {
  const art = join(import.meta.dirname, "../examples/tamarisk-road/art/porter-walk.png");
  const sheet = png.decode(new Uint8Array(readFileSync(art)), "porter-walk.png");
  return ["s", "se", "e", "ne", "n"].flatMap((facing, row) =>
    Array.from({ length: 8 }, (_, k) =>
      pngFile(`walk_${facing}_${k + 1}.png`, crop(sheet, { x: k * PORTER_SIZE.w, y: row * PORTER_SIZE.h, ...PORTER_SIZE })),
    ),
  );
}
