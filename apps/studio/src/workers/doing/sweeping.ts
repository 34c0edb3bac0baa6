/** Frees pictures that nothing needs any more. */
import { deleteUnused } from "../../project/unused-pictures";
import type { Answer, Ask } from "../jobs";

export async function sweepPictures({ hashes, keep }: Ask<"sweepPictures">): Promise<Answer<"sweepPictures">> {
  return deleteUnused(new Set(hashes), new Set(keep));
}
