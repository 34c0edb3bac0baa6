"use client";

import type { NumberedFrom } from "@caravan/core/facing";
import { FACINGS } from "@caravan/core/model";
import { Select } from "../../../ui/select";

/** Which facing comes first, and which way round the others follow. */
export function NumberedFields({ from, onChange }: { from: NumberedFrom; onChange: (from: NumberedFrom) => void }) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <span className="flex items-center gap-1.5 text-muted">
        The first looks
        <Select
          label="First facing"
          value={from.first}
          options={FACINGS.map((facing) => [facing, facing.toUpperCase()] as const)}
          onChange={(first) => onChange({ ...from, first })}
        />
      </span>
      <span className="flex items-center gap-1.5 text-muted">
        and they go on
        <Select
          label="Way round"
          value={from.clockwise ? "clockwise" : "other"}
          options={[
            ["clockwise", "clockwise"],
            ["other", "the other way"],
          ]}
          onChange={(way) => onChange({ ...from, clockwise: way === "clockwise" })}
        />
      </span>
    </div>
  );
}
