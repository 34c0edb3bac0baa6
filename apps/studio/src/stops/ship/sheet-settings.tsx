"use client";

import type { DeliveryChange } from "@caravan/core/edit";
import { Choice } from "../../ui/choice";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { useDelivery } from "./chosen-delivery";
import { useLast } from "./last-setting";

/** Settings for equal cells on a grid sheet or a strip. */
export function SheetSettings() {
  const { delivery, set } = useDelivery();
  const { kind, sheet } = delivery;
  const lastColumns = useLast("columns", sheet.columns, 8);
  return (
    <>
      {kind === "strips" ? (
        <Choice
          label={t("Frames follow each other")}
          value={sheet.run}
          options={[
            ["along", t("To the right")],
            ["down", t("Down")],
          ]}
          onChange={(run) => set({ sheet: { run } })}
        />
      ) : (
        <>
          <Tick
            label={t("a row for each clip")}
            checked={sheet.rows === "clips"}
            onChange={(on) => set({ sheet: { rows: on ? "clips" : undefined } } as DeliveryChange)}
          />
          {sheet.rows !== "clips" && (
            <Tick
              label={t("choose columns automatically")}
              checked={sheet.columns === null}
              onChange={(proposed) => set({ sheet: { columns: proposed ? null : lastColumns() } })}
            />
          )}
          {sheet.rows !== "clips" && sheet.columns !== null && (
            <FieldBox label={t("columns")}>
              <NumberField
                label={t("Columns of the sheet")}
                value={sheet.columns}
                least={1}
                most={4096}
                onChange={(columns) => set({ sheet: { columns } })}
              />
            </FieldBox>
          )}
        </>
      )}
      <FieldBox label={t("margin")}>
        <NumberField
          label={t("Margin of the sheet")}
          value={sheet.marginPx}
          most={256}
          onChange={(marginPx) => set({ sheet: { marginPx } })}
        />
        <span className="text-small text-muted">{t("px")}</span>
      </FieldBox>
      <FieldBox label={t("spacing")}>
        <NumberField label={t("Spacing between cells")} value={sheet.gapPx} most={256} onChange={(gapPx) => set({ sheet: { gapPx } })} />
        <span className="text-small text-muted">{t("px")}</span>
      </FieldBox>
    </>
  );
}
