/** The conventions for the position of a trimmed rectangle in its untrimmed frame. */
import type { Reading, Size } from "../model";

export type InsetAs = NonNullable<Reading["insetAs"]>;

export const INSET_WAYS: readonly InsetAs[] = ["corner", "negated", "bottom", "centre-up", "centre"];

/** The place of the trimmed corner, y down; 0, 0 where the record says none. Halves of pixels remain halves. */
export function insetOf(x: number | null, y: number | null, trimmed: Size, whole: Size, as: InsetAs = "corner"): { x: number; y: number } {
  if (x === null || y === null) return { x: 0, y: 0 };
  const middle = { x: (whole.w - trimmed.w) / 2, y: (whole.h - trimmed.h) / 2 };
  switch (as) {
    case "corner":
      return { x, y };
    case "negated":
      return { x: x === 0 ? 0 : -x, y: y === 0 ? 0 : -y };
    case "bottom":
      return { x, y: whole.h - trimmed.h - y };
    case "centre":
      return settled({ x: middle.x + x, y: middle.y + y });
    case "centre-up":
      return settled({ x: middle.x + x, y: middle.y - y });
  }
}

/** What a file says of a corner at `x`, `y`: the inverse of `insetOf`. */
export function insetTold(
  at: { readonly x: number; readonly y: number },
  trimmed: Size,
  whole: Size,
  as: InsetAs,
): { x: number; y: number } {
  const middle = { x: (whole.w - trimmed.w) / 2, y: (whole.h - trimmed.h) / 2 };
  if (as === "centre") return { x: at.x - middle.x, y: at.y - middle.y };
  if (as === "centre-up") return { x: at.x - middle.x, y: middle.y - at.y };
  // The others are their own inverses.
  return insetOf(at.x, at.y, trimmed, whole, as);
}

/** If an odd number of pixels was trimmed, the centre is at a half, which some files round. */
function settled({ x, y }: { x: number; y: number }): { x: number; y: number } {
  return { x: Math.floor(x), y: Math.floor(y) };
}
