import { spawn } from "node:child_process";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { BROWSER } from "./browser";

const root = join(import.meta.dirname, "..");
const server = spawn("node", [join(root, "node_modules/next/dist/bin/next"), "start", "-p", "4790"], {
  cwd: join(root, "apps/studio"),
  stdio: "ignore",
});
try {
  await new Promise((r) => setTimeout(r, 4000));
  const browser = await chromium.launch(BROWSER);
  const context = await browser.newContext({
    viewport: { width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) },
    colorScheme: process.env.DARK ? "dark" : "light",
    acceptDownloads: true,
  });
  const page = await context.newPage();
  page.on("pageerror", (e) => console.log("PAGE ERROR", e.message));
  page.on("console", (m) => m.type() === "error" && console.log("CONSOLE", m.text().slice(0, 300)));
  await page.goto("http://localhost:4790/");
  await page.waitForTimeout(2500);
  const { run } = await import(process.argv[2] as string);
  await run(page);
  await browser.close();
} finally {
  server.kill("SIGKILL");
}
process.exit(0);
