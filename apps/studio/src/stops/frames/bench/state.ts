/** State of the bench: the piece in hand and the selection within the frame. Belongs to the screen, not to the project. */
import { moveEverywhere, movePieces } from "@caravan/core/edit";
import {
  type CaravanError,
  type Flip,
  type Frame,
  type FrameRef,
  frameRef,
  isOfPieces,
  type Piece,
  type Project,
  type Source,
} from "@caravan/core/model";
import { create } from "zustand";
import { edit } from "../../../project/open-project";
import { useView } from "../../../project/view";

export interface Hand {
  readonly of: FrameRef;
  readonly flip: Flip | null;
  readonly palette: string | null;
}

interface Bench {
  /** The piece that the next click puts; it stays in hand until Escape. */
  readonly hand: Hand | null;
  /** Places of the chosen pieces in their frame's list, and the frame that they are of. */
  readonly chosen: readonly number[];
  readonly of: FrameRef | null;
  /** How far the chosen ones are being dragged; the project learns of it when they are let go. */
  readonly dragged: { readonly x: number; readonly y: number } | null;
  /** Px to which pieces snap; 1 for none. */
  readonly grid: 1 | 8 | 16;
  readonly ghosts: "none" | "before" | "both";
  /** Whether moving and replacing a piece applies to every frame that uses it. */
  readonly across: boolean;
  /** The source whose frames are offered as pieces; null for the first. */
  readonly parts: string | null;
  /** The size of the pieces beside the canvas. */
  readonly shown: "small" | "bench";
  /** Screen pixels to a pixel of the canvas, as it fits now. */
  readonly zoom: number;
  /** The palette whose colours are open; null for none. */
  readonly palette: string | null;
  /** Pieces that were copied, to be put on other frames at the same place. */
  readonly copied: readonly Piece[];
}

export const useBench = create<Bench>(() => ({
  hand: null,
  chosen: [],
  of: null,
  dragged: null,
  grid: 8,
  ghosts: "before",
  across: false,
  parts: null,
  shown: "small",
  zoom: 4,
  palette: null,
  copied: [],
}));

/** The frame on the bench: the one at the cursor, or the first. */
export function frameOnBench(source: Source, cursor: FrameRef | null): Frame | null {
  return source.frames.find((frame) => frameRef(source, frame) === cursor) ?? source.frames[0] ?? null;
}

const NONE: readonly number[] = [];

/** The chosen pieces that are still there. */
export function chosenOn(
  ref: FrameRef,
  { pieces = [] }: Pick<Frame, "pieces">,
  { of, chosen }: Pick<Bench, "of" | "chosen">,
): readonly number[] {
  return of === ref && chosen.every((place) => place < pieces.length) ? chosen : NONE;
}

/** The selection on a frame, for code that ignores its dragging. */
export function useChosenOn(ref: FrameRef, frame: Pick<Frame, "pieces">): readonly number[] {
  return useBench((bench) => chosenOn(ref, frame, bench));
}

export function choosePieces(of: FrameRef, chosen: readonly number[]): void {
  useBench.setState({ of, chosen: [...new Set(chosen)].sort((a, b) => a - b), dragged: null });
}

/** Sources that have something to put on a frame. */
export function partSources(project: Project): Source[] {
  return project.sources.filter((source) => !isOfPieces(source) && source.frames.some(({ dropped, empty }) => !dropped && !empty));
}

/** The frame before the one on the bench, in the order of the tray; null for the first. */
export function frameBefore(source: Source, frame: Frame): Frame | null {
  return source.frames[source.frames.indexOf(frame) - 1] ?? null;
}

/** The frame after it; null for the last. */
export function frameAfter(source: Source, frame: Frame): Frame | null {
  return source.frames[source.frames.indexOf(frame) + 1] ?? null;
}

/** Moves the selected pieces; with "in all frames" and one selected, that piece wherever these frames use it. Returns an error message. */
export function moveChosen(source: Source, frame: Frame, by: { readonly x: number; readonly y: number }): CaravanError | null {
  const ref = frameRef(source, frame);
  const places = chosenOn(ref, frame, useBench.getState());
  if (places.length === 0) return null;
  const [only] = places.length === 1 && useBench.getState().across ? places : [];
  const of = only === undefined ? undefined : frame.pieces?.[only]?.of;
  return of === undefined ? edit(movePieces, ref, places, by) : edit(moveEverywhere, framesAcross(source), of, by);
}

/** The frames in which "in all frames" changes a piece: the picked ones if there are several, otherwise all of the source. */
export function framesAcross(source: Source): FrameRef[] {
  const own = source.frames.map((each) => frameRef(source, each));
  const picked = new Set(useView.getState().picked);
  const range = own.filter((ref) => picked.has(ref));
  return range.length > 1 ? range : own;
}

/** To the next frame of the tray, or the one before; none further than its ends. */
export function stepFrame(source: Source, frame: Frame, by: 1 | -1): void {
  const next = source.frames[source.frames.indexOf(frame) + by];
  if (next) useView.setState({ cursor: frameRef(source, next) });
}
