/** Computes what a press and a drag do to the corners of outlines. Pure, and tested. Units: untrimmed frame pixels. */
import type { FramePoint, Outline } from "@caravan/core/model";

/** A corner of one of a frame's outlines. */
export interface CornerAt {
  readonly outline: number;
  readonly corner: number;
}

export type Grip =
  | ({ readonly kind: "corner" } & CornerAt)
  /** A new corner is drawn out of the edge that begins at this one. */
  | ({ readonly kind: "edge" } & CornerAt);

/** The corner within reach, otherwise the edge; the nearest of each. */
export function gripAt(outlines: readonly Outline[], { x, y }: FramePoint, reach: number): Grip | null {
  let best: { readonly grip: Grip; readonly far: number } | null = null;
  const consider = (grip: Grip, far: number) => {
    if (far <= reach && (!best || far < best.far)) best = { grip, far };
  };
  outlines.forEach((polygon, outline) => {
    for (const [corner, at] of polygon.entries()) consider({ kind: "corner", outline, corner }, Math.hypot(x - at.x, y - at.y));
  });
  if (best) return (best as { grip: Grip }).grip;
  outlines.forEach((polygon, outline) => {
    for (const [corner, a] of polygon.entries()) {
      const b = polygon[(corner + 1) % polygon.length] as FramePoint;
      const [dx, dy] = [b.x - a.x, b.y - a.y];
      const along = Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy || 1)));
      consider({ kind: "edge", outline, corner }, Math.hypot(x - a.x - along * dx, y - a.y - along * dy));
    }
  });
  return best ? (best as { grip: Grip }).grip : null;
}

/** The outlines with the corner moved, or with a new one; and that corner's new index. */
export function withCornerAt(
  outlines: readonly Outline[],
  { kind, outline, corner }: Grip,
  to: FramePoint,
): { outlines: Outline[]; at: CornerAt } {
  const at = { x: Math.round(to.x), y: Math.round(to.y) };
  const place = kind === "edge" ? corner + 1 : corner;
  const next = outlines.map((polygon, k) => (k === outline ? polygon.toSpliced(place, kind === "edge" ? 0 : 1, at) : polygon));
  return { outlines: next, at: { outline, corner: place } };
}

/** Without the corner; without the whole outline where fewer than three would be left. */
export function withoutCorner(outlines: readonly Outline[], { outline, corner }: CornerAt): Outline[] {
  return outlines.flatMap((polygon, k) => {
    if (k !== outline) return [polygon];
    return polygon.length > 3 ? [polygon.toSpliced(corner, 1)] : [];
  });
}

/** The corner this many positions further, continuing to the next outline and wrapping around. Null if there are none. */
export function cornerBeside(outlines: readonly Outline[], at: CornerAt | null, by: 1 | -1): CornerAt | null {
  const all = outlines.flatMap((polygon, outline) => polygon.map((_, corner) => ({ outline, corner })));
  if (all.length === 0) return null;
  const now = at ? all.findIndex((each) => each.outline === at.outline && each.corner === at.corner) : -1;
  return all[now < 0 ? (by > 0 ? 0 : all.length - 1) : (now + by + all.length) % all.length] ?? null;
}

/** A rectangle as an outline. */
export function outlineAround({ x, y, w, h }: { x: number; y: number; w: number; h: number }): Outline {
  return [
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + h },
    { x, y: y + h },
  ];
}
