import type { AtlasAction, AtlasClip } from "../atlas";
import type { Delivery, FramePoint } from "../model";
import type { FrameToPack } from "../pack";

export interface FrameToDeliver extends FrameToPack {
  readonly origin: FramePoint;
}

export interface AtlasInput {
  readonly delivery: Delivery;
  readonly frames: readonly FrameToDeliver[];
  /** Clips by name, in order; their steps name frames as `frames` does. */
  readonly clips: readonly (readonly [name: string, clip: AtlasClip])[];
  /** Actions by name; their facings name clips as `clips` does. */
  readonly actions?: readonly (readonly [name: string, action: AtlasAction])[];
}
