/** Cuts along outlines; connected drawings are found in a worker. */
import { sheetLook } from "@caravan/core/art";
import { cutSource } from "@caravan/core/edit";
import type { Cut, Source } from "@caravan/core/model";
import { begin } from "../../project/begun";
import { pictureOfLook } from "../../project/pictures";
import { sayTrouble, sayUnlessDone } from "../../ui/notices";
import { run } from "../../workers/client";
import { fromText } from "../../workers/jobs";

export type OutlineCut = Extract<Cut, { by: "outlines" }>;

export async function cutAlongOutlines(source: Source, cut: OutlineCut): Promise<void> {
  const work = begin();
  try {
    const { coverage } = await pictureOfLook(sheetLook(source));
    const pieces = fromText(await run("findPieces", { coverage, cut, where: source.name }, { signal: work.signal }));
    work.stillHas(source);
    const error = work.edit(cutSource, source.id, cut, pieces);
    sayUnlessDone(error);
  } catch (error) {
    sayTrouble(error);
  }
}
