#!/usr/bin/env node
// The command as npm links it. It runs the bundle that installing, `npm start` and `npm test` build.
import { existsSync, readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";

const beside = (name) => new URL(`../dist/${name}`, import.meta.url);
const [first, ...more] = process.argv.slice(2);
const help = fileURLToPath(beside("help.txt"));
if ((first === "--help" || first === "-h") && more.length === 0 && existsSync(help)) process.stdout.write(readFileSync(help));
else {
  const bundle = beside("caravan.mjs");
  if (!existsSync(fileURLToPath(bundle))) {
    const { buildCommand } = await import("../../../scripts/build-command.mjs");
    await buildCommand();
  }
  await import(bundle.href);
}
