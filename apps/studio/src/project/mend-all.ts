import { allMended, type Finding } from "@caravan/core/check";
import { sayUnlessDone } from "../ui/notices";
import { apply } from "./open-project";

/** Applies all mendings of one kind as a single undo entry. `what` names the kind. */
export function mendAll(code: Finding["code"], what: string): void {
  const error = apply(
    (project) => allMended(project, code),
    () => `mend ${what}`,
  );
  sayUnlessDone(error);
}
