/** Frees pictures that nothing uses any more. */
import { deleteUnused, picturesOfNobody as foundOfNobody } from "../../project/unused-pictures";
import type { Answer, Ask } from "../jobs";

export async function sweepPictures({ hashes, keep }: Ask<"sweepPictures">): Promise<Answer<"sweepPictures">> {
  return deleteUnused(new Set(hashes), new Set(keep));
}

export function picturesOfNobody(): Promise<Answer<"picturesOfNobody">> {
  return foundOfNobody();
}
