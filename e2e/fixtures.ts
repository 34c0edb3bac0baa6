/**
 * The browser that specs share: one context for each worker, which stays warm, with its storage wiped before every test. So pages come
 * out of the cache, and every test begins in an empty browser all the same.
 */
import { type BrowserContext, test as base } from "@playwright/test";

interface Each {
  /** Whether the player moves by itself. It stands still where motion is not the subject: drawing it takes half of a core. */
  readonly moving: boolean;
  /** A context of the test's own, for options that a context is born with. */
  readonly ownContext: boolean;
}

interface ForWorker {
  readonly warm: BrowserContext;
}

export const test = base.extend<Each, ForWorker>({
  moving: [false, { option: true }],
  ownContext: [false, { option: true }],
  warm: [
    async ({ browser }, use, { project }) => {
      const { baseURL, viewport } = project.use;
      const context = await browser.newContext({
        acceptDownloads: true,
        reducedMotion: "reduce",
        ...(baseURL === undefined ? {} : { baseURL }),
        ...(viewport === undefined ? {} : { viewport }),
      });
      await use(context);
      await context.close();
    },
    { scope: "worker" },
  ],
  context: async ({ warm, browser, contextOptions, ownContext, deviceScaleFactor, viewport, baseURL }, use) => {
    if (ownContext) {
      const context = await browser.newContext({
        ...contextOptions,
        ...(deviceScaleFactor === undefined ? {} : { deviceScaleFactor }),
        ...(baseURL === undefined ? {} : { baseURL }),
        ...(viewport === undefined ? {} : { viewport }),
        acceptDownloads: true,
      });
      await use(context);
      await context.close();
      return;
    }
    await use(warm);
    await Promise.all(warm.pages().map((page) => page.close()));
  },
  page: async ({ context, moving, colorScheme, baseURL }, use) => {
    const page = await context.newPage();
    const session = await context.newCDPSession(page);
    await session.send("Storage.clearDataForOrigin", {
      origin: new URL(baseURL ?? "").origin,
      storageTypes: "indexeddb,local_storage,file_systems",
    });
    await session.detach();
    await page.emulateMedia({ reducedMotion: moving ? "no-preference" : "reduce", colorScheme: colorScheme ?? "light" });
    await use(page);
  },
});

export { type BrowserContext, type Download, expect, type Locator, type Page } from "@playwright/test";
