/** Reads and stores files that contain only pictures: new art, and layers. */

import type { TakenPicture } from "@caravan/core/intake";
import { CaravanError, naturalOrder } from "@caravan/core/model";
import { t } from "../../ui/words";
import { run } from "../../workers/client";
import type { StoredPicture } from "../../workers/jobs";
import { keepPicture } from "../pictures";

/** The pictures of several files, in the order in which people count. */
export async function readInOrder(files: readonly File[]): Promise<TakenPicture[]> {
  const read = await Promise.all(files.toSorted((a, b) => naturalOrder(a.name, b.name)).map(readPictures));
  return read.flat();
}

/** The pictures in a file, stored. Throws what is wrong with it, `not-a-picture` for layered files and texts. */
export async function readPictures(file: File): Promise<TakenPicture[]> {
  const art = await run("readArt", { name: file.name, blob: file });
  const keep = async ({ picture, png }: StoredPicture): Promise<TakenPicture> => {
    await keepPicture(picture, png ?? new Blob([await file.arrayBuffer()], { type: "image/png" }));
    return picture;
  };
  switch (art.kind) {
    case "still":
      return [await keep(art.picture)];
    case "animation":
      return Promise.all(art.pictures.map(keep));
    default:
      throw new CaravanError("not-a-picture", file.name, t("It cannot be used as new art."), t("Choose a picture or an animation."));
  }
}
