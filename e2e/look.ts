import { spawn } from "node:child_process";
import { chromium } from "playwright";

const server = spawn("npx", ["next", "start", "-p", "4790"], { cwd: "apps/studio", stdio: "ignore", detached: true });
for (let k = 0; k < 60; k++) {
  try {
    await fetch("http://localhost:4790");
    break;
  } catch {
    await new Promise((r) => setTimeout(r, 500));
  }
}
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
const context = await browser.newContext({
  viewport: { width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) },
  colorScheme: (process.env.T ?? "light") as "light",
  reducedMotion: "reduce",
});
const page = await context.newPage();
page.on("pageerror", (e) => console.log("PAGE ERROR", e.message));
try {
  await page.goto("http://localhost:4790");
  const { run } = await import(process.argv[2] as string);
  await run(page);
} catch (error) {
  console.log(String(error).slice(0, 2000));
  await page.screenshot({ path: "/tmp/look-fail.png" });
}
await browser.close();
process.kill(-(server.pid as number));
