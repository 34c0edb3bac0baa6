"use client";

import { FieldBox, NumberField } from "../../ui/number-field";
import { Tick } from "../../ui/tick";
import { useDelivery } from "./chosen-delivery";

/** What may be done to frames to make pages smaller. */
export function PlacingSettings() {
  const { delivery, set } = useDelivery();
  const { packing } = delivery;
  return (
    <>
      <div className="flex items-center gap-3">
        <Tick label="trim clear edges" checked={packing.trim} onChange={(trim) => set({ packing: { trim } })} />
        {packing.trim && (
          <FieldBox label="leaving">
            <NumberField
              label="Clear pixels left around"
              value={packing.trimMarginPx}
              most={64}
              onChange={(trimMarginPx) => set({ packing: { trimMarginPx } })}
            />
            <span className="text-small text-muted">px</span>
          </FieldBox>
        )}
      </div>
      <Tick label="share equal frames" checked={packing.share} onChange={(share) => set({ packing: { share } })} />
      {packing.share && (
        <Tick
          label="share mirror pictures too: the game must draw those mirrored"
          checked={packing.shareMirrored}
          onChange={(shareMirrored) => set({ packing: { shareMirrored } })}
        />
      )}
      <Tick label="may turn frames" checked={packing.turn} onChange={(turn) => set({ packing: { turn } })} />
      <Tick
        label="search longer for smaller pages"
        checked={packing.effort === "high"}
        onChange={(high) => set({ packing: { effort: high ? "high" : "normal" } })}
      />
    </>
  );
}
