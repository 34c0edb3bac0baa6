/**
 * How a figure moves in one step of the world: held ways to go become speed, speed a new place, and what is solid stops it.
 *
 * Units: px, px a second; y down. Semi-implicit Euler in steps of 1/240 s: speed first, then place by the new speed. Equal input, equal movement.
 */

import { angleOf, facingToward } from "../facing";
import type { Area, Facing, FramePoint, Going, Stage } from "../model";
import { meet, moved } from "./figure";

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

/** The figure after one step. `body` is what of it collides, around its origin. */
export function stepped(stage: Stage, moving: Moving, held: Held, body: Area): Moving {
  return stage.view === "side" ? steppedAside(stage, moving, held, body) : steppedAbove(stage, moving, held, body);
}

function steppedAside({ movement, world, platforms, ground }: Stage, before: Moving, { goings, jumps }: Held, body: Area): Moving {
  const want = Number(goings.has("right")) - Number(goings.has("left"));
  const vx = toward(before.vx, want * movement.speed, want === 0 ? movement.stop : movement.start);
  const rises = jumps && before.grounded && movement.jump > 0;
  let vy = (rises ? -Math.sqrt(2 * movement.gravity * movement.jump) : before.vy) + movement.gravity * DT;
  const facing: Facing = want === 0 ? before.facing : want > 0 ? "e" : "w";
  const across = { x: within(before.x + vx * DT, -body.x, world.w - body.x - body.w), y: before.y };
  // A platform is stood on, and passed from below.
  const feet = (at: FramePoint) => at.y + body.y + body.h;
  const next = { x: across.x, y: before.y + vy * DT };
  let floor = ground;
  for (const each of platforms)
    if (across.x + body.x < each.x + each.w && across.x + body.x + body.w > each.x && feet(before) <= each.y + TOUCH)
      floor = Math.min(floor, each.y);
  const grounded = vy >= 0 && feet(next) >= floor - TOUCH;
  if (grounded) {
    next.y = floor - body.y - body.h;
    vy = 0;
  }
  return { x: next.x, y: next.y, vx: across.x === before.x && want === 0 ? 0 : vx, vy, facing, grounded };
}

/** How far apart still counts as touching, in px: what rounding leaves over. */
const TOUCH = 1e-6;

function steppedAbove({ movement, world, platforms, ground }: Stage, before: Moving, { goings }: Held, body: Area): Moving {
  const dx = Number(goings.has("right")) - Number(goings.has("left"));
  const dy = Number(goings.has("down")) - Number(goings.has("up"));
  const long = Math.hypot(dx, dy) || 1;
  const rate = dx === 0 && dy === 0 ? movement.stop : movement.start;
  const [vx, vy] = vectorToward(before, (dx / long) * movement.speed, (dy / long) * movement.speed, rate);
  const angle = angleOf(dx, dy);
  const facing = angle === null ? before.facing : facingToward(angle, 8, before.facing);
  let { x, y } = before;
  // Way by way, so that it slides along what stops it.
  const free = (at: FramePoint) => !platforms.some((each) => meet(moved(feetOf(body), at), each));
  const nextX = within(x + vx * DT, -body.x, world.w - body.x - body.w);
  if (free({ x: nextX, y }) || !free({ x, y })) x = nextX;
  const nextY = within(y + vy * DT, ground - body.y - body.h, world.h - body.y - body.h);
  if (free({ x, y: nextY }) || !free({ x, y })) y = nextY;
  return { x, y, vx: x === before.x ? 0 : vx, vy: y === before.y ? 0 : vy, facing, grounded: true };
}

/** Seen from above, only where the figure stands is stopped: its head may pass before a wall. */
function feetOf({ x, y, w, h }: Area): Area {
  const tall = Math.min(h, 6);
  return { x, y: y + h - tall, w, h: tall };
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
