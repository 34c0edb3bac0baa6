"use client";

import { More } from "../../ui/more";
import { FieldBox, NumberField } from "../../ui/number-field";
import { useDelivery } from "./chosen-delivery";
import { PageSettings } from "./page-settings";
import { PlacingSettings } from "./placing-settings";

/** How frames are packed: the usual distances in sight, the rest one click away. */
export function AtlasSettings() {
  const { delivery, set } = useDelivery();
  const { packing } = delivery;
  return (
    <>
      <FieldBox label="padding">
        <NumberField
          label="Distance between frames"
          value={packing.paddingPx}
          most={64}
          onChange={(paddingPx) => set({ packing: { paddingPx } })}
        />
        <span className="text-small text-muted">px</span>
      </FieldBox>
      <FieldBox label="extrude">
        <NumberField label="Edge repeated" value={packing.extrudePx} most={16} onChange={(extrudePx) => set({ packing: { extrudePx } })} />
        <span className="text-small text-muted">px</span>
      </FieldBox>
      <More label={`Pages: ${pagesInWords(packing)}`}>
        <PageSettings />
      </More>
      <More label="Placing">
        <PlacingSettings />
      </More>
    </>
  );
}

function pagesInWords({ sides, fixed, maxPx, square }: ReturnType<typeof useDelivery>["delivery"]["packing"]): string {
  if (sides === "fixed") return `${fixed.w} × ${fixed.h}`;
  return `${square ? "square, " : ""}${sides === "powerOfTwo" ? "powers of two " : ""}up to ${maxPx}`;
}
