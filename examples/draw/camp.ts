/** Things of the camp: a banner as numbered stills, the well as an animation, wares of the bazaar, and the lamp-bearer in layers. */

import type { Rect } from "@caravan/core/model";
import { clearPixels, coverageOf, drawnPart, type Pixels, paste } from "@caravan/core/raster";
import { dot, seeded } from "./canvas";
import { type Material, RAMPS } from "./palette";
import { render } from "./render";
import type { Solid, Vec } from "./solids";

export const BANNER_STILLS = 12;
export const BANNER_SIZE = { w: 40, h: 56 };

/** The banner in the wind; phase 0…1 joins. */
export function banner(phase: number): Pixels {
  const pixels = clearPixels(BANNER_SIZE.w, BANNER_SIZE.h);
  const { leather, scarf, turban } = RAMPS;
  for (let y = 3; y < 54; y++)
    for (const [x, tone] of [
      [6, 3],
      [7, 1],
    ] as const)
      dot(pixels, x, y, leather[tone] as string);
  for (const [x, y] of [
    [6, 2],
    [7, 2],
    [5, 3],
    [8, 3],
    [6, 1],
    [7, 1],
  ] as const)
    dot(pixels, x, y, turban[y === 1 ? 4 : 3] as string);
  for (let u = 0; u < 30; u++) {
    const wave = Math.sin(phase * 2 * Math.PI - u * 0.36) * (u / 30) * 3.6;
    const slope = Math.cos(phase * 2 * Math.PI - u * 0.36);
    // A swallow's tail: the free end is cut out in the middle.
    for (let v = 0; v < 19; v++) {
      const cut = u > 22 && Math.abs(v - 9) < (u - 22) * 0.85;
      if (cut) continue;
      const edge = v < 2 || v > 16;
      const sun = Math.hypot(u - 10, v - 9) < 4.2;
      const ramp: readonly string[] = edge ? turban : sun ? RAMPS.fire : scarf;
      const tone = Math.max(0, Math.min(4, (edge || sun ? 3 : 2) + Math.round(slope * 1.2) - (v > 15 ? 1 : 0)));
      dot(pixels, 8 + u, Math.round(6 + v + wave), ramp[tone] as string);
    }
  }
  return pixels;
}

export const WELL_SIZE = { w: 44, h: 52 };
/** Milliseconds of each picture: the bucket rests at the top and at the bottom. */
export const WELL_TIMES = [400, 90, 90, 90, 300, 90, 90, 90] as const;

/** The well with its bucket going down and up. */
export function well(picture: number): Pixels {
  const depth = [0, 1, 2, 3, 4, 3, 2, 1][picture] as number;
  const ring = Array.from({ length: 14 }, (_, k): Solid => {
    const angle = (k / 14) * 2 * Math.PI;
    return { kind: "ellipsoid", material: "stone", centre: [Math.cos(angle) * 12, 3.4, Math.sin(angle) * 8], radii: [3.4, 3.4, 3] };
  });
  const bucketY = 24 - depth * 4.6;
  const posts: Solid[] = [
    { kind: "capsule", material: "leather", from: [-12, 4, 0], to: [-10, 33, 0], radius: 1.4 },
    { kind: "capsule", material: "leather", from: [12, 4, 0], to: [10, 33, 0], radius: 1.4 },
    { kind: "capsule", material: "leather", from: [-12, 33, 0], to: [12, 33, 0], radius: 1.7 },
    { kind: "capsule", material: "cloth", from: [0, 32, 0], to: [0, bucketY + 4, 0], radius: 0.6 },
  ];
  const bucket: Solid[] =
    bucketY > 4
      ? [
          { kind: "ellipsoid", material: "boots", centre: [0, bucketY, 0], radii: [3.6, 3.9, 3.6] },
          { kind: "ellipsoid", material: "glass", centre: [0, bucketY + 2.6, 0.6], radii: [2.6, 1.2, 2.6] },
        ]
      : [];
  return render(
    { solids: [...ring, ...posts, ...bucket], eyes: [] },
    { width: WELL_SIZE.w, height: WELL_SIZE.h, groundX: WELL_SIZE.w / 2, groundY: WELL_SIZE.h - 6, turn: 0 },
  );
}

/** A ware of the bazaar, untrimmed at 32 × 32, and how its pictures are named. */
const WARES: readonly (readonly [name: string, count: number, draw: (k: number, count: number) => Solid[]])[] = [
  ["jar", 3, (k) => jar(k)],
  ["lantern", 4, (k, count) => lantern(k / count)],
  ["rug", 2, (k) => rug(k)],
  ["melon", 2, (k) => melon(k)],
];
export const WARE_SIZE = { w: 32, h: 32 };

function jar(k: number): Solid[] {
  const material: Material = (["turban", "coat", "sand"] as const)[k % 3] as Material;
  return [
    { kind: "ellipsoid", material, centre: [0, 6.2, 0], radii: [5.6 + k * 0.6, 6.2, 5.6 + k * 0.6] },
    { kind: "capsule", material, from: [0, 11, 0], to: [0, 14.4 + k, 0], radius: 2 },
    { kind: "ellipsoid", material: "leather", centre: [0, 15.8 + k, 0], radii: [3.1, 1, 3.1] },
  ];
}

function lantern(phase: number): Solid[] {
  const swing = Math.sin(phase * 2 * Math.PI) * 2.4;
  return [
    { kind: "capsule", material: "leather", from: [0, 25, 0], to: [swing * 0.6, 16.5, 0], radius: 0.55 },
    { kind: "ellipsoid", material: "leather", centre: [swing * 0.7, 15.6, 0], radii: [3.2, 1.3, 3.2] },
    { kind: "ellipsoid", material: "fire", centre: [swing, 11, 0], radii: [3, 4, 3] },
    { kind: "ellipsoid", material: "leather", centre: [swing * 1.2, 6.8, 0], radii: [3, 1.1, 3] },
  ];
}

function rug(k: number): Solid[] {
  return Array.from({ length: 3 }, (_, roll): Solid => {
    const y = 2.4 + roll * 4.2;
    const material: Material = (["scarf", "coat", "turban"] as const)[(roll + k) % 3] as Material;
    return { kind: "capsule", material, from: [-8 + roll, y, 0], to: [8 - roll, y, 0], radius: 2.3 };
  });
}

function melon(k: number): Solid[] {
  const whole: Vec = [-3.4, 4, 0];
  return k === 0
    ? [
        { kind: "ellipsoid", material: "sand", centre: whole, radii: [4.6, 4.2, 4.6] },
        { kind: "ellipsoid", material: "sand", centre: [4.6, 3.4, 2], radii: [3.8, 3.5, 3.8] },
      ]
    : [
        { kind: "ellipsoid", material: "sand", centre: whole, radii: [4.6, 4.2, 4.6] },
        { kind: "ellipsoid", material: "turban", centre: [4.4, 2.4, 3], radii: [4.2, 2.5, 3] },
      ];
}

export interface PackedWare {
  readonly name: string;
  /** Its position on the atlas, trimmed. */
  readonly rect: Rect;
  /** Where it sits in its untrimmed picture. */
  readonly inset: { x: number; y: number };
  readonly whole: Pixels;
}

/** The bazaar as an atlas that somebody packed: trimmed wares on shelves, and a file of their own make that says where they are. */
export function bazaar(): { pixels: Pixels; wares: PackedWare[]; description: string } {
  const random = seeded(12);
  const drawn = WARES.flatMap(([name, count, draw]) =>
    Array.from({ length: count }, (_, k) => {
      const whole = render(
        { solids: draw(k, count), eyes: [] },
        { width: WARE_SIZE.w, height: WARE_SIZE.h, groundX: 16, groundY: 28, turn: 0.2 },
      );
      const part = drawnPart(coverageOf(whole), { x: 0, y: 0, ...WARE_SIZE }) as Rect;
      return { name: `${name}/${k + 1}`, whole, part };
    }),
  );
  const order = drawn.map((_, k) => k).sort((a, b) => (drawn[b]?.part.h ?? 0) - (drawn[a]?.part.h ?? 0));
  const places = new Map<number, Rect>();
  let x = 1;
  let y = 1;
  let tallest = 0;
  for (const k of order) {
    const { w, h } = (drawn[k] as (typeof drawn)[number]).part;
    if (x + w + 1 > 96) {
      x = 1;
      y += tallest + 2;
      tallest = 0;
    }
    places.set(k, { x, y, w, h });
    x += w + 2 + Math.floor(random() * 2);
    tallest = Math.max(tallest, h);
  }
  const pixels = clearPixels(96, y + tallest + 1);
  const wares = drawn.map(({ name, whole, part }, k): PackedWare => {
    const rect = places.get(k) as Rect;
    paste(pixels, whole, part, rect.x, rect.y);
    return { name, rect, inset: { x: part.x, y: part.y }, whole };
  });
  const description = {
    market: "The Tamarisk Road",
    picture: "bazaar.png",
    wares: Object.fromEntries(
      wares.map(({ name, rect, inset }) => [
        name,
        { at: [rect.x, rect.y], size: [rect.w, rect.h], full: [WARE_SIZE.w, WARE_SIZE.h], offset: [inset.x, inset.y], foot: [0.5, 0.875] },
      ]),
    ),
    motions: { lantern: { frames: ["lantern/1", "lantern/2", "lantern/3", "lantern/4"], msPerFrame: 140, loop: true } },
  };
  return { pixels, wares, description: `${JSON.stringify(description, null, 1)}\n` };
}

export const BEARER_SIZE = { w: 40, h: 56 };

/** The lamp-bearer's layers from the bottom up, each on the whole canvas; the sketch is hidden. */
export function bearerLayers(): { name: string; group: string | null; hidden: boolean; pixels: Pixels }[] {
  const view = { width: BEARER_SIZE.w, height: BEARER_SIZE.h, groundX: 18, groundY: 51, turn: 0.35 };
  const layer = (name: string, group: string | null, solids: Solid[], eyes: Vec[] = [], hidden = false) => ({
    name,
    group,
    hidden,
    pixels: render({ solids, eyes }, view),
  });
  return [
    layer("boots", "body", [
      { kind: "ellipsoid", material: "boots", centre: [3, 1.6, 1.2], radii: [2.4, 1.8, 3.4] },
      { kind: "ellipsoid", material: "boots", centre: [-3, 1.6, 1.2], radii: [2.4, 1.8, 3.4] },
    ]),
    layer("robe", "body", [
      { kind: "ellipsoid", material: "coat", centre: [0, 8, 0], radii: [7.4, 7.4, 5.8] },
      { kind: "ellipsoid", material: "coat", centre: [0, 16.5, 0], radii: [5.8, 7.4, 4.6] },
      { kind: "ellipsoid", material: "leather", centre: [0, 13.2, 0], radii: [6, 1.3, 4.9] },
    ]),
    layer(
      "head",
      null,
      [
        { kind: "ellipsoid", material: "skin", centre: [0, 27, 0.8], radii: [5, 5.1, 4.9] },
        { kind: "ellipsoid", material: "cloth", centre: [0, 30.4, -0.6], radii: [5.9, 4.2, 5.8] },
        { kind: "ellipsoid", material: "scarf", centre: [0, 22.4, 0.5], radii: [4.6, 1.9, 4.2] },
      ],
      [
        [2.1, 27.3, 5.6],
        [-1.9, 27.3, 5.6],
      ],
    ),
    layer("lamp", null, [
      { kind: "capsule", material: "leather", from: [9.5, 8, 3], to: [9.5, 34, 3], radius: 0.9 },
      { kind: "ellipsoid", material: "skin", centre: [8.2, 16.5, 3.4], radii: [1.8, 1.8, 1.8] },
      { kind: "capsule", material: "leather", from: [9.5, 34, 3], to: [13, 33, 3], radius: 0.7 },
      { kind: "ellipsoid", material: "fire", centre: [13.2, 28.8, 3], radii: [2.6, 3.4, 2.6] },
      { kind: "ellipsoid", material: "leather", centre: [13.2, 32.2, 3], radii: [2.8, 1, 2.8] },
    ]),
    layer("sketch", null, [{ kind: "ellipsoid", material: "stone", centre: [0, 20, 0], radii: [12, 20, 6] }], [], true),
  ];
}
