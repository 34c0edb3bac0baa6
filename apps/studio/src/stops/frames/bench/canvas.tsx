"use client";

import { frameLook, picturesOfLook } from "@caravan/core/art";
import { putPieces, withGroups } from "@caravan/core/edit";
import { type Frame, findFrame, frameName, frameRef, type Piece, type Px, type Source } from "@caravan/core/model";
import { type PointerEvent, useEffect, useRef, useState } from "react";
import { act } from "../../../project/act";
import { currentProject, useProject } from "../../../project/open-project";
import { loadPictures, usePictures } from "../../../project/pictures";
import { useElementSize } from "../../../ui/element-size";
import { sayUnlessDone } from "../../../ui/notices";
import { onThemeChange } from "../../../ui/theme-now";
import { facts, t } from "../../../ui/words";
import { onPixel } from "../../../ui/zooms";
import { areaOfPiece, drawnAreaOfPiece, paintPieces, piecesAt } from "./lay";
import { choosePieces, chosenOn, frameAfter, frameBefore, moveChosen, useBench } from "./state";

/** Space around the canvas, in CSS px. */
const AROUND = 28;

interface Point {
  readonly x: number;
  readonly y: number;
}

/** What a pointer that is down does. */
type Doing =
  | { readonly kind: "dragging"; readonly from: Point; readonly first: number; readonly of: Frame }
  | { readonly kind: "framing"; readonly from: Point; readonly to: Point; readonly added: readonly number[] };

/** The canvas large, with the frame before as a ghost; pieces are put, chosen and dragged on it. */
export function BenchCanvas({ source, frame }: { source: Source; frame: Frame }) {
  const room = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { width, height, density } = useElementSize(room);
  const size = frame.size ?? { w: 1, h: 1 };
  const fits = Math.min((width - 2 * AROUND) / size.w, (height - 2 * AROUND) / size.h);
  // Whole pixels of the screen, also of one with one and a quarter to a CSS pixel.
  const zoom = Math.max(1, Math.floor(fits * density)) / density;
  const left = onPixel((width - size.w * zoom) / 2, density);
  const top = onPixel((height - size.h * zoom) / 2, density);
  useEffect(() => useBench.setState({ zoom }), [zoom]);
  const ref = frameRef(source, frame);
  const project = useProject((each) => each);
  const bench = useBench();
  const chosen = chosenOn(ref, frame, bench);
  const doing = useRef<Doing | null>(null);
  const [pointer, setPointer] = useState<Point | null>(null);
  const [framing, setFraming] = useState<readonly [Point, Point] | null>(null);
  const hand = bench.hand && pointer ? placedHand(bench.hand, pointer, bench.grid) : null;

  useEffect(() => {
    const beside = [frameBefore(source, frame), frameAfter(source, frame)].flatMap((each) => each ?? []);
    const looks = [frame, ...beside].flatMap((each) => picturesOfLook(frameLook(project, source, each)));
    loadPictures([...looks, ...(bench.hand ? picturesOfLook(frameLook(project, source, { ...frame, pieces: [inHand(bench.hand)] })) : [])]);
  }, [project, source, frame, bench.hand]);

  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const draw = () => {
      const style = getComputedStyle(context.canvas);
      const inks = {
        now: style.getPropertyValue("--now"),
        onNow: style.getPropertyValue("--on-now"),
        line: style.getPropertyValue("--lapis"),
      };
      context.setTransform(density, 0, 0, density, 0, 0);
      context.clearRect(0, 0, width, height);
      context.imageSmoothingEnabled = false;
      context.translate(left, top);
      context.scale(zoom, zoom);
      context.save();
      context.beginPath();
      context.rect(0, 0, size.w, size.h);
      context.clip();
      const ghosts = [
        { of: bench.ghosts === "none" ? null : frameBefore(source, frame), alpha: 0.3 },
        { of: bench.ghosts === "both" ? frameAfter(source, frame) : null, alpha: 0.18 },
      ];
      for (const { of: ghost, alpha } of ghosts) {
        if (!ghost) continue;
        context.globalAlpha = alpha;
        paintPieces(context, project, source, ghost, ghost.pieces ?? []);
        context.globalAlpha = 1;
      }
      const pieces = moved(frame.pieces ?? [], chosen, bench.dragged);
      paintPieces(context, project, source, frame, hand ? [...pieces, hand] : pieces);
      context.restore();
      const line = 1 / zoom;
      if (bench.grid > 1) {
        context.globalAlpha = 0.35;
        context.fillStyle = inks.line;
        for (let x = bench.grid; x < size.w; x += bench.grid) context.fillRect(x, 0, line, size.h);
        for (let y = bench.grid; y < size.h; y += bench.grid) context.fillRect(0, y, size.w, line);
        context.globalAlpha = 1;
      }
      context.lineWidth = line;
      context.strokeStyle = inks.line;
      context.strokeRect(0, 0, size.w, size.h);
      context.strokeStyle = inks.now;
      context.lineWidth = 2 * line;
      const marked = hand ? [hand] : chosen.flatMap((place) => pieces[place] ?? []);
      const areas = marked.map((piece) => drawnAreaOfPiece(project, source, frame, piece));
      for (const area of areas) context.strokeRect(area.x, area.y, area.w, area.h);
      const [only] = marked;
      const [around] = areas;
      if (only && around && marked.length === 1) {
        context.setTransform(density, 0, 0, density, 0, 0);
        paintTag(context, `${nameOfPiece(project, only)} · ${only.x}, ${only.y}`, left + around.x * zoom - 1, top + around.y * zoom, inks);
        context.setTransform(density * zoom, 0, 0, density * zoom, density * left, density * top);
      }
      if (framing) {
        const [a, b] = framing;
        context.setLineDash([4 * line, 3 * line]);
        context.strokeRect(Math.min(a.x, b.x), Math.min(a.y, b.y), Math.abs(b.x - a.x), Math.abs(b.y - a.y));
        context.setLineDash([]);
      }
    };
    draw();
    const stops = [onThemeChange(draw), usePictures.subscribe(draw)];
    return () => {
      for (const stop of stops) stop();
    };
  });

  const pointOf = (event: PointerEvent<HTMLCanvasElement>): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: (event.clientX - box.left - left) / zoom, y: (event.clientY - box.top - top) / zoom };
  };
  const end = () => {
    doing.current = null;
    setFraming(null);
    useBench.setState({ dragged: null });
  };
  return (
    <div ref={room} className="check relative min-h-40 grow overflow-hidden rounded-box border border-line">
      <canvas
        ref={canvas}
        data-testid="bench"
        data-zoom={zoom}
        data-left={left}
        data-top={top}
        width={Math.round(width * density)}
        height={Math.round(height * density)}
        className={`absolute inset-0 touch-none ${bench.hand ? "cursor-copy" : ""}`}
        style={{ width, height }}
        role="img"
        aria-label={t("{name}: {count} pieces on {w} × {h} px", {
          name: frameName(source, frame),
          count: frame.pieces?.length ?? 0,
          w: size.w,
          h: size.h,
        })}
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          const at = pointOf(event);
          if (bench.hand) {
            putFromHand(ref, placedHand(bench.hand, at, bench.grid));
            return;
          }
          event.currentTarget.setPointerCapture(event.pointerId);
          const under = piecesAt(project, source, frame, at.x, at.y);
          // Alt goes down through the stack: to the piece below the lowest selected one there.
          const [lowest] = under.filter((place) => chosen.includes(place)).toReversed();
          const next = event.altKey && lowest !== undefined ? (under[under.indexOf(lowest) + 1] ?? under[0]) : under[0];
          if (next === undefined) {
            doing.current = { kind: "framing", from: at, to: at, added: event.shiftKey ? chosen : [] };
            if (!event.shiftKey) choosePieces(ref, []);
            return;
          }
          if (event.shiftKey) {
            const whole = withGroups(frame.pieces ?? [], [next]);
            choosePieces(ref, chosen.includes(next) ? chosen.filter((each) => !whole.includes(each)) : [...chosen, ...whole]);
            return;
          }
          // With Alt one of a group alone.
          if (!chosen.includes(next) || event.altKey) choosePieces(ref, event.altKey ? [next] : withGroups(frame.pieces ?? [], [next]));
          doing.current = { kind: "dragging", from: at, first: next, of: frame };
        }}
        onPointerMove={(event) => {
          const at = pointOf(event);
          if (bench.hand) setPointer(at);
          const now = doing.current;
          // Undo, or another tab: places in the list of pieces may mean others now.
          if (now?.kind === "dragging" && now.of !== frame) end();
          else if (now?.kind === "dragging") {
            const piece = frame.pieces?.[now.first];
            if (piece)
              useBench.setState({ dragged: snapped(piece, { x: at.x - now.from.x, y: at.y - now.from.y }, event.altKey ? 1 : bench.grid) });
          } else if (now) {
            doing.current = { ...now, to: at };
            setFraming([now.from, at]);
          }
        }}
        onPointerUp={() => {
          const now = doing.current;
          const { dragged } = useBench.getState();
          end();
          if (now?.kind === "framing")
            choosePieces(ref, withGroups(frame.pieces ?? [], [...now.added, ...within(source, frame, now.from, now.to)]));
          else if (dragged && now?.of === frame) sayUnlessDone(moveChosen(source, frame, dragged));
        }}
        onPointerCancel={end}
        onPointerLeave={() => setPointer(null)}
      />
      <p className="number absolute bottom-2 left-2 rounded-box bg-surface px-2 py-1 text-small">
        {facts(frameName(source, frame), `${Number(zoom.toFixed(2))}×`, ghostsInWords(source, frame, bench.ghosts))}
      </p>
    </div>
  );
}

/** Which neighbours are seen through, as far as they are there. */
function ghostsInWords(source: Source, frame: Frame, ghosts: "none" | "before" | "both"): string {
  const before = ghosts !== "none" && frameBefore(source, frame) !== null;
  const after = ghosts === "both" && frameAfter(source, frame) !== null;
  return before && after ? t("ghosts: previous and next") : before ? t("ghost: previous") : after ? t("ghost: next") : "";
}

/** A label over a corner, in CSS px: below the upper edge if there is no room above. */
function paintTag(context: CanvasRenderingContext2D, text: string, x: number, y: number, inks: { now: string; onNow: string }): void {
  context.font = "600 12px sans-serif";
  const w = context.measureText(text).width + 12;
  const above = Math.max(2, y - 22);
  context.fillStyle = inks.now;
  context.fillRect(x, above, w, 20);
  context.fillStyle = inks.onNow;
  context.fillText(text, x + 6, above + 14);
}

function nameOfPiece(stock: Parameters<typeof findFrame>[0], { of }: Piece): string {
  const found = findFrame(stock, of);
  return found ? frameName(found.source, found.frame) : t("{of}, missing", { of });
}

function inHand({ of, flip, palette }: NonNullable<ReturnType<typeof useBench.getState>["hand"]>, x = 0, y = 0): Piece {
  return { of, x, y, ...(flip ? { flip } : {}), ...(palette ? { palette } : {}) };
}

/** The piece in hand with its middle at a point, snapped. */
function placedHand(hand: Parameters<typeof inHand>[0], at: Point, grid: Px): Piece {
  const { w, h } = areaOfPiece(currentProject(), inHand(hand));
  const snap = (along: number) => Math.round(along / grid) * grid;
  return inHand(hand, snap(at.x - w / 2), snap(at.y - h / 2));
}

/** Places the piece in hand, which stays there. */
function putFromHand(ref: ReturnType<typeof frameRef>, piece: Piece): void {
  act(putPieces, ref, [piece], null);
}

/** The drag distance, adjusted so that the held piece is aligned to the grid. */
function snapped(piece: Piece, by: Point, grid: Px): Point {
  const snap = (start: number, moved: number) => Math.round((start + moved) / grid) * grid - start;
  return grid === 1 ? { x: Math.round(by.x), y: Math.round(by.y) } : { x: snap(piece.x, by.x), y: snap(piece.y, by.y) };
}

function moved(pieces: readonly Piece[], chosen: readonly number[], by: Point | null): readonly Piece[] {
  return by ? pieces.map((piece, place) => (chosen.includes(place) ? { ...piece, x: piece.x + by.x, y: piece.y + by.y } : piece)) : pieces;
}

/** Pieces whose drawn part is entirely inside the selection rectangle. */
function within(source: Source, frame: Frame, a: Point, b: Point): number[] {
  const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
  const [top, bottom] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
  return (frame.pieces ?? []).flatMap((piece, place) => {
    const area = drawnAreaOfPiece(currentProject(), source, frame, piece);
    const isIn = area.x >= left && area.y >= top && area.x + area.w <= right && area.y + area.h <= bottom;
    return isIn && !piece.hidden ? [place] : [];
  });
}
