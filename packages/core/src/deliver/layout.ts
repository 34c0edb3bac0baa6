import type { FrameMarks, FramePoint, Rect } from "../model";
import type { StoredFrame } from "../pack";
import type { Pixels } from "../raster";

/** Describes frames placed on pictures, before these are written. */
export interface Layout {
  readonly pages: readonly LaidPage[];
  readonly frames: readonly LaidFrame[];
  /** Further places of the frames, as on strips that show one twice. */
  readonly copies: readonly Copy[];
  /** What a person should know of how it went. */
  readonly notes: readonly string[];
}

export interface LaidPage {
  /** File name, with folders. */
  readonly image: string;
  readonly pixels: Pixels;
  /** Total area of its frames divided by its own: 0 to 1. */
  readonly occupancy: number;
  /** Further layers, by their place among those of the contents; one with nothing on the page is null. */
  readonly layers?: readonly ({ readonly image: string; readonly pixels: Pixels } | null)[];
}

export interface LaidFrame extends StoredFrame {
  readonly name: string;
  readonly page: number;
  readonly origin: FramePoint;
  readonly marks?: FrameMarks | undefined;
  /** What a reader must get back on a layer, the lowest being 0; made on demand. */
  readonly wholeOn: (layer: number) => Pixels;
}

export interface Copy {
  /** In words, for errors. */
  readonly what: string;
  readonly page: number;
  readonly rect: Rect;
  readonly wholeOn: (layer: number) => Pixels;
}
