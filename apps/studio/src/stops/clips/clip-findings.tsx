"use client";

import type { Clip } from "@caravan/core/model";
import { PlaceFindings } from "../../project/place-findings";

/** What looks wrong about the chosen clip, each with its steps and its mending. */
export function ClipFindings({ clip }: { clip: Clip }) {
  return (
    <PlaceFindings label="Findings on this clip" at={(place) => place.stop === "clips" && "clip" in place && place.clip === clip.name} />
  );
}
