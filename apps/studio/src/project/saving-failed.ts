import { whyOf } from "@caravan/core/model";
import type { Saving } from "./open-project";
import { isStorageFull } from "./storage";

/** How saving stands after storage has refused something. */
export function failedSaving(error: unknown): Extract<Saving, { kind: "failed" }> {
  const full = isStorageFull(error);
  const reason = full ? "This browser has no more room for the project." : `This browser could not save: ${whyOf(error)}`;
  return { kind: "failed", full, reason };
}
