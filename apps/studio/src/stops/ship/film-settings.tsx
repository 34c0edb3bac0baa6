"use client";

import type { DeliveryChange } from "@caravan/core/edit";
import type { Delivery } from "@caravan/core/model";
import { ColourField } from "../../palettes/colour-field";
import { useProject } from "../../project/open-project";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { useDelivery } from "./chosen-delivery";
import { useLast } from "./last-setting";

const FORMATS = [
  ["apng", t("APNG, exact")],
  ["gif", t("GIF, plays everywhere")],
] as const;

/** As the screen shows what is clear. */
const USUAL_BACKGROUND = "#bdbbb6";

/** Which moving pictures each clip becomes. At least one. */
export function FilmSettings() {
  const { delivery, set } = useDelivery();
  const { films, gifBackground } = delivery;
  const lastBackground = useLast("background of GIFs", gifBackground, USUAL_BACKGROUND);
  const hasMirrors = useProject(({ actions }) => actions.some(({ facings }) => Object.values(facings).some(({ mirror }) => mirror)));
  const toggle = (format: Delivery["films"][number], on: boolean) => {
    const next = FORMATS.map(([each]) => each).filter((each) => (each === format ? on : films.includes(each)));
    if (next.length > 0) set({ films: next });
  };
  return (
    <>
      {FORMATS.map(([format, label]) => (
        <Tick key={format} label={label} checked={films.includes(format)} onChange={(on) => toggle(format, on)} />
      ))}
      {hasMirrors && (
        <Tick
          label={t("mirrored facings too")}
          checked={delivery.mirroredFilms === true}
          onChange={(on) => set({ mirroredFilms: on ? true : undefined } as DeliveryChange)}
        />
      )}
      {films.includes("gif") && (
        <span className="inline-flex items-center gap-1.5">
          <Tick
            label={t("background of GIFs")}
            checked={gifBackground !== undefined}
            onChange={(on) => set({ gifBackground: on ? lastBackground() : undefined } as DeliveryChange)}
          />
          {gifBackground !== undefined && (
            <ColourField label={t("Background of GIFs")} colour={gifBackground} onChange={(next) => set({ gifBackground: next })} />
          )}
        </span>
      )}
    </>
  );
}
