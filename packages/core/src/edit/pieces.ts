/**
 * Edits frames put together from pieces. Pieces are addressed by their position in the frame's list, the lowest first. No edit changes
 * anything that it does not name, other frames least of all.
 */
import {
  CaravanError,
  checkedName,
  counted,
  type Flip,
  type Frame,
  type FrameRef,
  findFrame,
  frameRef,
  frameSize,
  freeName,
  isFitCanvas,
  isOfPieces,
  LARGEST_CANVAS,
  MOST_PIECES,
  type Piece,
  type Project,
  type Size,
  type Source,
  type SourceId,
  sourceById,
} from "../model";
import { inLanguage, t } from "../words";
import { edit } from "./edit";
import { freeSourceId } from "./source-id";
import { RESTACKING, type Restacking, restacked } from "./stacking";
import { withFrames } from "./with-frames";
import { withSource } from "./with-source";

/** A source whose frames are put together, with one empty frame to begin with. Throws `bad-number` for a canvas that does not fit. */
export const addPiecesSource = edit(
  (_project, name: string, canvas: Size) => t("make {name}, put together on {w} × {h} px", { name: name.trim(), w: canvas.w, h: canvas.h }),
  (project, wanted, canvas): Project => {
    refuseCanvas(canvas);
    const name = freeName(checkedName(wanted, t("source name")), new Set(project.sources.map((each) => each.name)), " ");
    const source: Source = { id: freeSourceId(project), name, pictures: [], cut: { by: "pieces" }, frames: [emptyFrame(0, canvas)] };
    return { ...project, sources: [...project.sources, source] };
  },
);

function refuseCanvas(canvas: Size): void {
  if (!isFitCanvas(canvas))
    throw new CaravanError(
      "bad-number",
      t("canvas"),
      t("A canvas is 1 to {largestCanvas} px wide and high.", { largestCanvas: LARGEST_CANVAS }),
      t("Type another size."),
    );
}

function emptyFrame(number: number, size: Size): Frame {
  return { key: `a${number}`, column: number, row: 0, number, rect: { x: 0, y: 0, ...size }, size, pieces: [] };
}

/** Adds a frame right after another of its source, with the same pieces or empty. */
export const addFrameOfPieces = edit(
  (project, behind: FrameRef, copied: boolean) =>
    copied
      ? t("copy a frame of {name}", { name: ofPieces(project, behind).source.name })
      : t("add an empty frame of {name}", { name: ofPieces(project, behind).source.name }),
  (project, behind, copied) => {
    const { source, frame } = ofPieces(project, behind);
    const numbers = source.frames.map(({ key }) => Number(key.slice(1)));
    const number = source.frames.reduce((most, each) => Math.max(most, each.number), -1) + 1;
    const { size = { w: 1, h: 1 }, origin, marks } = frame;
    const made: Frame = {
      ...emptyFrame(number, size),
      key: `a${Math.max(-1, ...numbers) + 1}`,
      ...(copied ? { pieces: frame.pieces ?? [], ...(origin ? { origin } : {}), ...(marks ? { marks } : {}) } : {}),
    };
    const at = source.frames.indexOf(frame) + 1;
    return withSource(project, { ...source, frames: source.frames.toSpliced(at, 0, made) });
  },
);

/** The size of the canvas, of all frames of a source. Pieces stay where they are. */
export const setCanvas = edit(
  (project, id: SourceId, canvas: Size) =>
    t("make the canvas of {name} {w} × {h} px", { name: sourceById(project, id).name, w: canvas.w, h: canvas.h }),
  (project, id, canvas) => {
    refuseCanvas(canvas);
    const source = sourceById(project, id);
    if (!isOfPieces(source)) throw notOfPieces(source.name);
    if (source.frames.every(({ size }) => size?.w === canvas.w && size.h === canvas.h)) return project;
    const frames = source.frames.map((frame) => ({ ...frame, size: canvas, rect: { x: 0, y: 0, ...canvas } }));
    return withSource(project, { ...source, frames });
  },
);

/** Lays pieces on a frame, on top or at a place of the stack. Throws `not-found` for frames that are not there or are put together themselves. */
export const putPieces = edit(
  (project, ref: FrameRef, pieces: readonly Piece[], _at: number | null) =>
    t("place {pieces} on {frame}", {
      pieces: pieces.length === 1 ? nameOfPiece(project, pieces[0] as Piece) : counted(pieces.length, "piece"),
      frame: nameOfFrame(project, ref),
    }),
  (project, ref, pieces, at) => {
    for (const { of } of pieces) refuseNoPiece(project, of);
    return changed(project, [ref], (before) => {
      if (before.length + pieces.length > MOST_PIECES)
        throw new CaravanError(
          "bad-number",
          nameOfFrame(project, ref),
          t("No frame has more than {mostPieces} pieces.", { mostPieces: MOST_PIECES }),
          t("Remove some first."),
        );
      return before.toSpliced(at ?? before.length, 0, ...inFreeGroups(pieces, before));
    });
  },
);

export const movePieces = edit(
  (project, ref: FrameRef, places: readonly number[], _by: { x: number; y: number }) =>
    t("move {pieces} of {frame}", { pieces: counted(places.length, "piece"), frame: nameOfFrame(project, ref) }),
  (project, ref, places, { x, y }) =>
    x === 0 && y === 0 ? project : changedAt(project, ref, places, (piece) => ({ ...piece, x: piece.x + x, y: piece.y + y })),
);

/** Mirrors each of the pieces in place. */
export const flipPieces = edit(
  (project, ref: FrameRef, places: readonly number[], way: "across" | "down") =>
    t("flip {pieces} of {frame} {way}", { pieces: counted(places.length, "piece"), frame: nameOfFrame(project, ref), way }),
  (project, ref, places, way) => changedAt(project, ref, places, (piece) => withFlip(piece, flipped(piece.flip, way))),
);

/** Mirrors pieces as one: left becomes right, of the whole canvas. */
export const mirrorPieces = edit(
  (project, ref: FrameRef, _places: readonly number[]) => t("mirror {frame}", { frame: nameOfFrame(project, ref) }),
  (project, ref, places) => {
    const width = ofPieces(project, ref).frame.size?.w ?? 0;
    return changedAt(project, ref, places, (piece) =>
      withFlip({ ...piece, x: width - piece.x - sizeOfPiece(project, piece).w }, flipped(piece.flip, "across")),
    );
  },
);

export const hidePieces = edit(
  (project, ref: FrameRef, places: readonly number[], hidden: boolean) =>
    hidden
      ? t("hide {pieces} of {frame}", { pieces: counted(places.length, "piece"), frame: nameOfFrame(project, ref) })
      : t("show {pieces} of {frame}", { pieces: counted(places.length, "piece"), frame: nameOfFrame(project, ref) }),
  (project, ref, places, hidden) =>
    changedAt(project, ref, places, ({ hidden: _before, ...piece }) => (hidden ? { ...piece, hidden: true as const } : piece)),
);

export const removePieces = edit(
  (project, ref: FrameRef, places: readonly number[]) =>
    t("remove {pieces} from {frame}", { pieces: counted(places.length, "piece"), frame: nameOfFrame(project, ref) }),
  (project, ref, places) => changed(project, [ref], (pieces) => pieces.filter((_, place) => !places.includes(place))),
);

/** Another piece in the place of each, its top-left corner where it was. */
export const exchangePieces = edit(
  (project, ref: FrameRef, places: readonly number[], of: FrameRef) =>
    t("replace {pieces} of {frame} by {other}", {
      pieces: counted(places.length, "piece"),
      frame: nameOfFrame(project, ref),
      other: nameOfFrame(project, of),
    }),
  (project, ref, places, of) => {
    refuseNoPiece(project, of);
    return changedAt(project, ref, places, (piece) => ({ ...piece, of }));
  },
);

/** Replaces one piece by another wherever it is used in these frames. */
export const exchangeEverywhere = edit(
  (project, refs: readonly FrameRef[], from: FrameRef, to: FrameRef) =>
    t("replace {frame} by {other} in {frames}", {
      frame: nameOfFrame(project, from),
      other: nameOfFrame(project, to),
      frames: counted(refs.length, "frame"),
    }),
  (project, refs, from, to) => {
    refuseNoPiece(project, to);
    return changed(project, refs, (pieces) => pieces.map((piece) => (piece.of === from ? { ...piece, of: to } : piece)));
  },
);

/**
 * Replaces a near-duplicate piece by another wherever it is used in these frames; `flip` is the flip that makes them match. The art does
 * not change.
 */
export const mergePieces = edit<[refs: readonly FrameRef[], from: FrameRef, to: FrameRef, flip?: Flip | undefined]>(
  (project, refs, from, to) =>
    t("use {frame} for {other} in {frames}", {
      frame: nameOfFrame(project, to),
      other: nameOfFrame(project, from),
      frames: counted(refs.length, "frame"),
    }),
  (project, refs, from, to, flip) => {
    refuseNoPiece(project, to);
    return changed(project, refs, (pieces) =>
      pieces.map((piece) => (piece.of === from ? withFlip({ ...piece, of: to }, composed(piece.flip, flip)) : piece)),
    );
  },
);

/** The same piece moved in several frames at once. */
export const moveEverywhere = edit(
  (project, refs: readonly FrameRef[], of: FrameRef, _by: { x: number; y: number }) =>
    t("move {frame} in {frames}", { frame: nameOfFrame(project, of), frames: counted(refs.length, "frame") }),
  (project, refs, of, { x, y }) =>
    changed(project, refs, (pieces) => pieces.map((piece) => (piece.of === of ? { ...piece, x: piece.x + x, y: piece.y + y } : piece))),
);

/** Null for the piece's own colours. A palette that is not there yet may be named; then it is a finding. */
export const colourPieces = edit(
  (project, ref: FrameRef, places: readonly number[], palette: string | null) =>
    palette === null
      ? t("give {pieces} of {frame} its own colours", {
          pieces: counted(places.length, "piece"),
          frame: nameOfFrame(project, ref),
        })
      : t("colour {pieces} of {frame} with {palette}", {
          pieces: counted(places.length, "piece"),
          frame: nameOfFrame(project, ref),
          palette,
        }),
  (project, ref, places, palette) => changedAt(project, ref, places, (piece) => withPalette(piece, palette)),
);

/** Replaces one palette by another in these frames; null stands for a piece's own colours. */
export const colourEverywhere = edit(
  (_project, refs: readonly FrameRef[], from: string | null, to: string | null) =>
    t("wear {to} instead of {from} in {frames}", {
      to: to ?? t("own colours"),
      from: from ?? t("own colours"),
      frames: counted(refs.length, "frame"),
    }),
  (project, refs, from, to) =>
    changed(project, refs, (pieces) => pieces.map((piece) => ((piece.palette ?? null) === from ? withPalette(piece, to) : piece))),
);

/** Groups pieces, removing them from other groups. Throws `bad-call` for fewer than two. */
export const groupPieces = edit(
  (project, ref: FrameRef, places: readonly number[]) =>
    t("group {pieces} of {frame}", { pieces: counted(places.length, "piece"), frame: nameOfFrame(project, ref) }),
  (project, ref, places) => {
    if (new Set(places).size < 2)
      throw new CaravanError("bad-call", nameOfFrame(project, ref), t("A group needs at least two pieces."), t("Choose two or more."));
    const chosen = new Set(places);
    return changed(project, [ref], (pieces) => {
      const taken = new Set(pieces.flatMap(({ group }, place) => (group === undefined || chosen.has(place) ? [] : [group])));
      const group = freeGroup(taken);
      return pieces.map((piece, place) => (chosen.has(place) ? { ...piece, group } : piece));
    });
  },
);

export const ungroupPieces = edit(
  (project, ref: FrameRef, places: readonly number[]) =>
    t("ungroup {pieces} of {frame}", { pieces: counted(places.length, "piece"), frame: nameOfFrame(project, ref) }),
  (project, ref, places) => changedAt(project, ref, places, ({ group: _group, ...piece }) => piece),
);

/** Pieces added to a frame stay grouped, separate from its existing groups. */
function inFreeGroups(pieces: readonly Piece[], there: readonly Piece[]): Piece[] {
  const taken = new Set(there.flatMap(({ group }) => group ?? []));
  const numbers = new Map<number, number>();
  return pieces.map((piece) => {
    if (piece.group === undefined) return piece;
    let group = numbers.get(piece.group) ?? piece.group;
    while (!numbers.has(piece.group) && taken.has(group)) group = freeGroup(taken);
    numbers.set(piece.group, group);
    taken.add(group);
    return { ...piece, group };
  });
}

function freeGroup(taken: ReadonlySet<number>): number {
  let group = 1;
  while (taken.has(group)) group++;
  return group;
}

/** These places, with all others of the groups that they are in. */
export function withGroups(pieces: readonly Piece[], places: readonly number[]): number[] {
  const groups = new Set(places.flatMap((place) => pieces[place]?.group ?? []));
  const all = new Set(places);
  for (const [place, { group }] of pieces.entries()) if (group !== undefined && groups.has(group)) all.add(place);
  return [...all].sort((a, b) => a - b);
}

/** One step up or down in the stack, or all the way. Several keep their order among themselves. */
export const restackPieces = edit(
  (project, ref: FrameRef, places: readonly number[], to: Restacking) =>
    t("{move} {pieces} of {frame}", {
      move: inLanguage(RESTACKING[to]),
      pieces: counted(places.length, "piece"),
      frame: nameOfFrame(project, ref),
    }),
  (project, ref, places, to) => changed(project, [ref], (pieces) => restacked(pieces, places, to)),
);

/** Moves pieces to a place of the stack, as dragging in its list does. */
export const placeInStack = edit(
  (project, ref: FrameRef, places: readonly number[], _to: number) =>
    t("restack {pieces} of {frame}", { pieces: counted(places.length, "piece"), frame: nameOfFrame(project, ref) }),
  (project, ref, places, to) =>
    changed(project, [ref], (pieces) => {
      const chosen = new Set(places);
      const moved = pieces.filter((_, place) => chosen.has(place));
      const below = pieces.filter((_, place) => !chosen.has(place) && place < to);
      const above = pieces.filter((_, place) => !chosen.has(place) && place >= to);
      return [...below, ...moved, ...above];
    }),
);

function changedAt(project: Project, ref: FrameRef, places: readonly number[], change: (piece: Piece) => Piece): Project {
  const chosen = new Set(places);
  return changed(project, [ref], (pieces) => pieces.map((piece, place) => (chosen.has(place) ? change(piece) : piece)));
}

function changed(project: Project, refs: readonly FrameRef[], change: (pieces: readonly Piece[]) => readonly Piece[]): Project {
  for (const ref of refs) ofPieces(project, ref);
  return withFrames(project, new Set(refs), ({ frame }) => {
    const before = frame.pieces ?? [];
    const after = change(before);
    return JSON.stringify(before) === JSON.stringify(after) ? frame : { ...frame, pieces: [...after] };
  });
}

function ofPieces(project: Project, ref: FrameRef): { source: Source; frame: Frame } {
  const found = findFrame(project, ref);
  if (!found) throw new CaravanError("not-found", ref, t("There is no such frame."), t("It may have been removed; undo brings it back."));
  if (!found.frame.pieces) throw notOfPieces(nameOfFrame(project, ref));
  return found;
}

function notOfPieces(where: string): CaravanError {
  return new CaravanError("bad-call", where, t("It was cut, not put together from pieces."), t("Choose a frame that is put together."));
}

function refuseNoPiece(project: Project, of: FrameRef): void {
  const found = findFrame(project, of);
  if (!found) throw new CaravanError("not-found", of, t("There is no such frame to put there."), t("Choose another piece."));
  if (isOfPieces(found.source))
    throw new CaravanError(
      "bad-call",
      nameOfFrame(project, of),
      t("It is put together itself, so it cannot be a piece."),
      t("Use a cut frame."),
    );
}

function sizeOfPiece(project: Project, { of }: Piece): Size {
  const found = findFrame(project, of);
  return found ? frameSize(found.source, found.frame) : { w: 0, h: 0 };
}

const ACROSS: ReadonlySet<Flip | undefined> = new Set<Flip | undefined>(["across", "both"]);
const DOWN: ReadonlySet<Flip | undefined> = new Set<Flip | undefined>(["down", "both"]);

function flipped(flip: Flip | undefined, way: "across" | "down"): Flip | undefined {
  const across = ACROSS.has(flip) !== (way === "across");
  const down = DOWN.has(flip) !== (way === "down");
  return across && down ? "both" : across ? "across" : down ? "down" : undefined;
}

function composed(first: Flip | undefined, then: Flip | undefined): Flip | undefined {
  let flip = first;
  if (ACROSS.has(then)) flip = flipped(flip, "across");
  if (DOWN.has(then)) flip = flipped(flip, "down");
  return flip;
}

function withFlip({ flip: _before, ...piece }: Piece, flip: Flip | undefined): Piece {
  return flip ? { ...piece, flip } : piece;
}

function withPalette({ palette: _before, ...piece }: Piece, palette: string | null): Piece {
  return palette === null ? piece : { ...piece, palette };
}

function nameOfFrame(project: Project, ref: FrameRef): string {
  const found = findFrame(project, ref);
  return found ? (found.frame.name ?? `${found.source.name}/${found.frame.number}`) : ref;
}

function nameOfPiece(project: Project, { of }: Piece): string {
  return nameOfFrame(project, of);
}

/** Assembled frames that use a frame, with how many times. */
export function usesOfPiece(project: Project, of: FrameRef): Map<FrameRef, number> {
  const uses = new Map<FrameRef, number>();
  for (const source of project.sources)
    if (isOfPieces(source))
      for (const frame of source.frames) {
        const count = (frame.pieces ?? []).filter((piece) => piece.of === of).length;
        if (count > 0) uses.set(frameRef(source, frame), count);
      }
  return uses;
}

/** The number of frames that use each piece. Cost: O(pieces of the project). */
export function usesOfPieces(project: Project): Map<FrameRef, number> {
  const uses = new Map<FrameRef, number>();
  for (const source of project.sources)
    for (const { pieces = [] } of source.frames)
      for (const of of new Set(pieces.map((piece) => piece.of))) uses.set(of, (uses.get(of) ?? 0) + 1);
  return uses;
}
