import type { Coverage } from "../raster";

/** The picture that a metadata file is held against. */
export interface Described {
  /** Its file name, for files that describe several; empty takes the records of all of them. */
  readonly picture: string;
  readonly coverage: Coverage;
}

const NOTHING_KNOWN = new Uint32Array(0);

/** A picture that nobody has seen: of which it is only known how large it is, or could be at most. */
export function unseen(picture: string, { w, h } = { w: 16_384, h: 16_384 }): Described {
  return { picture, coverage: { width: w, height: h, bits: NOTHING_KNOWN } };
}

export function isSeen({ bits }: Coverage): boolean {
  return bits !== NOTHING_KNOWN;
}
