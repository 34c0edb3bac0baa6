/**
 * Draws the art of The Tamarisk Road and writes the demo project in folder form, and beside it the files as artists hand them in.
 * `npm run demo` runs it.
 *
 * Everything is seeded: the same bytes every time. The art is committed too, so that building does not need this script.
 */
import { mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { bundleFiles } from "@caravan/core/bundle";
import { demoProject } from "./demo";
import { rawFiles } from "./raw";

const files = [
  ...bundleFiles(demoProject()).map(({ path, bytes }) => ({ path: join("tamarisk-road", path), bytes })),
  ...rawFiles().map(({ path, bytes }) => ({ path: join("raw", path), bytes })),
];
for (const { path, bytes } of files) {
  const to = join(import.meta.dirname, "..", path);
  mkdirSync(dirname(to), { recursive: true });
  writeFileSync(to, bytes);
  console.log(`${path}: ${bytes.length} bytes`);
}
