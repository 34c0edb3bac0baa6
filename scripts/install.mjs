// Installs what is missing: npm packages always, a browser for the tests. Uses Node's own modules only.
import { spawnSync } from "node:child_process";
import { existsSync, statSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

// Checked first: the code below and the other scripts need this Node version themselves.
const [major, minor] = process.versions.node.split(".").map(Number);
if (major < 20 || (major === 20 && minor < 19))
  stop(`Caravan needs Node 20.19 or newer; this is ${process.versions.node}. Install a newer one, then try again.`);

const root = join(fileURLToPath(import.meta.url), "../..");

/** Installs npm packages if they are missing or older than the lock file. Exits with a message if that fails. */
export function installPackages() {
  const installed = join(root, "node_modules/.package-lock.json");
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(join(root, "package-lock.json")).mtimeMs) return;
  console.log("Installing npm packages (once; this takes a minute) …");
  const npm = spawnSync("npm", ["ci", "--no-audit", "--no-fund"], { cwd: root, stdio: "inherit", shell: process.platform === "win32" });
  if (npm.status !== 0) stop("npm could not install the packages. Check the network, then try again.");
}

const SHELL = "/usr/bin/chromium-headless-shell";

/**
 * Returns the path of the browser for the tests: CHROMIUM, otherwise Debian's headless shell, installed if this runs as root on Debian,
 * otherwise an existing Chromium.
 */
export function installBrowser() {
  const known = [process.env.CHROMIUM, SHELL].filter(Boolean);
  const others = ["/usr/bin/chromium", "/usr/bin/chromium-browser", "/usr/bin/google-chrome"];
  const there = (paths) => paths.find((path) => existsSync(path));
  const chosen = there(known);
  if (chosen) return chosen;
  const canInstall = process.getuid?.() === 0 && existsSync("/usr/bin/apt-get");
  if (canInstall) {
    console.log("Installing Chromium's headless shell for the browser tests (once) …");
    if (apt("update", "-qq") && apt("install", "-y", "-qq", "--no-install-recommends", "chromium-headless-shell")) return SHELL;
  }
  const other = there(others);
  if (other) return other;
  if (canInstall) stop("apt-get could not install Chromium, so there is no browser for the tests. Check the network, then try again.");
  stop("The browser tests need Chromium. Install it, or set CHROMIUM to the path of one, then try again.");
}

function apt(...args) {
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
  return spawnSync("apt-get", args, { stdio: ["ignore", "ignore", "inherit"], env }).status === 0;
}

function stop(message) {
  console.error(message);
  process.exit(1);
}
