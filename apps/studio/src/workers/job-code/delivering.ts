/** Packs, draws, encodes and proves a delivery. */
import { artFrom } from "@caravan/core/art";
import { picturesOf } from "@caravan/core/bundle";
import type { NamedFile } from "@caravan/core/codec";
import { deliver as delivered } from "@caravan/core/deliver";
import { type Ground, opaqueGround, type Pixels } from "@caravan/core/raster";
import { viewOf } from "../bitmaps";
import { type Answer, type Ask, fromText, type OnProgress, shownPages } from "../jobs";
import { bytesOf, pngCodec } from "../pictures-in-hand";

/** The number of pages prepared as bitmaps. */
const MOST_VIEWS = 12;

export async function deliver(
  { project: text, delivery, pictures: given }: Ask<"deliver">,
  onProgress: OnProgress,
): Promise<Answer<"deliver">> {
  const project = fromText(text);
  const png = await pngCodec();
  const blobs = new Map(given);
  const decoded = new Map<string, Pixels>();
  const grounds = new Map<string, Ground>();
  for (const picture of picturesOf(project)) {
    const blob = blobs.get(picture.sha256);
    if (decoded.has(picture.sha256) || !blob) continue;
    const pixels = png.decode(await bytesOf(blob), picture.file);
    const ground = opaqueGround(pixels);
    if (ground) grounds.set(picture.sha256, ground);
    decoded.set(picture.sha256, pixels);
    onProgress(Math.min(0.3, (0.3 * decoded.size) / given.length));
  }
  const { files, pages, proof, notes } = delivered(project, delivery, artFrom(decoded, project), png, (done) =>
    onProgress(0.3 + 0.7 * done),
  );
  // Many pictures, and films, are shown from their files instead.
  const pictures = shownPages(pages);
  const shown = pictures.length <= MOST_VIEWS && delivery.kind !== "films" && delivery.kind !== "singles" ? pictures : [];
  const views = shown.map(
    async ({
      image,
      page: {
        size: { w, h },
      },
    }) => {
      const file = files.find(({ path }) => path === image) as NamedFile;
      return viewOf(new Blob([file.bytes as BlobPart], { type: "image/png" }), w, h);
    },
  );
  return { files, pages, proof, notes, views: await Promise.all(views), grounds };
}
