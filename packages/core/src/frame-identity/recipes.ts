/**
 * Finds other grids for changed art, if its cells have another size or the whole sheet moved. The right one is the one in whose cells most
 * of the earlier drawings are found complete.
 */
import { cutOfSuggestion, gridOf, suggestGrids } from "../cut";
import { type Frame, type FramePoint, GridCut, type Rect, type Size, type Source, sheetOf } from "../model";
import type { Coverage, Drawing } from "../raster";
import { t } from "../words";
import type { Drawings } from "./follow";

/** Grids that a sheet suggests that are tried. */
const SUGGESTED = 3;

/**
 * Grids to try for the changed art of a sheet cut by a grid, likeliest first, without the current one; none for other cuts. `went` is how
 * far drawings moved on the sheet, if known.
 */
export function recipesFor(source: Source, changed: Size, coverage: Coverage, went: FramePoint | null): GridCut[] {
  const parsed = GridCut.safeParse(source.cut);
  if (!parsed.success) return [];
  const cut = parsed.data;
  const { width, height } = sheetOf(source);
  const { columns, rows, cell, gap } = gridOf({ w: width, h: height }, cut, source.name);
  const { keepEmpty, margin } = cut;
  const own = { keepEmpty, ...(cut.only ? { only: cut.only } : {}) };
  const offset = cut.offset ?? { x: 0, y: 0 };
  const pitch = { x: cell.w + gap.x, y: cell.h + gap.y };
  // A sheet cut by counts has other cells as soon as it has another size.
  const inCells: GridCut = cut.by === "cell" ? cut : { ...own, by: "cell", cell, margin, gap };
  const tried: GridCut[] = [
    ...shiftsOf(went, pitch).map((by) => ({ ...inCells, offset: { x: offset.x + by.x, y: offset.y + by.y } })),
    ...(changed.w % columns === 0 && changed.h % rows === 0
      ? [
          {
            by: "cell" as const,
            cell: { w: changed.w / columns, h: changed.h / rows },
            margin: { x: 0, y: 0 },
            gap: { x: 0, y: 0 },
            ...own,
          },
        ]
      : []),
    ...(inCells === cut ? [] : [inCells]),
    ...suggestGrids(coverage, SUGGESTED).map((each) => ({ ...cutOfSuggestion(each), ...own })),
  ];
  return tried.filter((each) => fits(each, changed));
}

/**
 * How far a grid moved whose drawings went so far: by less than a cell, because whole cells can also have been put in or taken out before
 * them; nearest first. None if they went by whole cells.
 */
function shiftsOf(went: FramePoint | null, pitch: FramePoint): FramePoint[] {
  if (went === null) return [];
  const along = (by: number, cell: number): number[] => {
    const rest = ((by % cell) + cell) % cell;
    return rest === 0 ? [0] : [rest, rest - cell].sort((a, b) => Math.abs(a) - Math.abs(b));
  };
  return along(went.y, pitch.y)
    .flatMap((y) => along(went.x, pitch.x).map((x) => ({ x, y })))
    .filter(({ x, y }) => x !== 0 || y !== 0);
}

function fits(cut: GridCut, size: Size): boolean {
  try {
    gridOf(size, cut, "");
    return true;
  } catch {
    return false;
  }
}

/** "Cells of 40 × 48 now": another grid than the one before, in words. */
export function gridInWords(cut: GridCut, before: Source["cut"]): string {
  const old = before && "offset" in before ? before.offset : undefined;
  const [x, y] = [(cut.offset?.x ?? 0) - (old?.x ?? 0), (cut.offset?.y ?? 0) - (old?.y ?? 0)];
  if (x !== 0 || y !== 0) return t("The grid moved by {x}, {y}", { x, y });
  return cut.by === "cell"
    ? t("Cells of {w} × {h} now", { w: cut.cell.w, h: cut.cell.h })
    : t("{columns} × {rows} cells now", { columns: cut.columns, rows: cut.rows });
}

/** How many of the drawings of before are among those of now, each counted once. Cost: O(drawings). */
export function foundAgain(before: Iterable<Drawing>, after: Iterable<Drawing>): number {
  const left = new Map<string, number>();
  for (const { print } of after) left.set(print, (left.get(print) ?? 0) + 1);
  let found = 0;
  for (const { print } of before) {
    const count = left.get(print) ?? 0;
    if (count === 0) continue;
    left.set(print, count - 1);
    found++;
  }
  return found;
}

/** The offset on the sheet of most frames whose drawing occurs once in the changed art; null if there is none. */
export function wayOnSheet(frames: readonly Frame[], places: readonly (readonly Rect[])[]): FramePoint | null {
  const ways = new Map<string, { count: number; way: FramePoint }>();
  for (const [k, { rect }] of frames.entries()) {
    const [only, ...others] = places[k] ?? [];
    if (!only || others.length > 0) continue;
    const way = { x: only.x - rect.x, y: only.y - rect.y };
    const key = `${way.x} ${way.y}`;
    ways.set(key, { count: (ways.get(key)?.count ?? 0) + 1, way });
  }
  return [...ways.values()].sort((a, b) => b.count - a.count)[0]?.way ?? null;
}

/** The share of earlier drawings that show that a recipe fits changed art. */
const MOST_FOUND = 0.9;

/** Whether most of the earlier drawings are in the pieces of a recipe: no other one needs to be tried. */
export function mostAreFound({ before, after }: Pick<Drawings, "before" | "after">): boolean {
  return foundAgain(before.values(), after.values()) >= before.size * MOST_FOUND;
}

/**
 * Whether a grid has in its cells what is left of the earlier drawings, of which `there` are anywhere in the changed art: where a row was
 * taken out, that is less than most of all. A grid with fewer of them cuts through drawings.
 */
export function hasWhatIsLeft(found: number, there: number): boolean {
  return there > 0 && found >= there * MOST_FOUND;
}

/** The frames whose drawing is in no piece of a recipe, although they had one. */
export function notFound(frames: readonly Frame[], { before, after }: Pick<Drawings, "before" | "after">): Frame[] {
  const there = new Set([...after.values()].map(({ print }) => print));
  return frames.filter(({ key }) => {
    const drawing = before.get(key);
    return drawing !== undefined && !there.has(drawing.print);
  });
}
