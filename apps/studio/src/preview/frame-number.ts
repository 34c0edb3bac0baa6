import { type Frame, isNumberedByFiles, type Source } from "@caravan/core/model";
import { useCountFrom } from "../ui/counting";

/** A frame's number as it is shown: counted as the person counts, but for stills, which keep the numbers of their files. */
export function useFrameNumber(source: Pick<Source, "pictures">): (frame: Pick<Frame, "number">) => number {
  const countFrom = useCountFrom();
  const added = isNumberedByFiles(source) ? 0 : countFrom;
  return ({ number }) => number + added;
}
