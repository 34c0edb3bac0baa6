// Bundles the command line into one file, so that it starts quickly and needs no TypeScript at run time.
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");

/**
 * Writes packages/cli/dist: the bundle and the PNG coder's WebAssembly beside it. Both are written elsewhere and moved into their places, since a
 * half-written bundle that somebody starts meanwhile is a program that does nothing and reports success.
 */
export async function buildCommand() {
  const { build } = await import("esbuild");
  const out = join(root, "packages/cli/dist");
  mkdirSync(out, { recursive: true });
  const unfinished = mkdtempSync(join(out, "unfinished-"));
  try {
    await build({
      entryPoints: [join(root, "packages/cli/src/main.ts")],
      outfile: join(unfinished, "caravan.mjs"),
      bundle: true,
      platform: "node",
      format: "esm",
      target: "node20",
      logLevel: "warning",
      // Modules before older forms: jsonc-parser's older form asks for its parts in a way that cannot be bundled.
      mainFields: ["module", "main"],
      // commander is CommonJS and calls require for Node's own modules.
      banner: { js: 'import { createRequire as __createRequire } from "node:module"; const require = __createRequire(import.meta.url);' },
    });
    const require = createRequire(join(root, "packages/core/package.json"));
    copyFileSync(require.resolve("@jsquash/png/codec/pkg/squoosh_png_bg.wasm"), join(unfinished, "squoosh_png_bg.wasm"));
    for (const name of readdirSync(unfinished)) renameSync(join(unfinished, name), join(out, name));
  } finally {
    rmSync(unfinished, { recursive: true });
  }
}

// As npm's prepare script it runs before development packages may be there; then the first call of the command builds.
if (process.argv[1] === fileURLToPath(import.meta.url) && existsSync(join(root, "node_modules/esbuild"))) await buildCommand();
