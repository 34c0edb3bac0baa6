/**
 * Solids -> pixel art. Each pixel is decided by 4×4 rays: the solid that most of them meet first takes it, and it is drawn
 * only if at least half meet something, so there are no half-transparent pixels. Light falls into four tones of the solid's
 * ramp; a pixel at the edge goes two tones down, one beside something nearer goes one down.
 */
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { dot as drawDot } from "./canvas";
import { INK, RAMPS } from "./palette";
import { add, dot, meet, type Solid, sub, times, unit, type Vec } from "./solids";

export interface Figure {
  readonly solids: readonly Solid[];
  /** Single dark pixels, such as eyes, drawn where nothing covers them. */
  readonly eyes: readonly Vec[];
}

export interface View {
  readonly width: number;
  readonly height: number;
  /** The pixel of the point (0, 0, 0), where the figure stands. */
  readonly groundX: number;
  readonly groundY: number;
  /** Turn about the upright axis, in radians; at 0 the figure's z axis looks at the viewer. */
  readonly turn: number;
}

const PITCH = (25 * Math.PI) / 180;
const RAYS = 4;
const LIGHT_ON_SCREEN: Vec = unit([-0.55, 0.75, 0.6]);

interface Cell {
  readonly solid: number;
  readonly depth: number;
  readonly tone: number;
}

export function render({ solids, eyes }: Figure, view: View): Pixels {
  const camera = cameraFor(view.turn);
  const bounds = solids.map((solid) => boundsOf(solid, camera));
  const cells: (Cell | null)[] = [];
  for (let y = 0; y < view.height; y++)
    for (let x = 0; x < view.width; x++) cells.push(cellAt(solids, bounds, camera, x - view.groundX, view.groundY - y));
  const pixels = clearPixels(view.width, view.height);
  cells.forEach((cell, k) => {
    if (!cell) return;
    const x = k % view.width;
    const y = Math.floor(k / view.width);
    const neighbours = [
      x > 0 ? cells[k - 1] : null,
      x < view.width - 1 ? cells[k + 1] : null,
      cells[k - view.width],
      cells[k + view.width],
    ];
    const atEdge = neighbours.some((each) => !each);
    const behind = neighbours.some((each) => each && each.solid !== cell.solid && each.depth < cell.depth - 1.6);
    const { material } = solids[cell.solid] as Solid;
    // Faces and hands are a few pixels across: two tones down all round would leave nothing of them. Dust has no outline.
    const firm = material !== "skin" && material !== "dust";
    const tone = Math.max(firm ? 0 : 1, cell.tone - (atEdge && firm ? 2 : atEdge || behind ? 1 : 0));
    drawDot(pixels, x, y, RAMPS[material][tone] as string);
  });
  for (const eye of eyes) {
    const x = Math.floor(dot(eye, camera.right) + view.groundX);
    const y = Math.floor(view.groundY - dot(eye, camera.up));
    const cell = cells[y * view.width + x];
    if (cell && dot(eye, camera.into) < cell.depth + 1.2) drawDot(pixels, x, y, INK);
  }
  return pixels;
}

/** The screen's axes in the figure's own space: turning the camera saves turning every solid. */
function cameraFor(turn: number) {
  const about = (v: Vec): Vec => [v[0] * Math.cos(turn) - v[2] * Math.sin(turn), v[1], v[0] * Math.sin(turn) + v[2] * Math.cos(turn)];
  const right = about([1, 0, 0]);
  const up = about([0, Math.cos(PITCH), -Math.sin(PITCH)]);
  const into = about([0, -Math.sin(PITCH), -Math.cos(PITCH)]);
  const [lx, ly, lz] = LIGHT_ON_SCREEN;
  const light = unit(add(add(times(right, lx), times(up, ly)), times(into, -lz)));
  return { right, up, into, light };
}

/** A circle on the screen around the whole solid, so that most pixels can skip it. */
interface Bounds {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

function boundsOf(solid: Solid, camera: ReturnType<typeof cameraFor>): Bounds {
  const centre = solid.kind === "ellipsoid" ? solid.centre : times(add(solid.from, solid.to), 0.5);
  const radius = solid.kind === "ellipsoid" ? Math.max(...solid.radii) : solid.radius + Math.hypot(...sub(solid.to, solid.from)) / 2;
  return { x: dot(centre, camera.right), y: dot(centre, camera.up), radius: radius + 1 };
}

/** The pixel at x and y, relative to the figure's standing point. */
function cellAt(
  solids: readonly Solid[],
  bounds: readonly Bounds[],
  camera: ReturnType<typeof cameraFor>,
  x: number,
  y: number,
): Cell | null {
  const near = bounds.flatMap((circle, k) => (Math.hypot(x + 0.5 - circle.x, y - 0.5 - circle.y) < circle.radius ? [k] : []));
  if (near.length === 0) return null;
  const hits = new Map<number, { count: number; depth: number; light: number }>();
  let any = 0;
  for (let j = 0; j < RAYS; j++)
    for (let i = 0; i < RAYS; i++) {
      const across = x + (i + 0.5) / RAYS;
      const upward = y - (j + 0.5) / RAYS;
      const start = add(add(times(camera.right, across), times(camera.up, upward)), times(camera.into, -200));
      let nearest = -1;
      let depth = Number.POSITIVE_INFINITY;
      let light = 0;
      for (const k of near) {
        const hit = meet(solids[k] as Solid, start, camera.into);
        if (!hit || hit.distance >= depth) continue;
        nearest = k;
        depth = hit.distance;
        light = dot(hit.normal, camera.light);
      }
      if (nearest < 0) continue;
      any++;
      const sum = hits.get(nearest) ?? { count: 0, depth: 0, light: 0 };
      hits.set(nearest, { count: sum.count + 1, depth: sum.depth + depth - 200, light: sum.light + light });
    }
  if (any < (RAYS * RAYS) / 2) return null;
  let best = -1;
  for (const [solid, { count }] of hits) if (best < 0 || count > (hits.get(best)?.count ?? 0)) best = solid;
  const { count, depth, light } = hits.get(best) as { count: number; depth: number; light: number };
  const lit = light / count;
  const tone = lit > 0.78 ? 4 : lit > 0.42 ? 3 : lit > 0.02 ? 2 : 1;
  return { solid: best, depth: depth / count, tone };
}
