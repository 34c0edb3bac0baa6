"use client";

import { sheetLook } from "@caravan/core/art";
import { cellRect, cutOfSuggestion, type GridSuggestion, gridOf, type Piece } from "@caravan/core/cut";
import { cutSource } from "@caravan/core/edit";
import type { GridCut, Rect, Size, Source, Spacing } from "@caravan/core/model";
import { isClear } from "@caravan/core/raster";
import { Toolbar } from "radix-ui";
import { useEffect, useMemo, useRef } from "react";
import { earlierCuts } from "../../project/earlier-cuts";
import { edit } from "../../project/open-project";
import { type Picture, usePicture } from "../../project/pictures";
import { type SuggestedCuts, useSuggestedCuts } from "../../project/suggested-cuts";
import { inBackground } from "../../ui/in-background";
import { useKeys } from "../../ui/keys";
import { say, sayUnlessDone } from "../../ui/notices";
import { t } from "../../ui/words";
import { cutAlongOutlines, type OutlineCut } from "./along-outlines";

const SHOWN = 4;
const SIDE = 44; // px; smaller on a short screen

/** Cuts that the picture itself suggests, as small moving pictures: the one that moves right is the right one. */
export function Suggestions({ source }: { source: Source }) {
  const picture = usePicture(sheetLook(source));
  const { cuts, looking } = useSuggestedCuts(source);
  const suggestions = useMemo(() => (picture ? offersOf(cuts, picture) : []), [cuts, picture]);
  const cut = JSON.stringify(source.cut);
  const at = suggestions.findIndex((each) => JSON.stringify(each.cut) === cut);
  const take = (index: number) => {
    const suggestion = suggestions[index];
    if (!suggestion || !picture) return;
    if (suggestion.cut.by === "outlines") inBackground(cutAlongOutlines(source, suggestion.cut));
    else sayUnlessDone(edit(cutSource, source.id, suggestion.cut, picture.coverage, earlierCuts(source, suggestion.cut)));
  };
  // Asked for before anything is found, the best is taken as soon as it is, unless the sheet has been cut otherwise meanwhile.
  const asked = useRef<Source | null>(null);
  const next = () => {
    if (suggestions.length > 0) take((at + 1) % suggestions.length);
    else if (looking) asked.current = source;
    else say({ tone: "plain", text: t("This picture suggests no cells: type their number, or cut it along outlines or by hand.") });
  };
  useEffect(() => {
    if (asked.current === null || (looking && suggestions.length === 0)) return;
    const { id, cut: before } = asked.current;
    asked.current = null;
    if (id === source.id && before === source.cut) next();
  });
  useKeys(t("Suggestions"), [{ keys: "q", label: t("Take the best suggestion; again for the next"), run: next }]);
  if (!picture || suggestions.length === 0) return null;
  return (
    <div className="flex items-center gap-2 max-[39.9375em]:flex-wrap">
      <span className="text-muted">
        {t("suggested")} <kbd className="text-small">Q</kbd>
      </span>
      <Toolbar.Root aria-label={t("Suggested cuts")} className="flex gap-1.5 max-[39.9375em]:flex-wrap">
        {suggestions.map(({ words, title, boxes, cut: own }, k) => (
          <Toolbar.Button
            key={JSON.stringify(own)}
            onClick={(event) => {
              take(k);
              // Taken by the pointer, it leaves the arrow keys to the sheet.
              if (event.detail > 0) event.currentTarget.blur();
            }}
            aria-pressed={k === at}
            aria-label={words}
            title={words}
            className={`check block overflow-hidden rounded-box border-2 [@media(max-height:40em)]:flex [@media(max-height:40em)]:items-center ${k === at ? "border-now" : "border-line hover:border-lapis"}`}
          >
            <MovingBoxes boxes={boxes} picture={picture} />
            <span className="number block bg-raised px-1 text-center text-small [@media(max-height:40em)]:bg-transparent">{title}</span>
          </Toolbar.Button>
        ))}
      </Toolbar.Root>
    </div>
  );
}

/** One suggestion, grid or outlines, as shown and applied. */
interface Offer {
  readonly cut: GridCut | OutlineCut;
  readonly words: string;
  readonly title: string;
  /** What moves in it, one after the other. */
  readonly boxes: readonly Box[];
}

/** A part of the picture, and its position in the common area. */
interface Box {
  readonly rect: Rect;
  readonly room: Size;
  readonly inset: Spacing;
}

const NO_INSET = { x: 0, y: 0 };

function offersOf({ grids, outlines }: SuggestedCuts, picture: Picture): Offer[] {
  const offers = grids.map(
    (each): Offer => ({
      cut: cutOfSuggestion(each),
      words: inWords(each),
      title: `${each.cell.w}×${each.cell.h}`,
      boxes: rowToShow(each, picture).map((rect) => ({ rect, room: each.cell, inset: NO_INSET })),
    }),
  );
  if (!outlines) return offers;
  const along: Offer = {
    cut: outlines.cut,
    words: outlines.first
      ? t("Along outlines, {count} frames: no grid fits", { count: outlines.count })
      : t("Along outlines, {count} frames", { count: outlines.count }),
    title: t("outlines"),
    boxes: boxesOf(outlines.row),
  };
  // If a grid fits, outlines are one of the alternatives.
  return outlines.first ? [along, ...offers.slice(0, SHOWN - 1)] : offers;
}

/** Pieces in one room, feet on one line where they are level already. */
function boxesOf(pieces: readonly Piece[]): Box[] {
  const sizes = pieces.map(({ rect, size }) => size ?? { w: rect.w, h: rect.h });
  const room = { w: Math.max(...sizes.map(({ w }) => w)), h: Math.max(...sizes.map(({ h }) => h)) };
  return pieces.map(({ rect, inset = NO_INSET }, k) => {
    const { w, h } = sizes[k] as Size;
    return { rect, room, inset: { x: inset.x + Math.round((room.w - w) / 2), y: inset.y + room.h - h } };
  });
}

function inWords({ cell, columns, rows, margin, gap, framed, spread }: GridSuggestion): string {
  const spaces = [
    ...(framed ? [t("between drawn lines")] : []),
    ...(spread ? [t("what is left over spread between them")] : []),
    ...(margin.x + margin.y > 0 ? [t("margin {x}, {y}", { x: margin.x, y: margin.y })] : []),
    ...(gap.x + gap.y > 0 ? [t("spacing {x}, {y}", { x: gap.x, y: gap.y })] : []),
  ];
  return [t("{columns} × {rows} cells of {w} × {h}", { columns, rows, w: cell.w, h: cell.h }), ...spaces].join(", ");
}

/** Parts of the picture played one after the other. */
function MovingBoxes({ boxes, picture }: { boxes: readonly Box[]; picture: Picture }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    const [first] = boxes;
    if (!context || !first) return;
    const density = Math.max(1, Math.round(devicePixelRatio));
    const side = SIDE * density;
    context.canvas.width = side;
    context.canvas.height = side;
    const { w, h } = first.room;
    const fit = Math.min(side / w, side / h);
    const scale = fit >= 1 ? Math.floor(fit) : fit;
    const [left, top] = [Math.round((side - w * scale) / 2), Math.round((side - h * scale) / 2)];
    const paint = (k: number) => {
      const { rect, inset } = boxes[k % boxes.length] as Box;
      context.clearRect(0, 0, side, side);
      context.imageSmoothingEnabled = scale < 1;
      const [x, y] = [left + inset.x * scale, top + inset.y * scale];
      context.drawImage(picture.bitmap, rect.x, rect.y, rect.w, rect.h, x, y, rect.w * scale, rect.h * scale);
    };
    paint(0);
    if (matchMedia("(prefers-reduced-motion: reduce)").matches) return;
    let shown = 0;
    const timer = setInterval(() => paint(++shown), 110);
    return () => clearInterval(timer);
  }, [boxes, picture]);
  return <canvas ref={canvas} aria-hidden className="block size-11 [@media(max-height:40em)]:size-7" />;
}

/** The first row that has more than one drawn cell. */
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
