"use client";

import { counted, type FrameRef, type SourceId } from "@caravan/core/model";
import { lazy, type ReactNode, Suspense } from "react";
import { useProject } from "../project/open-project";
import { chooseSource, go, useView } from "../project/view";
import { Button } from "../ui/button";
import { Detail } from "../ui/detail";
import { NumberField } from "../ui/number-field";
import { Tick } from "../ui/tick";
import { t } from "../ui/words";
import type { CountedTiles } from "../workers/jobs";
import { type Budget, type Counted, setBudget, useBudget, useCounted } from "./budget";

const BudgetChart = lazy(() => import("./budget-chart"));

/** What frames would cost a machine of few tiles and colours, against limits that a person sets. */
export function BudgetDetail({ of, children }: { of: Counted; children?: ReactNode }) {
  const project = useProject((each) => each);
  const budget = useBudget();
  const cost = useCounted(project, of);
  const { tile, flips } = budget;
  const side = (label: string, value: number, change: (value: number) => { w: number; h: number }) => (
    <NumberField label={label} value={value} least={1} most={256} onChange={(next) => void setBudget({ tile: change(next) })} />
  );
  return (
    <Detail title={t("Budget")} aside={t("{w} × {h} px", { w: tile.w, h: tile.h })}>
      {!budget.counts ? (
        <Button className="min-h-7" onClick={() => setBudget({ counts: true })}>
          {t("Count tiles and colours")}
        </Button>
      ) : (
        <>
          <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1.5 text-muted">
            <span className="flex items-center gap-1">
              {t("tile")} {side(t("Tile width"), tile.w, (w) => ({ ...tile, w }))} ×{" "}
              {side(t("Tile height"), tile.h, (h) => ({ ...tile, h }))}
            </span>
            <Tick label={t("treat flips as equal")} checked={flips} onChange={(next) => setBudget({ flips: next })} />
          </div>
          {!cost && <p className="text-muted">{t("counting …")}</p>}
          {cost && <Cost cost={cost} budget={budget} palettes={project.palettes?.length ?? 0} />}
          {cost && children}
        </>
      )}
    </Detail>
  );
}

function Cost({ cost, budget, palettes }: { cost: CountedTiles; budget: Budget; palettes: number }) {
  const { mostTiles, mostColours, mostPalettes, mostTileColours } = budget;
  const { perFrame } = cost;
  const worn = new Set(perFrame.flatMap((each) => each.palettes)).size;
  const inFrame = perFrame.reduce((most, each) => Math.max(most, each.palettes.length), 0);
  const inTile = perFrame.reduce((most, each) => Math.max(most, each.mostColours), 0);
  const outside = perFrame.reduce((sum, each) => sum + each.outside, 0);
  return (
    <>
      <Bar word={t("tiles")} count={cost.distinct} most={mostTiles} onMost={(next) => setBudget({ mostTiles: next })} />
      <Bar word={t("colours")} count={cost.colours} most={mostColours} onMost={(next) => setBudget({ mostColours: next })} />
      <Bar word={t("colours per tile")} count={inTile} most={mostTileColours} onMost={(next) => setBudget({ mostTileColours: next })} />
      {mostTileColours !== null && (
        <Over
          frames={perFrame.filter((each) => each.mostColours > mostTileColours)}
          what={(each) => t("{count} colours", { count: each.mostColours })}
        />
      )}
      {palettes > 0 && (
        <>
          <Bar word={t("palettes per frame")} count={inFrame} most={mostPalettes} onMost={(next) => setBudget({ mostPalettes: next })} />
          {mostPalettes !== null && (
            <Over frames={perFrame.filter((each) => each.palettes.length > mostPalettes)} what={(each) => each.palettes.join(", ")} />
          )}
          <p className="mb-1 text-small text-muted">
            {outside === 0
              ? t("{palettes} in use; every tile uses the colours of one.", { palettes: counted(worn, "palette") })
              : t("{palettes} in use; {tiles} colours of none or of several.", {
                  palettes: counted(worn, "palette"),
                  tiles: counted(outside, "tile has", "tiles have"),
                })}
          </p>
        </>
      )}
      <p className="mb-1 text-small text-muted">
        {t("{tiles} drawn, {distinct} distinct. What each frame costs alone:", {
          tiles: counted(cost.tiles, "tile"),
          distinct: cost.distinct,
        })}
      </p>
      <Suspense fallback={<div className="h-24" />}>
        <BudgetChart perFrame={perFrame} />
      </Suspense>
    </>
  );
}

type FrameCost = CountedTiles["perFrame"][number];
/** Frames beyond a limit that are listed. */
const LISTED = 5;

/** Frames beyond a limit; a click opens one. */
function Over({ frames, what }: { frames: readonly FrameCost[]; what: (frame: FrameCost) => string }) {
  if (frames.length === 0) return null;
  return (
    <ul aria-label={t("Beyond the limit")} className="mb-2 flex flex-col items-start gap-0.5 text-small">
      {frames.slice(0, LISTED).map((each) => (
        <li key={each.ref}>
          <button type="button" className="underline decoration-dotted underline-offset-2" onClick={() => showFrame(each.ref)}>
            {each.name}
          </button>
          : {what(each)}
        </li>
      ))}
      {frames.length > LISTED && <li className="text-muted">{t("and {count} more", { count: frames.length - LISTED })}</li>}
    </ul>
  );
}

function showFrame(ref: FrameRef): void {
  go("frames");
  chooseSource(ref.slice(0, ref.indexOf("/")) as SourceId);
  useView.setState({ cursor: ref });
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
          {over && <strong className="text-brick"> · {t("{count} too many", { count: count - most })}</strong>}
        </span>
        <span className="flex items-center gap-1 text-small text-muted">
          {most === null ? t("no limit") : t("at most")}
          <NumberField
            label={t("Limit of {word}; 0 for none", { word })}
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
          aria-label={t("{count} of {most} {word}", { count, most, word })}
          className="mt-1 block h-2.5 overflow-hidden rounded-box border border-line bg-raised"
        >
          <span className={`block h-full ${over ? "bg-brick" : "bg-cactus"}`} style={{ width: `${part * 100}%` }} />
        </span>
      )}
    </div>
  );
}
