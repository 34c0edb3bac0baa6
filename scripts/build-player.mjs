// npm run player [-- FOLDER]: builds @caravan/player as published, in packages/player/dist: ESM files, their types, README and licence,
// with nothing to install.
import { copyFileSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const player = join(root, "packages/player");

const ENTRIES = ["index", "behaviour", "parts"];
/** Files whose types a game sees; the others are workings. */
const PUBLIC = [...ENTRIES, "atlas", "now"];

/** Writes the package into `out`, replacing it. Throws the compiler's errors. */
async function buildPlayer(out = join(player, "dist")) {
  const { build } = await import("esbuild");
  const { default: ts } = await import("typescript");
  rmSync(out, { recursive: true, force: true });
  mkdirSync(out, { recursive: true });
  await build({
    entryPoints: ENTRIES.map((name) => join(player, `src/${name}.ts`)),
    outdir: out,
    bundle: true,
    // Code shared by several entries is in separate files, so that a game with more than one has it once.
    splitting: true,
    chunkNames: "shared-[hash]",
    format: "esm",
    // What browsers and game shells of recent years run; comments stay for those who read it.
    target: "es2020",
    platform: "neutral",
    logLevel: "warning",
  });
  const options = { declaration: true, emitDeclarationOnly: true, strict: true, target: ts.ScriptTarget.ES2022, types: [] };
  const program = ts.createProgram(
    ENTRIES.map((name) => join(player, `src/${name}.ts`)),
    {
      ...options,
      module: ts.ModuleKind.ESNext,
      moduleResolution: ts.ModuleResolutionKind.Bundler,
    },
  );
  // Types of code bundled from the core are not part of the package: nothing it exports mentions them.
  const { diagnostics } = program.emit(undefined, (file, text) => {
    // Types of a package that is read by Node's own rules name their files with an ending.
    if (dirname(file) === join(player, "src") && PUBLIC.includes(basename(file, ".d.ts")))
      writeFileSync(join(out, basename(file)), text.replaceAll(/from "(\.\/\w+)"/g, 'from "$1.js"'));
  });
  if (diagnostics.length > 0) throw new Error(ts.formatDiagnostics(diagnostics, ts.createCompilerHost(options)));
  const { name, version, description, license, type, sideEffects, keywords } = JSON.parse(
    readFileSync(join(player, "package.json"), "utf8"),
  );
  const published = {
    name,
    version,
    description,
    keywords,
    license,
    type,
    sideEffects,
    exports: {
      ".": { types: "./index.d.ts", default: "./index.js" },
      "./behaviour": { types: "./behaviour.d.ts", default: "./behaviour.js" },
      "./parts": { types: "./parts.d.ts", default: "./parts.js" },
    },
    types: "./index.d.ts",
    files: ["*.js", "*.d.ts"],
  };
  writeFileSync(join(out, "package.json"), `${JSON.stringify(published, null, 2)}\n`);
  copyFileSync(join(player, "README.md"), join(out, "README.md"));
  copyFileSync(join(root, "LICENSE"), join(out, "LICENSE"));
  return out;
}

if (process.argv[1] === fileURLToPath(import.meta.url))
  console.log(`Built in ${await buildPlayer(process.argv[2])}; publish it from there.`);
