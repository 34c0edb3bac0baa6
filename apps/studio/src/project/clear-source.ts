import { looksOf } from "@caravan/core/art";
import { setClearing } from "@caravan/core/edit";
import type { Clearing, Source } from "@caravan/core/model";
import { sayTrouble, sayUnlessDone } from "../ui/notices";
import { begin } from "./begun";
import { earlierCuts } from "./earlier-cuts";
import { pictureOfLook } from "./pictures";

/** Clears or restores a source's background and cuts it again; reports errors as notices. */
export async function clearSource(source: Source, clearing: Clearing | null): Promise<void> {
  const work = begin();
  try {
    const { clearing: _before, ...left } = source;
    const looks = await Promise.all(looksOf(clearing ? { ...left, clearing } : left).map(pictureOfLook));
    const error = work.edit(
      setClearing,
      source.id,
      clearing,
      looks.map(({ coverage }) => coverage),
      earlierCuts(source, source.cut),
    );
    sayUnlessDone(error);
  } catch (error) {
    sayTrouble(error);
  }
}
