"use client";

import { More } from "../../ui/more";
import { FieldBox, NumberField } from "../../ui/number-field";
import { t } from "../../ui/words";
import { useDelivery } from "./chosen-delivery";
import { PageSettings } from "./page-settings";
import { PlacingSettings } from "./placing-settings";

/** Settings for packing frames: the common distances in view, the rest one click away. */
export function AtlasSettings() {
  const { delivery, set } = useDelivery();
  const { packing } = delivery;
  return (
    <>
      <FieldBox label={t("padding")}>
        <NumberField
          label={t("Distance between frames")}
          value={packing.paddingPx}
          most={64}
          onChange={(paddingPx) => set({ packing: { paddingPx } })}
        />
        <span className="text-small text-muted">{t("px")}</span>
      </FieldBox>
      <FieldBox label={t("extrude")}>
        <NumberField label={t("Extrude")} value={packing.extrudePx} most={16} onChange={(extrudePx) => set({ packing: { extrudePx } })} />
        <span className="text-small text-muted">{t("px")}</span>
      </FieldBox>
      <More label={t("Pages: {pages}", { pages: pagesInWords(packing) })}>
        <PageSettings />
      </More>
      <More label={t("Placing")}>
        <PlacingSettings />
      </More>
    </>
  );
}

function pagesInWords({ sides, fixed, maxPx, square }: ReturnType<typeof useDelivery>["delivery"]["packing"]): string {
  if (sides === "fixed") return `${fixed.w} × ${fixed.h}`;
  const powers = sides === "powerOfTwo";
  return square
    ? powers
      ? t("square, powers of two up to {maxPx}", { maxPx })
      : t("square, up to {maxPx}", { maxPx })
    : powers
      ? t("powers of two up to {maxPx}", { maxPx })
      : t("up to {maxPx}", { maxPx });
}
