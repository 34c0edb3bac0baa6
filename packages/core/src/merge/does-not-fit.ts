/** What is right on each side and wrong together: a rule of one side that plays a clip which the other removed. */
import { type Finding, type FindingCode, findingsOf } from "../check";
import type { Project } from "../model";
import { t } from "../words";
import type { Conflict } from "./conflict";

/** References that lead nowhere, whatever their weight. */
const GONE: ReadonlySet<FindingCode> = new Set([
  ...(["missing-frames", "chosen-gone", "part-gone", "steady-gone", "piece-gone", "palette-gone"] as const),
  ...(["rule-shows-nothing", "rule-names-nothing", "stage-names-nothing", "drive-names-nothing"] as const),
]);

/** Errors, and references that lead nowhere, of the merged project that neither side has. */
export function whatDoesNotFit(merged: Project, ours: Project, theirs: Project): Conflict[] {
  const weighty = (project: Project) => findingsOf(project).filter(({ code, severity }) => severity === "error" || GONE.has(code));
  const found = weighty(merged);
  if (found.length === 0) return [];
  const known = new Set([...weighty(ours), ...weighty(theirs)].map(asKey));
  return found
    .filter((each) => !known.has(asKey(each)))
    .map(({ where, message }) => ({ where, message: t("Each side is right alone, but not together: {message}", { message }) }));
}

function asKey({ code, where, message }: Finding): string {
  return JSON.stringify([code, where, message]);
}
