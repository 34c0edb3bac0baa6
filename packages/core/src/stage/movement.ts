/**
 * Moves a figure by one step of the world: held directions become speed, speed a new place, and solid things stop it.
 *
 * Units: px, px per second; y down. Euler's method in steps of 1/240 s: first the place from the current speed, then the speed from the
 * keys, so that a key held for a second at 60 px/s moves it by 60 px. Equal input, equal movement.
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

/** What is held now, and whether "up" was pressed at this step. */
export interface Held {
  readonly goings: ReadonlySet<Going>;
  readonly jumps: boolean;
}

/** The figure after one step: moved at its earlier speed, with the speed that its keys give it now. `body` is its colliding part. */
export function stepped(stage: Stage, moving: Moving, held: Held, body: Body): Moving {
  return stage.view === "side" ? steppedAside(stage, moving, held, body) : steppedAbove(stage, moving, held, body);
}

/** The height of a figure's feet, seen from above, in px. */
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
  // Axis by axis, so that it slides along obstacles.
  const { area } = body;
  // Only its feet collide: its head may pass in front of a wall.
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

/** A speed approaching another, by at most this much per second; at once if the rate is 0. */
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
