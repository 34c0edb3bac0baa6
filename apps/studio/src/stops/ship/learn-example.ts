import { deliverLike } from "@caravan/core/edit";
import type { Told } from "@caravan/core/example";
import { CaravanError } from "@caravan/core/model";
import { begin } from "../../project/begun";
import { currentProject } from "../../project/open-project";
import { textOfFile } from "../../project/text-of-file";
import { sayTrouble } from "../../ui/notices";
import { t } from "../../ui/words";
import { run } from "../../workers/client";

const PICTURE = /\.(png|webp|gif|jpe?g|avif|bmp)$/i;

/**
 * Learns from a metadata file, perhaps with its picture, and has the delivery at `index` written in its shape. Says what was wrong if
 * it cannot; null then.
 */
export async function learnFrom(files: readonly File[], index: number): Promise<{ name: string; told: Told } | null> {
  const text = files.find(({ name }) => !PICTURE.test(name));
  const picture = files.find(({ name }) => PICTURE.test(name));
  const work = begin();
  try {
    if (!text)
      throw new CaravanError(
        "bad-metadata",
        picture?.name ?? "example",
        t("A picture alone shows no structure."),
        t("Give the file that the game reads beside it: JSON, XML, a table, or sections of lines."),
      );
    const seen = picture
      ? { picture: picture.name, coverage: (await run("readPicture", { name: picture.name, blob: picture, clearing: null })).coverage }
      : null;
    const { example, told } = await run("learnExample", { text: await textOfFile(text), where: text.name, seen }, { signal: work.signal });
    // By its name: deliveries may have been added or removed meanwhile.
    const of = work.project.deliveries[index]?.name;
    const at = currentProject().deliveries.findIndex(({ name }) => name === of);
    if (at < 0)
      throw new CaravanError("changed-meanwhile", of ?? "", t("The delivery was removed or renamed meanwhile."), t("Give the file again."));
    const problem = work.edit(deliverLike, example, at);
    if (problem) throw problem;
    return { name: currentProject().deliveries[at]?.data.example ?? example.name, told };
  } catch (error) {
    sayTrouble(error);
    return null;
  }
}
