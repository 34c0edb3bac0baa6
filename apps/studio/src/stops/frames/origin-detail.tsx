"use client";

import { setSourceOrigin } from "@caravan/core/edit";
import { type Frame, originOf, type Source } from "@caravan/core/model";
import { edit, editInGesture } from "../../project/open-project";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { FieldBox, NumberField } from "../../ui/number-field";
import { t } from "../../ui/words";

/** Sets the common origin of a source's frames. */
export function OriginDetail({ source, frame }: { source: Source; frame: Frame }) {
  const origin = originOf(source, frame);
  const set = (next: { x: number; y: number }) => editInGesture(`origin ${source.id}`, setSourceOrigin, source.id, next)?.message;
  return (
    <Detail title={t("Stands on")} aside={t("px from the frame's top left")}>
      <div className="flex flex-wrap items-center gap-2">
        <FieldBox label="x">
          <NumberField
            label={t("Origin x")}
            value={origin.x}
            least={-32_768}
            most={32_768}
            step={0.5}
            decimals={1}
            width={5}
            onChange={(x) => set({ ...origin, x })}
          />
        </FieldBox>
        <FieldBox label="y">
          <NumberField
            label={t("Origin y")}
            value={origin.y}
            least={-32_768}
            most={32_768}
            step={0.5}
            decimals={1}
            width={5}
            onChange={(y) => set({ ...origin, y })}
          />
        </FieldBox>
        {source.origin && <Button onClick={() => edit(setSourceOrigin, source.id, null)}>{t("Middle of bottom")}</Button>}
      </div>
      <p className="mt-2 text-small text-muted">
        {t("The same for all frames of {name}. The cross in the player shows it.", { name: source.name })}
      </p>
    </Detail>
  );
}
