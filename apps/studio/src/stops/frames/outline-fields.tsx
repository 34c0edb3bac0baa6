"use client";

import { USUAL_OUTLINES } from "@caravan/core/cut";
import type { Source } from "@caravan/core/model";
import { useEffect, useRef, useState } from "react";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Slider } from "../../ui/slider";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { cutAlongOutlines, type OutlineCut } from "./along-outlines";

/** Settings for outlines: how far loose parts may be from their figure, the least size of a frame, and level rows; applied live. */
export function OutlineFields({ source }: { source: Source }) {
  const cut = source.cut?.by === "outlines" ? source.cut : USUAL_OUTLINES;
  const [wanted, setWanted] = useState<OutlineCut | null>(null);
  const shown = wanted ?? cut;
  const latest = useRef(source);
  latest.current = source;
  // While the slider moves, each new place is cut as soon as the one before it is.
  useEffect(() => {
    if (!wanted) return;
    let superseded = false;
    const timer = setTimeout(async () => {
      await cutAlongOutlines(latest.current, wanted);
      if (!superseded) setWanted(null);
    }, 60);
    return () => {
      superseded = true;
      clearTimeout(timer);
    };
  }, [wanted]);
  const change = (part: Partial<OutlineCut>): undefined => {
    setWanted({ ...shown, ...part });
  };
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
      <FieldBox label={t("join parts up to")}>
        <Slider
          label={t("Join parts up to, in pixels")}
          value={shown.joinPx}
          least={0}
          most={48}
          onChange={(joinPx) => change({ joinPx })}
        />
        <NumberField
          label={t("Join distance")}
          value={shown.joinPx}
          least={0}
          most={256}
          unit="px"
          onChange={(joinPx) => change({ joinPx })}
        />
      </FieldBox>
      <FieldBox label={t("ignore below")}>
        <NumberField
          label={t("Least pixels")}
          value={shown.leastPx}
          least={1}
          most={100_000}
          unit="px"
          onChange={(leastPx) => change({ leastPx })}
        />
      </FieldBox>
      <Tick label={t("Rows level: equal sizes, feet on one line")} checked={shown.level} onChange={(level) => change({ level })} />
    </div>
  );
}
