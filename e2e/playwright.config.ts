import { join } from "node:path";
import { defineConfig } from "@playwright/test";
import { BROWSER } from "./browser";

const root = join(import.meta.dirname, "..");
/** Another port lets one run go beside another. */
const port = Number(process.env.STUDIO_PORT ?? 4680);
const reports = process.env.CARAVAN_REPORTS;

/** Specs whose tests take longest: they go first, so that no worker is left with a long one while the other has nothing to do. */
const SLOW = /(for-everyone|deliveries|the-crossing|played-in-the-crossing|nothing-is-lost|movement-by-keys|same-bytes)\.spec\.ts$/;
const HIDDEN = process.env.SCREENSHOTS ? [] : ["screenshots.spec.ts"];

/** Drives the built studio in Debian's Chromium, as a person would. */
export default defineConfig({
  testDir: ".",
  globalSetup: [join(root, "scripts/test-command.mjs"), join(import.meta.dirname, "warm-up.ts")],
  projects: [
    { name: "slow", testMatch: SLOW },
    { name: "fast", testIgnore: [SLOW, ...HIDDEN] },
  ],
  outputDir: join(root, ".test/browser"),
  timeout: 150_000,
  expect: { timeout: 30_000 },
  // A busy machine may starve a browser for seconds. What passes only at the second try has to pass five more.
  retries: process.env.CI ? 1 : 0,
  workers: 2,
  fullyParallel: true,
  reporter: reports ? [["list"], ["json", { outputFile: join(reports, "browser.json") }]] : [["list"]],
  use: {
    baseURL: `http://localhost:${port}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // Every test begins with an empty browser, and caching the studio takes a while; one spec is about that.
    serviceWorkers: "block",
    launchOptions: BROWSER,
  },
  webServer: {
    command: `node ${join(root, "scripts/serve-studio.mjs")}`,
    url: `http://localhost:${port}`,
    reuseExistingServer: false,
    env: { HOST: "localhost", PORT: String(port), NODE_ENV: "production", NEXT_TELEMETRY_DISABLED: "1" },
  },
});
