import { type FSWatcher, watch as watchFiles } from "node:fs";
import { basename, dirname, relative, resolve, sep } from "node:path";
import { PROJECT_FILE } from "@caravan/core/bundle";
import { CaravanError, type Project } from "@caravan/core/model";
import type { Command } from "commander";
import { isFolder, writeChangedFiles } from "../files";
import type { DecodedPictures } from "../project";
import { note, tell } from "../tell";
import { buildProject, toldFile } from "./build";
import { toldFinding } from "./check";

/** Several files saved at once are one change. */
const TOGETHER = 120; // ms
/** A file that was caught half written is tried again after so long, even if nobody tells of its end. */
const AGAIN = 400; // ms
/** So often, in case the file is just damaged. */
const MOST_TRIES = 5;

export function addWatch(program: Command): void {
  program
    .command("watch")
    .summary("build again whenever the art or the document changes")
    .description("Builds, then builds again whenever the art or the document changes. Only files that came out otherwise are written.")
    .argument("<project>", "a project folder, its caravan.json, or a *.caravan file")
    .requiredOption("--out <dir>", "where the files go")
    .option("--json", "print one JSON line a build", false)
    .action(watch);
}

function watch(path: string, options: { out: string; json: boolean }): void {
  const decoded: DecodedPictures = new Map();
  let timer: NodeJS.Timeout | undefined;
  let tries = 0;
  const soon = (ms: number) => {
    clearTimeout(timer);
    timer = setTimeout(run, ms);
  };
  const run = () => {
    if (built(path, options, decoded)) tries = 0;
    else if (++tries < MOST_TRIES) soon(AGAIN);
  };
  const watcher = watching(path, options.out, () => {
    tries = 0;
    soon(TOGETHER);
  });
  watcher.on("error", (error) => note(`caravan: ${path} can no longer be watched: ${error.message}`));
  const end = () => {
    clearTimeout(timer);
    watcher.close();
  };
  process.once("SIGINT", end);
  process.once("SIGTERM", end);
  note(`Watching ${path}. Ctrl+C ends it.`);
  run();
}

/** Builds once and tells it in one line. False if it failed: what was delivered before then stays as it was. */
function built(path: string, { out, json }: { out: string; json: boolean }, decoded: DecodedPictures): boolean {
  const start = performance.now();
  const ms = () => Math.round(performance.now() - start);
  try {
    const { files, changed, project, findings } = buildProject(path, decoded);
    const written = writeChangedFiles(out, files);
    forgetOthers(decoded, project);
    const told = { ok: true, ms: ms(), written, changed, files: files.map(toldFile), findings: findings.map(toldFinding) };
    tell(json, told, () => `Built in ${told.ms} ms: ${written.length === 0 ? "nothing changed" : `${written.join(", ")} written`}`);
    return true;
  } catch (error) {
    if (!(error instanceof CaravanError)) throw error;
    const told = { ok: false, ms: ms(), error: { code: error.code, where: error.where, message: error.message.replace(/\s+/g, " ") } };
    tell(json, told, () => `Not built: ${told.error.message} What was delivered before is still there.`);
    return false;
  }
}

/** Keeps the pictures that the project shows now: someone may draw all day. */
function forgetOthers(decoded: DecodedPictures, { sources }: Project): void {
  const shown = new Set(sources.flatMap(({ pictures }) => pictures.map(({ sha256 }) => sha256)));
  for (const sha256 of decoded.keys()) if (!shown.has(sha256)) decoded.delete(sha256);
}

/** Watches a project's folder with all in it, or a single file in its folder; not what is delivered into it. */
function watching(path: string, out: string, onChange: () => void): FSWatcher {
  const folder = isFolder(path) ? path : basename(path) === PROJECT_FILE ? dirname(path) : null;
  if (folder === null)
    return watchFiles(dirname(resolve(path)), (_event, name) => (name === null || name === basename(path)) && onChange());
  const delivered = relative(resolve(folder), resolve(out));
  const isDelivered = (name: string) =>
    delivered !== "" && !delivered.startsWith("..") && (name === delivered || name.startsWith(delivered + sep));
  return watchFiles(folder, { recursive: true }, (_event, name) => {
    if (name === null || (!isDelivered(name) && !basename(name).startsWith(".caravan-"))) onChange();
  });
}
