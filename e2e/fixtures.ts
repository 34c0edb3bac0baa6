/**
 * The browser that specs share: one per worker, with a profile on disk whose storage is wiped before every test. Scripts come compiled from
 * the profile's cache, which saves more than half of the cost of opening a page.
 */
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type BrowserContext, test as base, chromium } from "@playwright/test";
import { BROWSER } from "./browser";

interface Each {
  /**
   * Whether the player moves by itself; a single test enables it with the tag `@moving`. It stays paused unless motion is the subject,
   * because drawing it takes half of a core.
   */
  readonly moving: boolean;
  /** A context of the test's own, for options that a context is born with. */
  readonly ownContext: boolean;
  /** Whether the browser has never seen Caravan, and shows the introduction. */
  readonly firstVisit: boolean;
}

interface ForWorker {
  readonly warm: BrowserContext;
}

export const test = base.extend<Each, ForWorker>({
  moving: [false, { option: true }],
  ownContext: [false, { option: true }],
  firstVisit: [false, { option: true }],
  warm: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads from the pattern what a fixture needs.
    async ({}, use, { project }) => {
      const { baseURL, viewport } = project.use;
      const profile = mkdtempSync(join(tmpdir(), "caravan-browser-"));
      const context = await chromium.launchPersistentContext(profile, {
        ...BROWSER,
        acceptDownloads: true,
        reducedMotion: "reduce",
        serviceWorkers: "block",
        ...(baseURL === undefined ? {} : { baseURL }),
        ...(viewport === undefined ? {} : { viewport }),
      });
      await use(context);
      await context.close();
      rmSync(profile, { recursive: true, force: true });
    },
    { scope: "worker" },
  ],
  context: async ({ warm, playwright, contextOptions, ownContext, serviceWorkers, deviceScaleFactor, viewport, baseURL }, use) => {
    if (ownContext) {
      const browser = await playwright.chromium.launch(BROWSER);
      const context = await browser.newContext({
        ...contextOptions,
        serviceWorkers,
        ...(deviceScaleFactor === undefined ? {} : { deviceScaleFactor }),
        ...(baseURL === undefined ? {} : { baseURL }),
        ...(viewport === undefined ? {} : { viewport }),
        acceptDownloads: true,
      });
      await use(context);
      await browser.close();
      return;
    }
    await use(warm);
    await Promise.all(warm.pages().map((page) => page.close()));
  },
  page: async ({ context, moving, firstVisit, colorScheme, baseURL }, use, { tags }) => {
    const page = await context.newPage();
    // File windows are caught from the start: one asked for in the moment that a test begins to listen would be refused unseen.
    page.on("filechooser", () => undefined);
    if (!firstVisit) await page.addInitScript(() => localStorage.setItem("caravan-met", "yes"));
    const session = await context.newCDPSession(page);
    await session.send("Storage.clearDataForOrigin", {
      origin: new URL(baseURL ?? "").origin,
      storageTypes: "indexeddb,local_storage,file_systems",
    });
    await session.detach();
    await page.emulateMedia({
      reducedMotion: moving || tags.includes("@moving") ? "no-preference" : "reduce",
      colorScheme: colorScheme ?? "light",
    });
    await use(page);
  },
});

export { type BrowserContext, type Download, expect, type Locator, type Page, type Worker } from "@playwright/test";
