/** Files that are not simply a picture as the project stores it: layered ones, animations, pictures in other formats. */
import { hasOtherTimes, type StoredPicture as Picture } from "@caravan/core/edit";
import { layeredArt, type TakenArt, type TakenPicture, timedPicturesOf } from "@caravan/core/intake";
import { allPictures, pathKey, type Source } from "@caravan/core/model";
import { clearPixels, coverageOf } from "@caravan/core/raster";
import { run } from "../../workers/client";
import type { StoredPicture } from "../../workers/jobs";

/**
 * Whether the file has other art than the source: other pictures, other times of them, or others of the layers that the source has. False for what cannot be
 * read, which a drawing program may just be writing. `stamp` identifies the file as it is: one that was read is not read again.
 */
export async function isOtherArt(source: Source, file: File, stamp: string): Promise<boolean> {
  const art = await artIn(file, stamp);
  if (!art) return false;
  const { pictures, layers = [] } = source;
  if (art.kind !== "layers") {
    const found: readonly Picture[] = art.kind === "still" ? [art.picture] : timedPicturesOf(art.pictures);
    // One picture is no new art of several, nor several of one: it is something else that is called alike.
    if (found.length > 1 !== pictures.length > 1) return false;
    return (
      found.length !== pictures.length || found.some(({ sha256 }, k) => sha256 !== pictures[k]?.sha256) || hasOtherTimes(source, found)
    );
  }
  const arrival = layeredArt({ path: file.name, art }, source);
  // Without any layer the source is rather what was exported from it, all layers in one.
  if (!arrival || pictures.length > 1 || (layers.length === 0 && arrival.layers !== undefined)) return false;
  const own = (name: string) => layers.find((each) => pathKey(each.name) === pathKey(name));
  return (
    arrival.pictures[0]?.sha256 !== pictures[0]?.sha256 ||
    (arrival.layers ?? []).some((each) => {
      const layer = own(each.name);
      return layer !== undefined && layer.pictures[0]?.sha256 !== each.pictures[0]?.sha256;
    })
  );
}

/** The hash of a still as it is stored; null for everything else, and for what cannot be read. `stamp` as for `isOtherArt`. */
export async function hashOfStill(file: File, stamp: string): Promise<string | null> {
  const art = await artIn(file, stamp);
  return art?.kind === "still" ? art.picture.sha256 : null;
}

/** Whether the file has just the art that the source has. False for what cannot be read. `stamp` as for `isOtherArt`. */
export async function isSameArt(source: Source, file: File, stamp: string): Promise<boolean> {
  const art = await artIn(file, stamp);
  return art !== null && hasArtOf(source, art, file.name);
}

/** Whether the pictures are those of the source, all of them; one still may be one of a series. */
export function hasArtOf(source: Source, art: TakenArt, name: string): boolean {
  const { pictures } = source;
  switch (art.kind) {
    case "still":
      return allPictures(source).some(({ sha256 }) => sha256 === art.picture.sha256);
    case "animation":
      return art.pictures.length === pictures.length && art.pictures.every(({ sha256 }, k) => sha256 === pictures[k]?.sha256);
    case "layers": {
      const [whole] = layeredArt({ path: name, art }, source)?.pictures ?? [];
      return whole !== undefined && pictures.length === 1 && whole.sha256 === pictures[0]?.sha256;
    }
  }
}

/** What was read, by stamp: hashes and sizes only. */
const read = new Map<string, TakenArt>();

const NOTHING = coverageOf(clearPixels(1, 1));

async function artIn(file: File, stamp: string): Promise<TakenArt | null> {
  const art = read.get(stamp) ?? (await readAgain(file));
  if (art) read.set(stamp, art);
  return art;
}

async function readAgain(file: File): Promise<TakenArt | null> {
  const art = await run("readArt", { name: file.name, blob: file }).catch(() => null);
  if (!art || art.kind === "text") return null;
  const bare = ({ picture: { sha256, width, height } }: StoredPicture): TakenPicture => ({
    ...{ sha256, width, height },
    ...{ coverage: NOTHING, ground: null },
  });
  switch (art.kind) {
    case "still":
      return { kind: "still", picture: bare(art.picture) };
    case "animation":
      return { ...art, pictures: art.pictures.map((each) => ({ ...bare(each), ms: each.ms })) };
    case "layers": {
      const all = (layers: typeof art.layers) => layers.map((each) => ({ ...bare(each), name: each.name, blend: each.blend }));
      return { ...art, layers: all(art.layers), apart: art.apart && { ...art.apart, layers: all(art.apart.layers) } };
    }
  }
}
