/**
 * Decides which frame is which after a sheet is cut again; names, origins, dropped frames and clips depend on it.
 *
 * If drawings were compared, a piece is the earlier frame with the same drawing; otherwise the frame at its place: the same rectangle, or
 * one that shares more than half its area. If the sheet is cut another way now, it is also the frame that shows the same drawing: an outline
 * the one of the cell around it, a cell the one of the outline inside. Only pieces at a place where nothing was are matched by key, if both
 * were cut the same way; the rest is new, under a key that no frame had: a clip never shows another drawing because the way of cutting
 * changed. So a moved grid keeps its frames, even if every cell gets another column, and frames that an earlier cut had lost return where they
 * were. Holds: keys stay unique; no earlier frame becomes two.
 * Cost: O(pieces), and for moved ones × those nearby.
 */
import { likenessOf } from "../cut";
import { commonArea, type Frame, isFrameKey } from "../model";
import { shownBy } from "./inside";
import { neighbourhoods } from "./nearby";
import { type NewFrame, placeOf } from "./new-frame";

interface Options {
  /** Whether keys mean the same before and after. */
  readonly sameWay: boolean;
  /** The letter that new keys begin with. */
  readonly letter: "i" | "h" | "m" | "p";
  /** Likeness above which a changed rectangle is still the same frame; 1 for none but equal ones. */
  readonly likeness: number;
  /** Whether a piece is also the frame that shows the same drawing in a smaller or larger rectangle. */
  readonly shows?: boolean;
  /** Whether a name means the same frame before and after: the same file is read another way. */
  readonly byName?: boolean;
  /** Whether a running number means the same frame before and after: stills go by the numbers of their files. */
  readonly byNumber?: boolean;
  /** What a file had said about the earlier frame, to be replaced by what it says now. */
  readonly saidBefore?: (frame: Frame) => Said;
  /** The earlier frame with the drawing of piece k, if known. */
  readonly sameDrawing?: (k: number) => Frame | undefined;
  /** Frames that earlier cuts had lost: a piece at the place of one is that frame again. Of several with one key, the first that is found. */
  readonly lost?: readonly Frame[];
}

/** The parts of a frame that came from a file and have not been changed since. */
export interface Said {
  readonly name: boolean;
  readonly origin: boolean;
  readonly marks: boolean;
}

const NOTHING_SAID: Said = { name: false, origin: false, marks: false };

/** Rectangles that changed by less than half are still themselves. */
export const BY_OUTLINE: Options = { sameWay: false, letter: "i", likeness: 0.5, shows: true };

export function withIdentity(before: readonly Frame[], pieces: readonly NewFrame[], options: Options): Frame[] {
  return identified(before, pieces, options).frames;
}

/** As `withIdentity`, with the earlier frame that each one is, null for new ones. */
export function identified(
  before: readonly Frame[],
  pieces: readonly NewFrame[],
  options: Options,
): { readonly frames: Frame[]; readonly olds: readonly (Frame | null)[] } {
  const { letter } = options;
  const olds = matched(before, pieces, options);
  const keys = new Set(before.map(({ key }) => key as string));
  // Lost frames that return have theirs already.
  if (options.lost) for (const old of olds) if (old) keys.add(old.key);
  const all = options.lost ? [...before, ...options.lost] : before;
  let next = all.reduce((most, { key }) => (/^[ihmp]/.test(key) ? Math.max(most, Number(key.slice(1))) : most), -1) + 1;
  const freeKey = (wanted: string | null): string => {
    if (wanted !== null && isFrameKey(wanted) && !keys.has(wanted)) return wanted;
    while (keys.has(`${letter}${next}`)) next++;
    return `${letter}${next++}`;
  };
  const frames = pieces.map((piece, k): Frame => {
    const old = olds[k];
    const key = old ? old.key : freeKey(piece.key);
    keys.add(key);
    return frameOf(piece, key, old ?? null, old ? options.saidBefore?.(old) : undefined);
  });
  return { frames, olds };
}

/** For each piece the frame of before that it is. */
function matched(
  before: readonly Frame[],
  pieces: readonly NewFrame[],
  { sameWay, likeness, sameDrawing, shows = false, byName = false, byNumber = false, lost = [] }: Options,
): (Frame | null)[] {
  const olds: (Frame | null)[] = pieces.map(() => null);
  const taken = new Set<Frame>();
  const match = (k: number, frame: Frame | null | undefined) => {
    if (!frame || taken.has(frame) || olds[k]) return;
    taken.add(frame);
    olds[k] = frame;
  };
  if (sameDrawing) for (const k of pieces.keys()) match(k, sameDrawing(k));
  if (byName) {
    const named = groupedBy(before, ({ name }) => name ?? "");
    for (const [k, { name }] of pieces.entries()) if (name !== undefined && named.get(name)?.length === 1) match(k, named.get(name)?.[0]);
  }
  if (byNumber) {
    const numbered = new Map(before.map((frame) => [frame.number, frame]));
    for (const [k, { number }] of pieces.entries()) match(k, numbered.get(number));
  }
  const byKey = sameWay ? new Map(before.map((frame) => [frame.key as string, frame])) : null;
  // Most often all cells are found so, and places need not be spelled out, which is most of the work.
  if (byKey)
    for (const [k, piece] of pieces.entries()) {
      const own = piece.key === null ? undefined : byKey.get(piece.key);
      if (own && liesOn(own, piece, Math.min(likeness, 0.5))) match(k, own);
    }
  const least = sameWay ? Math.min(likeness, 0.5) : likeness;
  const areLeft = (frames: readonly Frame[]) => olds.includes(null) && frames.some((frame) => !taken.has(frame));
  const matchPlaces = (frames: readonly Frame[], give: typeof match) => {
    if (!areLeft(frames)) return;
    const byPlace = groupedBy(frames, placeOf);
    for (const [k, piece] of pieces.entries()) {
      if (olds[k]) continue;
      // Several records may have the same rectangle: each keeps its own frame, by name if it has one, otherwise in order.
      const there = (byPlace.get(placeOf(piece)) ?? []).filter((frame) => !taken.has(frame));
      give(k, there.find(({ name }) => name !== undefined && name === piece.name) ?? there[0]);
    }
  };
  const matchDrawings = (frames: readonly Frame[], showing: boolean, give: typeof match) => {
    if (least < 1 && areLeft(frames)) matchNear(frames, pieces, olds, taken, least, give);
    if (showing && areLeft(frames)) for (const [k, frame] of shownBy(pieces, frames)) if (!olds[k]) give(k, frame);
  };
  matchPlaces(before, match);
  matchDrawings(before, shows, match);
  const free = lost.length > 0 && olds.includes(null) ? withFreeKeys(lost, before, olds) : [];
  const freeByKey = groupedBy(free, ({ key }) => key);
  const back = (k: number, frame: Frame | null | undefined) => {
    match(k, frame);
    for (const other of frame && olds[k] === frame ? (freeByKey.get(frame.key) ?? []) : []) taken.add(other);
  };
  matchPlaces(free, back);
  if (free.length > 0)
    for (const [k, { key, ...piece }] of pieces.entries())
      if (key !== null)
        back(
          k,
          freeByKey.get(key)?.find((frame) => isMostlyIn(frame, piece)),
        );
  const given = new Set(free.length > 0 ? olds.map((frame) => frame?.key) : []);
  if (byKey) for (const [k, piece] of pieces.entries()) if (piece.key !== null && !given.has(piece.key)) match(k, byKey.get(piece.key));
  // They may have been cut in any way.
  const stillFree = free.filter(({ key }) => !olds.some((frame) => frame?.key === key));
  matchDrawings(stillFree, true, back);
  return olds;
}

/**
 * The lost frames whose keys may be given again: no frame has it that is still there, or about which something was decided since. An origin
 * alone may come from the cut.
 */
function withFreeKeys(lost: readonly Frame[], before: readonly Frame[], olds: readonly (Frame | null)[]): Frame[] {
  const there = new Set(olds);
  const now = new Map(before.map((frame) => [frame.key as string, frame]));
  return lost.filter((was) => {
    const frame = now.get(was.key);
    return !frame || !(there.has(frame) || isDecidedSince(was, frame));
  });
}

function isDecidedSince(was: Frame, { name, marks, data, dropped }: Frame): boolean {
  if (!(name || marks || data || dropped)) return false;
  return name !== was.name || marks !== was.marks || data !== was.data || dropped !== was.dropped;
}

function matchNear(
  before: readonly Frame[],
  pieces: readonly NewFrame[],
  olds: readonly (Frame | null)[],
  taken: ReadonlySet<Frame>,
  least: number,
  match: (k: number, frame: Frame | null) => void,
): void {
  const near = neighbourhoods(before);
  for (const [k, piece] of pieces.entries()) {
    if (olds[k]) continue;
    let best: Frame | null = null;
    let most = least;
    for (const frame of near(piece)) {
      if (taken.has(frame)) continue;
      const alike = likenessOf(frame.rect, piece.rect);
      if (alike > most || (alike === most && best !== null && frame.number > best.number)) {
        most = alike;
        best = frame;
      }
    }
    match(k, best);
  }
}

/** Whether more than half of the smaller one is inside the other. */
function isMostlyIn(frame: Frame, piece: Omit<NewFrame, "key">): boolean {
  const [a, b] = [frame.rect, piece.rect];
  return (frame.picture ?? 0) === (piece.picture ?? 0) && commonArea(a, b) * 2 > Math.min(a.w * a.h, b.w * b.h);
}

function liesOn(frame: Frame, piece: NewFrame, least: number): boolean {
  return (frame.picture ?? 0) === (piece.picture ?? 0) && likenessOf(frame.rect, piece.rect) > least;
}

function groupedBy<Each>(all: readonly Each[], keyOf: (each: Each) => string): Map<string, Each[]> {
  const groups = new Map<string, Each[]>();
  for (const each of all) {
    const key = keyOf(each);
    const group = groups.get(key);
    if (group) group.push(each);
    else groups.set(key, [each]);
  }
  return groups;
}

/** A person's decisions take precedence over a file; the file's earlier statements do not. */
function frameOf(piece: NewFrame, key: string, old: Frame | null, said = NOTHING_SAID): Frame {
  const { column, row, number, rect, size, inset, empty, turned, picture } = piece;
  const name = said.name ? piece.name : (old?.name ?? piece.name);
  const origin = said.origin ? piece.origin : (old?.origin ?? piece.origin);
  const marks = said.marks ? piece.marks : (old?.marks ?? piece.marks);
  // Filled in rather than spread together: a sheet may have thousands, and this runs at each nudge of a grid.
  const frame: { -readonly [Field in keyof Frame]: Frame[Field] } = { key, column, row, number, rect };
  if (picture) frame.picture = picture;
  if (turned) frame.turned = turned;
  if (size) frame.size = size;
  if (inset && (inset.x > 0 || inset.y > 0 || size)) frame.inset = inset;
  if (empty) frame.empty = empty;
  if (name !== undefined) frame.name = name;
  if (origin) frame.origin = origin;
  if (marks) frame.marks = marks;
  if (old?.data) frame.data = old.data;
  if (old?.dropped) frame.dropped = true;
  return frame;
}
