"use client";

import type { Density } from "@caravan/core/model";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { sizeInWords } from "../../ui/files";
import { FieldBox, NumberField } from "../../ui/number-field";
import { TextField } from "../../ui/text-field";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { shownPages } from "../../workers/jobs";
import { useCurrentBuild } from "./build";
import { useDelivery } from "./chosen-delivery";

/** The default file suffix of a scale. */
function suffixOf(scale: number): string {
  return scale === 1 ? "" : `@${scale}x`;
}

/** The scales of a delivery, each with its suffix and its cost. */
export function Sizes() {
  const { delivery, set } = useDelivery();
  const build = useCurrentBuild();
  const { densities } = delivery;
  const change = (k: number, part: Partial<Density>) =>
    set({ densities: densities.map((each, j) => (j === k ? { ...each, ...part } : each)) });
  // A suffix that a person has written stays; one that came with the scale follows it.
  const rescale = (k: number, { scale: before, suffix }: Density, scale: number) =>
    change(k, { scale, ...(suffix === suffixOf(before) ? { suffix: suffixOf(scale) } : {}) });
  const setCrisp = (k: number, crisp: boolean) =>
    set({
      densities: densities.map(({ crisp: _, ...each }, j) =>
        j === k ? (crisp ? { ...each, crisp: true } : each) : (densities[j] as Density),
      ),
    });
  const add = () => {
    const scale = Math.min(16, Math.max(...densities.map((each) => each.scale)) * 2);
    set({ densities: [...densities, { scale, suffix: suffixOf(scale) }] });
  };
  const costOf = ({ suffix }: Density) => {
    if (build.kind !== "built") return "";
    const own = build.delivered.pages.filter((page) => page.suffix === suffix);
    const images = new Set(shownPages(own).map(({ image }) => image));
    const disk = build.delivered.files.reduce((sum, { path, bytes }) => sum + (images.has(path) ? bytes.length : 0), 0);
    return t("{disk} of pages, {memory} in memory", {
      disk: sizeInWords(disk),
      memory: sizeInWords(own.reduce((sum, { memory }) => sum + memory, 0)),
    });
  };
  return (
    <Detail title={t("Sizes")}>
      <ul className="flex flex-col gap-1.5">
        {densities.map((density, k) => (
          <li key={k} className="flex flex-wrap items-center gap-1.5">
            <FieldBox label="×">
              <NumberField
                label={t("Scale {number}", { number: k + 1 })}
                value={density.scale}
                least={0.01}
                most={16}
                decimals={3}
                onChange={(scale) => rescale(k, density, scale)}
              />
            </FieldBox>
            <TextField
              label={t("Suffix {number}", { number: k + 1 })}
              value={density.suffix}
              placeholder={t("no suffix")}
              onChange={(suffix) => change(k, { suffix: suffix.trim() })}
              className="number w-24 border-line"
            />
            {densities.length > 1 && (
              <Button
                once
                look="quiet"
                className="px-1.5"
                aria-label={t("Leave out size {number}", { number: k + 1 })}
                onClick={() => set({ densities: densities.filter((_, j) => j !== k) })}
              >
                ×
              </Button>
            )}
            {!Number.isInteger(density.scale) && (
              <Tick label={t("crisp, by nearest pixels")} checked={density.crisp ?? false} onChange={(crisp) => setCrisp(k, crisp)} />
            )}
            <span className="number min-h-5 w-full text-right text-small text-muted">{costOf(density)}</span>
          </li>
        ))}
      </ul>
      {densities.length < 8 && (
        <Button className="mt-1.5" onClick={add}>
          {t("Add a size")}
        </Button>
      )}
    </Detail>
  );
}
