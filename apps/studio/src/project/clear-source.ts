import { looksOf } from "@caravan/core/art";
import { setClearing } from "@caravan/core/edit";
import { type Clearing, type Source, sourceById } from "@caravan/core/model";
import { sayTrouble, sayUnlessDone } from "../ui/notices";
import { begin } from "./begun";
import { earlierCuts } from "./earlier-cuts";
import { inTurn } from "./in-turn";
import { currentProject } from "./open-project";
import { pictureOfLook } from "./pictures";

/**
 * Clears or restores a source's background and cuts it again; reports errors as notices. `clearing` may be made from the source as it is by
 * then. Returns whether it was done.
 */
export function clearSource({ id }: Source, clearing: Clearing | null | ((now: Source) => Clearing)): Promise<boolean> {
  const work = begin();
  return inTurn(async () => {
    try {
      work.still();
      const source = sourceById(currentProject(), id);
      const next = typeof clearing === "function" ? clearing(source) : clearing;
      const { clearing: _before, ...left } = source;
      const looks = await Promise.all(looksOf(next ? { ...left, clearing: next } : left).map(pictureOfLook));
      work.stillHas(source);
      const coverages = looks.map(({ coverage }) => coverage);
      return sayUnlessDone(work.edit(setClearing, id, next, coverages, earlierCuts(source, source.cut)));
    } catch (error) {
      sayTrouble(error);
      return false;
    }
  });
}
