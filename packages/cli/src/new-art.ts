/** Brings a source to new art: cuts it again by its recipe, with every frame on its drawing as far as the earlier art is known. */
import { artFrom, looksOf, type SheetLook, sheetLook } from "@caravan/core/art";
import {
  type ChangedPicture,
  isDrawnAlike,
  percentOf,
  refreshSource,
  sourceWithArt,
  takeResizedArt,
  timesAsLarge,
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
  strayedFrames,
  wayOnSheet,
  withFoundPlaces,
} from "@caravan/core/frame-identity";
import { allPictures, CaravanError, type GridCut, type Project, type Source, sameRect, sourceById } from "@caravan/core/model";
import { type Coverage, coverageOf, drawingsIn, findDrawings, type Pixels } from "@caravan/core/raster";

export interface Refreshed {
  readonly source: string;
  readonly changes: FrameChanges;
  /** Whether the art of before was there to compare with. */
  readonly compared: boolean;
  /** Where frames went with their drawings, in words. */
  readonly moves: readonly string[];
  /** Another grid, or another size, that it was cut by, because the earlier drawings are in its cells now, in words. */
  readonly grid: string | null;
  /** The sheet has another size and its earlier art is unknown: its drawings cannot be followed. */
  readonly unsure: boolean;
}

/** Pictures by hash that were decoded before, for opening the same project again and again. */
export type DecodedPictures = Map<string, Pixels>;

/** A project with new art, and what came of it. */
interface WithNewArt {
  readonly project: Project;
  readonly refreshed: Refreshed;
}

/**
 * Uses changed art of a source. `bySha` has its pictures, and those of before if they are still known, as in `watch`: only then drawings
 * can be followed. Throws what `refreshSource` throws, if no other way fits either.
 */
export function withNewArt(project: Project, source: Source, pictures: readonly ChangedPicture[], bySha: DecodedPictures): WithNewArt {
  const coverages = looksOf(sourceWithArt(project, source, pictures)).map((look) => coverageOf(pixelsOf(look, bySha)));
  const art = { pictures, coverages };
  const plain = attempt(() => refreshSource(project, source.id, pictures, coverages));
  const cutPlainly = plain instanceof CaravanError ? { ...source, pictures: [], frames: [] } : sourceById(plain, source.id);
  const onOldGrid = drawingsOf(source, cutPlainly, bySha);
  const other = onOldGrid && otherGrid(project, source, art, onOldGrid, bySha);
  const times = onOldGrid && !other ? timesAsLargeNow(source, art, onOldGrid, bySha) : null;
  if (times !== null) return resized(project, source, art, times);
  if (plain instanceof CaravanError && !other) throw plain;
  const drawings = other?.drawings ?? onOldGrid;
  const next = drawings ? refreshSource(project, source.id, pictures, coverages, drawings, other?.cut) : (plain as Project);
  const after = sourceById(next, source.id);
  const changes = framesChanged(source, after, drawings ? comparedByDrawings(drawings) : isSamePicture(source, after));
  return {
    project: next,
    refreshed: {
      source: source.name,
      changes,
      compared: drawings !== null,
      moves: drawings && !other ? movesInWords(source, after, changes.moved, drawings) : [],
      grid: other?.words ?? null,
      unsure: !drawings && hasOtherSize(source, pictures),
    },
  };
}

function resized(project: Project, source: Source, { pictures, coverages }: NewArt, times: number): WithNewArt {
  const next = takeResizedArt(project, source.id, pictures, coverages, times);
  return {
    project: next,
    refreshed: {
      source: source.name,
      changes: framesChanged(source, sourceById(next, source.id), () => "changed"),
      compared: true,
      moves: [],
      grid: `The same drawings, ${percentOf(times)} % as large: frames keep their size in the game`,
      unsure: false,
    },
  };
}

/** Prints of the earlier frames and of the pieces of the changed art; null if the earlier art is unknown. */
function drawingsOf(before: Source, after: Source, bySha: DecodedPictures): Drawings | null {
  if (!allPictures(before).every(({ sha256 }) => bySha.has(sha256))) return null;
  const found = (source: Source, nameOf: (frame: Source["frames"][number]) => string) => {
    const byPicture = source.pictures.map((_, k) => {
      const frames = source.frames.filter((frame) => (frame.picture ?? 0) === k);
      const drawn = drawingsIn(
        pixelsOf(sheetLook(source, k), bySha),
        frames.map(({ rect }) => rect),
      );
      return frames.flatMap((frame, n) => (drawn[n] ? [[nameOf(frame), drawn[n]] as const] : []));
    });
    return new Map(byPicture.flat());
  };
  const drawings = { before: found(before, ({ key }) => key), after: found(after, placeOf) };
  const strayed = strayedFrames(before, drawings);
  const places = before.pictures.flatMap((_, k) => {
    const frames = strayed.filter((frame) => (frame.picture ?? 0) === k);
    if (frames.length === 0 || !after.pictures[k]) return [];
    const found = findDrawings(
      pixelsOf(sheetLook(before, k), bySha),
      frames.map(({ rect }) => rect),
      pixelsOf(sheetLook(after, k), bySha),
    );
    return frames.map((frame, n) => [frame, found[n] ?? []] as const);
  });
  const placesOf = new Map(places);
  return withFoundPlaces(
    drawings,
    strayed,
    strayed.map((frame) => placesOf.get(frame) ?? []),
  );
}

function attempt<Result>(what: () => Result): Result | CaravanError {
  try {
    return what();
  } catch (error) {
    if (error instanceof CaravanError) return error;
    throw error;
  }
}

/** How many times as large the same drawings are now; null if they are others, or of their earlier size. */
function timesAsLargeNow(before: Source, { pictures, coverages }: NewArt, drawings: Drawings, bySha: DecodedPictures): number | null {
  const by = timesAsLarge(before, pictures);
  if (by === null || mostAreFound(drawings)) return null;
  const olds = looksOf(before).map((look) => coverageOf(pixelsOf(look, bySha)));
  return isDrawnAlike(before, by, olds, coverages) ? by : null;
}

/** Changed pictures, and what is drawn in each. */
interface NewArt {
  readonly pictures: readonly ChangedPicture[];
  readonly coverages: readonly Coverage[];
}

interface OtherGrid {
  readonly cut: GridCut;
  readonly drawings: Drawings;
  readonly words: string;
}

/** The grid whose cells now contain the earlier drawings; null if that is the old one, or if unclear. */
function otherGrid(
  project: Project,
  before: Source,
  { pictures, coverages }: NewArt,
  drawings: Drawings,
  bySha: DecodedPictures,
): OtherGrid | null {
  const olds = [...drawings.before.values()];
  const [changed, coverage] = [pictures[0], coverages[0]];
  if (!changed || !coverage || pictures.length > 1) return null;
  const [from, to] = [pixelsOf(sheetLook(before, 0), bySha), pixelsOf(sheetLook(sourceWithArt(project, before, pictures), 0), bySha)];
  const placesOf = (frames: Source["frames"]) =>
    findDrawings(
      from,
      frames.map(({ rect }) => rect),
      to,
    );
  // On a sheet of another size, drawings that the current grid cuts through are a reason to look for another one even if they are few.
  const cutThrough = () => hasOtherSize(before, pictures) && placesOf(notFound(before.frames, drawings)).some((each) => each.length > 0);
  if (mostAreFound(drawings) && !cutThrough()) return null;
  const places = placesOf(before.frames);
  const there = places.filter((each) => each.length > 0).length;
  // Nobody looks at it: half of them must be there.
  if (there * 2 < olds.length) return null;
  let most = foundAgain(olds, drawings.after.values());
  let best: OtherGrid | null = null;
  for (const cut of recipesFor(before, { w: changed.width, h: changed.height }, coverage, wayOnSheet(before.frames, places))) {
    const after = sourceById(refreshSource(project, before.id, pictures, coverages, undefined, cut), before.id);
    const found = drawingsOf(before, after, bySha);
    const count = found ? foundAgain(olds, found.after.values()) : 0;
    if (!found || count <= most || !hasWhatIsLeft(count, there)) continue;
    most = count;
    best = { cut, drawings: found, words: `${gridInWords(cut, before.cut)}: ${count} of ${olds.length} drawings found there` };
    if (count >= there) break;
  }
  return best;
}

function hasOtherSize({ pictures }: Source, changed: readonly ChangedPicture[]): boolean {
  return (
    changed.length !== pictures.length ||
    changed.some(({ width, height }, k) => width !== pictures[k]?.width || height !== pictures[k]?.height)
  );
}

/** The earlier art was overwritten, so only the pictures and positions of frames are known. */
function isSamePicture(before: Source, after: Source): Compared {
  return (old, frame) =>
    sheetLook(before, old.picture) === sheetLook(after, frame.picture) && sameRect(old.rect, frame.rect) ? "same" : "changed";
}

/** A sheet's look, from decoded pictures. */
function pixelsOf(look: SheetLook, bySha: DecodedPictures): Pixels {
  return artFrom(bySha, { sources: [] }).picture(look);
}
