import { sha256Hex, utf8 } from "../codec";
import type { ArrivedClip } from "../edit";
import type { NewFrame } from "../frame-identity";
import type { ReadFrame, Understood } from "../metadata";
import { type Cut, type FrameMarks, LONGEST_STEP, type Micros, microsFromMs, type Reading, USUAL_STEP } from "../model";
import { t } from "../words";
import { fileOf } from "./drop-contents";
import { shortList } from "./proposal";

/**
 * Converts the description of a picture in a metadata file, named `file`, to frames of a source and clips that refer to them. Clips of one
 * name on several pictures of the file have one `ref`.
 */
export function framesAndClips(
  { frames, clips }: Pick<Understood, "frames" | "clips">,
  file: string,
): { told: NewFrame[]; clips: (ArrivedClip & { readonly ref: string })[] } {
  const places = new Map(frames.map(({ name }, k) => [name, k]));
  const rows = new Map<string, number>();
  const told = frames.map((frame, k): NewFrame => {
    const { name, rect, turned, inset, size, origin, boxes = {}, points = {} } = frame;
    const upright = turned ? { w: rect.h, h: rect.w } : { w: rect.w, h: rect.h };
    const padded = size.w !== upright.w || size.h !== upright.h;
    // Frames whose names differ only in a number form a row.
    const group = name.replace(/\.[A-Za-z]{3,4}$/, "").replace(/\d+$/, "");
    if (!rows.has(group)) rows.set(group, rows.size);
    return {
      key: `m${k}`,
      column: k,
      row: rows.get(group) as number,
      number: k,
      rect,
      empty: false,
      name: name.replace(/\.(png|gif|webp)$/i, ""),
      ...(turned ? { turned } : {}),
      ...(padded ? { size, inset } : {}),
      ...(origin ? { origin } : {}),
      ...marksOf(boxes, points),
    };
  });
  return {
    told,
    clips: clips.map(({ name: called, facing, playback, times, steps }) => {
      const name = facing === null ? called : `${called}-${facing}`;
      return {
        name,
        ref: refOf(file, name),
        file,
        playback,
        times,
        steps: steps.flatMap(({ frame, ms, place, events }) => {
          const index = places.get(frame);
          return index === undefined ? [] : [{ frame: index, duration: fitDuration(ms), place, ...(events ? { events } : {}) }];
        }),
      };
    }),
  };
}

/** What a file's clip is called within a drop. */
export function refOf(file: string, name: string): string {
  return `${file}\n${name}`;
}

/** A file's time of a step as a project can have it; none, or one that rounds to nothing, is the usual time. */
export function fitDuration(ms: number | null): Micros {
  return Math.min(LONGEST_STEP, microsFromMs(ms ?? 0)) || USUAL_STEP;
}

/** Steps that are longer in the file than a step can be, in words; none mostly. */
export function tooLongInWords({ clips }: Pick<Understood, "clips">): string[] {
  const long = clips.filter(({ steps }) => steps.some(({ ms }) => ms !== null && microsFromMs(ms) > LONGEST_STEP)).map(({ name }) => name);
  return long.length === 0 ? [] : [t("Steps of more than an hour are taken as an hour long, in {clips}.", { clips: shortList(long) })];
}

function marksOf(boxes: ReadFrame["boxes"], points: ReadFrame["points"]): Pick<NewFrame, "marks"> {
  const marks = {
    ...(Object.keys(boxes).length > 0 ? { boxes } : {}),
    ...(Object.keys(points).length > 0 ? { points } : {}),
  };
  // Names are made valid, and kinds are created, on import into a project.
  return Object.keys(marks).length > 0 ? { marks: marks as FrameMarks } : {};
}

/** How a source is cut by a metadata file: with what it said, to notice when it says something else. */
export function cutByFile(path: string, text: string, reading: Reading): Extract<Cut, { by: "metadata" }> {
  return { by: "metadata", file: fileOf(path), sha256: sha256Hex(utf8(text)), reading };
}

/** The names of all boxes and points in a file. */
export function marksInWords({ frames }: Pick<Understood, "frames">): string {
  const names = new Set(frames.flatMap(({ boxes = {}, points = {} }) => [...Object.keys(boxes), ...Object.keys(points)]));
  return names.size === 0
    ? ""
    : names.size > 6
      ? t(", with {kinds}, … marked on them", { kinds: [...names].slice(0, 6).join(", ") })
      : t(", with {kinds} marked on them", { kinds: [...names].slice(0, 6).join(", ") });
}
