"use client";

import { type DeliveryChange, setDelivery } from "@caravan/core/edit";
import type { Delivery } from "@caravan/core/model";
import { edit } from "../../project/open-project";
import { Choice } from "../../ui/choice";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Tick } from "../../ui/tick";

/** How frames are laid out on pages. */
export function Settings({ delivery }: { delivery: Delivery }) {
  const set = (change: DeliveryChange) => edit(setDelivery, 0, change)?.message;
  const { packing, filter } = delivery;
  return (
    <div className="flex flex-wrap items-center gap-2">
      <FieldBox label="page up to">
        <NumberField
          label="Largest page side"
          value={packing.maxPx}
          least={16}
          most={16_384}
          step={256}
          onChange={(maxPx) => set({ packing: { maxPx } })}
        />
        <span className="text-small text-muted">px</span>
      </FieldBox>
      <FieldBox label="apart">
        <NumberField
          label="Distance between frames"
          value={packing.paddingPx}
          most={64}
          onChange={(paddingPx) => set({ packing: { paddingPx } })}
        />
        <span className="text-small text-muted">px</span>
      </FieldBox>
      <FieldBox label="edge repeated">
        <NumberField label="Edge repeated" value={packing.extrudePx} most={16} onChange={(extrudePx) => set({ packing: { extrudePx } })} />
        <span className="text-small text-muted">px</span>
      </FieldBox>
      <Choice
        label="How the game scales it"
        value={filter}
        options={[
          ["nearest", "Crisp"],
          ["linear", "Smooth"],
        ]}
        onChange={(next) => set({ filter: next })}
      />
      <div className="flex flex-wrap gap-x-4">
        <Tick label="trim clear edges" checked={packing.trim} onChange={(trim) => set({ packing: { trim } })} />
        <Tick label="share equal frames" checked={packing.share} onChange={(share) => set({ packing: { share } })} />
        <Tick label="may turn frames" checked={packing.turn} onChange={(turn) => set({ packing: { turn } })} />
        <Tick
          label="power-of-two pages"
          checked={packing.sides === "powerOfTwo"}
          onChange={(on) => set({ packing: { sides: on ? "powerOfTwo" : "free" } })}
        />
        <Tick
          label="search longer"
          checked={packing.effort === "high"}
          onChange={(high) => set({ packing: { effort: high ? "high" : "normal" } })}
        />
      </div>
    </div>
  );
}
