import type { FrameMarks, FramePoint, FrameRef } from "@caravan/core/model";
import type { Still } from "./draw-frame";

/** A frame as the player draws it. */
export interface PlayedFrame extends Still {
  readonly name: string;
  /** The key of its traced outlines; absent if it is not a frame. */
  readonly ref?: FrameRef;
  readonly origin: FramePoint;
  readonly marks?: FrameMarks | undefined;
}
