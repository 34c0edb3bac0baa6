// Puts the demo's folder into one *.caravan file that the studio serves.
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { join, relative } from "node:path";

const root = join(import.meta.dirname, "..");

/** Writes apps/studio/public/demo.caravan from examples/tamarisk-road. */
export function packDemo() {
  const { zipSync } = createRequire(join(root, "packages/core/package.json"))("fflate");
  const folder = join(root, "examples/tamarisk-road");
  const files = { "caravan.json": readFileSync(join(folder, "caravan.json")) };
  for (const { name, parentPath } of readdirSync(join(folder, "art"), { recursive: true, withFileTypes: true }).filter((entry) =>
    entry.isFile(),
  )) {
    const path = join(parentPath, name);
    files[relative(folder, path).replaceAll("\\", "/")] = readFileSync(path);
  }
  // The metadata that cut its sources, as a saved project has it.
  for (const { cut } of JSON.parse(files["caravan.json"].toString()).sources)
    if (cut?.sha256) files[`metadata/${cut.sha256}.json`] = readFileSync(join(root, "examples/raw", cut.file));
  mkdirSync(join(root, "apps/studio/public"), { recursive: true });
  writeFileSync(join(root, "apps/studio/public/demo.caravan"), zipSync(files, { mtime: new Date(1980, 0, 1) }));
}
