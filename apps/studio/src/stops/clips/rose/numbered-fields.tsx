"use client";

import type { NumberedFrom } from "@caravan/core/facing";
import { FACINGS, type Facing } from "@caravan/core/model";

/** Which facing comes first, and which way round the others follow. */
export function NumberedFields({ from, onChange }: { from: NumberedFrom; onChange: (from: NumberedFrom) => void }) {
  const box = "min-h-8 rounded-box border border-line bg-raised px-1 text-ink";
  return (
    <div className="flex flex-wrap items-center gap-3">
      <label className="flex items-center gap-1.5 text-muted">
        The first looks
        <select
          aria-label="First facing"
          className={box}
          value={from.first}
          onChange={(event) => onChange({ ...from, first: event.target.value as Facing })}
        >
          {FACINGS.map((facing) => (
            <option key={facing} value={facing}>
              {facing.toUpperCase()}
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-1.5 text-muted">
        and they go on
        <select
          aria-label="Way round"
          className={box}
          value={from.clockwise ? "clockwise" : "other"}
          onChange={(event) => onChange({ ...from, clockwise: event.target.value === "clockwise" })}
        >
          <option value="clockwise">clockwise</option>
          <option value="other">the other way</option>
        </select>
      </label>
    </div>
  );
}
