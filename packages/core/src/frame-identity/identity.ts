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
import { type Frame, groupedBy, isFrameKey, showsMostlyTheSame } from "../model";
import type { NewFrame } from "./new-frame";
import { liesOn, Pairing } from "./pairing";

interface Options {
  /** Whether keys mean the same before and after. */
  readonly sameWay: boolean;
  /** The letter that new keys begin with. */
  readonly letter: "i" | "h" | "m" | "p";
  /** Likeness above which a changed rectangle is still the same frame; 1 for none but equal ones. */
  readonly likeness: number;
  /** Whether a piece is also the frame that shows the same drawing in a smaller or larger rectangle. */
  readonly shows?: boolean;
  /**
   * The name by which a piece is an earlier frame: what the same file, read another way before, had called it, whatever a person calls it.
   */
  readonly byName?: (frame: Frame) => string | undefined;
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
  { sameWay, likeness, sameDrawing, shows = false, byName, byNumber = false, lost = [] }: Options,
): readonly (Frame | null)[] {
  const pairing = new Pairing(pieces);
  if (sameDrawing) for (const k of pieces.keys()) pairing.pair(k, sameDrawing(k));
  if (byName) {
    const named = groupedBy(before, (frame) => byName(frame) ?? "");
    for (const [k, { name }] of pieces.entries())
      if (name !== undefined && named.get(name)?.length === 1) pairing.pair(k, named.get(name)?.[0]);
  }
  if (byNumber) {
    const numbered = new Map(before.map((frame) => [frame.number, frame]));
    for (const [k, { number }] of pieces.entries()) pairing.pair(k, numbered.get(number));
  }
  const byKey = new Map(sameWay ? before.map((frame) => [frame.key as string, frame]) : []);
  const least = sameWay ? Math.min(likeness, 0.5) : likeness;
  // Most often all cells are found so, and places need not be spelled out, which is most of the work.
  pairing.byKey((key, piece) => {
    const own = byKey.get(key);
    return own && liesOn(own, piece, Math.min(likeness, 0.5)) ? own : undefined;
  });
  pairing.byPlace(before);
  pairing.byLikeness(before, least);
  if (shows) pairing.byDrawing(before);
  const free = lost.length === 0 || pairing.isDone ? [] : withFreeKeys(lost, before, pairing.olds);
  if (free.length === 0) {
    pairing.byKey((key) => byKey.get(key));
    return pairing.olds;
  }
  const freeByKey = groupedBy(free, ({ key }) => key);
  pairing.oneOfEachKey(free);
  pairing.byPlace(free);
  pairing.byKey((key, piece) => freeByKey.get(key)?.find((frame) => showsMostlyTheSame(frame, piece)));
  const given = pairing.keys();
  pairing.byKey((key) => (given.has(key) ? undefined : byKey.get(key)));
  // They may have been cut in any way.
  const keys = pairing.keys();
  const left = free.filter(({ key }) => !keys.has(key));
  pairing.byLikeness(left, least);
  pairing.byDrawing(left);
  return pairing.olds;
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
