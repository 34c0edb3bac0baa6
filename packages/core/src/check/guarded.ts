/** Isolates checks from each other: one that throws becomes a finding, and does not take down other checks, a build or a watch. */
import { whyOf } from "../model";
import { t } from "../words";
import type { Finding } from "./finding";

/** What `find` finds; if it throws, one finding that says so. `where` names what it looked at. */
export function guarded(where: string, find: () => Finding[]): Finding[] {
  const [found, trouble] = attempt(where, find);
  return found ?? trouble;
}

/** What `work` gives, undefined if it throws; and the finding about that. */
export function attempt<Value>(where: string, work: () => Value): [value: Value | undefined, trouble: Finding[]] {
  try {
    return [work(), []];
  } catch (error) {
    const message = t("Internal error: this check failed ({error}). All other checks ran. Please report it.", { error: whyOf(error) });
    return [undefined, [{ code: "check-failed", severity: "warning", where, message, place: { stop: "ship", delivery: 0 } }]];
  }
}
