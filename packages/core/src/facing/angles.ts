/**
 * Computes directions on the screen: angles, the facing nearest to an angle, and the fallback for a missing facing.
 *
 * Angles are in degrees, clockwise on the screen from 0° = `e`, because y grows down. Facings are 45° apart in the order of `FACINGS`.
 */
import { FACINGS, FACINGS_OF, type Facing, type Ways } from "../model";

/** How far beyond the edge of its sector a direction must turn before the facing changes, in degrees. */
export const DEAD_BAND = 6;

/** The angle of a vector on the screen, 0 ≤ angle < 360; null for no direction at all. */
export function angleOf(dx: number, dy: number): number | null {
  if (dx === 0 && dy === 0) return null;
  const degrees = (Math.atan2(dy, dx) * 180) / Math.PI;
  return degrees < 0 ? degrees + 360 : degrees;
}

/** The angle at the middle of a facing's sector. */
export function angleOfFacing(facing: Facing): number {
  return FACINGS.indexOf(facing) * 45;
}

/** The least turn between two angles, 0 to 180. */
export function turnBetween(a: number, b: number): number {
  const apart = Math.abs(a - b) % 360;
  return Math.min(apart, 360 - apart);
}

/**
 * The facing of a rose with this many ways that `angle` points to. `current`, if it belongs to the rose, stays until the angle leaves its
 * sector by more than the dead band, so that a direction at a border does not make a figure jitter. At a border without a current facing,
 * the one nearer to `s` wins.
 */
export function facingToward(angle: number, ways: Ways, current: Facing | null, deadBand = DEAD_BAND): Facing {
  const rose = FACINGS_OF[ways];
  const sector = 360 / rose.length;
  if (current !== null && rose.includes(current) && turnBetween(angle, angleOfFacing(current)) <= sector / 2 + deadBand) return current;
  return rose.reduce((best, each) => {
    const nearer = turnBetween(angle, angleOfFacing(each)) - turnBetween(angle, angleOfFacing(best));
    return nearer < 0 || (nearer === 0 && fromViewer(each) < fromViewer(best)) ? each : best;
  });
}

/** How far a facing is turned away from `s`, which looks at the viewer. */
function fromViewer(facing: Facing): number {
  return turnBetween(angleOfFacing(facing), angleOfFacing("s"));
}

/**
 * All facings in the order in which they replace `wanted`: itself, then by least turn; of two equally near ones the one nearer to `s`; then
 * as in `FACINGS`. The player package uses the same order.
 */
function standIns(wanted: Facing): Facing[] {
  const turn = (facing: Facing) => turnBetween(angleOfFacing(facing), angleOfFacing(wanted));
  return [...FACINGS].sort((a, b) => turn(a) - turn(b) || fromViewer(a) - fromViewer(b) || FACINGS.indexOf(a) - FACINGS.indexOf(b));
}

/** What of `present` is shown for `wanted`; null if nothing is present. */
export function nearestPresent(wanted: Facing, present: readonly Facing[]): Facing | null {
  return standIns(wanted).find((each) => present.includes(each)) ?? null;
}

/** The facing that a picture shows when it is mirrored left to right. */
export function mirrorOf(facing: Facing): Facing {
  return FACINGS[(12 - FACINGS.indexOf(facing)) % 8] as Facing;
}

/** The next facing of a rose, in either direction. A facing outside the rose counts as the nearest one in it. */
export function turnedBy(facing: Facing, ways: Ways, by: 1 | -1): Facing {
  const rose = FACINGS_OF[ways];
  const at = rose.indexOf(nearestPresent(facing, rose) as Facing);
  return rose[(at + by + rose.length) % rose.length] as Facing;
}
