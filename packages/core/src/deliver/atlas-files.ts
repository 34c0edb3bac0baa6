/**
 * Frames and clips -> the files a game loads: page pictures and an atlas file, proved by reading them back.
 *
 * Used by a project's deliveries and by packing loose pictures alike. Same input, same bytes, on every machine.
 */
import { type Atlas, type AtlasFrame, writeAtlas } from "../atlas";
import type { NamedFile, PngCodec } from "../codec";
import { CaravanError } from "../model";
import { drawPage, type OnProgress, type PackedPage, packFrames } from "../pack";
import type { AtlasInput, FrameToDeliver } from "./atlas-input";
import { type Proof, prove } from "./proof";

export interface DeliveredPage extends PackedPage {
  readonly image: string;
}

export interface AtlasFiles {
  /** The atlas file first, then the pages. */
  readonly files: readonly NamedFile[];
  readonly pages: readonly DeliveredPage[];
  readonly atlas: Atlas;
  readonly proof: Proof;
}

/** Throws `frame-too-large`, `name-collision` or, if what was written does not read back the same, `proof-failed`. */
export function buildAtlasFiles(input: AtlasInput, png: PngCodec, onProgress: OnProgress = () => {}): AtlasFiles {
  const { delivery, frames, clips, actions = [] } = input;
  refuseSameNames(frames);
  const packed = packFrames(frames, delivery.packing, (done) => onProgress(done * 0.5));
  const pages = packed.pages.map(
    (page, k): DeliveredPage => ({ ...page, image: packed.pages.length === 1 ? `${delivery.name}.png` : `${delivery.name}-${k}.png` }),
  );
  const pictures = pages.map(({ image }, k): NamedFile => {
    const bytes = png.encode(drawPage(k, packed, frames, delivery.packing.extrudePx));
    onProgress(0.5 + (0.4 * (k + 1)) / pages.length);
    return { path: image, bytes };
  });
  const atlas: Atlas = {
    format: "caravan-atlas",
    version: 1,
    pages: pages.map(({ image, size }) => ({ image, width: size.w, height: size.h, scale: 1, filter: delivery.filter })),
    frames: Object.fromEntries(
      frames.map((frame, k): [string, AtlasFrame] => {
        const { page, rect, turned, inset, size } = packed.frames[k] as (typeof packed.frames)[number];
        return [frame.name, { page, rect, turned, inset, size, origin: frame.origin }];
      }),
    ),
    clips: Object.fromEntries(clips),
    actions: Object.fromEntries(actions),
  };
  const files = [{ path: `${delivery.name}.atlas.json`, bytes: writeAtlas(atlas) }, ...pictures];
  const proof = prove(files, input, png);
  onProgress(1);
  return { files, pages, atlas, proof };
}

function refuseSameNames(frames: readonly FrameToDeliver[]): void {
  const seen = new Set<string>();
  for (const { name } of frames) {
    if (seen.has(name))
      throw new CaravanError(
        "name-collision",
        `frame "${name}"`,
        "Two frames have this name; a game could not tell them apart.",
        "Rename one of them.",
      );
    seen.add(name);
  }
}
