/** Makes the bitmaps that screens draw, in the worker: even this would be noticeable on the main thread. */
import type { Overview, PictureView } from "./jobs";

/** Longest side of a picture that is drawn reduced without an overview, and of the overview itself. */
const OVERVIEW_SIDE = 1024; // px

export async function viewOf(from: Blob | ImageData, width: number, height: number): Promise<PictureView> {
  const bitmap = await createImageBitmap(from, { colorSpaceConversion: "none" });
  return { bitmap, overview: await overviewOf(from, width, height) };
}

async function overviewOf(from: Blob | ImageData, width: number, height: number): Promise<Overview | null> {
  const reduction = 2 ** Math.ceil(Math.log2(Math.max(width, height) / OVERVIEW_SIDE));
  if (reduction < 2) return null;
  const size = { resizeWidth: Math.max(1, Math.round(width / reduction)), resizeHeight: Math.max(1, Math.round(height / reduction)) };
  return { bitmap: await createImageBitmap(from, { ...size, resizeQuality: "medium", colorSpaceConversion: "none" }), reduction };
}
