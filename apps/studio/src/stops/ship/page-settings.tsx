"use client";

import { Choice } from "../../ui/choice";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { useDelivery } from "./chosen-delivery";

/** Settings for pages: their size, their number, and what should share one. */
export function PageSettings() {
  const { delivery, set } = useDelivery();
  const { packing } = delivery;
  return (
    <>
      <Choice
        label={t("Page sides")}
        value={packing.sides}
        options={[
          ["free", t("As small as possible")],
          ["powerOfTwo", t("Powers of two")],
          ["fixed", t("One size")],
        ]}
        onChange={(sides) => set({ packing: { sides } })}
      />
      {packing.sides === "fixed" ? (
        <FieldBox label={t("every page")}>
          <NumberField
            label={t("Width of every page")}
            value={packing.fixed.w}
            least={16}
            most={16_384}
            step={64}
            onChange={(w) => set({ packing: { fixed: { ...packing.fixed, w } } })}
          />
          ×
          <NumberField
            label={t("Height of every page")}
            value={packing.fixed.h}
            least={16}
            most={16_384}
            step={64}
            onChange={(h) => set({ packing: { fixed: { ...packing.fixed, h } } })}
          />
          <span className="text-small text-muted">{t("px")}</span>
        </FieldBox>
      ) : (
        <>
          <FieldBox label={t("up to")}>
            <NumberField
              label={t("Largest page side")}
              value={packing.maxPx}
              least={16}
              most={16_384}
              step={256}
              onChange={(maxPx) => set({ packing: { maxPx } })}
            />
            <span className="text-small text-muted">{t("px a side")}</span>
          </FieldBox>
          <Tick label={t("square")} checked={packing.square} onChange={(square) => set({ packing: { square } })} />
        </>
      )}
      <div className="flex gap-2">
        <FieldBox label={t("at most")}>
          <NumberField
            label={t("Most pages")}
            value={packing.maxPages}
            least={1}
            most={999}
            onChange={(maxPages) => set({ packing: { maxPages } })}
          />
          <span className="text-small text-muted">{t("pages")}</span>
        </FieldBox>
        <FieldBox label={t("transparent border")}>
          <NumberField
            label={t("Transparent border")}
            value={packing.borderPx}
            most={64}
            onChange={(borderPx) => set({ packing: { borderPx } })}
          />
          <span className="text-small text-muted">{t("px")}</span>
        </FieldBox>
      </div>
      <p className="text-small text-muted">{t("Kept on one page, where pages are large enough:")}</p>
      <Choice
        label={t("Kept on one page")}
        value={packing.together}
        options={[
          ["nothing", t("nothing")],
          ["clips", t("each clip")],
          ["actions", t("each action")],
        ]}
        onChange={(together) => set({ packing: { together } })}
      />
    </>
  );
}
