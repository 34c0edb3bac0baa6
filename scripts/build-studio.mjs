// Builds the studio for production: the demo packed, then Next's own build, then what keeps it offline. Built again only when something changed.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { buildServiceWorker } from "./build-service-worker.mjs";
import { packBuilt } from "./pack-built.mjs";
import { packDemo } from "./pack-demo.mjs";

const root = join(import.meta.dirname, "..");
const studio = join(root, "apps/studio");
const stamp = join(studio, ".next/caravan-stamp");
const worker = join(studio, "public/sw.js");

/** Returns whether the build went well. */
export async function buildStudio() {
  packDemo();
  const wanted = stampOfSources();
  if (existsSync(stamp) && existsSync(worker) && readFileSync(stamp, "utf8") === wanted) return true;
  const next = spawnSync(process.execPath, [join(root, "node_modules/next/dist/bin/next"), "build"], {
    cwd: studio,
    stdio: "inherit",
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1" },
  });
  if (next.status !== 0) return false;
  await Promise.all([buildServiceWorker(), packBuilt()]);
  writeFileSync(stamp, wanted);
  return true;
}

/** A hash over everything that goes into the build. */
function stampOfSources() {
  const hash = createHash("sha256");
  const add = (path) => {
    for (const entry of readdirSync(path, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      if (
        entry.name.startsWith(".") ||
        entry.name === "node_modules" ||
        entry.name === "dist" ||
        entry.name === "delivered" ||
        entry.name === "next-env.d.ts" ||
        entry.name === "sw.js"
      )
        continue;
      const inside = join(path, entry.name);
      if (entry.isDirectory()) add(inside);
      else if (!/\.test\.tsx?$|\.tsbuildinfo$/.test(entry.name)) hash.update(`${inside.slice(root.length)}\0`).update(readFileSync(inside));
    }
  };
  for (const part of ["apps/studio", "packages/core/src", "packages/player/src", "examples/crossing"]) add(join(root, part));
  hash.update(readFileSync(join(root, "package-lock.json")));
  return hash.digest("hex");
}

if (process.argv[1] === import.meta.filename) process.exitCode = (await buildStudio()) ? 0 : 1;
