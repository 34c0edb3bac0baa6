import { type Frame, isNumberedByFiles, type Source } from "@caravan/core/model";
import { useCountFrom } from "../ui/counting";

/** Gives a frame's displayed number: counted from 0 or 1 as the user prefers, except for stills, which keep their file numbers. */
export function useFrameNumber(source: Pick<Source, "pictures">): (frame: Pick<Frame, "number">) => number {
  const countFrom = useCountFrom();
  const added = isNumberedByFiles(source) ? 0 : countFrom;
  return ({ number }) => number + added;
}
