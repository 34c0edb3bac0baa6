import { removeLeft } from "./delivered-set";
import { note } from "./output";

/** Names files that an earlier run wrote and this one does not, or removes them if that was asked for. */
export function noteLeft(folder: string, left: readonly string[], clean: boolean): void {
  if (left.length === 0) return;
  if (clean) {
    const removed = removeLeft(folder, left);
    if (removed.length > 0) note(`Removed, because no longer delivered: ${removed.join(", ")}`);
  } else note(`No longer delivered, but still there: ${left.join(", ")}. Add --clean to remove them.`);
}
