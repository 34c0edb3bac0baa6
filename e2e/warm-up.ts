import { chromium, type FullConfig } from "@playwright/test";
import { BROWSER } from "./browser";

/**
 * Opens the studio once before the tests: the first visit after a build reads all of the server, the browser and the page from
 * disk, which on a busy machine takes longer than any test waits.
 */
export default async function warmUp({ projects }: FullConfig): Promise<void> {
  const browser = await chromium.launch(BROWSER);
  try {
    const page = await browser.newPage();
    page.setDefaultTimeout(180_000);
    await page.goto(projects[0]?.use.baseURL ?? "/", { timeout: 180_000 });
    await page.getByTestId("sheet").waitFor();
    await page.keyboard.press("3");
    await page.getByRole("region", { name: "Ribbons" }).waitFor();
  } finally {
    await browser.close();
  }
}
