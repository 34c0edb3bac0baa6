"use client";

import { counted, isOfPieces, type Source } from "@caravan/core/model";
import { lazy, Suspense } from "react";
import { useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { inBackground } from "../../ui/in-background";
import { sayTrouble } from "../../ui/notices";
import { NumberField } from "../../ui/number-field";
import { Tick } from "../../ui/tick";
import { putTogetherFrom, setBudget, useBudget, useCounted } from "./budget";

const BudgetChart = lazy(() => import("./budget-chart"));

/** What the frames would cost a machine of few tiles and colours, against limits that a person sets. */
export function BudgetDetail({ source }: { source: Source }) {
  const project = useProject((each) => each);
  const budget = useBudget();
  const cost = useCounted(project, source);
  const { tile, flips, mostTiles, mostColours } = budget;
  const side = (label: string, value: number, change: (value: number) => { w: number; h: number }) => (
    <NumberField label={label} value={value} least={1} most={256} onChange={(next) => void setBudget({ tile: change(next) })} />
  );
  return (
    <Detail title="Budget" aside={`${tile.w} × ${tile.h} px`}>
      {!budget.counts ? (
        <Button className="min-h-7" onClick={() => setBudget({ counts: true })}>
          Count tiles and colours
        </Button>
      ) : (
        <>
          <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1.5 text-muted">
            <span className="flex items-center gap-1">
              tile {side("Tile width", tile.w, (w) => ({ ...tile, w }))} × {side("Tile height", tile.h, (h) => ({ ...tile, h }))}
            </span>
            <Tick label="flips are one" checked={flips} onChange={(next) => setBudget({ flips: next })} />
          </div>
          {!cost && <p className="text-muted">counting …</p>}
          {cost && (
            <>
              <Bar word="tiles" count={cost.distinct} most={mostTiles} onMost={(next) => setBudget({ mostTiles: next })} />
              <Bar word="colours" count={cost.colours} most={mostColours} onMost={(next) => setBudget({ mostColours: next })} />
              <p className="mb-1 text-small text-muted">
                {counted(cost.tiles, "tile")} drawn, {cost.distinct} distinct. What each frame costs alone:
              </p>
              <Suspense fallback={<div className="h-24" />}>
                <BudgetChart perFrame={cost.perFrame} />
              </Suspense>
              {!isOfPieces(source) && (
                <Button className="mt-1.5 min-h-7" onClick={() => inBackground(putTogetherFrom(source).catch(sayTrouble))}>
                  Put together from its tiles
                </Button>
              )}
            </>
          )}
        </>
      )}
    </Detail>
  );
}

/** A count against its limit, in words as well as in length. */
function Bar({ word, count, most, onMost }: { word: string; count: number; most: number | null; onMost: (most: number | null) => void }) {
  const over = most !== null && count > most;
  const part = most === null ? 0 : Math.min(1, count / most);
  return (
    <div className="mb-2">
      <p className="flex items-center justify-between gap-2">
        <span>
          <strong className="number">{count}</strong> {word}
          {over && <strong className="text-brick"> · {count - most} too many</strong>}
        </span>
        <span className="flex items-center gap-1 text-small text-muted">
          {most === null ? "no limit" : "at most"}
          <NumberField
            label={`At most so many ${word}; 0 for no limit`}
            value={most ?? 0}
            least={0}
            most={100_000}
            onChange={(next) => void onMost(next === 0 ? null : next)}
          />
        </span>
      </p>
      {most !== null && (
        <span
          role="img"
          aria-label={`${count} of ${most} ${word}`}
          className="mt-1 block h-2.5 overflow-hidden rounded-box border border-line bg-raised"
        >
          <span className={`block h-full ${over ? "bg-brick" : "bg-cactus"}`} style={{ width: `${part * 100}%` }} />
        </span>
      )}
    </div>
  );
}
