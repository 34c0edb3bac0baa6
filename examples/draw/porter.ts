/** The porter: a sturdy figure with a pack and a bedroll, in a blue coat and an orange turban. Poses are functions of phase. */
import type { Pixels } from "@caravan/core/raster";
import { type Figure, render } from "./render";
import { add, type Solid, type Vec } from "./solids";

export const PORTER_SIZE = { w: 40, h: 48 };
/** Pixel row of the soles. */
export const PORTER_GROUND = 45;

/** Facings in the order of the sheet's rows, as turns from looking at the viewer. */
export const FACINGS = ["s", "se", "e", "ne", "n", "nw", "w", "sw"] as const;

export function drawPorter(facing: (typeof FACINGS)[number], figure: Figure): Pixels {
  return render(figure, {
    width: PORTER_SIZE.w,
    height: PORTER_SIZE.h,
    groundX: PORTER_SIZE.w / 2,
    groundY: PORTER_GROUND,
    turn: (FACINGS.indexOf(facing) * Math.PI) / 4,
  });
}

/** One moment of walking; phase 0…1 is two strides, so that it loops. `lamp`: with a lamp held up in front of him. */
export function walking(phase: number, lamp = false): Figure {
  const swing = Math.cos(phase * 2 * Math.PI);
  const legs = [legAngles(phase), legAngles(phase + 0.5)] as const;
  return posed({
    legs,
    armSwing: [lamp ? HELD_UP : -swing * 0.62, swing * 0.62],
    lamp,
    lean: 0.09,
    breath: 0,
    sway: Math.sin(phase * 2 * Math.PI) * 0.5,
    trail: 0.6 + 0.4 * Math.sin(phase * 4 * Math.PI + 0.8),
  });
}

/** One moment of standing: a slow breath, the scarf moving a little. */
export function idling(phase: number, lamp = false): Figure {
  const breath = (1 - Math.cos(phase * 2 * Math.PI)) / 2;
  const still = { thigh: 0, knee: 0.06 };
  return posed({
    legs: [still, still],
    armSwing: [lamp ? HELD_UP : 0.04, 0.04],
    lamp,
    lean: 0,
    breath,
    sway: 0,
    trail: 0.12 + 0.25 * Math.sin(phase * 2 * Math.PI + 1),
  });
}

/** How far forward an arm is that holds a lamp up, in radians. */
const HELD_UP = 0.85;

interface Leg {
  /** Radians forward from straight down. */
  readonly thigh: number;
  /** Radians that the shin bends back from the thigh. */
  readonly knee: number;
}

/** How far a planted foot moves back under the figure in a loop of two strides: three pixels in each of eight frames. */
const STRIDE = 24;
/** How high the hips are over the soles' line in mid-stride, and how high a free foot is lifted. */
const HIPS = 13.4;
const LIFT = 4.2;

/**
 * A leg whose foot is planted for half of the loop, and so moves back evenly under the figure, like the ground; then it lifts and swings
 * forward. At phase 0 it comes down.
 */
function legAngles(phase: number): Leg {
  const at = phase - Math.floor(phase);
  const planted = at < 0.5;
  const free = (at - 0.5) * 2;
  // Forward of the hip; the free foot swings with an even start and end.
  const z = planted ? STRIDE * (0.25 - at) : -STRIDE * 0.25 + (STRIDE / 2) * (free - Math.sin(free * 2 * Math.PI) / (2 * Math.PI));
  const y = planted ? 0 : Math.sin(free * Math.PI) * LIFT;
  return bentTo(z, HIPS - 0.5 * Math.cos(at * 4 * Math.PI) - y);
}

/** The angles at which an ankle is so far forward and below the hip: by the law of cosines; a leg that is too short is stretched. */
function bentTo(forward: number, below: number): Leg {
  const long = Math.min(Math.hypot(forward, below), (THIGH + SHIN) * 0.998);
  const inner = Math.acos((THIGH ** 2 + long ** 2 - SHIN ** 2) / (2 * THIGH * long));
  const knee = Math.PI - Math.acos((THIGH ** 2 + SHIN ** 2 - long ** 2) / (2 * THIGH * SHIN));
  return { thigh: Math.atan2(forward, below) + inner, knee };
}

interface Pose {
  readonly legs: readonly [Leg, Leg];
  readonly armSwing: readonly [number, number];
  /** Whether the left hand holds a lamp. */
  readonly lamp: boolean;
  /** How far the trunk leans forward, in radians. */
  readonly lean: number;
  /** 0 out, 1 in. */
  readonly breath: number;
  readonly sway: number;
  /** How far cloth trails behind. */
  readonly trail: number;
}

const THIGH = 7;
const SHIN = 7.2;
const HIP_APART = 2.9;

function posed(pose: Pose): Figure {
  const legs = pose.legs.map((leg, k) => legPoints(leg, k === 0 ? HIP_APART : -HIP_APART));
  // The lowest sole is on the ground: the hips rise and sink as the legs close and spread.
  const lowest = Math.min(...legs.map(({ ankle }) => ankle[1]));
  const hip: Vec = [pose.sway, 1.9 - lowest, 0];
  const at = (x: number, y: number, z: number): Vec => add(hip, [x, y + pose.breath * 0.5 * (y / 12), z + Math.sin(pose.lean) * y]);
  const solids: Solid[] = [];
  legs.forEach(({ knee, ankle, toe, from }) => {
    solids.push(
      { kind: "capsule", material: "sand", from: add(hip, from), to: add(hip, knee), radius: 2.75 },
      { kind: "capsule", material: "sand", from: add(hip, knee), to: add(hip, ankle), radius: 2.3 },
      { kind: "capsule", material: "boots", from: add(hip, ankle), to: add(hip, toe), radius: 1.95 },
    );
  });
  const trailing = pose.trail;
  solids.push(
    { kind: "ellipsoid", material: "coat", centre: at(0, 6.6, 0), radii: [5.6, 6.8, 4.4] },
    { kind: "ellipsoid", material: "coat", centre: at(0, 0.6, -0.3 - trailing * 0.5), radii: [5.4, 4.6, 4.7] },
    { kind: "ellipsoid", material: "leather", centre: at(0, 3.1, 0), radii: [5.65, 1.25, 4.75] },
    { kind: "ellipsoid", material: "leather", centre: at(0, 7.4, -6.6), radii: [5.2, 6.4, 4.2] },
    { kind: "capsule", material: "cloth", from: at(-5.6, 14, -6.6), to: at(5.6, 14, -6.6), radius: 2.5 },
    { kind: "capsule", material: "leather", from: at(-3.6, 12.2, 2.6), to: at(-3.8, 5.5, 3.2), radius: 0.85 },
    { kind: "capsule", material: "leather", from: at(3.6, 12.2, 2.6), to: at(3.8, 5.5, 3.2), radius: 0.85 },
    { kind: "ellipsoid", material: "scarf", centre: at(0, 12.4, 0.6), radii: [4.6, 1.9, 4.3] },
    {
      kind: "capsule",
      material: "scarf",
      from: at(3.4, 12, 1.2),
      to: at(4.9 + trailing * 0.6, 8.8 + trailing * 1.1, -0.2 - trailing * 3),
      radius: 1.25,
    },
    { kind: "ellipsoid", material: "skin", centre: at(0, 17, 0.9), radii: [5.1, 5.2, 5] },
    { kind: "ellipsoid", material: "turban", centre: at(0, 21.2, -0.1), radii: [5.9, 3.4, 5.7] },
    { kind: "ellipsoid", material: "turban", centre: at(0.6, 23.5, -0.5), radii: [3.9, 2.4, 3.9] },
    { kind: "ellipsoid", material: "scarf", centre: at(0, 21.6, 5.1), radii: [1.2, 1.4, 1] },
    { kind: "capsule", material: "turban", from: at(-2.6, 18.6, -4.9), to: at(-3.2, 14.8 + trailing, -5.4 - trailing * 1.6), radius: 1.3 },
  );
  for (const [k, swing] of pose.armSwing.entries()) {
    const parts = arm(k === 0 ? 1 : -1, swing, at);
    solids.push(...parts);
    const hand = parts.at(-1);
    if (k === 0 && pose.lamp && hand?.kind === "ellipsoid") solids.push(...lampUnder(hand.centre));
  }
  const eyes = [at(2.1, 17.4, 5.6), at(-1.9, 17.4, 5.6)];
  return { solids, eyes };
}

function legPoints({ thigh, knee }: Leg, x: number): { from: Vec; knee: Vec; ankle: Vec; toe: Vec } {
  const from: Vec = [x, 0, 0];
  const kneeAt: Vec = [x * 1.08, -THIGH * Math.cos(thigh), THIGH * Math.sin(thigh)];
  const shin = thigh - knee;
  const ankle: Vec = add(kneeAt, [0, -SHIN * Math.cos(shin), SHIN * Math.sin(shin)]);
  const toe: Vec = add(ankle, [x * 0.1, Math.min(0.5, Math.sin(shin) * -0.6), 2.6]);
  return { from, knee: kneeAt, ankle, toe };
}

/** A lamp that hangs from a hand: a ring, a roof, the light, and a foot. */
function lampUnder(hand: Vec): Solid[] {
  return [
    { kind: "ellipsoid", material: "leather", centre: add(hand, [0, -2, 0.4]), radii: [2, 0.9, 2] },
    { kind: "ellipsoid", material: "fire", centre: add(hand, [0, -4.2, 0.4]), radii: [2.1, 2.1, 2.1] },
    { kind: "ellipsoid", material: "leather", centre: add(hand, [0, -6.3, 0.4]), radii: [2.2, 0.9, 2.2] },
  ];
}

function arm(side: 1 | -1, swing: number, at: (x: number, y: number, z: number) => Vec): Solid[] {
  const shoulder = at(side * 5.7, 10.7, 0.2);
  const elbow = add(shoulder, [side * 1.1, -5.2 * Math.cos(swing), 5.2 * Math.sin(swing)]);
  const bend = swing + 0.35 + Math.max(0, swing) * 0.5;
  const hand = add(elbow, [side * 0.1, -4.3 * Math.cos(bend), 4.3 * Math.sin(bend)]);
  return [
    { kind: "capsule", material: "coat", from: shoulder, to: elbow, radius: 2.25 },
    {
      kind: "capsule",
      material: "coat",
      from: elbow,
      to: add(elbow, [0, (hand[1] - elbow[1]) * 0.6, (hand[2] - elbow[2]) * 0.6]),
      radius: 2,
    },
    { kind: "ellipsoid", material: "skin", centre: hand, radii: [1.65, 1.65, 1.65] },
  ];
}
