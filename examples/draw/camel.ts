/** The salt camel, walking: drawn one by one and laid down untidily, in boxes that differ in size and spacing. */

import type { Rect } from "@caravan/core/model";
import { clearPixels, coverageOf, drawnPart, type Pixels, paste } from "@caravan/core/raster";
import { seeded } from "./canvas";
import { type Figure, render } from "./render";
import { add, type Solid, type Vec } from "./solids";

const SIZE = { w: 84, h: 72 };
const GROUND = 66;
export const CAMEL_FRAMES = 8;

/** One moment of the walk, looking to the right; phase 0…1 joins. Legs of one side swing together, as a camel's do. */
export function camel(phase: number): Pixels {
  return render(camelFigure(phase), { width: SIZE.w, height: SIZE.h, groundX: SIZE.w / 2, groundY: GROUND, turn: Math.PI / 2 });
}

function camelFigure(phase: number): Figure {
  const angle = phase * 2 * Math.PI;
  const bob = Math.sin(angle * 2) * 0.7;
  const nod = Math.sin(angle * 2 + 0.9) * 1.1;
  const hip = 21 + bob;
  const solids: Solid[] = [];
  for (const [side, shift] of [
    [3.6, 0],
    [-3.6, 0.5],
  ] as const)
    for (const [end, lag] of [
      [10.5, 0.12],
      [-10.5, 0],
    ] as const)
      solids.push(...leg(side, end, hip, angle + (shift + lag) * 2 * Math.PI));
  const at = (x: number, y: number, z: number): Vec => [x, y + bob, z];
  solids.push(
    { kind: "ellipsoid", material: "sand", centre: at(0, 25, 0), radii: [7.2, 7.4, 16.5] },
    { kind: "ellipsoid", material: "sand", centre: at(0, 33.5, -1), radii: [4.8, 6.2, 6.6] },
    { kind: "ellipsoid", material: "scarf", centre: at(0, 30.2, -1), radii: [7.9, 5.2, 8.6] },
    { kind: "capsule", material: "turban", from: at(-7.6, 27, 4.6), to: at(7.6, 27, 4.6), radius: 1.2 },
    { kind: "capsule", material: "turban", from: at(-7.6, 27, -6.8), to: at(7.6, 27, -6.8), radius: 1.2 },
    { kind: "ellipsoid", material: "cloth", centre: at(8.2, 27.6, -1), radii: [2.2, 4.6, 5.4] },
    { kind: "ellipsoid", material: "cloth", centre: at(-8.2, 27.6, -1), radii: [2.2, 4.6, 5.4] },
    { kind: "capsule", material: "leather", from: at(8.9, 31.5, -1), to: at(8.9, 23.4, -1), radius: 0.8 },
    { kind: "capsule", material: "sand", from: at(0, 25.5, 13.5), to: at(0, 27.5, 21.5), radius: 4 },
    { kind: "capsule", material: "sand", from: at(0, 27.5, 21.5), to: at(0, 38.5 + nod, 24.5), radius: 3.1 },
    { kind: "ellipsoid", material: "sand", centre: at(0, 41 + nod, 27.5), radii: [3.3, 3.2, 5.2] },
    { kind: "ellipsoid", material: "sand", centre: at(0, 40 + nod, 31.6), radii: [2.3, 2.2, 2.6] },
    { kind: "ellipsoid", material: "leather", centre: at(2.4, 43.6 + nod, 24.6), radii: [0.9, 1.6, 1.1] },
    { kind: "capsule", material: "scarf", from: at(3.2, 40.4 + nod, 26.5), to: at(2.6, 39 + nod, 31), radius: 0.7 },
    { kind: "capsule", material: "sand", from: at(0, 27, -16), to: at(0.6 * Math.sin(angle), 18, -18.4), radius: 1.1 },
    { kind: "ellipsoid", material: "leather", centre: at(0.6 * Math.sin(angle), 16.6, -18.6), radii: [1.2, 2, 1.2] },
  );
  return { solids, eyes: [at(3.1, 41.9 + nod, 28.6)] };
}

function leg(side: number, end: number, hip: number, angle: number): Solid[] {
  const swing = Math.sin(angle) * 0.42;
  const lifted = Math.max(0, Math.cos(angle - 0.3)) ** 1.6;
  const from: Vec = [side, hip, end];
  const knee = add(from, [0, -9.6 * Math.cos(swing), 9.6 * Math.sin(swing)]);
  const shin = swing - lifted * 0.8;
  const foot = add(knee, [0, -9.4 * Math.cos(shin), 9.4 * Math.sin(shin)]);
  return [
    { kind: "capsule", material: "sand", from, to: knee, radius: 3 },
    { kind: "capsule", material: "sand", from: knee, to: foot, radius: 1.9 },
    { kind: "ellipsoid", material: "leather", centre: add(foot, [0, -0.4, 0.9]), radii: [2.2, 1.5, 2.8] },
  ];
}

/** The sheet as handed in, and the place of each drawing. */
export function camelSheet(): { pixels: Pixels; boxes: Rect[] } {
  const random = seeded(31);
  const drawn = Array.from({ length: CAMEL_FRAMES }, (_, k) => {
    const pixels = camel(k / CAMEL_FRAMES);
    return { pixels, part: drawnPart(coverageOf(pixels), { x: 0, y: 0, ...SIZE }) as Rect };
  });
  const boxes: Rect[] = [];
  let x = 0;
  let top = 5;
  let tallest = 0;
  for (const [k, { part }] of drawn.entries()) {
    if (k === CAMEL_FRAMES / 2) {
      x = 0;
      top += tallest + 9;
      tallest = 0;
    }
    x += 4 + Math.floor(random() * 9);
    const y = top + Math.floor(random() * 6);
    boxes.push({ x, y, w: part.w, h: part.h });
    x += part.w;
    tallest = Math.max(tallest, y - top + part.h);
  }
  const width = Math.max(...boxes.map((box) => box.x + box.w)) + 7;
  const sheet = clearPixels(width, top + tallest + 4);
  for (const [k, { pixels, part }] of drawn.entries()) paste(sheet, pixels, part, (boxes[k] as Rect).x, (boxes[k] as Rect).y);
  return { pixels: sheet, boxes };
}
