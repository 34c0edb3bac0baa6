"use client";

import { gridOf } from "@caravan/core/cut";
import type { Rect, Source } from "@caravan/core/model";
import { useView } from "../../project/view";
import { Button } from "../../ui/button";
import { useKeys } from "../../ui/keys";
import { FieldBox, NumberField } from "../../ui/number-field";
import { t } from "../../ui/words";
import { GridFields } from "./grid-fields";
import { regionsOf, removeRegion, setRegion } from "./regions";

/** Edits the regions of a sheet: the position and grid of the selected one. */
export function RegionFields({ source }: { source: Source }) {
  const regions = regionsOf(source);
  const wanted = useView((view) => view.region);
  const index = Math.min(wanted, regions.length - 1);
  const region = regions[index];
  const choose = (by: number) => regions.length > 0 && useView.setState({ region: (index + by + regions.length) % regions.length });
  useKeys(t("Regions"), [
    { keys: "]", label: t("Next region"), run: () => choose(1) },
    { keys: "[", label: t("Previous region"), run: () => choose(-1) },
    { keys: "Shift+Delete", label: t("Remove the region"), run: () => regions.length > 1 && removeRegion(source, index) },
  ]);
  if (!region) return <p className="text-muted">{t("Drag on the sheet around the frames that one grid fits.")}</p>;
  const { area, grid } = region;
  const place = (change: Partial<Rect>) => setRegion(source, index, { area: { ...area, ...change } });
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5">
        <ul aria-label={t("Regions")} className="flex gap-1">
          {regions.map((_, k) => (
            <li key={k}>
              <Button
                look={k === index ? "now" : "plain"}
                className="min-h-8 min-w-8 px-2"
                onClick={() => useView.setState({ region: k })}
                aria-pressed={k === index}
                aria-label={t("Region {number}", { number: k + 1 })}
              >
                {k + 1}
              </Button>
            </li>
          ))}
        </ul>
        <FieldBox label={t("at")}>
          <NumberField label={t("Region left")} value={area.x} most={16_384} onChange={(x) => place({ x })} />
          <span aria-hidden>,</span>
          <NumberField label={t("Region top")} value={area.y} most={16_384} onChange={(y) => place({ y })} />
        </FieldBox>
        <FieldBox label={t("of")}>
          <NumberField label={t("Region width")} value={area.w} least={1} most={16_384} onChange={(w) => place({ w })} />
          <span aria-hidden>×</span>
          <NumberField label={t("Region height")} value={area.h} least={1} most={16_384} onChange={(h) => place({ h })} />
          <span className="text-small text-muted">{t("px")}</span>
        </FieldBox>
        {regions.length > 1 && <Button onClick={() => removeRegion(source, index)}>{t("Remove")}</Button>}
        <span className="text-muted">{t("Drag on the sheet for another.")}</span>
      </div>
      <GridFields
        cut={grid}
        grid={gridOf({ w: area.w, h: area.h }, grid, source.name)}
        onCut={(next) => setRegion(source, index, { grid: next })}
      />
    </>
  );
}
