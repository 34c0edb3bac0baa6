"use client";

import { useArrival } from "../../project/arriving/read-files";
import { ProgressLine } from "../../ui/progress-line";

/** While files are being read, wherever the person is: how many, and a way to stop. */
export function ArrivalLine() {
  const arrival = useArrival((state) => state.arrival);
  if (!arrival) return null;
  const { done, total, cancel } = arrival;
  return (
    <div className="border-b border-line p-2">
      <ProgressLine label={`Reading ${done} of ${total} ${total === 1 ? "picture" : "pictures"}`} done={done / total} onStop={cancel} />
    </div>
  );
}
