/**
 * Draws the art of The Tamarisk Road and writes the demo project in folder form. `npm run demo` runs it.
 *
 * Everything is seeded: the same bytes every time. The art is committed too, so that building does not need this script.
 */
import { mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { bundleFiles } from "@caravan/core/bundle";
import { demoProject } from "./demo";

const folder = join(import.meta.dirname, "../tamarisk-road");
for (const { path, bytes } of bundleFiles(demoProject())) {
  const to = join(folder, path);
  mkdirSync(dirname(to), { recursive: true });
  writeFileSync(to, bytes);
  console.log(`${path}: ${bytes.length} bytes`);
}
