"use client";

import type { Grid } from "@caravan/core/cut";
import type { GridCut, Source } from "@caravan/core/model";
import { Button } from "../../ui/button";
import { Detail } from "../../ui/detail";
import { FieldBox, NumberField } from "../../ui/number-field";
import { t } from "../../ui/words";
import { useGridCut } from "./grid-fields";
import { cutOf, gridOfSource, isGrid } from "./recipe";

/** Chooses which part of the grid becomes frames: some columns, some rows, or the whole grid moved. */
export function GridPart({ source }: { source: Source }) {
  const apply = useGridCut(source);
  if (!isGrid(source) || !source.cut) return null;
  const cut = cutOf(source);
  const grid = gridOfSource(source);
  const offset = cut.offset ?? { x: 0, y: 0 };
  const isPlain = !cut.offset && !cut.only;
  return (
    <Detail title={t("Part of the grid")} aside={isPlain ? t("all of it") : undefined}>
      <div className="flex flex-wrap items-center gap-1.5">
        <RangeField word={t("columns")} side="columns" cut={cut} grid={grid} onCut={apply} />
        <RangeField word={t("rows")} side="rows" cut={cut} grid={grid} onCut={apply} />
        <FieldBox label={t("moved by")}>
          <NumberField
            label={t("Moved right by")}
            value={offset.x}
            least={-16_384}
            most={16_384}
            onChange={(x) => apply(moved(cut, { ...offset, x }))}
          />
          <span aria-hidden>,</span>
          <NumberField
            label={t("Moved down by")}
            value={offset.y}
            least={-16_384}
            most={16_384}
            onChange={(y) => apply(moved(cut, { ...offset, y }))}
          />
          <span className="text-small text-muted">{t("px")}</span>
        </FieldBox>
        {!isPlain && (
          <Button
            onClick={() => {
              const { offset: _, only: __, ...whole } = cut;
              apply(whole as GridCut);
            }}
          >
            {t("All of it")}
          </Button>
        )}
      </div>
    </Detail>
  );
}

interface RangeProps {
  readonly word: string;
  readonly side: "columns" | "rows";
  readonly cut: GridCut;
  readonly grid: Grid;
  readonly onCut: (next: GridCut) => string | undefined;
}

/** From which to which column or row; all of them is no range at all. */
function RangeField({ word, side, cut, grid, onCut }: RangeProps) {
  const end = grid[side] - 1;
  const { first, last } = cut.only?.[side] ?? { first: 0, last: end };
  const take = (range: { first: number; last: number }): string | undefined => {
    if (range.first > range.last)
      return t("The first is after the last: {first} to {last} contains nothing.", { first: range.first, last: range.last });
    const { [side]: _, ...other } = cut.only ?? {};
    const only = range.first === 0 && range.last >= end ? other : { ...other, [side]: range };
    const { only: __, ...rest } = cut;
    return onCut((Object.keys(only).length > 0 ? { ...rest, only } : rest) as GridCut);
  };
  return (
    <FieldBox label={word}>
      <NumberField
        label={t("First of the {word}", { word })}
        value={first}
        least={0}
        most={end}
        onChange={(next) => take({ first: next, last })}
      />
      <span aria-hidden>–</span>
      <NumberField
        label={t("Last of the {word}", { word })}
        value={Math.min(last, end)}
        least={0}
        most={end}
        onChange={(next) => take({ first, last: next })}
      />
    </FieldBox>
  );
}

function moved(cut: GridCut, offset: { x: number; y: number }): GridCut {
  const { offset: _, ...rest } = cut;
  return (offset.x === 0 && offset.y === 0 ? rest : { ...rest, offset }) as GridCut;
}
