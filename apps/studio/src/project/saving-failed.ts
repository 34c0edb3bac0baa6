import type { Saving } from "./open-project";
import { isStorageFull } from "./storage";

/** How saving stands after storage has refused something. */
export function failedSaving(error: unknown): Extract<Saving, { kind: "failed" }> {
  const full = isStorageFull(error);
  const reason = full
    ? "This browser has no more room for the project."
    : `This browser could not save: ${error instanceof Error ? error.message : String(error)}`;
  return { kind: "failed", full, reason };
}
