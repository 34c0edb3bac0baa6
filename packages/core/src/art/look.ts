/**
 * Defines a look, the recipe for a frame's pixels: a picture as its source shows it, several layered pictures, or a canvas with pieces.
 * Each recipe is one object, however often it is requested, so looks can be compared and used as cache keys by identity.
 */
import {
  type Blend,
  type Clearing,
  type Flip,
  type Frame,
  findFrame,
  frameSize,
  isFigure,
  isOfPieces,
  type Palette,
  type Picture,
  type Project,
  type Px,
  pictureOf,
  type Size,
  type Source,
} from "../model";
import { type Recolouring, recoloured, recolouringOf } from "../palette";
import { clearGround, type Pixels } from "../raster";
import type { FramePlace } from "./frame-art";

/** Whose file it is, and what was done to it. */
export interface PictureLook {
  /** The recipe as text, for use as a key: different recipes have different texts. */
  readonly key: string;
  readonly sha256: string;
  /** How its background is cleared; null if it is not. */
  readonly clearing: Clearing | null;
  /** Which of its colours are turned into others after that; null where all stay. */
  readonly recolouring: Recolouring | null;
}

/** A picture with its layers on top. */
export interface LayeredLook {
  readonly key: string;
  /** The lowest first; at least two. */
  readonly layers: readonly LookedLayer[];
}

export interface LookedLayer {
  readonly look: PictureLook;
  readonly blend: Blend;
}

/** What one of a source's pictures looks like, its layers with it. */
export type SheetLook = PictureLook | LayeredLook;

/** A canvas with its pieces. */
export interface PiecesLook {
  readonly key: string;
  readonly size: Size;
  /** The lowest first, without hidden ones. */
  readonly laid: readonly LaidLook[];
}

export type Look = SheetLook | PiecesLook;

export interface LaidLook {
  /** Null for a missing piece: a hatched box of its size replaces it. */
  readonly part: { readonly look: SheetLook; readonly scale: number | undefined; readonly place: FramePlace } | null;
  readonly size: Size;
  readonly x: Px;
  readonly y: Px;
  readonly flip: Flip | undefined;
  readonly recolouring: Recolouring | null;
}

/** Where pieces are looked up. */
export type Stock = Pick<Project, "sources" | "palettes">;

export function isOfPicture(look: Look): look is PictureLook {
  return "sha256" in look;
}

export function isLayered(look: Look): look is LayeredLook {
  return "layers" in look;
}

/** The pictures that have to be there to see it, each once. */
export function picturesOfLook(look: Look): PictureLook[] {
  if (isOfPicture(look)) return [look];
  if (isLayered(look)) return [...new Set(look.layers.map((layer) => layer.look))];
  return [...new Set(look.laid.flatMap(({ part }) => (part ? picturesOfLook(part.look) : [])))];
}

/** One text for each recipe, and its look. */
const known = new Map<string, PictureLook>();
/** Every colour that a palette was ever slid to is a recipe, so only those are remembered that somebody still holds. */
const knownInColours = rememberedWhileHeld<PictureLook>();

/** The look of one picture alone in its drawn colours, with the background cleared as its source or layer says. */
export function lookOf({ clearing }: Pick<Source, "clearing">, { sha256 }: Pick<Picture, "sha256">): PictureLook {
  const key = clearing ? `${sha256} ${JSON.stringify(clearing)}` : sha256;
  let look = known.get(key);
  if (!look) {
    look = { key, sha256, clearing: clearing ?? null, recolouring: null };
    known.set(key, look);
  }
  return look;
}

/** A look in the palette that a source wears. */
function worn(stock: Pick<Stock, "palettes"> | null, { palette }: Pick<Source, "palette">, bare: PictureLook): PictureLook {
  const recolouring = palette === undefined || !stock ? null : recolouringFor(stock.palettes, palette);
  if (!recolouring) return bare;
  return knownInColours(`${bare.key} ${JSON.stringify(recolouring)}`, (key) => ({ ...bare, key, recolouring }));
}

/** What palettes do was worked out for these palettes. */
const workedOut = new WeakMap<readonly Palette[], Map<string, Recolouring | null>>();

function recolouringFor(palettes: readonly Palette[] | undefined, name: string): Recolouring | null {
  if (!palettes) return null;
  let of = workedOut.get(palettes);
  if (!of) {
    of = new Map();
    workedOut.set(palettes, of);
  }
  let recolouring = of.get(name);
  if (recolouring === undefined) {
    const found = recolouringOf(palettes, name);
    recolouring = found && found.length > 0 ? found : null;
    of.set(name, recolouring);
  }
  return recolouring;
}

/** Gives the same object for a key for as long as somebody holds it. */
function rememberedWhileHeld<Kept extends object>(): (key: string, make: (key: string) => Kept) => Kept {
  const held = new Map<string, WeakRef<Kept>>();
  const forgotten = new FinalizationRegistry<string>((key) => {
    if (!held.get(key)?.deref()) held.delete(key);
  });
  return (key, make) => {
    const before = held.get(key)?.deref();
    if (before) return before;
    const made = make(key);
    held.set(key, new WeakRef(made));
    forgotten.register(made, key);
    return made;
  };
}

/** What decides on how a source's pictures look. */
type Looked = Pick<Source, "pictures" | "layers" | "clearing">;

/** One of a source's pictures, with its layers. */
export interface LayerLook {
  /** Null for the source's own picture. */
  readonly name: string | null;
  readonly look: PictureLook;
  readonly blend: Blend;
}

/**
 * The looks of a source's picture and its layers, the lowest first: in the source's palette if there is a `stock`, otherwise in the drawn
 * colours. Throws `bad-call` for a source without pictures.
 */
export function layerLooks(stock: Pick<Stock, "palettes"> | null, source: Looked & Pick<Source, "palette">, picture = 0): LayerLook[] {
  const own = pictureOf(source, { picture });
  const over = (source.layers ?? []).map((layer): LayerLook => {
    const { name, blend } = layer;
    return { name, blend, look: worn(stock, source, lookOf(layer, pictureOf(layer, { picture }))) };
  });
  return [{ name: null, blend: "normal", look: worn(stock, source, lookOf(source, own)) }, ...over];
}

const knownLayered = rememberedWhileHeld<LayeredLook>();

function together(layers: readonly LookedLayer[]): SheetLook {
  const [only, ...others] = layers as [LookedLayer, ...LookedLayer[]];
  if (others.length === 0) return only.look;
  return knownLayered(layers.map(({ look, blend }) => `${blend} ${look.key}`).join("\n"), (key) => ({
    key,
    layers: layers.map(({ look, blend }) => ({ look, blend })),
  }));
}

/**
 * The look that cutting uses: one of a source's pictures (the first by default) with all its layers, in the drawn colours. Throws
 * `bad-call` for a source without pictures.
 */
export function sheetLook(source: Looked, picture = 0): SheetLook {
  return together(layerLooks(null, source, picture));
}

/** The same in the palette that the source wears. */
export function wornLook(stock: Pick<Stock, "palettes">, source: Looked & Pick<Source, "palette">, picture = 0): SheetLook {
  return together(layerLooks(stock, source, picture));
}

/**
 * The look of a frame's figure: its picture with painted layers, without light and shade, which do not affect where it stands. For an
 * assembled frame in constant time while neither it nor the stock changes.
 */
export function frameLook(
  stock: Stock,
  source: Looked & Pick<Source, "palette">,
  frame: Pick<Frame, "picture" | "pieces" | "size">,
): SheetLook | PiecesLook {
  return frame.pieces ? piecesLook(stock, frame) : together(layerLooks(stock, source, frame.picture).filter(isFigure));
}

/** The looks of all pictures of a source, in their order, each with its layers. */
export function looksOf(source: Looked): SheetLook[] {
  return source.pictures.map((_, k) => sheetLook(source, k));
}

/** The looks of all pictures of a source and of its layers, separately, in the drawn colours. */
export function singleLooks(source: Looked): PictureLook[] {
  return source.pictures.flatMap((_, k) => layerLooks(null, source, k).map(({ look }) => look));
}

/** A picture's pixels as they are seen. Cost: O(pixels) if something is done to them. */
export function asSeen(
  pixels: Pixels,
  { clearing, recolouring }: Pick<PictureLook, "clearing"> & Partial<Pick<PictureLook, "recolouring">>,
): Pixels {
  const cleared = clearing ? clearGround(pixels, clearing) : pixels;
  return recolouring ? recoloured(cleared, recolouring) : cleared;
}

type OfPieces = Pick<Frame, "pieces" | "size">;

/** What was looked up last for a frame, and in what. */
const lookedUp = new WeakMap<OfPieces, { readonly stock: Stock; readonly look: PiecesLook }>();
/** Every place that a piece was ever dragged to is a recipe, too. */
const knownOfPieces = rememberedWhileHeld<PiecesLook>();

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
            recolouring: piece.palette === undefined ? null : recolouringFor(palettes, piece.palette),
          },
        ],
  );
  const key = `${size.w}×${size.h} ${JSON.stringify(laid.map(({ part, ...rest }) => ({ ...rest, part: part && { ...part, look: part.look.key } })))}`;
  const look = knownOfPieces(key, () => ({ key, size, laid }));
  lookedUp.set(frame, { stock, look });
  return look;
}

/** The size of the box that replaces a frame about which nothing is known any more, in px. */
const UNKNOWN: Size = { w: 16, h: 16 };

function partOf({ sources, palettes }: Stock, of: NonNullable<Frame["pieces"]>[number]["of"]): Pick<LaidLook, "part" | "size"> {
  const found = findFrame({ sources }, of);
  if (!found) return { part: null, size: UNKNOWN };
  const { source, frame } = found;
  const size = frameSize(source, frame);
  // A frame that is put together itself is no piece: two of them could name one another.
  if (isOfPieces(source)) return { part: null, size };
  const { rect, turned, size: whole, inset } = frame;
  return {
    part: {
      look: wornLook({ palettes }, source, frame.picture),
      scale: source.scale,
      place: { rect, turned, size: whole, inset },
    },
    size,
  };
}
