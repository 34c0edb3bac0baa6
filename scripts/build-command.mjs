// Bundles the command line, so that it starts quickly and needs no TypeScript at run time.
import { spawnSync } from "node:child_process";
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { basename, dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");

/** WebAssembly that lies beside the bundle, and the package that has it. */
const DECODERS = [
  ["packages/core", "@jsquash/png/codec/pkg/squoosh_png_bg.wasm"],
  ["packages/cli", "@jsquash/jpeg/codec/dec/mozjpeg_dec.wasm"],
  ["packages/cli", "@jsquash/webp/codec/dec/webp_dec.wasm"],
];

/**
 * Writes packages/cli/dist: the bundle with the picture decoders' WebAssembly. Everything is written elsewhere and then moved into place,
 * because a half-written bundle started meanwhile would do nothing and report success.
 */
export async function buildCommand() {
  const { build } = await import("esbuild");
  const out = join(root, "packages/cli/dist");
  mkdirSync(out, { recursive: true });
  const unfinished = mkdtempSync(join(out, "unfinished-"));
  try {
    const shared = {
      outdir: unfinished,
      outExtension: { ".js": ".mjs" },
      bundle: true,
      platform: "node",
      format: "esm",
      target: "node20",
      logLevel: "warning",
      minifyWhitespace: true,
      minifySyntax: true,
      // Modules before older forms: jsonc-parser's older form asks for its parts in a way that cannot be bundled.
      mainFields: ["module", "main"],
      // commander is CommonJS and calls require for Node's own modules.
      banner: { js: 'import { createRequire as __createRequire } from "node:module"; const require = __createRequire(import.meta.url);' },
    };
    // Each command loads its own part only.
    await build({
      ...shared,
      entryPoints: [{ in: join(root, "packages/cli/src/main.ts"), out: "caravan" }],
      splitting: true,
      chunkNames: "part-[hash]",
    });
    // For threads that write a sheet's frames, which need next to nothing of the rest.
    await build({ ...shared, entryPoints: [{ in: join(root, "packages/cli/src/frames-thread.ts"), out: "frames" }] });
    for (const [owner, wasm] of DECODERS) {
      const require = createRequire(join(root, owner, "package.json"));
      copyFileSync(require.resolve(wasm), join(unfinished, basename(wasm)));
    }
    // The text of --help, stored separately: it is the most frequent request, and should not wait for the bundle to load.
    const help = spawnSync(process.execPath, [join(unfinished, "caravan.mjs"), "--help"], { encoding: "utf8" });
    if (help.status !== 0) throw new Error(`The bundle does not start: ${help.stderr}`);
    writeFileSync(join(unfinished, "help.txt"), help.stdout);
    putInPlace(unfinished, out);
  } finally {
    rmSync(unfinished, { recursive: true });
  }
}

/** The entry is last, when all parts that it names are there. */
function putInPlace(unfinished, out) {
  const isPart = (name) => /^part-\w+\.mjs$/.test(name);
  const names = readdirSync(unfinished);
  for (const name of names.sort((a, b) => Number(isPart(b)) - Number(isPart(a)))) renameSync(join(unfinished, name), join(out, name));
  for (const name of readdirSync(out)) if (isPart(name) && !names.includes(name)) rmSync(join(out, name), { force: true });
}

// As npm's prepare script it runs before development packages may be there; then the first call of the command builds.
if (process.argv[1] === fileURLToPath(import.meta.url) && existsSync(join(root, "node_modules/esbuild"))) await buildCommand();
