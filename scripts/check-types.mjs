// Checks each part against the globals it may use: core and player know neither DOM nor Node. A file that several parts include is checked
// once, in the first of them, which knows the fewest globals: checked by one compiler for each part it took three times as long.
import { join } from "node:path";
import ts from "typescript";

const root = join(import.meta.dirname, "..");
const parts = ["packages/core", "packages/player", "packages/handout", "packages/cli", "apps/studio", "."];

const host = { ...ts.sys, onUnRecoverableConfigFileDiagnostic: (problem) => report([problem]) };
const seen = new Set();
const parsed = new Map();
let failed = false;

for (const part of parts) {
  const config = ts.getParsedCommandLineOfConfigFile(join(root, part, "tsconfig.json"), { noEmit: true }, host);
  if (!config) continue;
  const own = config.fileNames.filter((file) => !seen.has(file) || /\.d\.[cm]?ts$/.test(file));
  for (const file of own) seen.add(file);
  const program = ts.createProgram({ rootNames: config.fileNames, options: config.options, host: sharingHost(config.options) });
  report([...config.errors, ...program.getOptionsDiagnostics(), ...program.getGlobalDiagnostics()]);
  for (const file of own) {
    const source = program.getSourceFile(file);
    if (source) report([...program.getSyntacticDiagnostics(source), ...program.getSemanticDiagnostics(source)]);
  }
}
process.exitCode = failed ? 1 : 0;

/** A host whose parsed files serve all parts: they differ in the globals they see, not in how a file is read. */
function sharingHost(options) {
  const own = ts.createCompilerHost(options);
  return {
    ...own,
    getSourceFile: (file, how, ...rest) => {
      const key = `${file} ${JSON.stringify(how)} ${options.jsx ?? ""}`;
      if (!parsed.has(key)) parsed.set(key, own.getSourceFile(file, how, ...rest));
      return parsed.get(key);
    },
  };
}

function report(problems) {
  if (problems.length === 0) return;
  failed = true;
  process.stdout.write(
    ts.formatDiagnostics(problems, { getCanonicalFileName: (file) => file, getCurrentDirectory: () => root, getNewLine: () => "\n" }),
  );
}
