/** Compares two pictures pixel by pixel. Colours under alpha 0 are ignored. */
import type { Pixels } from "./pixels";

export interface Difference {
  /** One byte a pixel: 1 where the two differ. */
  readonly mask: Uint8Array;
  readonly count: number;
}

/** Both must be of one size. Cost: O(pixels). */
export function differenceOf(a: Pixels, b: Pixels): Difference {
  if (a.width !== b.width || a.height !== b.height) throw new Error("Only pictures of the same size can be compared pixel by pixel.");
  const mask = new Uint8Array(a.width * a.height);
  let count = 0;
  for (let k = 0, at = 0; k < mask.length; k++, at += 4) {
    const clear = a.bytes[at + 3] === 0 && b.bytes[at + 3] === 0;
    const same =
      a.bytes[at] === b.bytes[at] &&
      a.bytes[at + 1] === b.bytes[at + 1] &&
      a.bytes[at + 2] === b.bytes[at + 2] &&
      a.bytes[at + 3] === b.bytes[at + 3];
    if (clear || same) continue;
    mask[k] = 1;
    count++;
  }
  return { mask, count };
}
