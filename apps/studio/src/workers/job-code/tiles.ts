/** Jobs on tiles of frames. */
import { type Art, artFrom, wornLook } from "@caravan/core/art";
import { framesToPart, putTogetherFromTiles } from "@caravan/core/edit";
import { CaravanError, type Frame, type FrameRef, findFrame, frameName, type Project, type Source, sourceById } from "@caravan/core/model";
import { clearPixels, crop, looksSame, type Pixels } from "@caravan/core/raster";
import { inPalettes, nearTiles, type PaletteUse, partedIntoTiles, tilesOf } from "@caravan/core/tiles";
import { t } from "@caravan/core/words";
import { type Answer, type Ask, fromText, type NamedFrame } from "../jobs";
import { decodedOf } from "../pictures-in-hand";

export async function countTiles({ project: text, frames, pictures, tile, flips }: Ask<"countTiles">): Promise<Answer<"countTiles">> {
  const project = fromText(text);
  const art = artFrom(await decodedOf(pictures, "the budget"), project);
  const named = frames.map(({ ref, name }) => ({ name, pixels: pixelsOfFrame(project, art, ref) }));
  const { placed, distinct, colours, perFrame } = tilesOf(named, tile, flips);
  const { use } = inPalettes(named, tile, project.palettes ?? []);
  return {
    tiles: placed.length,
    distinct,
    colours,
    perFrame: perFrame.map((each, k) => ({ ...(use[k] as PaletteUse), ...each, ref: (frames[k] as NamedFrame).ref })),
  };
}

export async function nearPieces({ project: text, frames, pictures, most }: Ask<"nearPieces">): Promise<Answer<"nearPieces">> {
  const project = fromText(text);
  const art = artFrom(await decodedOf(pictures, "the pieces"), project);
  return nearTiles(
    frames.map((ref) => pixelsOfFrame(project, art, ref)),
    most,
  );
}

export async function partIntoTiles({ project: text, source: id, pictures, tile }: Ask<"partIntoTiles">): Promise<Answer<"partIntoTiles">> {
  const project = fromText(text);
  const source = sourceById(project, id);
  const art = artFrom(await decodedOf(pictures, source.name), project);
  const frames = framesToPart(source);
  const stored = frames.map((frame) => crop(art.picture(wornLook(project, source, frame.picture)), frame.rect));
  const parted = partedIntoTiles(stored, tile);
  // Proved before anybody relies on it: every frame drawn again from the tiles as the project would draw it.
  const made = putTogetherFromTiles(project, id, parted);
  const again = artFrom(await decodedOf(pictures, source.name), made);
  const together = made.sources.at(-1) as Source;
  for (const [k, frame] of frames.entries()) {
    const [was, is] = [art.frame(source, frame), again.frame(together, together.frames[k] as Frame)];
    if (!looksSame(crop(was.pixels, was.rect), crop(is.pixels, is.rect)))
      throw new CaravanError(
        "proof-failed",
        frameName(source, frame),
        t("Put together from tiles it would not be the same."),
        t("Nothing was changed. Please report it."),
      );
  }
  return parted;
}

/** A frame's own pixels; null for one that is missing by now. */
function pixelsOfFrame(project: Project, art: Art, ref: FrameRef): Pixels {
  const found = findFrame(project, ref);
  if (!found) return clearPixels(1, 1);
  const { pixels, rect } = art.frame(found.source, found.frame);
  return crop(pixels, rect);
}
