/**
 * Measures the memory of the studio's page while twenty tolerances are tried on a sheet of 4096 × 4096 px, each a picture of 64 MB, and
 * after opening another project. Prints megabytes of the page's process as counted by the system. Needs a built studio.
 */
import { chromium } from "@playwright/test";
import { BROWSER } from "../e2e/browser";
import { dropFiles, goTo, openEmpty, pngFile, typeNumber } from "../e2e/studio";
import { renderersMegabytes, STUDIO, serveStudio } from "./serve";

const SIDE = 4096; // px
const TRIES = 20;

/** A white sheet with figures of noise, so that its background is detected and clearing changes something. */
function sheet() {
  const bytes = new Uint8Array(SIDE * SIDE * 4).fill(255);
  for (let y = 64; y < SIDE; y += 128)
    for (let x = 64; x < SIDE; x += 128)
      for (let k = 0; k < 900; k++)
        bytes.set([(k * 37) % 200, (x / 16) % 200, (y / 16) % 200], ((y + Math.floor(k / 30)) * SIDE + x + (k % 30)) * 4);
  return { width: SIDE, height: SIDE, bytes };
}

const server = await serveStudio();
const browser = await chromium.launch(BROWSER);
try {
  const context = await browser.newContext({ baseURL: STUDIO, viewport: { width: 1280, height: 800 }, reducedMotion: "reduce" });
  const page = await context.newPage();
  page.setDefaultTimeout(60_000);
  await openEmpty(page);
  await dropFiles(page, [pngFile("large.png", sheet())]);
  await page.getByTestId("outcome").waitFor({ timeout: 120_000 });
  await goTo(page, "Sources");
  await page.getByRole("textbox", { name: "Tolerance" }).waitFor();
  await page.waitForTimeout(3000);
  console.log(`with the sheet read: ${renderersMegabytes()} MB`);
  let most = 0;
  for (let k = 1; k <= TRIES; k++) {
    await typeNumber(page, "Tolerance", k * 3);
    await page.waitForTimeout(2500);
    most = Math.max(most, renderersMegabytes());
  }
  console.log(`while ${TRIES} tolerances are tried: at most ${most} MB`);
  await page.waitForTimeout(4000);
  console.log(`afterwards: ${renderersMegabytes()} MB`);
  await page.getByRole("button", { name: "All projects" }).click();
  await page.getByRole("button", { name: "New project" }).click();
  await page.waitForTimeout(4000);
  console.log(`with an empty project open instead: ${renderersMegabytes()} MB`);
} finally {
  await browser.close();
  server.kill();
}
