/** Reads the art of a document that lies in a folder: stores the pictures beside it, and cuts changed art again by its recipe. */

import { picturesOf } from "@caravan/core/bundle";
import { type ChangedPicture, followFiles, refreshSource, sourceWithArt } from "@caravan/core/edit";
import { allPictures, CaravanError, isOfPieces, type Project, type Source, sourceById } from "@caravan/core/model";
import { t } from "../../ui/words";
import { coveragesOf } from "../changed-art/coverages";
import { readPictures } from "../changed-art/read-pictures";
import { pictureBlob } from "../picture-files";
import type { ArtFolder } from "./art-folder";
import { renamedIn } from "./renamed-art";

export interface WithArt {
  readonly project: Project;
  /** Hashes of the files as they are there, by path. */
  readonly art: ReadonlyMap<string, string>;
  /** Sources whose files are others than the document says, cut again. */
  readonly redrawn: readonly string[];
  /** Where pictures are now, by where the document had them. */
  readonly followed: ReadonlyMap<string, string>;
}

/**
 * Stores the pictures of a document in a folder. Files that were renamed there are followed by their content. If a file differs from the
 * document, the documented one is used if this browser has it and the folder is watched, so that the new one is reviewed later; otherwise
 * the source is cut again with the new one. Throws `missing-picture` naming all pictures that are missing in both places, and any problem
 * with a file.
 */
export async function withArtFrom(folder: ArtFolder, given: Project): Promise<WithArt> {
  const gone = new Set<string>();
  for (const { file } of picturesOf(given)) if (!(await folder.fileAt(file))) gone.add(file);
  const followed = await renamedIn(folder, given, (file) => gone.has(file));
  const document = followFiles(given, followed);
  const art = new Map<string, string>();
  const taken = new Map<string, ChangedPicture>();
  const missing: string[] = [];
  for (const { file, sha256 } of picturesOf(document)) {
    if (art.has(file)) continue;
    const there = await folder.fileAt(file);
    if (!there) {
      if (!(await isHere(sha256))) missing.push(file);
      continue;
    }
    const [picture] = await readPictures(there);
    if (!picture) continue;
    art.set(file, picture.sha256);
    taken.set(file, { sha256: picture.sha256, width: picture.width, height: picture.height });
  }
  if (missing.length > 0)
    throw new CaravanError(
      "missing-picture",
      folder.name,
      notThere(missing),
      t("Fetch the whole project, then do it again. Nothing was changed."),
    );
  let project = document;
  const redrawn: string[] = [];
  for (const { id } of document.sources) {
    // New art of a sheet is new art of its variants, too.
    const source = sourceById(project, id);
    if (isOfPieces(source) || !(await isRedrawn(source, art, folder.isWatched))) continue;
    const pictures = newArtOf(source, taken);
    project = refreshSource(project, source.id, pictures, await coveragesOf(sourceWithArt(project, source, pictures)));
    redrawn.push(source.name);
  }
  return { project, art, redrawn, followed };
}

async function isHere(sha256: string): Promise<boolean> {
  return (await pictureBlob(sha256)) !== undefined;
}

async function isRedrawn(source: Source, art: ReadonlyMap<string, string>, isReviewed: boolean): Promise<boolean> {
  for (const { file, sha256 } of allPictures(source)) {
    const found = art.get(file);
    if (found !== undefined && found !== sha256 && !(isReviewed && (await isHere(sha256)))) return true;
  }
  return false;
}

/** Every picture of a source as its file is now; one that has no file stays. */
function newArtOf({ pictures, layers = [] }: Source, taken: ReadonlyMap<string, ChangedPicture>): ChangedPicture[] {
  const now = ({ file, sha256, width, height }: Source["pictures"][number]) => taken.get(file) ?? { sha256, width, height };
  return pictures.map((picture, k) => ({
    ...now(picture),
    ...(picture.number === undefined ? {} : { number: picture.number }),
    ...(layers.length === 0 ? {} : { layers: layers.flatMap(({ name, pictures: own }) => (own[k] ? [{ name, ...now(own[k]) }] : [])) }),
  }));
}

/** Which pictures are wanting, some of them by name. */
function notThere(missing: readonly string[]): string {
  const named = missing.slice(0, MOST_NAMED).join(", ");
  const more = missing.length - MOST_NAMED;
  if (more > 0) return t("{named} and {more} more are missing there and in this browser.", { named, more });
  if (missing.length > 1) return t("{named} are missing there and in this browser.", { named });
  return t("{named} is missing there and in this browser.", { named });
}

const MOST_NAMED = 5;
