import { allMended, type Finding } from "@caravan/core/check";
import { sayUnlessDone } from "../ui/notices";
import { apply } from "./open-project";

/** Mends everything of one kind at once, as one entry of undo. `what` names the kind. */
export function mendAll(code: Finding["code"], what: string): void {
  const error = apply(
    (project) => allMended(project, code),
    () => `mend ${what}`,
  );
  sayUnlessDone(error);
}
