/** A lamp on a chain that swings: a part, fastened to the porter's hand by its ring. */
import { addClip, addMarkKind, attachPart, putPoint, setStepDurations } from "@caravan/core/edit";
import {
  type ClipName,
  type FrameRef,
  findFrame,
  keptRefs,
  type MarkName,
  type PlacedFrame,
  type Project,
  type Source,
} from "@caravan/core/model";
import { clearPixels, type Pixels } from "@caravan/core/raster";
import { dot, sheetOf } from "./canvas";
import { INK, RAMPS } from "./palette";

export const LAMP_SIZE = { w: 24, h: 24 };
const SWING = 8;
/** The ring's position: all of the lamp turns about it. */
const RING = { x: 12, y: 2 };

/** From the ring down: half the width of each row, and its colours from the middle outward. */
const ROWS: readonly (readonly [half: number, ...tones: string[]])[] = [
  [0, RAMPS.leather[3]],
  [0, RAMPS.leather[2]],
  [0, RAMPS.leather[3]],
  [1, RAMPS.leather[3], RAMPS.leather[1]],
  [2, RAMPS.leather[4], RAMPS.leather[2], RAMPS.leather[1]],
  [2, RAMPS.fire[3], RAMPS.fire[2], INK],
  [2, RAMPS.fire[4], RAMPS.fire[3], INK],
  [2, RAMPS.fire[4], RAMPS.fire[3], INK],
  [2, RAMPS.fire[3], RAMPS.fire[2], INK],
  [2, RAMPS.leather[3], RAMPS.leather[1], RAMPS.leather[0]],
  [1, RAMPS.leather[1], RAMPS.leather[0]],
];

export function swingingLamp(): Pixels {
  const frames = Array.from({ length: SWING }, (_, k) => {
    const lean = Math.sin((2 * Math.PI * k) / SWING) * 0.3;
    const pixels = clearPixels(LAMP_SIZE.w, LAMP_SIZE.h);
    for (const [down, [half, ...tones]] of ROWS.entries()) {
      // What hangs lower swings further.
      const middle = RING.x + Math.round(lean * down);
      for (let x = -half; x <= half; x++) dot(pixels, middle + x, RING.y + down, tones[Math.abs(x)] as string);
    }
    return pixels;
  });
  return sheetOf(frames, SWING);
}

const SKIN = new Set<string>(RAMPS.skin);

/** The middle of the hand at the right of a frame: skin below the shoulders. */
function handIn({ width, bytes }: Pixels, { frame: { rect } }: PlacedFrame): { x: number; y: number } {
  let [count, across, down] = [0, 0, 0];
  for (let y = 26; y < 38; y++)
    for (let x = 22; x < rect.w; x++) {
      const at = ((rect.y + y) * width + rect.x + x) * 4;
      const hex = `#${[0, 1, 2].map((k) => (bytes[at + k] as number).toString(16).padStart(2, "0")).join("")}`;
      if (bytes[at + 3] === 0 || !SKIN.has(hex)) continue;
      count++;
      across += x + 0.5;
      down += y + 0.5;
    }
  return count === 0 ? { x: 28, y: 30 } : { x: Math.round(across / count), y: Math.round(down / count) };
}

/** The porter holds it when he halts; it keeps swinging by its own time. `sheets` are the porter's, by source name. */
export function withHandLamp(start: Project, sheets: ReadonlyMap<string, Pixels>): Project {
  const named = (name: string) => name as MarkName;
  const lamp = start.sources.find(({ name }) => name === "hand-lamp") as Source;
  const refs = keptRefs(lamp);
  let project = addMarkKind(addMarkKind(start, "point", "hand"), "point", "ring");
  project = addClip(project, refs, "lamp-swing");
  project = setStepDurations(project, "lamp-swing" as ClipName, [...refs.keys()], 110_000);
  project = putPoint(project, "the lamp", refs, named("ring"), refs[0] as FrameRef, { x: RING.x + 0.5, y: RING.y });
  const halt = project.clips.find(({ name }) => name === "halt");
  for (const ref of new Set(halt?.steps.map(({ frame }) => frame))) {
    const placed = findFrame(project, ref) as PlacedFrame;
    project = putPoint(project, "halt", [ref], named("hand"), ref, handIn(sheets.get(placed.source.name) as Pixels, placed));
  }
  return attachPart(project, {
    ...{ name: "lamp", host: "halt", guest: "lamp-swing", at: named("hand"), by: named("ring") },
    ...{ time: "own", front: true },
  });
}
