/** Campfire, dust whirl and hourglass: seeded particles and plain shapes in the same ramps as the figures. */
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { dot, seeded } from "./canvas";
import { type Material, RAMPS } from "./palette";
import { render } from "./render";
import type { Solid, Vec } from "./solids";

export const FIRE_SIZE = { w: 32, h: 40 };
export const FIRE_GROUND = 36;

/** One moment of the campfire, phase 0…1; flames and sparks are periodic, so it joins. */
export function campfire(phase: number): Pixels {
  const pixels = render(
    { solids: hearth(), eyes: [] },
    { width: FIRE_SIZE.w, height: FIRE_SIZE.h, groundX: FIRE_SIZE.w / 2, groundY: FIRE_GROUND - 1, turn: 0.35 },
  );
  const heat = new Float64Array(FIRE_SIZE.w * FIRE_SIZE.h);
  const random = seeded(7);
  for (let k = 0; k < 26; k++) {
    const offset = random();
    const side = (random() - 0.5) * 9;
    const sway = random() * 2 * Math.PI;
    const lift = 14 + random() * 9;
    const age = (phase + offset) % 1;
    const x = FIRE_SIZE.w / 2 + side * (1 - age * 0.85) + Math.sin(sway + age * 5) * 1.6 * age;
    const y = FIRE_GROUND - 5 - age * lift;
    addGlow(heat, x, y, 4.6 * (1 - age) ** 0.8 * (1 - Math.abs(side) / 14));
  }
  heat.forEach((warmth, k) => {
    const tone = warmth > 2.6 ? 4 : warmth > 1.75 ? 3 : warmth > 1.05 ? 2 : warmth > 0.55 ? 1 : -1;
    if (tone >= 0) dot(pixels, k % FIRE_SIZE.w, Math.floor(k / FIRE_SIZE.w), (RAMPS.fire as readonly string[])[tone] as string);
  });
  // Loose sparks: single pixels that belong to no flame, on purpose.
  for (let k = 0; k < 5; k++) {
    const offset = random();
    const start = FIRE_SIZE.w / 2 + (random() - 0.5) * 12;
    const drift = (random() - 0.5) * 14;
    const age = (phase + offset) % 1;
    if (age > 0.85) continue;
    dot(
      pixels,
      Math.round(start + drift * age),
      Math.round(FIRE_GROUND - 16 - age * 19),
      RAMPS.fire[age < 0.35 ? 4 : age < 0.65 ? 3 : 2] as string,
    );
  }
  return pixels;
}

function addGlow(heat: Float64Array, x: number, y: number, radius: number): void {
  for (let py = 0; py < FIRE_SIZE.h; py++)
    for (let px = 0; px < FIRE_SIZE.w; px++) {
      const near = 1 - Math.hypot(px + 0.5 - x, (py + 0.5 - y) * 0.8) / radius;
      if (near > 0) heat[py * FIRE_SIZE.w + px] = (heat[py * FIRE_SIZE.w + px] as number) + near * 1.5;
    }
}

function hearth(): Solid[] {
  const stones = Array.from({ length: 9 }, (_, k): Solid => {
    const angle = (k / 9) * 2 * Math.PI;
    return { kind: "ellipsoid", material: "stone", centre: [Math.cos(angle) * 10.5, 1.3, Math.sin(angle) * 8.5], radii: [2.5, 2, 2.3] };
  });
  return [
    ...stones,
    { kind: "capsule", material: "leather", from: [-7, 1.6, 2.5], to: [6.5, 4.2, -2], radius: 1.7 },
    { kind: "capsule", material: "leather", from: [7, 1.6, 2.5], to: [-6.5, 4.2, -2], radius: 1.7 },
    { kind: "capsule", material: "boots", from: [0, 1.6, 6], to: [0, 4.6, -3.5], radius: 1.6 },
  ];
}

export const SPARKS_SIZE = { w: 24, h: 28 };
/** The middle of the row from which sparks fly up. */
export const SPARKS_FROM = { x: 12, y: 26 };

/** One picture of a handful of sparks that fly up, spread and go out. */
export function sparks(picture: number, count: number): Pixels {
  const pixels = clearPixels(SPARKS_SIZE.w, SPARKS_SIZE.h);
  const random = seeded(23);
  for (let k = 0; k < 14; k++) {
    const late = random() * 0.25;
    const drift = (random() - 0.5) * 20;
    const lift = 14 + random() * 10;
    const age = (picture + 0.5) / count - late;
    if (age <= 0 || age > 0.62 + random() * 0.1) continue;
    const x = Math.round(SPARKS_FROM.x + drift * age);
    const y = Math.round(SPARKS_FROM.y - lift * age * (1.7 - age));
    dot(pixels, x, y, RAMPS.fire[age < 0.25 ? 4 : age < 0.45 ? 3 : 2]);
    if (age < 0.3) dot(pixels, x, y + 1, RAMPS.fire[2]);
  }
  return pixels;
}

export const DUST_SIZE = { w: 48, h: 48 };
export const DUST_GROUND = 44;

/** One of the pictures of the dust whirl: it rises from nothing, turns, and blows apart. Plays once. */
export function dustWhirl(picture: number, count: number): Pixels {
  const life = (picture + 1) / count;
  const random = seeded(23);
  const solids: Solid[] = [];
  const grown = Math.min(1, life * 2.6);
  const fading = Math.max(0, (life - 0.55) / 0.45);
  for (let k = 0; k < 110; k++) {
    const height = random();
    const angle = random() * 2 * Math.PI + life * (13 - height * 4);
    const drift = random();
    const endurance = random();
    if (height > grown || endurance < fading * 0.96) continue;
    const widening = 1 + fading * (0.35 + drift * 0.6);
    const reach = (1.6 + height ** 1.25 * 12) * widening * (0.75 + drift * 0.3);
    const radius = (0.75 + height * 1.15) * (1 - fading * 0.45) * Math.min(1, (grown - height) * 5 + 0.4);
    if (radius < 0.5) continue;
    // A wisp follows its orbit, so that the whirl looks as if it turns even in a still.
    const wisp = 0.75 * (1 - fading * 0.5);
    const along = (turned: number): Vec => [
      Math.cos(turned) * reach + Math.sin(life * 7 + height * 3) * 1.6,
      1.2 + height * 33 * grown + fading * drift * 4 + Math.sin(turned) * 0.8,
      Math.sin(turned) * reach * 0.8,
    ];
    solids.push({ kind: "capsule", material: "dust", from: along(angle), to: along(angle - wisp), radius });
  }
  return render({ solids, eyes: [] }, { width: DUST_SIZE.w, height: DUST_SIZE.h, groundX: DUST_SIZE.w / 2, groundY: DUST_GROUND, turn: 0 });
}

export const HOURGLASS_SIZE = { w: 26, h: 26 };
export const HOURGLASS_GROUND = 24;

/** One of twelve moments: for eight the sand runs, for four the glass is turned over. Half the size of the other art. */
export function hourglass(moment: number): Pixels {
  const pixels = clearPixels(HOURGLASS_SIZE.w, HOURGLASS_SIZE.h);
  const running = moment < 8;
  const spent = running ? moment / 7 : 1;
  const turn = running ? 0 : ((moment - 7) / 5) * Math.PI;
  const lift = running ? 0 : Math.sin(turn) * 0.5;
  for (let y = 0; y < HOURGLASS_SIZE.h; y++)
    for (let x = 0; x < HOURGLASS_SIZE.w; x++) {
      const colour = hourglassAt(x - 12.5, y - 13 + lift, turn, spent, moment);
      if (colour) dot(pixels, x, y, RAMPS[colour.material][colour.tone] as string);
    }
  return pixels;
}

function hourglassAt(x: number, y: number, turn: number, spent: number, moment: number): { material: Material; tone: number } | null {
  // In the glass's own frame: v runs along its axis, u across it.
  const u = x * Math.cos(turn) + y * Math.sin(turn);
  const v = -x * Math.sin(turn) + y * Math.cos(turn);
  const reach = Math.abs(v);
  if (reach > 10.6) return null;
  if (reach > 7.7)
    return Math.abs(u) > 6.6 ? null : { material: "leather", tone: reach > 9.6 ? (v < 0 ? 3 : 1) : u < -3 ? 4 : u > 3.5 ? 2 : 3 };
  if (Math.abs(Math.abs(u) - 5.6) < 0.75) return { material: "leather", tone: u < 0 ? 3 : 1 };
  const bulb = 0.9 + 3.5 * Math.sin(Math.min(1, reach / 6.4) * (Math.PI / 2)) ** 1.3;
  if (Math.abs(u) > bulb) return null;
  if (holdsSand(u, v, spent, turn)) return { material: "fire", tone: u < -1 ? 4 : u > 1.6 ? 2 : 3 };
  if (turn === 0 && v > 0 && spent < 1 && Math.abs(u) < 0.6 && (v + moment) % 3 > 0.4) return { material: "fire", tone: 3 };
  return { material: "glass", tone: Math.abs(u) > bulb - 1.1 ? 2 : u < -0.8 ? 4 : 3 };
}

function holdsSand(u: number, v: number, spent: number, turn: number): boolean {
  if (v < 0) return turn === 0 && -v < 6.4 * (1 - spent) + Math.abs(u) * 0.35 * (1 - spent) - 0.2;
  const level = 7.6 - 5.4 * spent + Math.abs(u) * 0.55;
  return v > level;
}
