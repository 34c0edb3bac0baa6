"use client";

import type { Source } from "@caravan/core/model";
import { ClearingDetail } from "./clearing-detail";
import { ColoursDetail } from "./colours-detail";
import { LayersDetail } from "./layers-detail";
import { ScaleDetail } from "./scale-detail";

/** What is done to the art of a source before it is cut: what lies over it, its scale, its background, its colours. */
export function Treatment({ source }: { source: Source }) {
  return (
    <>
      <LayersDetail source={source} />
      <ScaleDetail source={source} />
      <ClearingDetail source={source} />
      <ColoursDetail key={source.id} source={source} />
    </>
  );
}
