/**
 * A look is what a frame's pixels are taken from: a picture as it is seen in a source, or a canvas that pieces of pictures are put together
 * on. A recipe, not pixels; each recipe is one object, however often it is asked for, so that looks can be compared, and things kept by look,
 * without spelling them out.
 */
import {
  type Clearing,
  type Flip,
  type Frame,
  findFrame,
  frameSize,
  isOfPieces,
  type Picture,
  type Project,
  type Px,
  pictureOf,
  type Size,
  type Source,
  sheetOf,
} from "../model";
import { type Recolouring, recolouringOf } from "../palette";
import { clearGround, type Pixels } from "../raster";
import type { FramePlace } from "./frame-art";

/** Whose file it is, and what was done to it. */
export interface PictureLook {
  /** The recipe spelled out, for what is kept under texts: other recipes are spelled otherwise. */
  readonly key: string;
  readonly sha256: string;
  /** How its ground is cleared, null where it is left as it is. */
  readonly clearing: Clearing | null;
}

/** A canvas, and what lies on it. */
export interface PiecesLook {
  readonly key: string;
  readonly size: Size;
  /** The lowest first; what is hidden is left out. */
  readonly laid: readonly LaidLook[];
}

export type Look = PictureLook | PiecesLook;

export interface LaidLook {
  /** Null for a piece that is gone: a hatched box of its size stands for it. */
  readonly part: { readonly look: PictureLook; readonly scale: number | undefined; readonly place: FramePlace } | null;
  readonly size: Size;
  readonly x: Px;
  readonly y: Px;
  readonly flip: Flip | undefined;
  readonly recolouring: Recolouring | null;
}

/** What pieces are looked up in. */
export type Stock = Pick<Project, "sources" | "palettes">;

export function isOfPicture(look: Look): look is PictureLook {
  return "sha256" in look;
}

/** The pictures that have to be there to see it, each once. */
export function picturesOfLook(look: Look): PictureLook[] {
  return isOfPicture(look) ? [look] : [...new Set(look.laid.flatMap(({ part }) => (part ? [part.look] : [])))];
}

/** One text for each recipe, and its look. */
const known = new Map<string, PictureLook>();

/** The look of one of a source's pictures, or of any other picture that is treated as they are. */
export function lookOf({ clearing }: Pick<Source, "clearing">, { sha256 }: Pick<Picture, "sha256">): PictureLook {
  const key = clearing ? `${sha256} ${JSON.stringify(clearing)}` : sha256;
  let look = known.get(key);
  if (!look) {
    look = { key, sha256, clearing: clearing ?? null };
    known.set(key, look);
  }
  return look;
}

/** The look of a source's sheet, its first picture. Throws `bad-call` for a source without pictures. */
export function sheetLook(source: Pick<Source, "pictures" | "clearing">): PictureLook {
  return lookOf(source, sheetOf(source));
}

/** What a frame's pixels are taken from. Of one that is put together, in constant time as long as neither it nor the stock changes. */
export function frameLook(
  stock: Stock,
  source: Pick<Source, "pictures" | "clearing">,
  frame: Pick<Frame, "picture" | "pieces" | "size">,
): Look {
  return frame.pieces ? piecesLook(stock, frame) : lookOf(source, pictureOf(source, frame));
}

/** The looks of all pictures of a source, in their order. */
export function looksOf(source: Pick<Source, "pictures" | "clearing">): PictureLook[] {
  return source.pictures.map((picture) => lookOf(source, picture));
}

/** A picture's pixels as they are seen. Cost: O(pixels) if something is done to them. */
export function asSeen(pixels: Pixels, { clearing }: Pick<PictureLook, "clearing">): Pixels {
  return clearing ? clearGround(pixels, clearing) : pixels;
}

type OfPieces = Pick<Frame, "pieces" | "size">;

/** What was looked up last for a frame, and in what. */
const lookedUp = new WeakMap<OfPieces, { readonly stock: Stock; readonly look: PiecesLook }>();
/** Every place that a piece was ever dragged to is a recipe, so only those are remembered that somebody still holds. */
const knownOfPieces = new Map<string, WeakRef<PiecesLook>>();
const forgotten = new FinalizationRegistry<string>((key) => {
  if (!knownOfPieces.get(key)?.deref()) knownOfPieces.delete(key);
});

function piecesLook({ sources, palettes }: Stock, frame: OfPieces): PiecesLook {
  const before = lookedUp.get(frame);
  if (before?.stock.sources === sources && before.stock.palettes === palettes) return before.look;
  const stock = { sources, palettes };
  const size = frame.size ?? { w: 1, h: 1 };
  const laid = (frame.pieces ?? []).flatMap((piece): LaidLook[] =>
    piece.hidden
      ? []
      : [
          {
            ...partOf(stock, piece.of),
            x: piece.x,
            y: piece.y,
            flip: piece.flip,
            recolouring: recolouringOf(palettes ?? [], piece.palette),
          },
        ],
  );
  const key = `${size.w}×${size.h} ${JSON.stringify(laid.map(({ part, ...rest }) => ({ ...rest, part: part && { ...part, look: part.look.key } })))}`;
  let look = knownOfPieces.get(key)?.deref();
  if (!look) {
    look = { key, size, laid };
    knownOfPieces.set(key, new WeakRef(look));
    forgotten.register(look, key);
  }
  lookedUp.set(frame, { stock, look });
  return look;
}

/** How large the box is that stands for a frame of which nothing is known any more, in px. */
const UNKNOWN: Size = { w: 16, h: 16 };

function partOf({ sources }: Pick<Stock, "sources">, of: NonNullable<Frame["pieces"]>[number]["of"]): Pick<LaidLook, "part" | "size"> {
  const found = findFrame({ sources }, of);
  if (!found) return { part: null, size: UNKNOWN };
  const { source, frame } = found;
  const size = frameSize(source, frame);
  // A frame that is put together itself is no piece: two of them could name one another.
  if (isOfPieces(source)) return { part: null, size };
  const { rect, turned, size: whole, inset } = frame;
  return {
    part: { look: lookOf(source, pictureOf(source, frame)), scale: source.scale, place: { rect, turned, size: whole, inset } },
    size,
  };
}
