/** Common words for fields, for identifying what they mean. Fields with unknown names are identified by geometry. */

/** Words to which a side is glued where people write small letters only. */
const GLUED = /^(pivot|origin|anchor|hotspot|cent(?:er|re)|offset|inset|trim|source|orig|full|frame)([xywh])$/i;

/** One letter for what it is of: `ow`, `oh` are the width and height of something. */
const INITIAL = /^([a-z])([xywh])$/;

/** `tilewidth`, `origheight`. */
const LONG = /^(.{2,})(width|height|wide|high|left|right|top|bottom)$/i;

/** The number of split names to cache: a file has few, but every tried reading asks for each. */
const MOST_KEPT = 4000;
const partedNames = new Map<string, readonly string[]>();

/** `frameWidth` and `frame_width` -> frame, width; `xPos2` -> x, pos, 2; `originx` -> origin, x. */
export function wordsOf(name: string): readonly string[] {
  const known = partedNames.get(name);
  if (known) return known;
  if (partedNames.size >= MOST_KEPT) partedNames.clear();
  const words = parted(name);
  partedNames.set(name, words);
  return words;
}

function parted(name: string): string[] {
  return name
    .replace(/([a-z0-9])([A-Z])/g, "$1 $2")
    .replace(/([A-Z]+)([A-Z][a-z])/g, "$1 $2")
    .split(/[^\p{L}\p{N}]+/u)
    .flatMap((part) => part.split(/(?<=\p{L})(?=\d)/u))
    .flatMap((part) => GLUED.exec(part)?.slice(1) ?? INITIAL.exec(part)?.slice(1) ?? LONG.exec(part)?.slice(1) ?? [part])
    .map((word) => word.toLowerCase())
    .filter((word) => word !== "");
}

const SIDES = {
  x: ["x", "left", "l", "x0", "xmin", "minx", "xpos", "posx", "startx", "x1", "u", "u0", "u1", "umin", "minu", "cx"],
  y: ["y", "top", "t", "y0", "ymin", "miny", "ypos", "posy", "starty", "y1", "v", "v0", "v1", "vmin", "minv", "cy"],
  w: ["w", "width", "wide", "sizex", "dx"],
  h: ["h", "height", "high", "sizey", "dy"],
  right: ["right", "r", "x2", "xmax", "maxx", "endx", "u2", "umax", "maxu"],
  bottom: ["bottom", "b", "y2", "ymax", "maxy", "endy", "v2", "vmax", "maxv"],
  column: ["column", "col", "tilex", "cellx", "gridx"],
  row: ["row", "line", "tiley", "celly", "gridy"],
} as const;
export type Side = keyof typeof SIDES;

export interface NamedSide {
  readonly side: Side;
  /** Its prefix: the path of its record and the words before it, `frame.` or `source size`. */
  readonly stem: string;
}

const namedSides = new Map<string, NamedSide | null>();

/** Which side of a rectangle a field names by its last words, if it names one. */
export function sideOf(path: string): NamedSide | null {
  const known = namedSides.get(path);
  if (known !== undefined) return known;
  if (namedSides.size >= MOST_KEPT) namedSides.clear();
  const side = sideNamed(path);
  namedSides.set(path, side);
  return side;
}

function sideNamed(path: string): NamedSide | null {
  const dot = path.lastIndexOf(".");
  const parent = path.slice(0, dot + 1);
  const words = wordsOf(path.slice(dot + 1));
  for (let count = Math.min(2, words.length); count >= 1; count--) {
    const last = words.slice(-count).join("");
    for (const side of Object.keys(SIDES) as Side[])
      if ((SIDES[side] as readonly string[]).includes(last)) return { side, stem: (parent + words.slice(0, -count).join(" ")).trim() };
  }
  return null;
}

/** Whether any word of a path is among these. */
export function says(path: string, words: readonly string[]): boolean {
  const found = wordsOf(path);
  return words.some((word) => (word.endsWith("*") ? found.some((each) => each.startsWith(word.slice(0, -1))) : found.includes(word)));
}

/** The last name of a path; places in lists are none. */
export function lastPart(path: string): string {
  return (
    path
      .split(".")
      .filter((part) => !/^\d+$/.test(part))
      .pop() ?? path
  );
}

/** Whether numbers called a speed can be frames a second: shares of a second are times, and so are hundreds. */
export function isRate(values: readonly number[]): boolean {
  return values.length === 0 || (values.some((value) => value >= 1) && values.every((value) => value <= 240));
}

/** Seconds are small fractions, milliseconds large whole numbers; a field named fps is no duration. */
export function unitOfTimes(values: readonly number[], path: string): "ms" | "seconds" | "fps" | "ticks" {
  const words = wordsOf(lastPart(path));
  if (words.some((word) => ["fps", "framerate", "hz"].includes(word)) || (says(path, ["rate", "speed"]) && isRate(values))) return "fps";
  if (words.some((word) => ["ms", "msec", "millis", "milliseconds"].includes(word))) return "ms";
  if (words.some((word) => ["tick", "ticks", "jiffies", "vblank", "vblanks"].includes(word))) return "ticks";
  if (words.some((word) => ["s", "sec", "secs", "seconds"].includes(word))) return "seconds";
  return values.length > 0 && values.every((value) => value <= 5) ? "seconds" : "ms";
}

export const NAME_WORDS = ["name", "filename", "file", "id", "key", "label", "title", "sprite", "frame", "n"];
export const TURNED_WORDS = ["rotated", "rotate", "rotation", "turned", "rot", "rotat*", "turn*"];
export const FULL_WORDS = ["source", "orig", "original", "real", "full", "untrimmed", "whole", "canvas", "logical", "o"];
export const INSET_WORDS = ["offset", "off", "trim", "trimmed", "inset", "padding", "source", "delta", "shift", "margin"];
export const ORIGIN_WORDS = [
  "pivot",
  "origin",
  "anchor",
  "hotspot",
  "hot",
  "center",
  "centre",
  "registration",
  "foot",
  "feet",
  "p",
  "stand*",
];
export const TIME_WORDS = ["duration", "ms", "time", "delay", "length", "hold", "msec", "millis", "seconds", "sec", "dur", "interval"];
export const PICTURE_WORDS = ["image", "texture", "file", "sheet", "page", "src", "picture", "atlas", "png", "bitmap", "source"];
export const CLIP_WORDS = ["anim*", "clip", "action", "sequence", "movement", "tag", "state", "motion", "group"];
export const FACING_WORDS = ["direction", "dir", "facing", "angle", "heading", "way"];
export const CELL_WORDS = ["cell", "cells", "tile", "tiles", "frame", "frames", "sprite", "sprites", "grid", "block", "size", "unit"];
export const INDEX_WORDS = ["index", "idx", "number", "nr", "no", "tile", "cell", "frame", "id"];
export const FPS_WORDS = ["fps", "rate", "framerate", "hz", "speed"];
export const TOTAL_WORDS = ["total", "length", "whole", "overall"];
export const LOOP_WORDS = ["loop*", "repeat*", "playback", "mode", "cycle", "yoyo", "wrap", "type", "play", "direction"];
export const TIMES_WORDS = ["times", "passes", "iterations", "repeats", "count", "repeat"];
export const FIRST_WORDS = ["first", "from", "start", "begin", "startframe", "offset"];
export const LAST_WORDS = ["last", "to", "end", "until", "endframe", "stop"];
export const COUNT_WORDS = ["count", "frames", "length", "num", "n", "size", "framecount", "amount"];
export const PREFIX_WORDS = ["prefix", "pattern", "base", "match", "glob", "frames", "stem", "beginning"];
export const PINGPONG_WORDS = ["pingpong", "ping", "yoyo", "alternate", "bounce", "boomerang"];
export const EVENT_WORDS = ["event*", "signal*", "cue*", "fires", "notif*", "emit*", "sound*", "callback*"];
export const REVERSED_WORDS = ["reverse", "reversed", "backward", "backwards"];
export const ROW_WORDS = ["row", "line", "y"];
