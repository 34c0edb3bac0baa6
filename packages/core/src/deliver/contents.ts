import type { AtlasAction, AtlasClip } from "../atlas";
import type { DeliveredLayer } from "../delivery-plan";
import type { Shape } from "../example";
import type { Behaviour, DataEntry, FrameMarks, FramePoint, Palette, Part } from "../model";
import type { FrameToPack } from "../pack";

export interface FrameToDeliver extends FrameToPack {
  readonly origin: FramePoint;
  readonly marks?: FrameMarks | undefined;
  readonly data?: readonly DataEntry[] | undefined;
}

/** What goes out, before it is laid on any picture. */
export interface Contents {
  readonly frames: readonly FrameToDeliver[];
  /** Clips by name, in order; their steps name frames as `frames` does. */
  readonly clips: readonly (readonly [name: string, clip: AtlasClip])[];
  /** Actions by name; their facings name clips as `clips` does. */
  readonly actions: readonly (readonly [name: string, action: AtlasAction])[];
  /** Parts whose host and guest are delivered; none if parts are baked. */
  readonly parts: readonly Part[];
  /** Behaviours all of whose clips are delivered; their rules use the same names for clips and actions. */
  readonly behaviours: readonly Behaviour[];
  /** Layers over the lowest, from below; frames have a part on each, or null. */
  readonly layers: readonly DeliveredLayer[];
  /** The project's. */
  readonly palettes: readonly Palette[];
  /** For each frame the number of the group that should share a page with it, -1 for none; null if nothing need be together. */
  readonly groups: readonly number[] | null;
  /** How many project pixels are one unit of the game's world, where the project says so. */
  readonly pixelsPerUnit: number | undefined;
  /** The example in whose shape metadata is written too. */
  readonly shape: Shape | null;
}
