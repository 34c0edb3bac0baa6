// Makes sure that what is needed is there: npm packages always, a browser for the tests. Uses Node's own modules only.
import { spawnSync } from "node:child_process";
import { existsSync, statSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

// Looked at first of all: what stands below and in the other scripts needs such a Node itself.
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

/** The browser for the tests: CHROMIUM names one, else Debian's. As root on Debian it is installed; returns its path. */
export function installBrowser() {
  const known = [process.env.CHROMIUM, "/usr/bin/chromium", "/usr/bin/chromium-browser", "/usr/bin/google-chrome"].filter(Boolean);
  const found = known.find((path) => existsSync(path));
  if (found) return found;
  if (process.getuid?.() !== 0 || !existsSync("/usr/bin/apt-get"))
    stop("The browser tests need Chromium. Install it, or set CHROMIUM to the path of one, then try again.");
  console.log("Installing Chromium for the browser tests (once) …");
  const env = { ...process.env, DEBIAN_FRONTEND: "noninteractive" };
  for (const args of [
    ["update", "-qq"],
    ["install", "-y", "-qq", "--no-install-recommends", "chromium"],
  ]) {
    const apt = spawnSync("apt-get", args, { stdio: ["ignore", "ignore", "inherit"], env });
    if (apt.status !== 0) stop(`apt-get ${args[0]} failed, so there is no browser for the tests.`);
  }
  return "/usr/bin/chromium";
}

function stop(message) {
  console.error(message);
  process.exit(1);
}
