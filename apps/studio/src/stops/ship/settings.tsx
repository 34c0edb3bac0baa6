"use client";

import type { DeliveryChange } from "@caravan/core/edit";
import type { Delivery } from "@caravan/core/model";
import { useProject } from "../../project/open-project";
import { Choice } from "../../ui/choice";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { AtlasSettings } from "./atlas-settings";
import { useDelivery } from "./chosen-delivery";
import { FilmSettings } from "./film-settings";
import { SheetSettings } from "./sheet-settings";

const KINDS = [
  ["atlas", t("Packed pages")],
  ["grid", t("Grid sheet")],
  ["strips", t("Strips")],
  ["singles", t("Single pictures")],
  ["films", t("Films")],
] as const satisfies readonly (readonly [Delivery["kind"], string])[];

/** What kind of pictures go out, and how frames stand on them. */
export function Settings() {
  const { delivery, set } = useDelivery();
  const { kind } = delivery;
  const hasParts = useProject(({ parts }) => (parts?.length ?? 0) > 0);
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Choice label={t("Kind of pictures")} value={kind} options={KINDS} onChange={(next) => set({ kind: next })} />
      {kind === "atlas" && <AtlasSettings />}
      {(kind === "grid" || kind === "strips") && <SheetSettings />}
      {kind === "singles" && <p className="text-muted">{t("Each frame is a picture of its own, untrimmed, in a folder.")}</p>}
      {kind === "films" && <FilmSettings />}
      {kind !== "films" && hasParts && (
        <Tick
          label={t("draw parts into their hosts")}
          checked={delivery.parts === "baked"}
          onChange={(bakes) => set({ parts: bakes ? "baked" : undefined } as DeliveryChange)}
        />
      )}
      {kind !== "films" && (
        <Choice
          label={t("How the game scales it")}
          value={delivery.filter}
          options={[
            ["nearest", t("Crisp")],
            ["linear", t("Smooth")],
          ]}
          onChange={(filter) => set({ filter })}
        />
      )}
    </div>
  );
}
