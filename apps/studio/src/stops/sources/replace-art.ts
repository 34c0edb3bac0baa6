import type { Source } from "@caravan/core/model";
import { reviewChangedArt } from "../../project/changed-art/review";
import { ART_FILES } from "../../project/import-later";
import { chooseFiles } from "../../ui/files";
import { sayTrouble } from "../../ui/notices";

/** Lets the person choose changed art for a source, and shows what it would change. */
export async function replaceArt(source: Source): Promise<void> {
  const files = await chooseFiles(ART_FILES, true);
  if (files.length === 0) return;
  try {
    await reviewChangedArt(source.id, files);
  } catch (error) {
    sayTrouble(error);
  }
}
