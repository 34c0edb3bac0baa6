/**
 * How a figure moves in one step of the world: held ways to go become speed, speed a new place, and what is solid stops it.
 *
 * Units: px, px a second; y down. Euler's method in steps of 1/240 s: first the place by the speed that it had, then the speed by its keys, so that a
 * key held for a second at 60 px/s moves it by 60 px. Equal input, equal movement.
 */

import { angleOf, facingToward } from "../facing";
import type { Facing, FramePoint, Going, Stage } from "../model";
import { type Body, feetOf, lowestBetween, meet, moved } from "./body";

/** Steps of the world in a second. */
export const STEPS_A_SECOND = 240;
const DT = 1 / STEPS_A_SECOND;

export interface Moving {
  /** Of the figure's origin. */
  readonly x: number;
  readonly y: number;
  readonly vx: number;
  readonly vy: number;
  readonly facing: Facing;
  /** Whether it stands on something. Seen from above it always does. */
  readonly grounded: boolean;
}

/** What is held now, and whether going up began at this step. */
export interface Held {
  readonly goings: ReadonlySet<Going>;
  readonly jumps: boolean;
}

/**
 * The figure after one step: it has gone on at the speed that it had, and has the speed that its keys give it now. `body` is what of it collides.
 */
export function stepped(stage: Stage, moving: Moving, held: Held, body: Body): Moving {
  return stage.view === "side" ? steppedAside(stage, moving, held, body) : steppedAbove(stage, moving, held, body);
}

/** How much of a figure counts as its feet, seen from above, in px. */
const FEET = 6;

/** How far apart still counts as touching, in px: what rounding leaves over. */
const TOUCH = 1e-6;

function steppedAside({ movement, world, platforms, ground }: Stage, before: Moving, { goings, jumps }: Held, body: Body): Moving {
  const { area } = body;
  const x = within(before.x + before.vx * DT, -area.x, world.w - area.x - area.w);
  // The lowest that its origin can be: on the ground, or on a platform that it was above. A platform is passed from below.
  let floor = ground - area.y - area.h;
  for (const each of platforms) {
    const over = (at: number) => lowestBetween(body, each.x - at, each.x + each.w - at);
    const low = over(x);
    if (low !== null && before.y + (over(before.x) ?? low) <= each.y + TOUCH) floor = Math.min(floor, each.y - low);
  }
  const fallen = before.y + before.vy * DT;
  const grounded = before.vy >= 0 && fallen >= floor - TOUCH;
  const want = Number(goings.has("right")) - Number(goings.has("left"));
  const rises = jumps && grounded && movement.jump > 0;
  const vy = rises ? -Math.sqrt(2 * movement.gravity * movement.jump) : grounded ? 0 : before.vy + movement.gravity * DT;
  return {
    x,
    y: grounded ? floor : fallen,
    vx: toward(before.vx, want * movement.speed, want === 0 ? movement.stop : movement.start),
    vy,
    facing: want === 0 ? before.facing : want > 0 ? "e" : "w",
    grounded: grounded && !rises,
  };
}

function steppedAbove({ movement, world, platforms, ground }: Stage, before: Moving, { goings }: Held, body: Body): Moving {
  let { x, y } = before;
  // Way by way, so that it slides along what stops it.
  const { area } = body;
  // Only where the figure stands is stopped: its head may pass before a wall.
  const feet = feetOf(body, FEET);
  const free = (at: FramePoint) => !platforms.some((each) => meet(moved(feet, at), each));
  const nextX = within(x + before.vx * DT, -area.x, world.w - area.x - area.w);
  if (free({ x: nextX, y }) || !free({ x, y })) x = nextX;
  const nextY = within(y + before.vy * DT, ground - area.y - area.h, world.h - area.y - area.h);
  if (free({ x, y: nextY }) || !free({ x, y })) y = nextY;
  // What has been stopped has no speed left that way.
  const stopped = { ...before, vx: x === before.x ? 0 : before.vx, vy: y === before.y ? 0 : before.vy };
  const dx = Number(goings.has("right")) - Number(goings.has("left"));
  const dy = Number(goings.has("down")) - Number(goings.has("up"));
  const long = Math.hypot(dx, dy) || 1;
  const rate = dx === 0 && dy === 0 ? movement.stop : movement.start;
  const [vx, vy] = vectorToward(stopped, (dx / long) * movement.speed, (dy / long) * movement.speed, rate);
  const angle = angleOf(dx, dy);
  return { x, y, vx, vy, facing: angle === null ? before.facing : facingToward(angle, 8, before.facing), grounded: true };
}

/** A speed on its way to another, at most so much faster or slower a second; at once where the rate is 0. */
function toward(now: number, wanted: number, rate: number): number {
  if (rate === 0) return wanted;
  const most = rate * DT;
  return now < wanted ? Math.min(wanted, now + most) : Math.max(wanted, now - most);
}

function vectorToward({ vx, vy }: Moving, x: number, y: number, rate: number): [number, number] {
  const apart = Math.hypot(x - vx, y - vy);
  const most = rate * DT;
  if (rate === 0 || apart <= most) return [x, y];
  return [vx + ((x - vx) / apart) * most, vy + ((y - vy) / apart) * most];
}

function within(value: number, least: number, most: number): number {
  return Math.max(least, Math.min(most, value));
}
