import type { Finding } from "@caravan/core/check";
import { say } from "../ui/notices";
import { apply } from "./open-project";

/** Mends what was found, as one entry of undo; what stands in the way is told. */
export function mendFinding({ mend, where }: Finding): void {
  const error = mend && apply(mend.apply, () => `mend ${where}`);
  if (error) say({ tone: "trouble", text: error.message });
}
