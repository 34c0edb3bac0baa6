#!/usr/bin/env node
// The command as npm links it. It runs the bundle that installing, `npm start` and `npm test` build.
import { existsSync } from "node:fs";
import { fileURLToPath } from "node:url";

const bundle = new URL("../dist/caravan.mjs", import.meta.url);
if (!existsSync(fileURLToPath(bundle))) {
  const { buildCommand } = await import("../../../scripts/build-command.mjs");
  await buildCommand();
}
await import(bundle.href);
