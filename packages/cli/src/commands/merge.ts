import { existsSync } from "node:fs";
import { join } from "node:path";
import { PROJECT_FILE, readProjectFile, writeProjectFile } from "@caravan/core/bundle";
import { findingsOf } from "@caravan/core/check";
import { mergeProjects } from "@caravan/core/merge";
import { CaravanError, counted, emptyProject, type Project } from "@caravan/core/model";
import type { Command } from "commander";
import { isFolder, readFile, writeWhole } from "../files";
import { note, tell } from "../output";
import { toldFinding } from "./check";

interface MergeOptions {
  readonly out?: string;
  readonly json: boolean;
}

export function addMerge(program: Command): void {
  program
    .command("merge")
    .summary("merge two versions of a project by meaning")
    .description(
      "Merges two versions of a project's caravan.json by clips, steps, marks and rules instead of lines. " +
        "Exits with 1 if a person has to decide something; our version is kept there. As git's merge driver: caravan merge %O %A %B --out %A",
    )
    .argument("<base>", "the caravan.json that both versions come from")
    .argument("<ours>", "our version")
    .argument("<theirs>", "their version")
    .option("--out <file>", "where the result goes; without it, to standard output")
    .option("--json", "print the conflicts as one JSON document", false)
    .action(merge);
}

function merge(base: string, ours: string, theirs: string, { out, json }: MergeOptions): void {
  const mine = readVersion(ours);
  // If both sides created the file, there is no common origin.
  const before = readFile(pathOf(base)).length === 0 ? emptyProject(mine.name) : readVersion(base);
  const { project, conflicts } = mergeProjects(before, mine, readVersion(theirs));
  const bytes = writeProjectFile(project);
  if (out !== undefined) writeWhole(existsSync(out) ? pathOf(out) : out, bytes);
  const findings = findingsOf(project).filter(({ severity }) => severity === "error");
  // What a conflict says already is not said again.
  const others = findings.filter(({ where, message }) => !conflicts.some((each) => each.where === where && each.message.endsWith(message)));
  if (conflicts.length > 0) process.exitCode = 1;
  const words = () =>
    [
      ...conflicts.map(({ where, message }) => `${where}: ${message}`),
      ...others.map(({ where, message }) => `to mend: ${where}: ${message}`),
    ].join("\n");
  if (json) tell(true, { conflicts, findings: findings.map(toldFinding), out: out ?? null }, words);
  else if (out === undefined) process.stdout.write(bytes);
  else
    tell(false, null, () =>
      conflicts.length === 0 ? `Merged into ${out}.` : `Merged into ${out}; ${counted(conflicts.length, "place")} for you to decide.`,
    );
  if (!json && conflicts.length + others.length > 0) note(words());
}

function pathOf(path: string): string {
  return isFolder(path) ? join(path, PROJECT_FILE) : path;
}

/** Git hands files of any name over. Throws what is wrong with one. */
function readVersion(path: string): Project {
  const file = pathOf(path);
  const bytes = readFile(file);
  if (bytes[0] === 0x50 && bytes[1] === 0x4b)
    throw new CaravanError(
      "not-a-project",
      file,
      "This is a *.caravan file, with its pictures; only documents are merged.",
      "Keep the project as a folder, and give its caravan.json.",
    );
  return readProjectFile(bytes, file);
}
