/** Cuts along outlines; connected drawings are found in a worker. */
import { sheetLook } from "@caravan/core/art";
import { USUAL_OUTLINES } from "@caravan/core/cut";
import { cutSource } from "@caravan/core/edit";
import type { Cut, Source } from "@caravan/core/model";
import { begin } from "../../project/begun";
import { earlierCuts } from "../../project/earlier-cuts";
import { currentProject } from "../../project/open-project";
import { pictureOfLook } from "../../project/pictures";
import { sayTrouble, sayUnlessDone } from "../../ui/notices";
import { run } from "../../workers/client";
import { fromText } from "../../workers/jobs";

export type OutlineCut = Extract<Cut, { by: "outlines" }>;

/** How many cuts were asked for, and by source the number of the last one made: two workers may answer the other way round. */
let asked = 0;
const made = new Map<Source["id"], number>();

/**
 * Cuts a source along outlines once they are found, unless a later cut is made by then, or `isWanted` says that a person has gone on to
 * something else. Without a recipe, parts are joined as the sheet suggests.
 */
export async function cutAlongOutlines(source: Source, recipe: OutlineCut | null, isWanted = () => true): Promise<void> {
  const number = ++asked;
  const work = begin();
  try {
    const { coverage } = await pictureOfLook(sheetLook(source));
    const cut = recipe ?? (await run("suggestOutlines", { coverage }, { signal: work.signal }))?.cut ?? USUAL_OUTLINES;
    const pieces = fromText(await run("findPieces", { coverage, cut, where: source.name }, { signal: work.signal }));
    work.stillHas(source);
    const now = currentProject().sources.find(({ id }) => id === source.id)?.cut;
    const isOvertaken = number < (made.get(source.id) ?? 0) || (now !== source.cut && now?.by !== "outlines");
    if (isOvertaken || !isWanted()) return;
    made.set(source.id, number);
    const error = work.edit(cutSource, source.id, cut, pieces, earlierCuts(source, cut));
    sayUnlessDone(error);
  } catch (error) {
    sayTrouble(error);
  }
}
