/** Pairs the pieces of a new cut with earlier frames, each at most once: the steps of which `identity.ts` decides the order. */
import { likenessOf } from "../cut";
import { type Frame, groupedBy } from "../model";
import { shownBy } from "./inside";
import { neighbourhoods } from "./nearby";
import { type NewFrame, placeOf } from "./new-frame";

export class Pairing {
  /** For each piece the frame of before that it is. */
  readonly olds: (Frame | null)[];
  private readonly taken = new Set<Frame>();
  private rivals: ReadonlyMap<string, readonly Frame[]> = new Map();
  private open: number;

  constructor(private readonly pieces: readonly NewFrame[]) {
    this.olds = pieces.map(() => null);
    this.open = pieces.length;
  }

  get isDone(): boolean {
    return this.open === 0;
  }

  pair(k: number, frame: Frame | null | undefined): void {
    if (!frame || this.olds[k] || this.taken.has(frame)) return;
    this.taken.add(frame);
    this.olds[k] = frame;
    this.open--;
    for (const rival of this.rivals.get(frame.key) ?? []) this.taken.add(rival);
  }

  /** From now on only one of the frames with one key is paired. */
  oneOfEachKey(frames: readonly Frame[]): void {
    this.rivals = groupedBy(frames, ({ key }) => key);
  }

  /** The pieces that have no frame yet. */
  *left(): Iterable<readonly [k: number, piece: NewFrame]> {
    for (const [k, piece] of this.pieces.entries()) if (!this.olds[k]) yield [k, piece];
  }

  /** By equal rectangles. Of several with the same one each keeps its own frame: by name if it has one, otherwise in order. */
  byPlace(frames: readonly Frame[]): void {
    if (!this.isWorthIt(frames)) return;
    const there = groupedBy(frames, placeOf);
    for (const [k, piece] of this.left()) {
      const free = (there.get(placeOf(piece)) ?? []).filter((frame) => !this.taken.has(frame));
      this.pair(k, free.find(({ name }) => name !== undefined && name === piece.name) ?? free[0]);
    }
  }

  /** By rectangles that have more than `least` of their area in common. */
  byLikeness(frames: readonly Frame[], least: number): void {
    if (least >= 1 || !this.isWorthIt(frames)) return;
    const near = neighbourhoods(frames);
    for (const [k, piece] of this.left()) {
      let best: Frame | null = null;
      let most = least;
      for (const frame of near(piece)) {
        if (this.taken.has(frame)) continue;
        const alike = likenessOf(frame.rect, piece.rect);
        if (alike > most || (alike === most && best !== null && frame.number > best.number)) {
          most = alike;
          best = frame;
        }
      }
      this.pair(k, best);
    }
  }

  /** By what they show, in smaller or larger rectangles. */
  byDrawing(frames: readonly Frame[]): void {
    if (!this.isWorthIt(frames)) return;
    for (const [k, frame] of shownBy(this.pieces, frames)) this.pair(k, frame);
  }

  /** By keys: `frameOf` gives the frame with a key, if it is that of the piece. */
  byKey(frameOf: (key: string, piece: NewFrame) => Frame | undefined): void {
    for (const [k, piece] of this.left()) if (piece.key !== null) this.pair(k, frameOf(piece.key, piece));
  }

  /** The keys of all paired frames. */
  keys(): ReadonlySet<string> {
    return new Set(this.olds.flatMap((frame) => frame?.key ?? []));
  }

  private isWorthIt(frames: readonly Frame[]): boolean {
    return !this.isDone && frames.some((frame) => !this.taken.has(frame));
  }
}

/** Whether they have more than `least` of their area in common. */
export function liesOn(frame: Frame, piece: NewFrame, least: number): boolean {
  return (frame.picture ?? 0) === (piece.picture ?? 0) && likenessOf(frame.rect, piece.rect) > least;
}
