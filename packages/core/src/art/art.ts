/** Gives exact pixels of a project's art: pictures as they are shown, and frames as the game shows them. */
import { layered } from "../assemble";
import { allPictures, CaravanError, type Frame, isFigure, pictureOf, type Rect, type Source, scaleOf } from "../model";
import { coverageOf, crop, type Pixels } from "../raster";
import { t } from "../words";
import { assembledLook, layeredLook } from "./assembled";
import { type Drawn, drawnIn, type FramePlace, framePixels } from "./frame-art";
import {
  asSeen,
  frameLook,
  isLayered,
  isOfPicture,
  type LayerLook,
  type Look,
  layerLooks,
  type PictureLook,
  type SheetLook,
  type Stock,
} from "./look";

type FrameSource = Pick<Source, "pictures" | "layers" | "clearing" | "palette" | "scale">;
type PlacedFrame = FramePlace & Pick<Frame, "picture" | "pieces">;

export interface Art {
  /** A picture as its source shows it, with the look's layers. Throws `missing-picture`. */
  picture(look: SheetLook): Pixels;
  /**
   * A frame upright, untrimmed, in project pixels, as a part of a picture: that which it is on, where nothing has to be done to it. All its layers
   * over one another; or one of them, `layer` being null for the source's own picture. Null where it has no such layer.
   */
  frame(source: FrameSource, frame: PlacedFrame): PartOfPicture;
  frame(source: FrameSource, frame: PlacedFrame, layer: string | null): PartOfPicture | null;
  /** The same without light and shade: the figure. */
  figure(source: FrameSource, frame: PlacedFrame): PartOfPicture;
  /** The coverage of its figure. */
  drawn(source: FrameSource, frame: PlacedFrame): Drawn;
}

export interface PartOfPicture {
  readonly pixels: Pixels;
  readonly rect: Rect;
}

/**
 * `decoded` holds the pixels of picture files by hash; it may grow later. Each picture is treated once, on first use, however many frames
 * use it; so is each canvas of pieces, which are looked up in `stock`.
 */
export function artFrom(decoded: ReadonlyMap<string, Pixels>, stock: Stock): Art {
  const seen = new Map<Look, Pixels>();
  const fileOf = (sha256: string) => stock.sources.flatMap(allPictures).find((each) => each.sha256 === sha256)?.file ?? t("a picture");
  const kept = <Each extends Look>(look: Each, make: () => Pixels): Pixels => {
    const before = seen.get(look);
    if (before) return before;
    const pixels = make();
    seen.set(look, pixels);
    return pixels;
  };
  const seenPicture = (look: PictureLook, file?: string): Pixels =>
    kept(look, () => {
      const raw = decoded.get(look.sha256);
      if (raw) return asSeen(raw, look);
      throw new CaravanError(
        "missing-picture",
        file ?? fileOf(look.sha256),
        t("The picture of this source is missing."),
        t("Put it back and deliver again."),
      );
    });
  const seenSheet = (look: SheetLook): Pixels =>
    isLayered(look) ? kept(look, () => layeredLook(look, (each) => seenPicture(each))) : seenPicture(look);
  const lookedAt = (look: Look): Pixels =>
    isOfPicture(look) || isLayered(look) ? seenSheet(look) : kept(look, () => assembledLook(look, seenSheet));

  /** A frame on one picture. */
  const on = (whole: Pixels, source: FrameSource, frame: PlacedFrame): PartOfPicture => {
    if (frame.pieces || (!frame.size && !frame.turned && scaleOf(source) === 1)) return { pixels: whole, rect: frame.rect };
    const pixels = framePixels(whole, source, frame);
    return { pixels, rect: { x: 0, y: 0, w: pixels.width, h: pixels.height } };
  };
  /** Layers are scaled before blending: each is delivered separately, as crisp or soft as its own art. */
  const blended = (source: FrameSource, frame: PlacedFrame, layers: readonly LayerLook[]): PartOfPicture => {
    const parts = layers.map(({ name, look, blend }) => {
      const file = name === null ? pictureOf(source, frame).file : undefined;
      return { ...on(seenPicture(look, file), source, frame), blend };
    });
    const [only, ...over] = parts as [(typeof parts)[number], ...typeof parts];
    if (over.length === 0) return { pixels: only.pixels, rect: only.rect };
    const pixels = layered(parts.map(({ pixels: whole, rect, blend }) => ({ pixels: crop(whole, rect), blend })));
    return { pixels, rect: { x: 0, y: 0, w: pixels.width, h: pixels.height } };
  };
  function frameOf(source: FrameSource, frame: PlacedFrame): PartOfPicture;
  function frameOf(source: FrameSource, frame: PlacedFrame, layer: string | null): PartOfPicture | null;
  function frameOf(source: FrameSource, frame: PlacedFrame, layer?: string | null): PartOfPicture | null {
    if (frame.pieces) return layer ? null : on(lookedAt(frameLook(stock, source, frame)), source, frame);
    const layers = layerLooks(stock, source, frame.picture);
    if (layer === undefined) return blended(source, frame, layers);
    const own = layers.filter(({ name }) => name === layer);
    return own.length === 0 ? null : blended(source, frame, own);
  }
  return {
    picture: seenSheet,
    frame: frameOf,
    figure: (source, frame) =>
      frame.pieces ? frameOf(source, frame) : blended(source, frame, layerLooks(stock, source, frame.picture).filter(isFigure)),
    drawn: (source, frame) => drawnIn(coverageOf(lookedAt(frameLook(stock, source, frame))), source, frame),
  };
}
