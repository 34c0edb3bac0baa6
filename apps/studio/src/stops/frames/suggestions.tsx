"use client";

import { sheetLook } from "@caravan/core/art";
import { cellRect, cutOfSuggestion, type GridSuggestion, gridOf } from "@caravan/core/cut";
import { cutSource } from "@caravan/core/edit";
import type { Rect, Source } from "@caravan/core/model";
import { isClear } from "@caravan/core/raster";
import { useEffect, useMemo, useRef } from "react";
import { edit } from "../../project/open-project";
import { type Picture, usePicture } from "../../project/pictures";
import { useSuggestedGrids } from "../../project/suggested-grids";
import { useKeys } from "../../ui/keys";
import { sayUnlessDone } from "../../ui/notices";

const SIDE = 44; // px

/** Grids that the picture itself suggests, as small moving pictures: the one that moves right is the right one. */
export function Suggestions({ source }: { source: Source }) {
  const picture = usePicture(sheetLook(source));
  const suggestions = useSuggestedGrids(source);
  const cut = JSON.stringify(source.cut);
  const at = suggestions.findIndex((each) => JSON.stringify(cutOfSuggestion(each)) === cut);
  const take = (index: number) => {
    const suggestion = suggestions[index];
    if (!suggestion || !picture) return;
    const error = edit(cutSource, source.id, cutOfSuggestion(suggestion), picture.coverage);
    sayUnlessDone(error);
  };
  useKeys("Suggestions", [
    { keys: "q", label: "Take the best suggestion; again for the next", run: () => take((at + 1) % Math.max(1, suggestions.length)) },
  ]);
  if (!picture || suggestions.length === 0) return null;
  return (
    <div className="flex items-center gap-2">
      <span className="text-muted">
        suggested <kbd className="text-small">Q</kbd>
      </span>
      <ul aria-label="Suggested grids" className="flex gap-1.5">
        {suggestions.map((suggestion, k) => (
          <li key={JSON.stringify(suggestion)}>
            <button
              type="button"
              onClick={() => take(k)}
              aria-pressed={k === at}
              aria-label={inWords(suggestion)}
              title={inWords(suggestion)}
              className={`check block overflow-hidden rounded-box border-2 ${k === at ? "border-now" : "border-line hover:border-lapis"}`}
            >
              <MovingCells suggestion={suggestion} picture={picture} />
              <span className="number block bg-raised text-center text-small">
                {suggestion.cell.w}×{suggestion.cell.h}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

function inWords({ cell, columns, rows, margin, gap }: GridSuggestion): string {
  const spaces = [
    ...(margin.x + margin.y > 0 ? [`margin ${margin.x}, ${margin.y}`] : []),
    ...(gap.x + gap.y > 0 ? [`gap ${gap.x}, ${gap.y}`] : []),
  ];
  return [`${columns} × ${rows} cells of ${cell.w} × ${cell.h}`, ...spaces].join(", ");
}

/** The first row that has more than one drawn cell, played. */
function MovingCells({ suggestion, picture }: { suggestion: GridSuggestion; picture: Picture }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const rects = useMemo(() => rowToShow(suggestion, picture), [suggestion, picture]);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || rects.length === 0) return;
    const density = Math.max(1, Math.round(devicePixelRatio));
    context.canvas.width = SIDE * density;
    context.canvas.height = SIDE * density;
    const { w, h } = suggestion.cell;
    const fit = Math.min((SIDE * density) / w, (SIDE * density) / h);
    const scale = fit >= 1 ? Math.floor(fit) : fit;
    const paint = (k: number) => {
      const { x, y } = rects[k % rects.length] as Rect;
      context.clearRect(0, 0, SIDE * density, SIDE * density);
      context.imageSmoothingEnabled = scale < 1;
      context.drawImage(
        picture.bitmap,
        x,
        y,
        w,
        h,
        Math.round((SIDE * density - w * scale) / 2),
        Math.round((SIDE * density - h * scale) / 2),
        w * scale,
        h * scale,
      );
    };
    paint(0);
    if (matchMedia("(prefers-reduced-motion: reduce)").matches) return;
    let shown = 0;
    const timer = setInterval(() => paint(++shown), 110);
    return () => clearInterval(timer);
  }, [rects, suggestion, picture]);
  return <canvas ref={canvas} aria-hidden className="block" style={{ width: SIDE, height: SIDE }} />;
}

function rowToShow(suggestion: GridSuggestion, { coverage, width, height }: Picture): Rect[] {
  const grid = gridOf({ w: width, h: height }, cutOfSuggestion(suggestion), "suggestion");
  let best: Rect[] = [];
  for (let row = 0; row < Math.min(grid.rows, 12); row++) {
    const rects = Array.from({ length: Math.min(grid.columns, 24) }, (_, column) => cellRect(grid, column, row));
    const drawn = rects.filter((rect) => !isClear(coverage, rect));
    if (drawn.length > best.length) best = drawn;
  }
  return best;
}
