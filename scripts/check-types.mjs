// Checks each part against the globals it may use: core and player know neither DOM nor Node.
import { spawn } from "node:child_process";
import { join } from "node:path";

const root = join(import.meta.dirname, "..");
const parts = ["packages/core", "packages/player", "packages/cli", "apps/studio", "."];

const results = await Promise.all(
  parts.map(
    (part) =>
      new Promise((done) => {
        const tsc = spawn(process.execPath, [join(root, "node_modules/typescript/bin/tsc"), "-p", join(root, part), "--noEmit"], {
          stdio: "inherit",
        });
        tsc.on("close", (code) => done(code === 0));
      }),
  ),
);
process.exitCode = results.every(Boolean) ? 0 : 1;
