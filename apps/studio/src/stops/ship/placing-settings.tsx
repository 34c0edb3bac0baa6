"use client";

import { FieldBox, NumberField } from "../../ui/number-field";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { useDelivery } from "./chosen-delivery";

/** Settings for how frames may be changed to make pages smaller. */
export function PlacingSettings() {
  const { delivery, set } = useDelivery();
  const { packing } = delivery;
  return (
    <>
      <div className="flex items-center gap-3">
        <Tick label={t("trim transparent edges")} checked={packing.trim} onChange={(trim) => set({ packing: { trim } })} />
        {packing.trim && (
          <FieldBox label={t("leaving")}>
            <NumberField
              label={t("Transparent pixels to keep around")}
              value={packing.trimMarginPx}
              most={64}
              onChange={(trimMarginPx) => set({ packing: { trimMarginPx } })}
            />
            <span className="text-small text-muted">{t("px")}</span>
          </FieldBox>
        )}
      </div>
      <Tick label={t("share identical frames")} checked={packing.share} onChange={(share) => set({ packing: { share } })} />
      {packing.share && (
        <Tick
          label={t("share mirrored frames too (your game must draw them mirrored)")}
          checked={packing.shareMirrored}
          onChange={(shareMirrored) => set({ packing: { shareMirrored } })}
        />
      )}
      <Tick label={t("rotate frames by 90° where it saves space")} checked={packing.turn} onChange={(turn) => set({ packing: { turn } })} />
      <Tick
        label={t("search longer for smaller pages")}
        checked={packing.effort === "high"}
        onChange={(high) => set({ packing: { effort: high ? "high" : "normal" } })}
      />
    </>
  );
}
