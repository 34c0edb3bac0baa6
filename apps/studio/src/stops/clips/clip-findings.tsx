"use client";

import type { Clip } from "@caravan/core/model";
import { PlaceFindings } from "../../project/place-findings";
import { t } from "../../ui/words";

/** Lists findings on the selected clip, each with its steps and its mending. */
export function ClipFindings({ clip }: { clip: Clip }) {
  return (
    <PlaceFindings
      label={t("Findings on this clip")}
      at={(place) => place.stop === "clips" && "clip" in place && place.clip === clip.name}
    />
  );
}
