/** Reads and stores files that contain only pictures: new art, and layers. */

import type { ChangedPicture } from "@caravan/core/edit";
import { layeredArt, type TakenArt, type TakenPicture, timedPicturesOf } from "@caravan/core/intake";
import { CaravanError, naturalOrder, type Source } from "@caravan/core/model";
import { t } from "../../ui/words";
import { run } from "../../workers/client";
import { asCaravanError, keepArt } from "../importing/read-files";
import { withLayersOf } from "./layered";

/** The pictures of several files, in the order in which people count. */
export async function readInOrder(files: readonly File[]): Promise<TakenPicture[]> {
  const read = await Promise.all(files.toSorted((a, b) => naturalOrder(a.name, b.name)).map(readPictures));
  return read.flat();
}

/** The pictures in a file, stored. Throws what is wrong with it, `not-a-picture` for layered files and texts. */
export async function readPictures(file: File): Promise<TakenPicture[]> {
  const art = await readStored(file);
  if (art.kind === "layers") throw unfit(file, t("Choose a picture or an animation."));
  return picturesOf(art);
}

/** A file as new art of a source, stored; of a layered one with the layers that the source has, too. Throws as `readPictures`. */
export async function readNewArt(source: Source, file: File): Promise<ChangedPicture[]> {
  const art = await readStored(file);
  if (art.kind === "animation") return timedPicturesOf(art.pictures);
  if (art.kind === "still") return [art.picture];
  const arrival = layeredArt({ path: file.name, art }, source);
  if (!arrival) throw unfit(file, t("It has more layers than one source can have. Merge some in your drawing program."));
  return withLayersOf(source, arrival);
}

async function readStored(file: File): Promise<TakenArt> {
  const art = await run("readArt", { name: file.name, blob: file }).catch((error) => {
    throw asCaravanError(error, file.name);
  });
  if (art.kind === "text") throw unfit(file, t("Choose a picture or an animation."));
  return keepArt(art, file);
}

function picturesOf(art: Exclude<TakenArt, { kind: "layers" }>): TakenPicture[] {
  return art.kind === "still" ? [art.picture] : [...art.pictures];
}

function unfit(file: File, hint: string): CaravanError {
  return new CaravanError("not-a-picture", file.name, t("It cannot be used as new art."), hint);
}
