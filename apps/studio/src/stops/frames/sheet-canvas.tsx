"use client";

import { cellAt, type Grid, pitchOf, traitsOf } from "@caravan/core/cut";
import { encloses, type Frame, type FrameRef, keptRefs, type Source, sheetOf } from "@caravan/core/model";
import { Minus, Plus } from "lucide-react";
import { type PointerEvent, type RefObject, useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Box, Edges } from "../../preview/box-gesture";
import { usePicture } from "../../project/pictures";
import { pickRun, rowRefs, togglePick, togglePicks, useView } from "../../project/view";
import { useWornLook } from "../../project/worn-look";
import { Button, IconButton } from "../../ui/button";
import { useCountFrom } from "../../ui/counting";
import { useElementSize } from "../../ui/element-size";
import { useKeys } from "../../ui/keys";
import { usePinch } from "../../ui/pinch";
import { useThemeNow } from "../../ui/theme-now";
import { t } from "../../ui/words";
import { describeCursor, movedCursor } from "./cursor";
import { coloursFrom, paintSheet } from "./paint-sheet";
import { rowOfFrames, rowRect, sheetScene } from "./sheet-scene";
import { exactPixelAt, panned, pixelAt, type SheetView, zoomedAt, zoomInWords } from "./sheet-view";
import { useSpaceToPan } from "./space-to-pan";
import { useHand } from "./use-hand";
import { useSheetView } from "./use-sheet-view";
import { type CutWay, wayNamed } from "./ways-table";

const NO_BOXES: readonly Box[] = [];

/** How the pointer looks over edges that can be dragged; nothing of its own elsewhere. */
function cursorOver(edges: Edges | null): string {
  if (!edges) return "";
  const [along, down] = [edges.left || edges.right, edges.top || edges.bottom];
  if (along && down) return edges.left === edges.top ? "nwse-resize" : "nesw-resize";
  return along ? "ew-resize" : "ns-resize";
}

/** A press that moves farther than this is a drag of the sheet, not a pick. */
const SLACK = 4; // px

/** The sheet at whole-number zoom with the cut drawn over it. Click picks, drag moves, the wheel zooms to the pointer. */
export function SheetCanvas({ source, grid, way }: { source: Source; grid: Grid | null; way: CutWay }) {
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width: roomWidth, height: roomHeight, density } = useElementSize(frame);
  const room = useMemo(() => ({ w: roomWidth, h: roomHeight }), [roomWidth, roomHeight]);
  const picture = usePicture(useWornLook(source));
  const picked = useView((each) => each.picked);
  const cursor = useView((each) => each.cursor);
  const hoverRow = useView((each) => each.hoverRow);
  const region = useView((each) => each.region);
  const { width, height } = sheetOf(source);
  const sheet = useMemo(() => ({ w: width, h: height }), [width, height]);
  const surface = useMemo(() => ({ sheet, room, density }), [sheet, room, density]);
  const { view, move, seeAll, hold } = useSheetView(source, surface);
  const pointer = useRef<{ x: number; y: number } | null>(null);

  useWheelZoom(frame, density, move);
  usePinch(frame, {
    onZoom: (direction, x, y) => move((now) => zoomedAt(now, direction, x, y, density)),
    onPan: (dx, dy) => move((now) => panned(now, dx, dy, surface)),
  });
  const dragged = wayNamed(way)?.boxes;
  const boxes = useMemo(() => dragged?.of(source) ?? NO_BOXES, [source, dragged]);
  const hand = useHand({
    boxes,
    sheet,
    coverage: picture?.coverage ?? null,
    zoom: view?.scale ?? 1,
    onlyEdges: dragged?.onlyEdges === true,
    toDrawn: dragged?.drawsNone !== true,
    onDone: (id, rect) => dragged?.done(source, id, rect),
  });
  const { draft } = hand;

  const theme = useThemeNow();
  // biome-ignore lint/correctness/useExhaustiveDependencies: painted again in other colours
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    const element = frame.current;
    if (!context || !element || !view || room.w === 0) return;
    const paint = () => {
      context.canvas.width = Math.round(room.w * density);
      context.canvas.height = Math.round(room.h * density);
      context.setTransform(density, 0, 0, density, 0, 0);
      const corner = pixelAt(view, 0, 0);
      const inSight = { ...corner, w: Math.ceil(room.w / view.scale) + 1, h: Math.ceil(room.h / view.scale) + 1 };
      const part = dragged?.drawsNone ? (boxes[0]?.rect ?? null) : null;
      const scene = { ...sheetScene({ source, grid, picked, cursor, hoverRow, inSight, region }), part, draft };
      paintSheet(context, scene, view, picture ?? null, coloursFrom(element));
    };
    const request = requestAnimationFrame(paint);
    return () => cancelAnimationFrame(request);
  }, [source, grid, picked, cursor, hoverRow, region, view, room, density, picture, draft, theme, boxes, dragged]);

  const zoomInMiddle = (direction: 1 | -1) => move((now) => zoomedAt(now, direction, room.w / 2, room.h / 2, density));
  const zoomBy = (direction: 1 | -1) =>
    move((now) => zoomedAt(now, direction, pointer.current?.x ?? room.w / 2, pointer.current?.y ?? room.h / 2, density));
  const moveCursor = (dx: number, dy: number, extend: boolean) => {
    const next = movedCursor(source, cursor, dx, dy);
    if (!next) return;
    if (extend) pickRun(keptRefs(source), next);
    else useView.setState({ cursor: next });
  };
  const rowOfCursor = hoverRow ?? source.frames.find((each) => `${source.id}/${each.key}` === cursor)?.row ?? null;
  useKeys(t("The sheet"), [
    {
      keys: "ArrowLeft Shift+ArrowLeft",
      repeats: true,
      label: t("Cell to the left; with Shift pick as you go"),
      run: (event) => moveCursor(-1, 0, event.shiftKey),
    },
    { keys: "ArrowRight Shift+ArrowRight", repeats: true, label: t("Cell to the right"), run: (event) => moveCursor(1, 0, event.shiftKey) },
    { keys: "ArrowUp Shift+ArrowUp", repeats: true, label: t("Cell above"), run: (event) => moveCursor(0, -1, event.shiftKey) },
    { keys: "ArrowDown Shift+ArrowDown", repeats: true, label: t("Cell below"), run: (event) => moveCursor(0, 1, event.shiftKey) },
    { keys: "Enter x", label: t("Pick or unpick the cell"), run: () => cursor && togglePick(cursor) },
    {
      keys: "r",
      label: t("Pick the row under the pointer or cursor"),
      run: () => rowOfCursor !== null && togglePicks(rowRefs(source, rowOfCursor)),
    },
    { keys: "a", label: t("Pick all of the sheet"), run: () => togglePicks(keptRefs(source)) },
    { keys: "Escape", label: t("Unpick all"), run: () => useView.setState({ picked: [] }) },
    { keys: "+ =", repeats: true, label: t("Zoom in to the pointer"), run: () => zoomBy(1) },
    { keys: "-", repeats: true, label: t("Zoom out"), run: () => zoomBy(-1) },
    { keys: "0", label: t("Fit the whole sheet"), run: seeAll },
    { keys: "Mod+ArrowLeft", repeats: true, label: t("Move the sheet left"), run: () => move((now) => panned(now, -64, 0, surface)) },
    { keys: "Mod+ArrowRight", repeats: true, label: t("Move the sheet right"), run: () => move((now) => panned(now, 64, 0, surface)) },
    { keys: "Mod+ArrowUp", repeats: true, label: t("Move the sheet up"), run: () => move((now) => panned(now, 0, -64, surface)) },
    { keys: "Mod+ArrowDown", repeats: true, label: t("Move the sheet down"), run: () => move((now) => panned(now, 0, 64, surface)) },
  ]);

  const space = useSpaceToPan(pointer);

  const press = useRef<{ x: number; y: number; dragged: boolean; hand: boolean } | null>(null);
  const [dragging, setDragging] = useState(false);
  const placeOf = (event: PointerEvent) => {
    const box = (frame.current as HTMLDivElement).getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const edgesUnder = ({ x, y }: { x: number; y: number }) => (view && dragged ? hand.edgesAt(exactPixelAt(view, x, y)) : null);
  /** The frame under a point, and the row there, which cells have even where they are empty. */
  const under = useCallback(
    (x: number, y: number): { frame: Frame | undefined; row: number | null } => {
      if (!view) return { frame: undefined, row: null };
      const pixel = pixelAt(view, x, y);
      const cell = grid && cellAt(grid, pixel.x, pixel.y);
      const hit = grid
        ? cell && source.frames.find((each) => each.column === cell.column && each.row === cell.row)
        : source.frames.findLast(({ rect }) => encloses(rect, { ...pixel, w: 1, h: 1 }));
      return { frame: hit ?? undefined, row: cell ? cell.row : (hit?.row ?? null) };
    },
    [view, grid, source],
  );
  const pick = (x: number, y: number, extend: boolean) => {
    const hit = under(x, y).frame;
    if (!hit) return;
    const ref = `${source.id}/${hit.key}` as FrameRef;
    if (hit.dropped) useView.setState({ cursor: ref });
    else if (extend) pickRun(keptRefs(source), ref);
    else togglePick(ref);
  };

  return (
    <div
      ref={frame}
      data-testid="sheet"
      className={`check relative min-h-0 grow touch-none overflow-hidden rounded-box border border-line ${dragging ? "cursor-grabbing" : "cursor-crosshair"}`}
      onPointerDown={(event) => {
        hold();
        if (event.button > 1 || (event.target as Element).closest("button")) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        const at = placeOf(event);
        const takes = dragged !== undefined && (!dragged.drawsNone || edgesUnder(at) !== null);
        press.current = { ...at, dragged: false, hand: takes && event.button === 0 && !space.current };
        if (press.current.hand && view) hand.down(exactPixelAt(view, at.x, at.y));
      }}
      onPointerMove={(event) => {
        const at = placeOf(event);
        const from = pointer.current;
        pointer.current = at;
        if (space.current && !press.current) {
          if (from) move((now) => panned(now, at.x - from.x, at.y - from.y, surface));
          space.current.moved = true;
          return;
        }
        if (press.current) {
          const dx = at.x - press.current.x;
          const dy = at.y - press.current.y;
          if (!press.current.dragged && Math.hypot(dx, dy) < SLACK) return;
          press.current = { ...press.current, ...at, dragged: true };
          if (press.current.hand && view) {
            hand.move(exactPixelAt(view, at.x, at.y), event.altKey);
            return;
          }
          setDragging(true);
          move((now) => panned(now, dx, dy, surface));
          return;
        }
        event.currentTarget.style.cursor = cursorOver(edgesUnder(at));
        // A row's handle says itself which row it is.
        if ((event.target as Element).closest("button")) return;
        const { row } = under(at.x, at.y);
        if (row !== useView.getState().hoverRow) useView.setState({ hoverRow: row });
      }}
      onPointerUp={(event) => {
        const at = placeOf(event);
        if (press.current?.hand && press.current.dragged && view) hand.up(exactPixelAt(view, at.x, at.y), event.altKey);
        else hand.cancel();
        if (press.current && !press.current.dragged && event.button === 0) pick(at.x, at.y, event.shiftKey);
        press.current = null;
        setDragging(false);
      }}
      onPointerCancel={() => {
        // The browser took the pointer away: nothing was picked, and what was dragged is where it was.
        hand.cancel();
        press.current = null;
        setDragging(false);
      }}
      onPointerLeave={() => {
        pointer.current = null;
        useView.setState({ hoverRow: null });
      }}
    >
      <canvas ref={canvas} aria-hidden className="absolute inset-0 h-full w-full" />
      {view && <RowHandles source={source} grid={grid} view={view} height={room.h} />}
      <p className="sr-only" aria-live="polite">
        {describeCursor(source, cursor, picked)}
      </p>
      <div className="absolute right-2 bottom-2 flex items-center gap-1 rounded-box border border-line bg-raised px-2 text-small">
        <span className="number">
          {source.name} · {width} × {height} · {view ? zoomInWords(view.zoom) : ""}
        </span>
        <IconButton label={t("Zoom out")} look="quiet" onClick={() => zoomInMiddle(-1)} aria-keyshortcuts="-">
          <Minus size={13} />
        </IconButton>
        <IconButton label={t("Zoom in")} look="quiet" onClick={() => zoomInMiddle(1)} aria-keyshortcuts="+">
          <Plus size={13} />
        </IconButton>
        <Button look="quiet" className="min-h-6 px-1.5 text-small" onClick={seeAll} aria-keyshortcuts="0">
          {t("Fit")}
        </Button>
      </div>
    </div>
  );
}

/** A handle at the left of each row in sight: a click picks the whole row. */
function RowHandles({ source, grid, view, height }: { source: Source; grid: Grid | null; view: SheetView; height: number }) {
  const count = grid ? grid.rows : source.frames.reduce((most, frame) => Math.max(most, frame.row + 1), 0);
  const tall = (grid ? pitchOf(grid).y : sheetOf(source).height / Math.max(1, count)) * view.scale;
  const hoverRow = useView((each) => each.hoverRow);
  const countFrom = useCountFrom();
  // Frames from a file or drawn by hand form no visible rows.
  if (!traitsOf(source.cut).rows || tall < 18) return null;
  const first = grid ? Math.max(0, Math.floor(-view.y / tall) - 1) : 0;
  const last = grid ? Math.min(grid.rows - 1, Math.ceil((height - view.y) / tall)) : count - 1;
  const rows = Array.from({ length: Math.max(0, last - first + 1) }, (_, k) => first + k);
  return rows.map((row) => {
    const rect = grid ? rowRect(grid, row) : rowOfFrames(source, row);
    if (!rect) return null;
    const refs = rowRefs(source, row);
    if (refs.length === 0) return null;
    const left = Math.max(2, view.x + rect.x * view.scale - 28);
    return (
      <button
        key={row}
        type="button"
        tabIndex={-1}
        data-chooses
        title={t("Pick row {row} ({count} frames)", { row: row + countFrom, count: refs.length })}
        aria-label={t("Pick row {row}", { row: row + countFrom })}
        onClick={() => togglePicks(refs)}
        onPointerEnter={() => useView.setState({ hoverRow: row })}
        className={`number absolute w-6.5 rounded-l-box border text-small ${hoverRow === row ? "border-now bg-now text-on-now" : "border-line bg-raised text-ink"}`}
        style={{ left, top: view.y + rect.y * view.scale, height: Math.max(16, rect.h * view.scale) }}
      >
        {row + countFrom}
      </button>
    );
  });
}

/** React listens to the wheel passively; zooming must keep the page from scrolling. */
function useWheelZoom(
  frame: RefObject<HTMLDivElement | null>,
  density: number,
  move: (change: (view: SheetView) => SheetView) => void,
): void {
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    let turned = 0;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      // Fine wheels and touchpads send many small turns; a whole one is about 100.
      turned += event.deltaMode === WheelEvent.DOM_DELTA_PIXEL ? event.deltaY : event.deltaY * 33;
      if (Math.abs(turned) < 60) return;
      const direction = turned < 0 ? 1 : -1;
      turned = 0;
      move((now) => zoomedAt(now, direction, event.clientX - box.left, event.clientY - box.top, density));
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => element.removeEventListener("wheel", wheel);
  }, [frame, density, move]);
}
