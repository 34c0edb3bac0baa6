/**
 * Rounded solids seen along parallel rays: the figures of the demo are a handful of them.
 *
 * Coordinates: x right, y up, z toward the viewer, in pixels. A hit is the nearest point along a ray.
 */
import type { Material } from "./palette";

export type Vec = readonly [x: number, y: number, z: number];

export type Solid = { readonly material: Material } & (
  | { readonly kind: "ellipsoid"; readonly centre: Vec; readonly radii: Vec }
  | { readonly kind: "capsule"; readonly from: Vec; readonly to: Vec; readonly radius: number }
);

export interface Hit {
  /** Along the ray from its start. */
  readonly distance: number;
  readonly normal: Vec;
}

export const add = (a: Vec, b: Vec): Vec => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const sub = (a: Vec, b: Vec): Vec => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const times = (a: Vec, k: number): Vec => [a[0] * k, a[1] * k, a[2] * k];
export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const unit = (a: Vec): Vec => times(a, 1 / Math.hypot(...a));

/** Where a ray meets a solid first, or null. */
export function meet(solid: Solid, start: Vec, direction: Vec): Hit | null {
  return solid.kind === "ellipsoid" ? meetEllipsoid(solid, start, direction) : meetCapsule(solid, start, direction);
}

function meetEllipsoid({ centre, radii }: Extract<Solid, { kind: "ellipsoid" }>, start: Vec, direction: Vec): Hit | null {
  // Scaled so that the ellipsoid becomes the unit sphere.
  const shrink = (v: Vec): Vec => [v[0] / radii[0], v[1] / radii[1], v[2] / radii[2]];
  const from = shrink(sub(start, centre));
  const along = shrink(direction);
  const distance = nearRoot(dot(along, along), dot(from, along), dot(from, from) - 1);
  if (distance === null) return null;
  const point = add(from, times(along, distance));
  return { distance, normal: unit(shrink(point)) };
}

function meetCapsule({ from, to, radius }: Extract<Solid, { kind: "capsule" }>, start: Vec, direction: Vec): Hit | null {
  // After I. Quilez's derivation: the cylinder between the ends, or else the nearer ball.
  const axis = sub(to, from);
  const toStart = sub(start, from);
  const aa = dot(axis, axis);
  const ad = dot(axis, direction);
  const as = dot(axis, toStart);
  const dd = dot(direction, direction);
  if (aa > 0) {
    const distance = nearRoot(
      aa * dd - ad * ad,
      aa * dot(direction, toStart) - as * ad,
      aa * dot(toStart, toStart) - as * as - radius * radius * aa,
    );
    if (distance !== null) {
      const share = (as + distance * ad) / aa;
      if (share > 0 && share < 1) {
        const point = add(toStart, times(direction, distance));
        return { distance, normal: unit(sub(point, times(axis, share))) };
      }
    }
  }
  let best: Hit | null = null;
  for (const end of [from, to]) {
    const out = sub(start, end);
    const distance = nearRoot(dd, dot(out, direction), dot(out, out) - radius * radius);
    if (distance !== null && (!best || distance < best.distance)) best = { distance, normal: unit(add(out, times(direction, distance))) };
  }
  return best;
}

/** The smaller root of a·t² + 2·b·t + c, or null. */
function nearRoot(a: number, b: number, c: number): number | null {
  if (a <= 0) return null;
  const inside = b * b - a * c;
  return inside < 0 ? null : (-b - Math.sqrt(inside)) / a;
}
