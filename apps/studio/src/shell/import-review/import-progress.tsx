"use client";

import { useArrival } from "../../project/importing/read-files";
import { ProgressLine } from "../../ui/progress-line";
import { t } from "../../ui/words";

/** Shows how many files have been read, at any stop, and a way to cancel. */
export function ArrivalLine() {
  const arrival = useArrival((state) => state.arrival);
  if (!arrival) return null;
  const { done, total, cancel } = arrival;
  return (
    <div className="border-b border-line p-2">
      <ProgressLine
        label={total === 1 ? t("Reading {done} of {total} file", { done, total }) : t("Reading {done} of {total} files", { done, total })}
        done={done / total}
        onStop={cancel}
      />
    </div>
  );
}
