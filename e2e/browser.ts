import { existsSync } from "node:fs";

/**
 * Debian's two builds of Chromium. The headless shell has no windows, menus or built-in pages, so a test needs a quarter less processor
 * time; everything that a page can do is the same.
 */
const BUILDS = ["/usr/bin/chromium-headless-shell", "/usr/bin/chromium"];

/** The browser that tests and benches drive: Debian's Chromium, quiet and without a graphics card. */
export const BROWSER = {
  executablePath: process.env.CHROMIUM ?? BUILDS.find((path) => existsSync(path)) ?? "/usr/bin/chromium",
  args: [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ],
};
