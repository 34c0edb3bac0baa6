import { picturesOf } from "@caravan/core/bundle";
import { CaravanError, type Delivery, type Project } from "@caravan/core/model";
import { t } from "../../ui/words";
import { run } from "../../workers/client";
import { asText, type Delivered } from "../../workers/jobs";
import { pictureBlob } from "../picture-files";
import { sawGrounds, sawMissing } from "../seen-art";

/** Packs, draws, encodes and proves a delivery in a worker. Throws what the core's `deliver` throws, and `missing-picture`. */
export async function deliverInWorker(
  project: Project,
  delivery: Delivery,
  signal: AbortSignal,
  onProgress: (done: number) => void,
): Promise<Delivered> {
  const found = await Promise.all(
    picturesOf(project).map(async ({ sha256, file }) => ({ sha256, file, blob: (await pictureBlob(sha256)) ?? null })),
  );
  const gone = found.filter(({ blob }) => !blob);
  if (gone[0]) {
    sawMissing(gone.map(({ sha256 }) => sha256));
    throw new CaravanError(
      "missing-picture",
      gone[0].file,
      t("The picture is no longer in this browser's storage."),
      t("Add the art of its source again, or remove the source."),
    );
  }
  const pictures = found.map(({ sha256, blob }) => [sha256, blob as Blob] as const);
  const delivered = await run("deliver", { project: asText(project), delivery, pictures }, { signal, onProgress });
  sawGrounds(delivered.grounds);
  return delivered;
}
