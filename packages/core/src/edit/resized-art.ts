/** Uses new art of a source that shows the same drawings at another size: a sheet exported at 200 %, or drawn anew for larger displays. */
import { traitsOf } from "../cut";
import { CaravanError, type Cut, type Frame, type GridCut, type Rect, type Source, type SourceId, scaleOf, sourceById } from "../model";
import { type Coverage, isDrawn } from "../raster";
import { t } from "../words";
import { withAnimationFollowed } from "./animation-times";
import { type ChangedPicture, withChangedArt } from "./changed-art";
import { framesAgain, isOfSamePictures } from "./cutting";
import { edit } from "./edit";
import { refuseOfPieces } from "./of-pieces";
import { isScale } from "./scale";
import { withSource } from "./with-source";

/** How many times as large a sheet is at most, or as small, to count as the same at another size. */
const MOST_TIMES = 16;

/** How many times as large all pictures became, in both directions; null if not alike, if nothing changed, or if cells would end between pixels. */
export function timesAsLarge(source: Source, changed: readonly ChangedPicture[]): number | null {
  const { pictures } = source;
  const [old, now] = [pictures[0], changed[0]];
  if (!old || !now || changed.length !== pictures.length) return null;
  const by = now.width / old.width;
  if (by === 1 || by > MOST_TIMES || by < 1 / MOST_TIMES || !isScale(scaleOf(source) / by)) return null;
  const isSo = (length: number, before: number) => Math.abs(length - before * by) < 0.5;
  const alike = changed.every(({ width, height }, k) => isSo(width, pictures[k]?.width ?? 0) && isSo(height, pictures[k]?.height ?? 0));
  return alike && resized(source, by) !== null ? by : null;
}

/** The share of drawn frames whose silhouette has to be the same. */
const MOST_ALIKE = 0.8;
/** The share that two silhouettes of one drawing have in common at least: one may have been drawn anew, with finer edges. */
const SAME_SHAPE = 0.7;
/** Pixels that are compared in one direction of a frame at most. */
const SAMPLES = 48;

/** Whether frames have the same silhouettes, in proportion. Coverages are of each picture, before and in the new art. */
export function isDrawnAlike({ frames }: Source, by: number, before: readonly Coverage[], after: readonly Coverage[]): boolean {
  let [drawn, alike] = [0, 0];
  for (const { rect, picture = 0 } of frames) {
    const [from, to] = [before[picture], after[picture]];
    const share = from && to ? commonShare(rect, by, from, to) : null;
    if (share === null) continue;
    drawn++;
    if (share >= SAME_SHAPE) alike++;
  }
  return drawn > 0 && alike >= drawn * MOST_ALIKE;
}

/** Of what is drawn in either, how much is drawn in both; null if the earlier frame is empty. */
function commonShare({ x, y, w, h }: Rect, by: number, from: Coverage, to: Coverage): number | null {
  const step = Math.max(1, Math.ceil(Math.max(w, h) / SAMPLES));
  let [old, either, both] = [0, 0, 0];
  for (let row = y; row < y + h; row += step)
    for (let column = x; column < x + w; column += step) {
      const was = isDrawn(from, column, row);
      const is = isDrawn(to, Math.floor((column + 0.5) * by), Math.floor((row + 0.5) * by));
      if (was) old++;
      if (was || is) either++;
      if (was && is) both++;
    }
  return old === 0 ? null : both / either;
}

/**
 * Replaces a source's pictures by art that is `by` times as large; its recipe, frames and scale follow, so that frames keep their size,
 * origins and marks in the game, and clips their steps. Other sources of the same pictures are updated too. `coverages` are of each picture
 * with its layers. Throws `bad-call` for art that `timesAsLarge` does not call so, and what `withChangedArt` throws.
 */
export const takeResizedArt = edit(
  (project, id: SourceId, _pictures: readonly ChangedPicture[], _coverages: readonly Coverage[], by: number) =>
    t("use the new art of {name}, {percent} % as large", { name: sourceById(project, id).name, percent: percentOf(by) }),
  (project, id, pictures, coverages, by) => {
    const source = sourceById(project, id);
    refuseOfPieces(source);
    const art = withChangedArt(project, source, pictures);
    const all = project.sources.filter((each) => each === source || isOfSamePictures(each, source));
    const withArt = all.reduce((made, each) => {
      const next = resized(each, by);
      if (!next || timesAsLarge(each, pictures) !== by)
        throw new CaravanError(
          "bad-call",
          each.name,
          t("Its frames do not fit its new art at {percent} %.", { percent: percentOf(by) }),
          t("Use it another way, or cut it again."),
        );
      const changed = { ...next, ...art };
      const frames = changed.cut && traitsOf(changed.cut).finds ? framesAgain(changed, changed.cut, coverages) : changed.frames;
      return withSource(made, { ...changed, frames });
    }, project);
    return all.reduce((made, each) => withAnimationFollowed(project, made, each.id, pictures).project, withArt);
  },
);

/** Whole where it is nearly whole: 200, 33.3. */
export function percentOf(by: number): number {
  return Math.round(by * 1000) / 10;
}

/** The source with its recipe and rectangles that many times as large, and its scale as much smaller; null if cells would end between pixels. */
function resized(source: Source, by: number): Source | null {
  const { scale: _before, ...rest } = source;
  const cut = source.cut === null ? null : timesCut(source.cut, by);
  if (cut === undefined) return null;
  const frames = source.frames.map((frame) => timesFrame(frame, by));
  const given = cut !== null && !traitsOf(cut).finds;
  if (given && frames.some(({ rect, size, inset }) => ![rect, size ?? rect, inset ?? rect].every(isWhole))) return null;
  const scale = scaleOf(source) / by;
  // Three times as large and back gives 1 again.
  const near = Math.abs(scale - 1) < 1e-9 ? 1 : scale;
  return { ...rest, ...(near === 1 ? {} : { scale: near }), cut, frames: frames.map(wholeFrame) };
}

/** Undefined if it does not stay a recipe of whole pixels. */
function timesCut(cut: Cut, by: number): Cut | undefined {
  switch (cut.by) {
    case "cell":
    case "count":
      return timesGrid(cut, by);
    case "regions": {
      const regions = cut.regions.map(({ area, grid }) => ({ area: timesRect(area, by), grid: timesGrid(grid, by) }));
      if (regions.some(({ area, grid }) => !isWhole(area) || !grid)) return undefined;
      return { ...cut, regions: regions.map(({ area, grid }) => ({ area: wholeRect(area), grid: grid as GridCut })) };
    }
    case "outlines":
      return {
        ...cut,
        joinPx: Math.min(256, Math.round(cut.joinPx * by)),
        leastPx: Math.max(1, Math.round(cut.leastPx * by * by)),
      };
    default:
      return cut;
  }
}

function timesGrid(cut: GridCut, by: number): GridCut | undefined {
  const point = ({ x, y }: { readonly x: number; readonly y: number }) => ({ x: x * by, y: y * by });
  const grid = {
    ...cut,
    margin: point(cut.margin),
    gap: point(cut.gap),
    ...(cut.offset ? { offset: point(cut.offset) } : {}),
    ...(cut.by === "cell" ? { cell: { w: cut.cell.w * by, h: cut.cell.h * by } } : {}),
  } as GridCut;
  const parts = [grid.margin, grid.gap, grid.offset ?? {}, grid.by === "cell" ? grid.cell : {}];
  if (!parts.every(isWhole)) return undefined;
  return {
    ...grid,
    margin: wholeOf(grid.margin),
    gap: wholeOf(grid.gap),
    ...(grid.offset ? { offset: wholeOf(grid.offset) } : {}),
    ...(grid.by === "cell" ? { cell: wholeOf(grid.cell) } : {}),
  };
}

function timesFrame(frame: Frame, by: number): Frame {
  const { rect, size, inset } = frame;
  return {
    ...frame,
    rect: timesRect(rect, by),
    ...(size ? { size: { w: size.w * by, h: size.h * by } } : {}),
    ...(inset ? { inset: { x: inset.x * by, y: inset.y * by } } : {}),
  };
}

function wholeFrame(frame: Frame): Frame {
  const { rect, size, inset } = frame;
  return { ...frame, rect: wholeRect(rect), ...(size ? { size: wholeOf(size) } : {}), ...(inset ? { inset: wholeOf(inset) } : {}) };
}

function timesRect({ x, y, w, h }: Rect, by: number): Rect {
  return { x: x * by, y: y * by, w: w * by, h: h * by };
}

function wholeRect(rect: Rect): Rect {
  const { x, y, w, h } = wholeOf(rect);
  return { x, y, w: Math.max(1, w), h: Math.max(1, h) };
}

/** Multiplying leaves traces behind the point. */
function isWhole(numbers: object): boolean {
  return Object.values(numbers).every((each: number) => Math.abs(each - Math.round(each)) < 1e-6);
}

function wholeOf<Numbers extends object>(numbers: Numbers): Numbers {
  return Object.fromEntries(Object.entries(numbers).map(([name, each]) => [name, Math.round(each as number) + 0])) as Numbers;
}
