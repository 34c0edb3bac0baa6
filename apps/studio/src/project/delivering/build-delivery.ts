import { picturesOf } from "@caravan/core/bundle";
import { CaravanError, type Delivery, type Project } from "@caravan/core/model";
import { run } from "../../workers/client";
import { asText, type Delivered } from "../../workers/jobs";
import { pictureBlob } from "../pictures";

/** Packs, draws, encodes and proves a delivery in a worker. Throws what the core's `deliver` throws, and `missing-picture`. */
export async function deliverInWorker(
  project: Project,
  delivery: Delivery,
  signal: AbortSignal,
  onProgress: (done: number) => void,
): Promise<Delivered> {
  const pictures = await Promise.all(
    picturesOf(project).map(async ({ sha256, file }): Promise<[string, Blob]> => {
      const blob = await pictureBlob(sha256);
      if (!blob)
        throw new CaravanError(
          "missing-picture",
          file,
          "The picture is no longer in this browser's storage.",
          "Remove the source or add it again.",
        );
      return [sha256, blob];
    }),
  );
  return run("deliver", { project: asText(project), delivery, pictures }, { signal, onProgress });
}
