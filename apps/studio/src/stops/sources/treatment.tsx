"use client";

import type { Source } from "@caravan/core/model";
import { ClearingDetail } from "./clearing-detail";
import { ColoursDetail } from "./colours-detail";
import { LayersDetail } from "./layers-detail";
import { ScaleDetail } from "./scale-detail";

/** Settings applied to a source's art before cutting: layers, scale, background, colours. */
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
