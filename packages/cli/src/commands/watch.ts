import { allPictures, CaravanError, type Project, whyOf } from "@caravan/core/model";
import type { Command } from "commander";
import { refuseOverArt } from "../art-in-the-way";
import { changesOf } from "../changes";
import { writeSet } from "../delivered-set";
import type { DecodedPictures } from "../new-art";
import { failureOf, note, tell, wrongCall } from "../output";
import { buildProject, toldFile } from "./build";
import { toldFinding } from "./check";

/** Several files saved at once are one change. */
const TOGETHER = 120; // ms
/** A file caught half-written is retried after this delay, even without another event. */
const AGAIN = 400; // ms
/** So often, in case the file is just damaged. */
const MOST_TRIES = 5;

export function addWatch(program: Command): void {
  program
    .command("watch")
    .summary("build again whenever the art or the document changes")
    .description("Builds, then builds again whenever the art or the document changes. Writes changed files only.")
    .argument("<project>", "a project folder, its caravan.json, or a *.caravan file")
    .requiredOption("--out <dir>", "where the files go")
    .option("--replace", "replace files in the way that Caravan did not write", false)
    .option("--json", "print one JSON line a build", false)
    .action(watch);
}

interface WatchOptions {
  readonly out: string;
  readonly replace: boolean;
  readonly json: boolean;
}

/** Runs until ended from outside: neither a failing build nor a disappearing folder ends it. */
function watch(path: string, options: WatchOptions): void {
  if (options.out.trim() === "") wrongCall("--out does not name a folder. Give one, such as --out delivered.");
  const decoded: DecodedPictures = new Map();
  const say = outcomes(options.json);
  let timer: NodeJS.Timeout | undefined;
  let tries = 0;
  const soon = (ms: number) => {
    clearTimeout(timer);
    timer = setTimeout(run, ms);
  };
  const run = () => {
    changes.renew();
    const outcome = built(path, options, decoded);
    say(outcome);
    if (outcome.ok) tries = 0;
    else if (++tries < MOST_TRIES) soon(AGAIN);
  };
  const changes = changesOf(path, options.out, () => {
    tries = 0;
    soon(TOGETHER);
  });
  const end = () => {
    clearTimeout(timer);
    changes.close();
  };
  process.once("SIGINT", end);
  process.once("SIGTERM", end);
  note(`Watching ${path}. Ctrl+C ends it.`);
  run();
}

type Outcome =
  | { readonly ok: true; readonly words: string; readonly told: object }
  | { readonly ok: false; readonly words: string; readonly told: object };

/** Prints outcomes, each in one line; a failure that is as the one before is not said again. */
function outcomes(json: boolean): (outcome: Outcome) => void {
  let failed: string | null = null;
  return ({ ok, words, told }) => {
    if (!ok && words === failed) return;
    failed = ok ? null : words;
    tell(json, told, () => words);
  };
}

/** Builds once. If it fails, the previous delivery is unchanged. */
function built(path: string, { out, replace }: WatchOptions, decoded: DecodedPictures): Outcome {
  const start = performance.now();
  const ms = () => Math.round(performance.now() - start);
  try {
    const { files, changed, project, saved, findings } = buildProject(path, decoded);
    refuseOverArt(path, project, out, files);
    const { written } = writeSet(out, files, `build ${project.name}`, replace);
    forgetOthers(decoded, project, saved);
    const told = { ok: true, ms: ms(), written, changed, files: files.map(toldFile), findings: findings.map(toldFinding) };
    return {
      ok: true,
      told,
      words: `Built in ${told.ms} ms: ${written.length === 0 ? "nothing changed" : `${written.join(", ")} written`}`,
    };
  } catch (error) {
    const told =
      error instanceof CaravanError ? failureOf(error) : { code: "internal", where: path, message: `Internal error: ${whyOf(error)}` };
    return {
      ok: false,
      told: { ok: false, ms: ms(), error: told },
      words: `Not built: ${told.message} The previous delivery is unchanged.`,
    };
  }
}

/** Keeps the pictures that the project shows now, and those that its document is of: someone may draw all day. */
function forgetOthers(decoded: DecodedPictures, { sources }: Project, saved: ReadonlySet<string>): void {
  const shown = new Set(sources.flatMap(allPictures).map(({ sha256 }) => sha256));
  for (const sha256 of decoded.keys()) if (!shown.has(sha256) && !saved.has(sha256)) decoded.delete(sha256);
}
