/**
 * Draws the art of The Tamarisk Road and writes the demo project in folder form, beside it the files as artists hand them in, and the
 * pictures of docs/wiring. `npm run demo` runs it.
 *
 * Everything is seeded: the same bytes every time. The art is committed too, so that building does not need this script.
 */
import { mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { bundleFiles } from "@caravan/core/bundle";
import { pngCodec } from "../../packages/cli/src/png";
import { demoProject } from "./demo";
import { rawFiles } from "./raw";
import { wiringPictures } from "./wiring";

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

const wiring = join(import.meta.dirname, "../../docs/wiring");
mkdirSync(wiring, { recursive: true });
for (const [name, pixels] of wiringPictures(join(import.meta.dirname, "../tamarisk-road")))
  writeFileSync(join(wiring, name), pngCodec().encode(pixels));
