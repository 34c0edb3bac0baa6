/** The lamp-bearer in pieces: heads, robes, legs and lamps on a grid of 8 px, as they are put together in the demo. */
import type { Rect } from "@caravan/core/model";
import { clearPixels, coverageOf, drawnPart, type Pixels, paste } from "@caravan/core/raster";
import { render } from "./render";
import type { Solid, Vec } from "./solids";

export const BEARER_CANVAS = { w: 32, h: 48 };
/** Pixel row under the soles. */
export const BEARER_GROUND = 45;

/** Facings that are drawn; looking west is the mirror of looking east. */
export const BEARER_FACINGS = ["s", "e", "n"] as const;
export type BearerFacing = (typeof BEARER_FACINGS)[number];

const TURNS: Readonly<Record<BearerFacing, number>> = { s: 0, e: Math.PI / 2, n: Math.PI };

/** A piece's position on the canvas, unflipped. */
export interface BearerPiece {
  readonly name: string;
  readonly at: Rect;
}

const HEAD: Rect = { x: 8, y: 8, w: 16, h: 24 };
const ROBE: Rect = { x: 8, y: 16, w: 16, h: 32 };
const LEGS: Rect = { x: 8, y: 40, w: 16, h: 8 };

/** Striding and passing: feet apart, then together, with the body a pixel higher. */
const PHASES = ["stride", "pass"] as const;

interface Drawing extends BearerPiece {
  readonly facing: BearerFacing;
  readonly solids: readonly Solid[];
  readonly eyes?: readonly Vec[];
}

const up = (phase: (typeof PHASES)[number]) => (phase === "pass" ? 1.1 : 0);

function heads(): Drawing[] {
  return BEARER_FACINGS.flatMap((facing) =>
    PHASES.map((phase): Drawing => {
      const y = up(phase);
      return {
        name: `head-${facing}-${phase}`,
        at: HEAD,
        facing,
        solids: [
          { kind: "ellipsoid", material: "skin", centre: [0, 26 + y, 0.8], radii: [4.9, 5, 4.8] },
          { kind: "ellipsoid", material: "cloth", centre: [0, 30 + y, -0.5], radii: [5.6, 3.4, 5.5] },
          { kind: "ellipsoid", material: "cloth", centre: [0.6, 32 + y, -0.8], radii: [3.7, 2.4, 3.7] },
          { kind: "ellipsoid", material: "fire", centre: [0, 30.2 + y, 4.9], radii: [1.1, 1.2, 1] },
          { kind: "capsule", material: "cloth", from: [-2.2, 27 + y, -4.9], to: [-2.6, 23.5 + y, -5.6], radius: 1.2 },
        ],
        eyes: [
          [2.1, 26.4 + y, 5.5],
          [-1.9, 26.4 + y, 5.5],
        ],
      };
    }),
  );
}

function robes(): Drawing[] {
  return BEARER_FACINGS.flatMap((facing) =>
    PHASES.map((phase): Drawing => {
      const y = up(phase);
      const swing = phase === "stride" ? 0.9 : 0;
      return {
        name: `robe-${facing}-${phase}`,
        at: ROBE,
        facing,
        solids: [
          { kind: "ellipsoid", material: "coat", centre: [swing, 8.2 + y / 2, -swing], radii: [7, 6.9, 6.2 + swing] },
          { kind: "ellipsoid", material: "coat", centre: [0, 16.5 + y, 0], radii: [5.8, 7.4, 4.8] },
          { kind: "ellipsoid", material: "leather", centre: [0, 13.2 + y, 0], radii: [6, 1.2, 5.1] },
          { kind: "capsule", material: "coat", from: [5.4, 19.5 + y, 0.4], to: [4.6, 14.8 + y, 4.2], radius: 2.1 },
          { kind: "capsule", material: "coat", from: [-5.4, 19.5 + y, 0.4], to: [-5.8, 13.4 + y, -swing * 2 + 0.6], radius: 2.1 },
          { kind: "ellipsoid", material: "skin", centre: [-5.8, 11.6 + y, -swing * 2.4 + 1], radii: [1.5, 1.5, 1.5] },
          { kind: "ellipsoid", material: "scarf", centre: [0, 22.2 + y, 0.5], radii: [4.6, 1.8, 4.3] },
        ],
      };
    }),
  );
}

function legs(): Drawing[] {
  const boot = (x: number, lift: number, forward: number): Solid => ({
    kind: "capsule",
    material: "boots",
    from: [x, 1.6 + lift, forward - 1],
    to: [x, 1.5 + lift, forward + 1.8],
    radius: 1.75,
  });
  // The left foot before the right, the right before the left, and the right one lifted past the other.
  const steps = [
    ["one", boot(3, 0, 3.4), boot(-3, 0, -3.6)],
    ["two", boot(3, 0, -3.6), boot(-3, 0, 3.4)],
    ["pass", boot(3, 0, -0.4), boot(-3, 1.6, 0.4)],
  ] as const;
  return BEARER_FACINGS.flatMap((facing) =>
    steps
      // Seen from before and behind the one stride is the mirror of the other.
      .filter(([step]) => facing === "e" || step !== "two")
      .map(([step, ...solids]): Drawing => ({ name: `legs-${facing}-${step}`, at: LEGS, facing, solids })),
  );
}

function lamps(): Drawing[] {
  const places: Readonly<Record<BearerFacing, Rect>> = {
    s: { x: 16, y: 8, w: 16, h: 32 },
    e: { x: 16, y: 8, w: 16, h: 32 },
    n: { x: 0, y: 8, w: 16, h: 32 },
  };
  return BEARER_FACINGS.flatMap((facing) =>
    PHASES.map((phase): Drawing => {
      const y = up(phase);
      const swing = phase === "stride" ? 0.8 : -0.6;
      // Held out to the side, or in front of him when seen from the side.
      const [x, z] = facing === "e" ? [4.4, 6.4] : [7.2, 4.4];
      return {
        name: `lamp-${facing}-${phase}`,
        at: places[facing],
        facing,
        solids: [
          { kind: "capsule", material: "leather", from: [x, 8 + y, z], to: [x, 33 + y, z], radius: 0.9 },
          { kind: "ellipsoid", material: "skin", centre: [x - 0.4, 14.6 + y, z + 0.2], radii: [1.7, 1.7, 1.7] },
          {
            kind: "capsule",
            material: "leather",
            from: [x, 33 + y, z],
            to: [x + (facing === "e" ? 0 : 3), 32.4 + y, z + (facing === "e" ? 3 : 0)],
            radius: 0.7,
          },
          ...lit(x + (facing === "e" ? swing * 0.2 : 2.9 + swing), y, z + (facing === "e" ? 3.2 + swing : 0)),
        ],
      };
    }),
  );
}

function lit(x: number, y: number, z: number): Solid[] {
  return [
    { kind: "ellipsoid", material: "leather", centre: [x, 31 + y, z], radii: [2.5, 0.9, 2.5] },
    { kind: "ellipsoid", material: "fire", centre: [x, 28 + y, z], radii: [2.3, 2.9, 2.3] },
    { kind: "ellipsoid", material: "leather", centre: [x, 25 + y, z], radii: [2.2, 0.8, 2.2] },
  ];
}

export interface BearerSheet {
  readonly pixels: Pixels;
  /** Each piece's place on the sheet and on the canvas. */
  readonly pieces: readonly (BearerPiece & { readonly rect: Rect })[];
}

/** The sheet of pieces, a row for each kind. Throws if anything of a piece is drawn outside its rectangle. */
export function bearerSheet(): BearerSheet {
  const rows = [heads(), robes(), legs(), lamps()];
  const width = Math.max(...rows.map((row) => row.reduce((sum, { at }) => sum + at.w, 0)));
  const pixels = clearPixels(
    width,
    rows.reduce((sum, [first]) => sum + (first as Drawing).at.h, 0),
  );
  let y = 0;
  const pieces = rows.flatMap((row) => {
    let x = 0;
    const placed = row.map(({ name, at, facing, solids, eyes = [] }) => {
      const whole = render(
        { solids, eyes },
        { width: BEARER_CANVAS.w, height: BEARER_CANVAS.h, groundX: 16, groundY: BEARER_GROUND, turn: TURNS[facing] },
      );
      const rect = { x, y, w: at.w, h: at.h };
      const drawn = drawnPart(coverageOf(whole), { x: 0, y: 0, ...BEARER_CANVAS });
      if (drawn && (drawn.x < at.x || drawn.y < at.y || drawn.x + drawn.w > at.x + at.w || drawn.y + drawn.h > at.y + at.h))
        throw new Error(`${name} is drawn at ${JSON.stringify(drawn)}, outside ${JSON.stringify(at)}.`);
      paste(pixels, whole, at, x, y);
      x += at.w;
      return { name, at, rect };
    });
    y += (row[0] as Drawing).at.h;
    return placed;
  });
  return { pixels, pieces };
}
