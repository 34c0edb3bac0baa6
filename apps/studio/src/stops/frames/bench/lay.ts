/** Paints pieces one by one while they are being edited: a whole frame comes from a worker, which is too slow to follow a hand. */

import { frameLook, type LaidLook, laidPixels, type Stock } from "@caravan/core/art";
import { type Frame, findFrame, frameSize, type Piece, type Rect, type Source } from "@caravan/core/model";
import { recoloured } from "@caravan/core/palette";
import { coverageOf, drawnPart } from "@caravan/core/raster";
import { drawStill, stillOf } from "../../../preview/draw-frame";
import { pictureNow } from "../../../project/pictures";
import { t } from "../../../ui/words";

/** The position of a piece on its canvas. */
export function areaOfPiece(stock: Stock, piece: Piece): Rect {
  const found = findFrame(stock, piece.of);
  const { w, h } = found ? frameSize(found.source, found.frame) : { w: 16, h: 16 };
  return { x: piece.x, y: piece.y, w, h };
}

/** The pieces of a frame, looked up, except hidden ones. */
function laidOf(stock: Stock, source: Source, frame: Frame, pieces: readonly Piece[]): readonly LaidLook[] {
  const look = frameLook(stock, source, { ...frame, pieces: [...pieces] });
  return "laid" in look ? look.laid : [];
}

interface DrawnPiece {
  readonly canvas: OffscreenCanvas;
  /** What of it is drawn; null for nothing. */
  readonly box: Rect | null;
}

const drawn = new Map<string, DrawnPiece>();
/** Pieces that are kept as small canvases, in any colours. */
const MOST = 500;

/** A piece in place, unflipped; null until its picture is loaded. */
function drawnPiece(stock: Stock, piece: Piece, laid: LaidLook): DrawnPiece | null {
  const { w, h } = laid.size;
  const key = JSON.stringify([laid.part?.look.key, laid.part?.scale, laid.part?.place, laid.recolouring, w, h]);
  const known = drawn.get(key);
  if (known) return known;
  const canvas = new OffscreenCanvas(w, h);
  const context = canvas.getContext("2d", { willReadFrequently: true });
  if (!context) return null;
  const found = findFrame(stock, piece.of);
  if (laid.part && found) {
    const picture = pictureNow(laid.part.look);
    if (!picture) return null;
    context.imageSmoothingEnabled = false;
    drawStill(context, picture, stillOf(stock, found.source, found.frame), 0, 0, 1);
    if (laid.recolouring?.length) {
      const { data } = context.getImageData(0, 0, w, h);
      const { bytes } = recoloured({ width: w, height: h, bytes: new Uint8Array(data.buffer) }, laid.recolouring);
      context.putImageData(new ImageData(new Uint8ClampedArray(bytes), w, h), 0, 0);
    }
  } else {
    const { bytes } = laidPixels(laid, () => {
      throw new Error(t("A piece that is gone has no picture."));
    });
    context.putImageData(new ImageData(new Uint8ClampedArray(bytes), w, h), 0, 0);
  }
  const { data } = context.getImageData(0, 0, w, h);
  const coverage = coverageOf({ width: w, height: h, bytes: new Uint8Array(data.buffer) });
  const made = { canvas, box: drawnPart(coverage, { x: 0, y: 0, w, h }) };
  if (drawn.size >= MOST) drawn.clear();
  drawn.set(key, made);
  return made;
}

/** The drawn part of a piece, on its canvas; the whole piece until its picture is loaded, and if it is empty. */
export function drawnAreaOfPiece(stock: Stock, source: Source, frame: Frame, piece: Piece): Rect {
  const whole = areaOfPiece(stock, piece);
  const { hidden: _hidden, ...shown } = piece;
  const [laid] = laidOf(stock, source, frame, [shown]);
  const box = laid && drawnPiece(stock, piece, laid)?.box;
  if (!box) return whole;
  const across = piece.flip === "across" || piece.flip === "both";
  const down = piece.flip === "down" || piece.flip === "both";
  const x = whole.x + (across ? whole.w - box.x - box.w : box.x);
  const y = whole.y + (down ? whole.h - box.y - box.h : box.y);
  return { x, y, w: box.w, h: box.h };
}

/** Paints pieces, the lowest first, onto a context at the canvas's corner, one project pixel per unit. */
export function paintPieces(context: CanvasRenderingContext2D, stock: Stock, source: Source, frame: Frame, pieces: readonly Piece[]): void {
  const shown = pieces.filter(({ hidden }) => !hidden);
  for (const [k, laid] of laidOf(stock, source, frame, shown).entries()) {
    const canvas = drawnPiece(stock, shown[k] as Piece, laid)?.canvas;
    if (!canvas) continue;
    const across = laid.flip === "across" || laid.flip === "both";
    const down = laid.flip === "down" || laid.flip === "both";
    context.save();
    context.translate(laid.x + (across ? laid.size.w : 0), laid.y + (down ? laid.size.h : 0));
    context.scale(across ? -1 : 1, down ? -1 : 1);
    context.drawImage(canvas, 0, 0);
    context.restore();
  }
}

/** The pieces under a point, the topmost first: those with something drawn there, then those whose box alone is there. */
export function piecesAt(stock: Stock, source: Source, frame: Frame, x: number, y: number): number[] {
  const pieces = frame.pieces ?? [];
  const laid = laidOf(
    stock,
    source,
    frame,
    pieces.map(({ hidden: _hidden, ...piece }) => piece),
  );
  const within = pieces.flatMap((piece, place) => {
    const area = areaOfPiece(stock, piece);
    return !piece.hidden && x >= area.x && y >= area.y && x < area.x + area.w && y < area.y + area.h ? [place] : [];
  });
  const isDrawnAt = (place: number) => {
    const [piece, each] = [pieces[place], laid[place]];
    const canvas = piece && each && drawnPiece(stock, piece, each)?.canvas;
    if (!canvas || !each) return false;
    const across = each.flip === "across" || each.flip === "both";
    const down = each.flip === "down" || each.flip === "both";
    const [dx, dy] = [Math.floor(x) - each.x, Math.floor(y) - each.y];
    const at = { x: across ? each.size.w - 1 - dx : dx, y: down ? each.size.h - 1 - dy : dy };
    return ((canvas.getContext("2d") as OffscreenCanvasRenderingContext2D).getImageData(at.x, at.y, 1, 1).data[3] ?? 0) > 0;
  };
  const topmost = within.toReversed();
  return [...topmost.filter(isDrawnAt), ...topmost.filter((place) => !isDrawnAt(place))];
}
