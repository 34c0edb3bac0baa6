import type { Coverage } from "../raster";

/** The picture that a metadata file is matched to. */
export interface Described {
  /** Its file name, for files that describe several; an empty name accepts the records of all of them. */
  readonly picture: string;
  readonly coverage: Coverage;
}

const NOTHING_KNOWN = new Uint32Array(0);

/** A picture whose pixels are unknown: only its size, or greatest possible size, is known. */
export function unseen(picture: string, { w, h } = { w: 16_384, h: 16_384 }): Described {
  return { picture, coverage: { width: w, height: h, bits: NOTHING_KNOWN } };
}

export function isSeen({ bits }: Coverage): boolean {
  return bits !== NOTHING_KNOWN;
}
