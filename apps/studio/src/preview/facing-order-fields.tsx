"use client";

import { FACINGS } from "@caravan/core/model";
import { setFacingOrder, useFacingOrder } from "../project/facing-order";
import { Select } from "../ui/select";
import { t } from "../ui/words";

/** Chooses the first facing, and the direction of the others. */
export function FacingOrderFields({ onChange }: { onChange?: () => void }) {
  const order = useFacingOrder();
  const change = (next: Partial<typeof order>) => {
    setFacingOrder({ ...order, ...next });
    onChange?.();
  };
  return (
    <div className="flex flex-wrap items-center gap-3">
      <span className="flex items-center gap-1.5 text-muted">
        {t("The first faces")}
        <Select
          label={t("First facing")}
          value={order.first}
          options={FACINGS.map((facing) => [facing, facing.toUpperCase()] as const)}
          onChange={(first) => change({ first })}
        />
      </span>
      <span className="flex items-center gap-1.5 text-muted">
        {t("the others follow")}
        <Select
          label={t("Direction")}
          value={order.clockwise ? "clockwise" : "other"}
          options={[
            ["clockwise", t("clockwise")],
            ["other", t("the other way")],
          ]}
          onChange={(way) => change({ clockwise: way === "clockwise" })}
        />
      </span>
    </div>
  );
}
