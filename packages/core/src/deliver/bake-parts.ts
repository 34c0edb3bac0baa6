/**
 * Draws parts into frames, for games and films that draw one picture at a time.
 *
 * Each clip is played once in the order of its steps, with its guests starting together. If a guest changes its frame within a step of the
 * host, the step is split there. No time is lost: the pieces of a step last as long as the step.
 */

import { layered } from "../assemble";
import type { AtlasClip } from "../atlas";
import type { DeliveredLayer } from "../delivery-plan";
import { facingOfClip, partsOfProject, shiftedMarks } from "../marks";
import { type Clip, type Facing, type FrameRef, type Micros, msFromMicros, type Project } from "../model";
import { type PartHost, type PartsWorld, type PlacedPart, placedParts, placeTurned } from "../parts";
import { clearPixels, mirrored, type Pixels, paste, turnClockwise } from "../raster";
import type { Contents, FrameToDeliver } from "./contents";
import { pixelsOn } from "./frame-layers";

/** A frame of the project as delivered, null if it is missing. */
type FrameOf = (ref: FrameRef) => FrameToDeliver | null;

/** `chosen` has the clips of the contents, in order; guests are looked up in the `whole`. Each pair of frames is drawn once. */
export function withPartsBaked(contents: Contents, chosen: Project, whole: Project, frameOf: FrameOf): Contents {
  const world = partsOfProject(whole);
  const baked = new Map<string, FrameToDeliver>();
  const taken = new Set(contents.frames.map(({ name }) => name));
  const known = new Map<FrameRef, FrameToDeliver | null>();
  const drawn = (ref: string): FrameToDeliver | null => {
    if (!known.has(ref as FrameRef)) known.set(ref as FrameRef, frameOf(ref as FrameRef));
    return known.get(ref as FrameRef) ?? null;
  };
  const byName = new Map(contents.frames.map((frame) => [frame.name, frame]));
  const bake = (host: FrameToDeliver, placed: readonly PlacedPart[]): string => {
    if (placed.length === 0) return host.name;
    const key = JSON.stringify([host.name, placed]);
    const before = baked.get(key);
    if (before) return before.name;
    const wanted = [host.name, ...new Set(placed.map(({ name }) => name))].join("+");
    let name = wanted;
    for (let k = 2; taken.has(name); k++) name = `${wanted}-${k}`;
    taken.add(name);
    baked.set(key, { ...together(host, placed, drawn, contents.layers), name });
    return name;
  };
  const clips = contents.clips.map(([name, clip], k): [string, AtlasClip] => {
    const own = chosen.clips[k] as Clip;
    return [
      name,
      bakedClip(clip, own, world, facingOfClip(whole, own), (frame, placed) => bake(byName.get(frame) as FrameToDeliver, placed)),
    ];
  });
  return { ...contents, clips, frames: [...contents.frames, ...baked.values()] };
}

type Bake = (frame: string, placed: readonly PlacedPart[]) => string;

function bakedClip(clip: AtlasClip, own: Clip, world: PartsWorld, facing: Facing, bake: Bake): AtlasClip {
  if (!world.parts.some(({ host }) => host === own.name || world.shows(host, own.name))) return clip;
  const changes = changesWithin(own, world, facing);
  const steps: AtlasClip["steps"] = [];
  let loopFrom = clip.loopFrom;
  let start: Micros = 0;
  for (const [k, step] of clip.steps.entries()) {
    const { duration } = own.steps[k] as Clip["steps"][number];
    if (k === clip.loopFrom) loopFrom = steps.length;
    const { parts: _parts, ...plain } = step;
    const times = [start, ...changes.filter((at) => at > start && at < start + duration), start + duration];
    let since = steps.length;
    for (const [n, at] of times.slice(0, -1).entries()) {
      const host: PartHost = { clip: own.name, mirror: false, facing, step: k, time: at, since: at };
      const frame = bake(step.frame, placedParts(world, host));
      const ms = msFromMicros((times[n + 1] as Micros) - at);
      const last = steps[steps.length - 1];
      if (last && steps.length > since && last.frame === frame) last.ms = Math.round((last.ms + ms) * 1000) / 1000;
      else if (n === 0) steps.push({ ...plain, frame, ms });
      else steps.push({ frame, ms });
      if (n === 0) since = steps.length - 1;
    }
    start += duration;
  }
  return { ...clip, steps, loopFrom };
}

/** The times at which any guest on a clip, or a guest of such a guest, changes its step, while the clip plays once. */
function changesWithin(own: Clip, world: PartsWorld, facing: Facing): Micros[] {
  const total = own.steps.reduce((sum, { duration }) => sum + duration, 0);
  const seen = new Set<string>([own.name]);
  const clips = [own.name as string];
  const times = new Set<Micros>();
  for (let clip = clips.pop(); clip !== undefined; clip = clips.pop())
    for (const { host, guest } of world.parts) {
      if (host !== clip && !world.shows(host, clip)) continue;
      const cast = world.cast(guest, facing, false);
      if (!cast || seen.has(cast.clip)) continue;
      seen.add(cast.clip);
      clips.push(cast.clip);
      const timeline = world.timeline(cast.clip);
      for (const { at } of timeline.entries(-1, total)) times.add(at);
      if (timeline.end < total) times.add(timeline.end);
    }
  return [...times].toSorted((a, b) => a - b);
}

/** By whole quarters, clockwise. */
function turnedPixels(pixels: Pixels, angle: number): Pixels {
  let turned = pixels;
  for (let quarters = angle / 90; quarters > 0; quarters--) turned = turnClockwise(turned);
  return turned;
}

/** A host with its parts drawn in, layer by layer, on a canvas large enough for all. */
function together(
  host: FrameToDeliver,
  placed: readonly PlacedPart[],
  drawn: (ref: string) => FrameToDeliver | null,
  layers: readonly DeliveredLayer[],
): FrameToDeliver {
  const guests = placed.flatMap(({ frame: ref, mirror, x, y, front, angle = 0 }) => {
    const frame = drawn(ref);
    if (!frame) return [];
    const { size, origin } = placeTurned({ size: frame.rect, origin: frame.origin }, mirror, angle);
    return [
      { frame, mirror, angle, front, size, left: Math.round(host.origin.x + x - origin.x), top: Math.round(host.origin.y + y - origin.y) },
    ];
  });
  const all = [
    ...guests.filter(({ front }) => !front),
    { frame: host, mirror: false, angle: 0, size: host.rect, left: 0, top: 0 },
    ...guests.filter(({ front }) => front),
  ];
  const [left, top] = [Math.min(...all.map((each) => each.left)), Math.min(...all.map((each) => each.top))];
  const w = Math.max(...all.map((each) => each.left + each.size.w)) - left;
  const h = Math.max(...all.map((each) => each.top + each.size.h)) - top;
  const rect = { x: 0, y: 0, w, h };
  const on = (layer: number): Pixels =>
    layered(
      all.map((each) => {
        const canvas = clearPixels(w, h);
        const own = pixelsOn(each.frame, layer);
        const pixels = turnedPixels(each.mirror ? mirrored(own) : own, each.angle);
        paste(canvas, pixels, { x: 0, y: 0, w: pixels.width, h: pixels.height }, each.left - left, each.top - top);
        return { pixels: canvas, blend: layer === 0 ? ("normal" as const) : (layers[layer - 1] as DeliveredLayer).blend };
      }),
    );
  return {
    name: host.name,
    pixels: on(0),
    rect,
    ...(layers.length > 0 ? { layers: layers.map((_, k) => ({ pixels: on(k + 1), rect })) } : {}),
    origin: { x: host.origin.x - left, y: host.origin.y - top },
    marks: host.marks && shiftedMarks(host.marks, { x: -left, y: -top }),
    data: host.data,
  };
}
