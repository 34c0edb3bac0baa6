/**
 * Which frame is which after a sheet is cut anew: names, origins, what was dropped, and the clips that show them depend on it.
 *
 * A piece is the frame of before that has its key, if both were cut the same way; else the one that is the same rectangle; else, among
 * islands, the one it covers most of. What is left is new.
 * Holds: keys stay unique; no frame of before becomes two. Cost: O(pieces), for islands × those near each.
 */
import { likenessOf, type Piece } from "../cut";
import { type Frame, isFrameKey } from "../model";

/** What a piece may say beyond its place. */
export type NewFrame = Omit<Piece, "key"> & {
  readonly key: string | null;
  readonly turned?: boolean;
  readonly picture?: number;
  readonly name?: string;
  readonly origin?: Frame["origin"];
};

interface Options {
  /** Whether keys mean the same before and after. */
  readonly sameWay: boolean;
  /** The letter that new keys begin with. */
  readonly letter: "i" | "h" | "m" | "p";
  /** Least likeness by which a changed rectangle is still the same frame; 1 for none but equal ones. */
  readonly likeness: number;
}

/** Islands have no place by name; one that changed by less than half is still itself. */
export const BY_OUTLINE: Options = { sameWay: false, letter: "i", likeness: 0.5 };

export function withIdentity(before: readonly Frame[], pieces: readonly NewFrame[], { sameWay, letter, likeness }: Options): Frame[] {
  const byKey = sameWay ? new Map(before.map((frame) => [frame.key as string, frame])) : null;
  // Cells of the same grid are all found by their keys; then places need not be spelled out, which is most of the work.
  const byPlace = lazily(() => new Map(before.map((frame) => [placeOf(frame), frame])));
  const taken = new Set<Frame>();
  const olds = pieces.map((piece): Frame | null => {
    const own = piece.key !== null && byKey ? byKey.get(piece.key) : before.length > 0 ? byPlace().get(placeOf(piece)) : undefined;
    if (!own || taken.has(own)) return null;
    taken.add(own);
    return own;
  });
  if (likeness < 1) {
    const near = neighbourhoods(before);
    for (const [k, piece] of pieces.entries()) {
      if (olds[k]) continue;
      let best: Frame | null = null;
      let most = likeness;
      for (const frame of near(piece)) {
        if (taken.has(frame)) continue;
        const alike = likenessOf(frame.rect, piece.rect);
        if (alike > most || (alike === most && (best === null || frame.number > best.number))) {
          most = alike;
          best = frame;
        }
      }
      if (!best) continue;
      olds[k] = best;
      taken.add(best);
    }
  }
  const keys = new Set(olds.flatMap((old) => (old ? [old.key] : [])));
  let next = before.reduce((most, { key }) => (/^[ihmp]/.test(key) ? Math.max(most, Number(key.slice(1))) : most), -1) + 1;
  const freeKey = (wanted: string | null): string => {
    if (wanted !== null && isFrameKey(wanted) && !keys.has(wanted)) return wanted;
    while (keys.has(`${letter}${next}`)) next++;
    return `${letter}${next++}`;
  };
  return pieces.map((piece, k): Frame => {
    const old = olds[k];
    const key = old ? old.key : freeKey(piece.key);
    keys.add(key);
    return frameOf(piece, key, old ?? null);
  });
}

const BLOCK = 128; // px

/** Frames that may overlap a piece: those of the blocks of its picture that it reaches. A frame may be given several times. */
function neighbourhoods(frames: readonly Frame[]): (piece: NewFrame) => Frame[] {
  const blocks = new Map<string, Frame[]>();
  for (const frame of frames)
    for (const name of blocksOf(frame)) {
      const block = blocks.get(name);
      if (block) block.push(frame);
      else blocks.set(name, [frame]);
    }
  return (piece) => blocksOf(piece).flatMap((name) => blocks.get(name) ?? []);
}

function blocksOf({ rect: { x, y, w, h }, picture = 0 }: { rect: Frame["rect"]; picture?: number | undefined }): string[] {
  const names: string[] = [];
  for (let row = Math.floor(y / BLOCK); row <= Math.floor((y + h - 1) / BLOCK); row++)
    for (let column = Math.floor(x / BLOCK); column <= Math.floor((x + w - 1) / BLOCK); column++) names.push(`${picture} ${column} ${row}`);
  return names;
}

function lazily<Value>(make: () => Value): () => Value {
  let made: { value: Value } | null = null;
  return () => {
    made ??= { value: make() };
    return made.value;
  };
}

function placeOf({ rect: { x, y, w, h }, picture = 0 }: { rect: Frame["rect"]; picture?: number | undefined }): string {
  return `${picture} ${x} ${y} ${w} ${h}`;
}

/** Decisions of a person come before what a file says. */
function frameOf(piece: NewFrame, key: string, old: Frame | null): Frame {
  const { column, row, number, rect, size, inset, empty, turned, picture } = piece;
  const name = old?.name ?? piece.name;
  const origin = old?.origin ?? piece.origin;
  // Filled in rather than spread together: a sheet may have thousands, and this runs at each nudge of a grid.
  const frame: { -readonly [Field in keyof Frame]: Frame[Field] } = { key, column, row, number, rect };
  if (picture) frame.picture = picture;
  if (turned) frame.turned = turned;
  if (size) frame.size = size;
  if (inset && (inset.x > 0 || inset.y > 0 || size)) frame.inset = inset;
  if (empty) frame.empty = empty;
  if (name !== undefined) frame.name = name;
  if (origin) frame.origin = origin;
  if (old?.marks) frame.marks = old.marks;
  if (old?.dropped) frame.dropped = true;
  return frame;
}
