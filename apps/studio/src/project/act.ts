import type { Edit } from "@caravan/core/edit";
import { sayUnlessDone } from "../ui/notices";
import { edit } from "./open-project";

/** Makes an edit from a button or key, and reports errors. Returns whether the edit was made. */
export function act<Args extends unknown[]>(change: Edit<Args>, ...args: Args): boolean {
  return sayUnlessDone(edit(change, ...args));
}
