"use client";

import { sheetLook } from "@caravan/core/art";
import { type Grid, gridOf } from "@caravan/core/cut";
import { cutSource } from "@caravan/core/edit";
import { type GridCut, type Size, type Source, type SourceId, sheetOf, whyOf } from "@caravan/core/model";
import { useEffect, useState } from "react";
import { earlierCuts } from "../../project/earlier-cuts";
import { editInGesture } from "../../project/open-project";
import { usePicture, usePictureProblem } from "../../project/pictures";
import { FIELDS, goToField } from "../../ui/fields-by-key";
import { useKeys } from "../../ui/keys";
import { sayUnlessDone } from "../../ui/notices";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { cutOf, isSpread, maySpread, nudged, withCell, withCounts, withSpread } from "./recipe";

interface Props {
  readonly cut: GridCut;
  /** What the cut comes to. */
  readonly grid: Grid;
  /** Cuts again; returns an error message. */
  readonly onCut: (next: GridCut) => string | undefined;
}

/** Cuts a whole sheet by a grid, consecutive nudges as one undo entry; returns an error message. */
export function useGridCut(source: Source): (next: GridCut) => string | undefined {
  const look = sheetLook(source);
  const picture = usePicture(look);
  const problem = usePictureProblem(look);
  return (next) => {
    if (!picture) return problem ?? t("The picture is still being read.");
    return editInGesture(`cut ${source.id}`, cutSource, source.id, next, picture.coverage, earlierCuts(source, next))?.message;
  };
}

/** The grid over a whole sheet. Values typed while the picture is still loading are shown at once and applied when it is there. */
export function CellFields({ source }: { source: Source }) {
  const look = sheetLook(source);
  const isRead = usePicture(look) !== undefined;
  const problem = usePictureProblem(look);
  const apply = useGridCut(source);
  const [waiting, setWaiting] = useState<{ readonly of: SourceId; readonly cut: GridCut } | null>(null);
  const cut = waiting?.of === source.id ? waiting.cut : cutOf(source);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the picture has come
  useEffect(() => {
    if (!isRead || !waiting) return;
    if (waiting.of === source.id) sayUnlessDone(apply(waiting.cut));
    setWaiting(null);
  }, [isRead, waiting]);
  const wait = (next: GridCut): string | undefined => {
    if (isRead || problem !== null) return apply(next);
    try {
      gridOf(sizeOf(source), next, source.name);
    } catch (error) {
      return whyOf(error);
    }
    setWaiting({ of: source.id, cut: next });
    return undefined;
  };
  return <GridFields cut={cut} grid={gridOf(sizeOf(source), cut, source.name)} onCut={wait} />;
}

function sizeOf(source: Source): Size {
  const { width, height } = sheetOf(source);
  return { w: width, h: height };
}

/** The grid, typed or nudged: cell size and counts are two ways to say the same, and either may be changed. */
export function GridFields({ cut, grid, onCut: apply }: Props) {
  const nudge = (dx: number, dy: number) => {
    apply(nudged(cut, grid, dx, dy));
  };
  useKeys(t("The grid"), [
    { keys: "g", label: t("Type how many columns and rows"), run: () => goToField("columns") },
    { keys: "Shift+g", label: t("Type the cell size"), run: () => goToField("cellWidth") },
    { keys: "Alt+ArrowLeft", repeats: true, label: t("Nudge the grid left"), run: () => nudge(-1, 0) },
    { keys: "Alt+ArrowRight", repeats: true, label: t("Nudge the grid right"), run: () => nudge(1, 0) },
    { keys: "Alt+ArrowUp", repeats: true, label: t("Nudge the grid up"), run: () => nudge(0, -1) },
    { keys: "Alt+ArrowDown", repeats: true, label: t("Nudge the grid down"), run: () => nudge(0, 1) },
  ]);
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      <FieldBox label={t("cells")}>
        <NumberField
          id={FIELDS.columns}
          label={t("Columns")}
          value={grid.columns}
          least={1}
          most={16_384}
          onChange={(columns) => apply(withCounts(cut, grid, { columns }))}
        />
        <span aria-hidden>×</span>
        <NumberField
          label={t("Rows")}
          value={grid.rows}
          least={1}
          most={16_384}
          onChange={(rows) => apply(withCounts(cut, grid, { rows }))}
        />
      </FieldBox>
      <span className="text-muted">{t("of")}</span>
      <FieldBox label={t("size")}>
        <NumberField
          id={FIELDS.cellWidth}
          label={t("Cell width")}
          value={grid.cell.w}
          least={1}
          most={16_384}
          onChange={(w) => apply(withCell(cut, grid, { w }))}
        />
        <span aria-hidden>×</span>
        <NumberField
          label={t("Cell height")}
          value={grid.cell.h}
          least={1}
          most={16_384}
          onChange={(h) => apply(withCell(cut, grid, { h }))}
        />
        <span className="text-small text-muted">{t("px")}</span>
      </FieldBox>
      <FieldBox label={t("margin")}>
        <NumberField
          label={t("Margin left")}
          value={cut.margin.x}
          most={16_384}
          onChange={(x) => apply({ ...cut, margin: { ...cut.margin, x } })}
        />
        <span aria-hidden>,</span>
        <NumberField
          label={t("Margin top")}
          value={cut.margin.y}
          most={16_384}
          onChange={(y) => apply({ ...cut, margin: { ...cut.margin, y } })}
        />
      </FieldBox>
      <FieldBox label={t("spacing")}>
        <NumberField
          label={t("Spacing across")}
          value={cut.gap.x}
          most={16_384}
          onChange={(x) => apply({ ...cut, gap: { ...cut.gap, x } })}
        />
        <span aria-hidden>,</span>
        <NumberField
          label={t("Spacing down")}
          value={cut.gap.y}
          most={16_384}
          onChange={(y) => apply({ ...cut, gap: { ...cut.gap, y } })}
        />
      </FieldBox>
      {maySpread(cut, grid) && (
        <Tick label={t("spread what is left over")} checked={isSpread(cut)} onChange={(spread) => apply(withSpread(cut, grid, spread))} />
      )}
      <Tick label={t("keep empty cells")} checked={cut.keepEmpty} onChange={(keepEmpty) => apply({ ...cut, keepEmpty })} />
    </div>
  );
}
