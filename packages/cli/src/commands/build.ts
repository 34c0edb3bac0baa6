import { join } from "node:path";
import { type Finding, findingsOf } from "@caravan/core/check";
import { type NamedFile, sha256Hex, writeZip } from "@caravan/core/codec";
import { deliver, type Proof } from "@caravan/core/deliver";
import { checkFileNames } from "@caravan/core/delivery-plan";
import type { FrameChanges } from "@caravan/core/frame-identity";
import { CaravanError, counted, type Project } from "@caravan/core/model";
import type { Command } from "commander";
import { refuseOverArt } from "../art-in-the-way";
import { leftIn, writeSet } from "../delivered-set";
import { readFile, writeWhole } from "../files";
import { noteLeft } from "../leftover-files";
import type { DecodedPictures, Refreshed } from "../new-art";
import { note, tell, wrongCall } from "../output";
import { pngCodec } from "../png";
import { progressOn } from "../progress";
import { openDocument, openProject } from "../project";
import { type BuildResult, builtBefore, keyOfBuild, rememberBuild } from "../remembered";
import { reserveStandardOutput, STANDARD } from "../standard";
import { toldFinding } from "./check";

export function addBuild(program: Command): void {
  program
    .command("build")
    .summary("build everything a project delivers")
    .description("Builds everything that the project's deliveries ask for, proves it by reading it back, and writes it.")
    .argument("<project>", "a project folder, its caravan.json, or a *.caravan file; - is such a file at standard input")
    .requiredOption("--out <dir>", "where the files go; - writes a ZIP to standard output")
    .option("--replace", "replace files in the way that Caravan did not write", false)
    .option("--zip <file>", "put the files into one ZIP as well")
    .option("--clean", "remove what an earlier build wrote and this one does not", false)
    .option("--only <delivery>", "build only this delivery; repeatable", collected, [])
    .option("--fresh", "build everything again, even if nothing changed since the last build", false)
    .option("--strict", "if there are warnings, write nothing and exit with 1", false)
    .option("--json", "print one JSON document", false)
    .action(build);
}

/** A build, made and proved but not yet written. */
export interface Build {
  readonly files: readonly NamedFile[];
  readonly proofs: readonly (Proof & { readonly delivery: string })[];
  /** Facts about the result: rounded times, clips on several pages, and the like. */
  readonly notes: readonly string[];
  /** Sources whose art was overwritten, in words. */
  readonly changed: readonly string[];
  readonly project: Project;
  /** Hashes of the art as the document has it, changed meanwhile or not. */
  readonly saved: ReadonlySet<string>;
  readonly findings: readonly Finding[];
}

/** Makes everything that the project's deliveries ask for. Throws what opening and delivering throw. */
export function buildProject(
  path: string,
  decodedBefore?: DecodedPictures,
  onProgress: (done: number) => void = () => {},
  only: readonly string[] = [],
): Build {
  const { project, art, seen, refreshed, saved } = openProject(path, decodedBefore);
  const wanted = chosenDeliveries(project, only);
  const built = wanted.map((delivery, k) => ({
    name: delivery.name,
    ...deliver(project, delivery, art, pngCodec(), (done) => onProgress((k + done) / wanted.length)),
  }));
  const files = built.flatMap((delivery) => delivery.files);
  checkFileNames(files, path);
  return {
    files,
    proofs: built.map(({ name, proof }) => ({ delivery: name, ...proof })),
    notes: built.flatMap(({ notes }) => notes),
    changed: refreshed.map(changedInWords),
    project,
    saved,
    findings: findingsOf(project, seen),
  };
}

/** All, or those of these names. */
function chosenDeliveries({ deliveries }: Project, only: readonly string[]): Project["deliveries"] {
  const unknown = only.filter((each) => !deliveries.some(({ name }) => name === each));
  if (unknown.length > 0)
    throw wrongCall(
      `There is no delivery "${unknown[0]}". There ${deliveries.length === 1 ? "is" : "are"} ${deliveries.map(({ name }) => name).join(", ")}.`,
    );
  return only.length === 0 ? deliveries : deliveries.filter(({ name }) => only.includes(name));
}

function collected(each: string, before: readonly string[]): string[] {
  return [...before, each];
}

/** A file in a build's report. */
export function toldFile({ path, bytes }: NamedFile): { path: string; bytes: number; sha256: string } {
  return { path, bytes: bytes.length, sha256: sha256Hex(bytes) };
}

interface BuildOptions {
  readonly out: string;
  readonly zip?: string;
  readonly json: boolean;
  readonly replace: boolean;
  readonly clean: boolean;
  readonly only: readonly string[];
  readonly strict: boolean;
  readonly fresh: boolean;
}

function build(path: string, options: BuildOptions): void {
  if (options.clean && options.only.length > 0)
    throw wrongCall("--clean and --only cannot be combined: the files of the other deliveries would be removed.");
  if (options.out === STANDARD) reserveStandardOutput(options.json);
  const key = options.out === STANDARD ? null : keyOfBuild(path, options.only);
  const before = key === null || options.fresh ? null : builtBefore(key, options.out);
  const made = before ? null : progressOn("Building").during((at) => buildProject(path, undefined, at, options.only));
  const result = before ?? resultOf(made as Build);
  const { proofs, notes, changed, findings } = result;
  const grave = findings.filter(({ severity }) => severity !== "note");
  const [first] = grave;
  if (options.strict && first) {
    throw new CaravanError(
      "bad-call",
      path,
      `${counted(grave.length, "finding is", "findings are")} worth a look, the first of ${first.where}: ${first.message} Nothing was written.`,
      "Fix them (see caravan check), or build without --strict.",
    );
  }
  for (const each of changed) note(`Changed art, cut again by its recipe: ${each}`);
  const project = made?.project ?? openDocument(path);
  refuseOverArt(path, project, options.out, result.files);
  const by = `build ${project.name}`;
  // Files as delivered have just been compared with the receipt: they are not staged and hashed again.
  const left = made ? writeSet(options.out, made.files, by, options.replace).left : leftIn(options.out, result.files, by);
  if (key !== null && made) rememberBuild(key, result);
  if (options.zip !== undefined) {
    const files = made?.files ?? result.files.map(({ path: at }) => ({ path: at, bytes: readFile(join(options.out, at)) }));
    writeWhole(options.zip, writeZip(files));
  }
  // What other deliveries made is still made, by another call.
  if (options.only.length === 0) noteLeft(options.out, left, options.clean);
  const told = { files: result.files, proofs, notes, findings, asBefore: before !== null };
  tell(options.json, told, () =>
    [
      ...(before ? ["Nothing changed since an earlier build; all files are as they were built and proved."] : []),
      ...told.files.map((file) => `${file.path}: ${file.bytes} bytes`),
      ...proofs.map(
        ({ delivery, exact, frames, shared, clips }) =>
          `${delivery}: ${exact} of ${frames} frames placed, ${shared} shared, ${counted(clips, "clip")}, every pixel checked`,
      ),
      ...notes,
    ].join("\n"),
  );
}

function resultOf({ files, proofs, notes, changed, findings }: Build): BuildResult {
  return { files: files.map(toldFile), proofs: [...proofs], notes: [...notes], changed: [...changed], findings: findings.map(toldFinding) };
}

function changedInWords({ source, changes, compared, moves, grid, unsure }: Refreshed): string {
  const told = [...(grid === null ? [] : [grid]), changesInWords(changes, compared), ...moves].join("; ");
  return unsure
    ? `${source} (${told}); its size changed, and build cannot follow its drawings: review it in the studio, which compares changed art`
    : `${source} (${told})`;
}

/** `61 the same, 2 changed, 4 new, 1 gone`. */
function changesInWords({ same, moved, changed, added, gone }: FrameChanges, compared: boolean): string {
  const parts = [
    [same.length, "the same"],
    [moved.length, "moved"],
    [changed.length, compared ? "changed" : "on changed pictures"],
    [added.length, "new"],
    [gone.length, "gone"],
  ] as const;
  return (
    parts
      .filter(([count]) => count > 0)
      .map(([count, word]) => `${count} ${word}`)
      .join(", ") || "no frames"
  );
}
