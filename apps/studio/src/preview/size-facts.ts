import { type Frame, frameSize } from "@caravan/core/model";

/** How large a frame is for the game, and how large on its sheet where that is another size: padded to others, or stored turned. */
export function sizeFacts(frame: Pick<Frame, "rect" | "size" | "turned">): [string, string][] {
  const { w, h } = frameSize(frame);
  const { rect } = frame;
  return [
    ["size", `${w} × ${h}`],
    ...(rect.w === w && rect.h === h ? [] : [["on the sheet", `${rect.w} × ${rect.h}`] as [string, string]]),
  ];
}
