/** Jobs on cutting sheets, and on checking their frames. */
import { artFrom, drawnPixels } from "@caravan/core/art";
import { findRepeats, frameFindings } from "@caravan/core/check";
import { cutSheet, suggestGrids as gridsIn, suggestOutlines as outlinesIn } from "@caravan/core/cut";
import { outlinesOf } from "@caravan/core/marks";
import { frameRef } from "@caravan/core/model";
import { coverageOf, type Pixels } from "@caravan/core/raster";
import { type Answer, type Ask, asText, fromText } from "../jobs";
import { decodedOf, pixelsOfLook, pngCodec } from "../pictures-in-hand";

export async function findPieces({ coverage, cut, where }: Ask<"findPieces">): Promise<Answer<"findPieces">> {
  return asText(cutSheet(coverage, cut, where));
}

export async function suggestCuts({ coverage }: Ask<"suggestCuts">): Promise<Answer<"suggestCuts">> {
  const grids = gridsIn(coverage);
  return { grids, outlines: outlinesIn(coverage, grids) };
}

export async function suggestOutlines({ coverage }: Ask<"suggestOutlines">): Promise<Answer<"suggestOutlines">> {
  return outlinesIn(coverage, []);
}

export async function suggestGrids({ coverage, whole }: Ask<"suggestGrids">): Promise<Answer<"suggestGrids">> {
  return gridsIn(coverage, undefined, whole);
}

export async function inspect({ source: text, pictures }: Ask<"inspect">): Promise<Answer<"inspect">> {
  const source = fromText(text);
  const png = await pngCodec();
  const looks: Pixels[] = [];
  for (const of of pictures) looks.push(await pixelsOfLook(of, png, source.name));
  const kept = source.frames.filter((frame) => !frame.dropped && !frame.empty);
  const seen = kept.flatMap((frame) => {
    const picture = looks[frame.picture ?? 0];
    return picture ? [{ ref: frameRef(source, frame), pixels: drawnPixels(picture, frame) }] : [];
  });
  const repeats = findRepeats(seen);
  return { findings: frameFindings(source, looks.map(coverageOf), repeats), repeats };
}

export async function traceOutlines({ project: text, frames, pictures }: Ask<"traceOutlines">): Promise<Answer<"traceOutlines">> {
  const project = fromText(text);
  return outlinesOf(project, frames, artFrom(await decodedOf(pictures, "the outlines"), project));
}
