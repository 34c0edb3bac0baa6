import { whyOf } from "@caravan/core/model";
import { t } from "../ui/words";
import type { Saving } from "./open-project";
import { isStorageFull } from "./storage";

/** The state of saving after storage has refused a write. */
export function failedSaving(error: unknown): Extract<Saving, { kind: "failed" }> {
  const full = isStorageFull(error);
  const reason = full
    ? t("This browser has no more room for the project.")
    : t("This browser could not save: {why}", { why: whyOf(error) });
  return { kind: "failed", full, reason };
}
