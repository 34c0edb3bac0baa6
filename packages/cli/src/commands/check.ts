import { type Finding, findingsOf } from "@caravan/core/check";
import type { Command } from "commander";
import { tell } from "../output";
import { openProject } from "../project";

export function addCheck(program: Command): void {
  program
    .command("check")
    .summary("list what is wrong or risky in a project")
    .description("Lists what is wrong or risky in a project. Exits with 1 if something would stop a delivery.")
    .argument("<project>", "a project folder, its caravan.json, or a *.caravan file")
    .option("--strict", "also exit with 1 for warnings", false)
    .option("--json", "print one JSON document", false)
    .action(check);
}

function check(path: string, options: { json: boolean; strict: boolean }): void {
  const { project, seen } = openProject(path, undefined, true);
  const findings = findingsOf(project, seen).map(toldFinding);
  tell(options.json, { findings }, () =>
    findings.length === 0 ? "No findings." : findings.map(({ severity, where, message }) => `${severity}: ${where}: ${message}`).join("\n"),
  );
  if (findings.some(({ severity }) => severity === "error" || (options.strict && severity === "warning"))) process.exitCode = 1;
}

/** A finding as `--json` prints it. */
export function toldFinding({ code, severity, where, message }: Finding) {
  return { code, severity, where, message };
}
