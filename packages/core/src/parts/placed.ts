/**
 * Computes where parts stand and what they show, for the studio, deliveries and the player package. The package ships this code as is, so
 * it has no dependencies.
 *
 * Offsets lead from the host's origin to the guest's, in pixels: (host point − host origin) − (guest point − guest origin), each difference
 * negated if that sprite is mirrored. A guest may be a host itself; circular attachments are left out.
 *
 * If the host's point has an angle, the guest is rotated about its own point until that point's angle (default: to the right) matches it;
 * parts of the guest rotate with it. Pictures rotate by 90° only, because nothing else preserves their pixels; a game rotates freely.
 */
import type { Facing, MarkPoint, Micros, Part, StepParts } from "../model";
import type { Timeline } from "../playback";
import { turnedBy } from "./turned";

/** A clip that shows, and the way it is drawn. */
export interface PartCast {
  readonly clip: string;
  readonly mirror: boolean;
}

/** Where parts are looked up: a document or an atlas. Frames have its names. */
export interface PartsWorld {
  /** The lowest first. */
  readonly parts: readonly Part[];
  /** Whether guests are turned to the nearest quarter turn only, as pictures are. */
  readonly quarters?: boolean;
  /** Whether an action shows a clip in some facing. */
  shows(action: string, clip: string): boolean;
  /** What a name plays in a facing: an action's clip, or else the clip of that name, mirrored like its host. Null if there is nothing. */
  cast(play: string, facing: Facing, mirror: boolean): PartCast | null;
  timeline(clip: string): Timeline;
  step(clip: string, index: number): { readonly frame: string; readonly parts?: StepParts | undefined } | undefined;
  point(frame: string, name: string): MarkPoint | null;
  origin(frame: string): Pick<MarkPoint, "x" | "y">;
}

/** What shows, with what hangs on it. */
export interface PartHost extends PartCast {
  readonly facing: Facing;
  readonly step: number;
  /** The time in its clip, and how long it has played; they differ if it began in the middle. */
  readonly time: Micros;
  readonly since: Micros;
}

/** A part to draw. */
export interface PlacedPart {
  readonly name: string;
  readonly frame: string;
  readonly mirror: boolean;
  /** From the host's origin to the guest's, in pixels. */
  readonly x: number;
  readonly y: number;
  /** Over the host, or under it. */
  readonly front: boolean;
  /** Degrees of rotation about its origin, clockwise on the screen, applied after mirroring, from 0 up to 360; absent for none. */
  readonly angle?: number;
}

/** Parts in the order in which they are drawn: those that are not in front, then, over the host, the others. Cost: O(parts) for each that hangs. */
export function placedParts(world: PartsWorld, host: PartHost): PlacedPart[] {
  return hanging(world, host, []);
}

function hanging(world: PartsWorld, host: PartHost, above: readonly Part[]): PlacedPart[] {
  const own = world.step(host.clip, host.step);
  if (!own) return [];
  const under: PlacedPart[] = [];
  const over: PlacedPart[] = [];
  for (const part of world.parts) {
    if (part.host !== host.clip && !world.shows(part.host, host.clip)) continue;
    const told = own.parts && Object.hasOwn(own.parts, part.name) ? own.parts[part.name] : undefined;
    if (told?.hidden || above.includes(part)) continue;
    const cast = world.cast(part.guest, host.facing, host.mirror);
    const at = world.point(own.frame, part.at);
    if (!cast || !at) continue;
    const time = part.time === "own" ? host.since : host.time;
    const { step, visible } = world.timeline(cast.clip).shownAt(time);
    const frame = visible ? world.step(cast.clip, step)?.frame : undefined;
    if (frame === undefined) continue;
    const origin = world.origin(frame);
    const by: MarkPoint | null = part.by === undefined ? origin : world.point(frame, part.by);
    if (!by) continue;
    const from = world.origin(own.frame);
    const angle = at.angle === undefined ? 0 : turnOf(seenAngle(at.angle, host.mirror) - seenAngle(by.angle ?? 0, cast.mirror), world);
    const reach = turnedBy({ x: cast.mirror ? origin.x - by.x : by.x - origin.x, y: by.y - origin.y }, angle);
    const x = (host.mirror ? from.x - at.x : at.x - from.x) - reach.x;
    const y = at.y - from.y - reach.y;
    const front = told?.front ?? part.front;
    const placed = plain({ name: part.name, frame, mirror: cast.mirror, x, y, front, angle });
    const guest = { ...cast, facing: host.facing, step, time, since: time };
    const further = hanging(world, guest, [...above, part]).map((each) => {
      const out = turnedBy(each, angle);
      return { ...each, x: x + out.x, y: y + out.y, angle: ((each.angle ?? 0) + angle) % 360, under: !each.front, front };
    });
    const list = front ? over : under;
    list.push(...further.filter((each) => each.under).map(plain), placed, ...further.filter((each) => !each.under).map(plain));
  }
  return [...under, ...over];
}

/** Which way an angle of a frame points on the screen. */
function seenAngle(angle: number, mirror: boolean): number {
  return mirror ? 180 - angle : angle;
}

/** A rotation normalised to 0 up to 360 degrees. */
function turnOf(turn: number, { quarters }: PartsWorld): number {
  const kept = quarters ? Math.round(turn / 90) * 90 : turn;
  return ((kept % 360) + 360) % 360;
}

function plain({ name, frame, mirror, x, y, front, angle }: PlacedPart): PlacedPart {
  return { name, frame, mirror, x, y, front, ...(angle ? { angle } : {}) };
}
