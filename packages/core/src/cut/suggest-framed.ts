/**
 * Suggests the grid of a sheet whose cells are framed: by lines drawn between them, or by a box drawn around each. The lines then lie in the
 * grid's gaps and margin, and no frame contains any of them.
 *
 * Two kinds of evidence. On a picture that is drawn all over: lines of one colour from end to end, all equally thick and equally far apart.
 * On others: *windows*, clear regions whose bounding rectangle is closed by something drawn, or by the sheet's edge, all the way around; a
 * figure within does not matter, because the region goes around it. Most of the windows with something in them must be of one size and lie
 * on one lattice. Holds: every suggestion is a grid that `gridOf` accepts. Cost: O(pixels / 32 + runs of clear pixels).
 */
import type { Rect, Size } from "../model";
import { type Coverage, countDrawn, isClear, type SideColours } from "../raster";
import { clearRegions } from "./islands";
import { type GridSuggestion, type Side, suggestionOf } from "./suggestion";

/** px: thicker ones are no lines between cells, but spaces. */
const MOST_THICK = 6;
/** px: of the outlines of two tiles that meet. */
const MOST_OUTLINE = 2;
const LEAST_CELL = 6; // px
/** The fraction of a window's frame that must be drawn: hand-drawn boxes have gaps. */
const CLOSED = 0.97;
/**
 * The fraction of a window's outermost pixels that may be drawn on more than one side: figures stand on lines, but shadows that run together
 * are no lines.
 */
const MOST_TOUCHING = 0.6;
/** The fraction of the windows with something in them that must lie on the grid. */
const ON_THE_GRID = 0.6;
/** The fraction of the drawn part of the sheet that cells must fill. */
const FILLED = 0.25;
/** A grid that can be seen is surer than any that is guessed. */
const SCORE = 0.97;

/** Null if no frames are drawn. `whole` is the picture with its opaque ground. */
export function suggestFramed(coverage: Coverage, whole: Coverage): GridSuggestion | null {
  return (whole.colours && byLines(whole, whole.colours.along.plain, whole.colours.down.plain)) ?? byWindows(coverage);
}

function byLines({ width, height }: Coverage, along: SideColours["plain"], down: SideColours["plain"]): GridSuggestion | null {
  for (const colour of new Set([...along.values(), ...down.values()])) {
    const x = between(placesOf(along, colour), width);
    const y = between(placesOf(down, colour), height);
    if (x && y && x.count * y.count > 1) return framed(x, y);
  }
  return null;
}

function placesOf(plain: SideColours["plain"], colour: number): number[] {
  return [...plain].flatMap(([place, each]) => (each === colour ? [place] : []));
}

/**
 * The cells between lines at these places, in ascending order; one if there are no lines, as across a strip. Null if lines or cells are unlike
 * each other.
 */
function between(places: readonly number[], length: number): Side | null {
  const lines: { from: number; to: number }[] = [];
  for (const place of places) {
    const last = lines[lines.length - 1];
    if (last && last.to === place) last.to++;
    else lines.push({ from: place, to: place + 1 });
  }
  const [first] = lines;
  const last = lines[lines.length - 1];
  if (!first || !last) return { cell: length, margin: 0, gap: 0, count: 1 };
  const gap = first.to - first.from;
  if (gap > MOST_THICK || lines.some(({ from, to }) => to - from !== gap)) return null;
  const starts = [...(first.from > 0 ? [0] : []), ...lines.map(({ to }) => to).filter((start) => start < length)];
  const ends = [...lines.map(({ from }) => from).filter((end) => end > 0), ...(last.to < length ? [length] : [])];
  const cell = (ends[0] ?? 0) - (starts[0] ?? 0);
  if (starts.length === 0 || cell < LEAST_CELL || starts.some((start, k) => (ends[k] as number) - start !== cell)) return null;
  // Tiles with a thin outline of their own look the same: usual sizes tell which it is.
  if (gap <= MOST_OUTLINE && isUsual(cell + gap) && !isUsual(cell)) return null;
  return { cell, margin: starts[0] as number, gap, count: starts.length };
}

function isUsual(px: number): boolean {
  return px % 8 === 0;
}

function byWindows(coverage: Coverage): GridSuggestion | null {
  const { width, height } = coverage;
  const windows = clearRegions(coverage)
    .map(({ rect }) => rect)
    .filter((rect) => rect.w >= LEAST_CELL && rect.h >= LEAST_CELL && isClosed(coverage, rect));
  const filled = windows.filter((rect) => !isClear(coverage, rect));
  const size = commonest(filled);
  if (!size) return null;
  const like = windows.filter(({ w, h }) => w === size.w && h === size.h);
  const x = lattice(
    like.map((rect) => rect.x),
    size.w,
  );
  const y = lattice(
    like.map((rect) => rect.y),
    size.h,
  );
  if (!x || !y || x.count * y.count < 2) return null;
  const cells = like.filter((rect) => !isClear(coverage, rect)).length;
  if (cells < 2 || cells < filled.length * ON_THE_GRID || like.length * size.w * size.h < drawnArea(coverage) * FILLED) return null;
  return x.margin + x.cell <= width && y.margin + y.cell <= height ? framed(x, y) : null;
}

/** Whether lines run around a rectangle, where it does not end with the sheet: drawn pixels, of which few go on inside. */
function isClosed(coverage: Coverage, { x, y, w, h }: Rect): boolean {
  const { width, height } = coverage;
  const sides = [
    { ends: y === 0, line: { x, y: y - 1, w, h: 1 }, inside: { x, y, w, h: 1 } },
    { ends: y + h === height, line: { x, y: y + h, w, h: 1 }, inside: { x, y: y + h - 1, w, h: 1 } },
    { ends: x === 0, line: { x: x - 1, y, w: 1, h }, inside: { x, y, w: 1, h } },
    { ends: x + w === width, line: { x: x + w, y, w: 1, h }, inside: { x: x + w - 1, y, w: 1, h } },
  ].filter(({ ends }) => !ends);
  const share = (rect: Rect) => countDrawn(coverage, rect) / (rect.w * rect.h);
  if (sides.length === 0 || sides.some(({ line }) => share(line) < CLOSED)) return false;
  return sides.filter(({ inside }) => share(inside) > MOST_TOUCHING).length <= 1;
}

function commonest(rects: readonly Rect[]): Size | null {
  const counts = new Map<string, { size: Size; count: number }>();
  for (const { w, h } of rects) {
    const known = counts.get(`${w} ${h}`);
    if (known) known.count++;
    else counts.set(`${w} ${h}`, { size: { w, h }, count: 1 });
  }
  return [...counts.values()].sort((a, b) => b.count - a.count || b.size.w * b.size.h - a.size.w * a.size.h)[0]?.size ?? null;
}

/** Cells of one length that begin at these places; null if they are not evenly spaced. */
function lattice(places: readonly number[], cell: number): Side | null {
  const starts = [...new Set(places)].sort((a, b) => a - b);
  const [margin] = starts;
  const last = starts[starts.length - 1];
  if (margin === undefined || last === undefined) return null;
  if (starts.length === 1) return { cell, margin, gap: 0, count: 1 };
  const pitch = Math.min(...starts.slice(1).map((start, k) => start - (starts[k] as number)));
  if (pitch <= cell || starts.some((start) => (start - margin) % pitch !== 0)) return null;
  return { cell, margin, gap: pitch - cell, count: (last - margin) / pitch + 1 };
}

/** px²: of the rectangle around everything drawn. */
function drawnArea(coverage: Coverage): number {
  const { width, height } = coverage;
  const rows = (from: number, to: number) => ({ x: 0, y: from, w: width, h: to - from });
  const columns = (from: number, to: number) => ({ x: from, y: 0, w: to - from, h: height });
  const span = (length: number, part: (from: number, to: number) => Rect) => {
    let from = 0;
    while (from < length && isClear(coverage, part(from, from + 1))) from++;
    let to = length;
    while (to > from && isClear(coverage, part(to - 1, to))) to--;
    return to - from;
  };
  return span(width, columns) * span(height, rows);
}

function framed(x: Side, y: Side): GridSuggestion {
  return { ...suggestionOf(x, y, SCORE), framed: true };
}
