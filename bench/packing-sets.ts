/** Sets of trimmed frame sizes typical of games. Seeded, the same every time. */
import type { Size } from "@caravan/core/model";
import { seeded } from "../examples/draw/canvas";

interface PackingSet {
  readonly name: string;
  /** Whether the optimum is known to be 100 %. */
  readonly known: boolean;
  make(count: number, seed: number): Size[];
}

export const PACKING_SETS: readonly PackingSet[] = [
  { name: "walking figures, 14 to 56 px", known: false, make: (count, seed) => figures(count, seed, 1) },
  { name: "walking figures at four times", known: false, make: (count, seed) => figures(count, seed, 4) },
  { name: "one character", known: false, make: oneCharacter },
  { name: "figures, effects and props", known: false, make: mixed },
  { name: "small things, 9 to 16 px", known: false, make: smallThings },
  { name: "a page cut up (optimum 100 %)", known: true, make: cutUp },
];

/** Characters, each of a build; actions, each with a stance; frames swinging about it. */
function figures(count: number, seed: number, scale: number): Size[] {
  const random = seeded(seed);
  const sizes: Size[] = [];
  while (sizes.length < count) {
    const [w, h] = [(14 + random() * 22) * scale, (26 + random() * 30) * scale];
    for (let action = 0; action < 6; action++) {
      const [broad, tall, frames] = [0.8 + random() * 0.5, 0.85 + random() * 0.2, 4 + Math.floor(random() * 8)];
      for (let frame = 0; frame < frames && sizes.length < count; frame++) {
        const phase = (frame / frames) * Math.PI * 2;
        sizes.push({
          w: Math.round(w * broad * (1 + 0.18 * Math.sin(phase)) + random() * 2),
          h: Math.round(h * tall * (1 + 0.05 * Math.cos(phase * 2)) + random()),
        });
      }
    }
  }
  return sizes;
}

function oneCharacter(count: number, seed: number): Size[] {
  const random = seeded(seed);
  return Array.from({ length: count }, () => ({ w: 20 + Math.floor(random() * 9), h: 36 + Math.floor(random() * 4) }));
}

function smallThings(count: number, seed: number): Size[] {
  const random = seeded(seed);
  return Array.from({ length: count }, () => ({ w: 9 + Math.floor(random() * 8), h: 9 + Math.floor(random() * 8) }));
}

/** Figures, bursts that grow and shrink, and props of any shape. */
function mixed(count: number, seed: number): Size[] {
  const random = seeded(seed);
  const sizes = figures(Math.floor(count * 0.6), seed + 1, 1);
  while (sizes.length < count) {
    if (random() < 0.5) {
      const [most, frames] = [16 + random() * 80, 6 + Math.floor(random() * 10)];
      for (let frame = 0; frame < frames && sizes.length < count; frame++) {
        const swell = most * Math.sin(((frame + 1) / (frames + 1)) * Math.PI);
        sizes.push({
          w: Math.max(2, Math.round(swell * (0.9 + random() * 0.2))),
          h: Math.max(2, Math.round(swell * (0.7 + random() * 0.3))),
        });
      }
    } else sizes.push({ w: 6 + Math.floor(random() * 50), h: 6 + Math.floor(random() * 40) });
  }
  return sizes;
}

/** A page cut across again and again: its pieces fill it exactly. */
function cutUp(count: number, seed: number): Size[] {
  const random = seeded(seed);
  const pieces: Size[] = [{ w: Math.round(32 * Math.sqrt(count)), h: Math.round(30 * Math.sqrt(count)) }];
  while (pieces.length < count) {
    pieces.sort((a, b) => b.w * b.h - a.w * a.h);
    const k = Math.floor(random() * Math.min(pieces.length, 4));
    const { w, h } = pieces[k] as Size;
    const cut = (side: number) => Math.max(1, Math.min(side - 1, Math.round(side * (0.3 + random() * 0.4))));
    if (w >= h) {
      const at = cut(w);
      pieces.splice(k, 1, { w: at, h }, { w: w - at, h });
    } else {
      const at = cut(h);
      pieces.splice(k, 1, { w, h: at }, { w, h: h - at });
    }
  }
  return pieces;
}
