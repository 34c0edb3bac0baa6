/** Lists the ways to use changed art, likeliest first: frames follow their drawings, on the same grid or on another one. */

import { gridOf } from "@caravan/core/cut";
import {
  type ChangedPicture,
  type ClipNews,
  isDrawnAlike,
  percentOf,
  refreshSource,
  sourceWithArt,
  takeResizedArt,
  timesAsLarge,
  withAnimationFollowed,
  withOtherStills,
} from "@caravan/core/edit";
import {
  type Compared,
  comparedByDrawings,
  type Drawings,
  type FrameChanges,
  foundAgain,
  framesChanged,
  gridInWords,
  hasWhatIsLeft,
  mostAreFound,
  movesInWords,
  notFound,
  placeOf,
  recipesFor,
  wayOnSheet,
} from "@caravan/core/frame-identity";
import { CaravanError, clipsByFrame, type GridCut, type Project, type Source, sheetOf, sourceById } from "@caravan/core/model";
import type { Coverage } from "@caravan/core/raster";
import { t } from "../../ui/words";
import type { Begun } from "../begun";
import { coveragesOf } from "./coverages";
import { drawingsIn, drawingsOf, placesOf } from "./drawings";

/** One way to use changed art. */
export interface WayIn {
  /** The pictures that the source then has. */
  readonly pictures: readonly ChangedPicture[];
  readonly words: string;
  readonly after: Source;
  readonly changes: FrameChanges;
  /** What frames are recognised by when their drawing has moved; null if they stay at their places. */
  readonly drawings: Drawings | null;
  /** Another grid that the art is on now. */
  readonly grid: GridCut | null;
  /** The same drawings, so many times as large; null if they are of the size that they were. */
  readonly times: number | null;
  /** Clips that show a changed or removed frame, by name; without those that follow their animation. */
  readonly clips: readonly string[];
  /** What becomes of clips that follow their animation. */
  readonly news: ClipNews;
}

/** What needs no choice, and no word. */
export const AS_BEFORE = t("Cut it as before");

/**
 * The ways to use new art of a source; of only some stills of a series, as well with the others as they are. That comes first, unless drawings
 * went to other numbers: then these stills are all that there are. Throws as `waysOf`.
 */
export async function waysIn(
  before: Source,
  pictures: readonly ChangedPicture[],
  coverages: readonly Coverage[],
  work: Begun,
): Promise<readonly [WayIn, ...WayIn[]]> {
  const together = withOtherStills(before, pictures);
  if (!together) return waysOf(before, pictures, coverages, work);
  const [kept] = await waysOf(before, together, await coveragesOf(sourceWithArt(work.project, before, together)), work);
  const others = together.length - pictures.length;
  const words =
    others === 1
      ? t("Only what was given: the other picture stays as it is")
      : t("Only what was given: the other {others} pictures stay as they are", { others });
  const some: WayIn = { ...kept, words };
  if (pictures.length === 1) return [some];
  const [first, ...more] = await waysOf(before, pictures, coverages, work);
  const all = first.words === AS_BEFORE ? { ...first, words: t("These {count} are all of it now", { count: pictures.length }) } : first;
  return first.changes.moved.length > 0 ? [all, ...more, some] : [some, all, ...more];
}

/** Throws what `refreshSource` throws, if no other grid fits either. */
async function waysOf(
  before: Source,
  pictures: readonly ChangedPicture[],
  coverages: readonly Coverage[],
  work: Begun,
): Promise<readonly [WayIn, ...WayIn[]]> {
  const { project } = work;
  const { id } = before;
  const cutBy = (by: Drawings | null, grid: GridCut | null) =>
    refreshSource(project, id, pictures, coverages, by ?? undefined, grid ?? undefined);
  const uses = clipsByFrame(project);
  /** What it does to frames and clips, the project being `next` after it. */
  const outcomeOf = (next: Project, compared: Compared) => {
    const after = sourceById(next, id);
    const changes = framesChanged(before, after, compared);
    const { news } = withAnimationFollowed(project, next, id, pictures);
    const shown = new Set([...changes.changed, ...changes.gone].flatMap((ref) => uses.get(ref) ?? []));
    return { after, changes, news, clips: [...shown].filter((clip) => !news.changed.includes(clip)) };
  };
  const wayIn = (words: string, by: Drawings | null, grid: GridCut | null, seen: Drawings): WayIn => ({
    ...outcomeOf(cutBy(by, grid), comparedByDrawings(seen)),
    ...{ pictures, words, drawings: by, grid, times: null },
  });
  const resized = async (): Promise<WayIn | null> => {
    const times = timesAsLarge(before, pictures);
    if (times === null || mostAreFound(drawings) || !isDrawnAlike(before, times, await coveragesBefore(before), coverages)) return null;
    const outcome = outcomeOf(takeResizedArt(project, id, pictures, coverages, times), () => "changed");
    const words = t("The same drawings, {percent} % as large: frames and clips keep their size in the game", { percent: percentOf(times) });
    return { ...outcome, pictures, words, drawings: null, grid: null, times };
  };
  const plain = attempt(() => cutBy(null, null));
  const drawings = await drawingsOf(
    before,
    plain instanceof CaravanError ? { ...before, pictures: [], frames: [] } : sourceById(plain, id),
    work,
  );
  const grid = await otherGrid(before, pictures[0] as ChangedPicture, coverages[0] as Coverage, drawings, work, (each) =>
    sourceById(cutBy(null, each), id),
  );
  const onGrid = grid && wayIn(grid.words, grid.drawings, grid.cut, grid.drawings);
  // A grid that has only some of the drawings is a weaker reason than equal silhouettes of all.
  const found = grid && mostAreFound(grid.drawings) ? onGrid : ((await resized()) ?? onGrid);
  // The grid of before does not fit the new art at all.
  if (plain instanceof CaravanError) {
    if (!found) throw plain;
    return [found];
  }
  const followed = wayIn(AS_BEFORE, drawings, null, drawings);
  const moves = movesInWords(before, followed.after, followed.changes.moved, drawings);
  const listed = moves.slice(0, 3).join("; ");
  const words =
    moves.length > 3 ? t("{moves}; others elsewhere: follow them", { moves: listed }) : t("{moves}: follow them", { moves: listed });
  const moved = moves.length > 0 ? { ...followed, words } : followed;
  // A grid that cuts through some of them is offered, but not proposed.
  if (found) return grid && found === onGrid && !grid.hasAllThatIsLeft ? [moved, found] : [found, moved];
  const cells = cellsOf(followed.after);
  if (cells && cells !== cellsOf(before)) {
    const again = foundAgain(drawings.before.values(), drawings.after.values());
    return [
      {
        ...followed,
        words: t("Cells of {cells} now: {again} of {size} drawings found there", { cells, again, size: drawings.before.size }),
      },
    ];
  }
  return moves.length > 0 ? [moved, wayIn(t("Leave frames at their places"), null, null, drawings)] : [moved];
}

/** The coverages of the source's pictures as they were; none of art that is missing. */
async function coveragesBefore(before: Source): Promise<readonly Coverage[]> {
  return coveragesOf(before).catch(() => []);
}

/** The cell size of a grid, in words; null for other cuts. */
function cellsOf({ cut, name, pictures }: Source): string | null {
  if (cut?.by !== "cell" && cut?.by !== "count") return null;
  const { width, height } = sheetOf({ pictures });
  const { w, h } = gridOf({ w: width, h: height }, cut, name).cell;
  return `${w} × ${h}`;
}

function attempt<Result>(what: () => Result): Result | CaravanError {
  try {
    return what();
  } catch (error) {
    if (error instanceof CaravanError) return error;
    throw error;
  }
}

interface OtherGrid {
  readonly cut: GridCut;
  readonly drawings: Drawings;
  /** Whether its cells contain all earlier drawings that are anywhere in the changed art, or nearly all. */
  readonly hasAllThatIsLeft: boolean;
  readonly words: string;
}

/** The grid whose cells contain most earlier drawings, if it differs from the current one; null if the current one is best. */
async function otherGrid(
  before: Source,
  changed: ChangedPicture,
  coverage: Coverage,
  drawings: Drawings,
  work: Begun,
  cutBy: (grid: GridCut) => Source,
): Promise<OtherGrid | null> {
  const olds = [...drawings.before.values()];
  const after = sourceWithArt(work.project, before, [changed]);
  // On a sheet of another size, drawings that the current grid cuts through are a reason to look for another one even if they are few.
  const { width, height } = sheetOf(before);
  const isOtherSize = changed.width !== width || changed.height !== height;
  const cutThrough = async () =>
    isOtherSize && (await placesOf(before, after, work, notFound(before.frames, drawings))).some((each) => each.length > 0);
  if (mostAreFound(drawings) && !(await cutThrough())) return null;
  const places = await placesOf(before, after, work);
  const there = places.filter((each) => each.length > 0).length;
  const went = wayOnSheet(before.frames, places);
  let best: OtherGrid | null = null;
  let most = foundAgain(olds, drawings.after.values());
  for (const cut of recipesFor(before, { w: changed.width, h: changed.height }, coverage, went)) {
    const after = cutBy(cut);
    const found = { before: drawings.before, after: await drawingsIn(after, placeOf, work) };
    const count = foundAgain(olds, found.after.values());
    if (count <= most) continue;
    most = count;
    best = {
      cut,
      drawings: found,
      hasAllThatIsLeft: hasWhatIsLeft(count, there),
      words: t("{grid}: {count} of {olds} drawings found there", { grid: gridInWords(cut, before.cut), count, olds: olds.length }),
    };
  }
  return best;
}
