/** Seeded random numbers for generated test data. */

/** The next number, from 0 up to 1. */
export type Random = () => number;

/** Mulberry32, a public-domain generator by Tommy Ettinger. */
export function randomFrom(seed: number): Random {
  let state = Math.imul(seed + 1, 0x9e3779b9) >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
