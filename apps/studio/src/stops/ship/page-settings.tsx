"use client";

import { Choice } from "../../ui/choice";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Tick } from "../../ui/tick";
import { useDelivery } from "./chosen-delivery";

/** How large pages may be, how many, and what should share one. */
export function PageSettings() {
  const { delivery, set } = useDelivery();
  const { packing } = delivery;
  return (
    <>
      <Choice
        label="Sides of a page"
        value={packing.sides}
        options={[
          ["free", "As small as can be"],
          ["powerOfTwo", "Powers of two"],
          ["fixed", "One size"],
        ]}
        onChange={(sides) => set({ packing: { sides } })}
      />
      {packing.sides === "fixed" ? (
        <FieldBox label="every page">
          <NumberField
            label="Width of every page"
            value={packing.fixed.w}
            least={16}
            most={16_384}
            step={64}
            onChange={(w) => set({ packing: { fixed: { ...packing.fixed, w } } })}
          />
          ×
          <NumberField
            label="Height of every page"
            value={packing.fixed.h}
            least={16}
            most={16_384}
            step={64}
            onChange={(h) => set({ packing: { fixed: { ...packing.fixed, h } } })}
          />
          <span className="text-small text-muted">px</span>
        </FieldBox>
      ) : (
        <>
          <FieldBox label="up to">
            <NumberField
              label="Largest page side"
              value={packing.maxPx}
              least={16}
              most={16_384}
              step={256}
              onChange={(maxPx) => set({ packing: { maxPx } })}
            />
            <span className="text-small text-muted">px a side</span>
          </FieldBox>
          <Tick label="as wide as high" checked={packing.square} onChange={(square) => set({ packing: { square } })} />
        </>
      )}
      <div className="flex gap-2">
        <FieldBox label="at most">
          <NumberField
            label="Most pages"
            value={packing.maxPages}
            least={1}
            most={999}
            onChange={(maxPages) => set({ packing: { maxPages } })}
          />
          <span className="text-small text-muted">pages</span>
        </FieldBox>
        <FieldBox label="clear border">
          <NumberField label="Clear border" value={packing.borderPx} most={64} onChange={(borderPx) => set({ packing: { borderPx } })} />
          <span className="text-small text-muted">px</span>
        </FieldBox>
      </div>
      <p className="text-small text-muted">Kept on one page, where pages are large enough:</p>
      <Choice
        label="Kept on one page"
        value={packing.together}
        options={[
          ["nothing", "nothing"],
          ["clips", "each clip"],
          ["actions", "each action"],
        ]}
        onChange={(together) => set({ packing: { together } })}
      />
    </>
  );
}
