/**
 * Table of the quantities that a metadata value can hold: how to compute each from a delivery, and when an existing spelling already
 * matches.
 */
import { facingOfWord } from "../facing";
import { insetOf, insetTold, millis, playbackOf, wholeShare } from "../metadata";
import { type ClipField, type Facing, type FrameField, ownOf, type Reading } from "../model";
import type { Leaf } from "../notation";
import { isTrimmed, pace, type Scope, totalOf, uprightSize } from "./facts";
import { cornerTold, edgesTold, heightOfPage, sizeTold } from "./write-rectangle";

export interface Quantity {
  /** For people. */
  readonly label: string;
  /** Which extent of a frame it is, in pixels, if it is one. */
  readonly extent?: "w" | "h";
  /** Null if there is nothing to say: the example's own value stays. */
  of(scope: Scope): Leaf;
  /** Whether a value says the same as `of`; by default whether it is equal. */
  same?(value: Leaf, wanted: Leaf, scope: Scope): boolean;
  /** What values mean that several spellings have, such as yes, true and 1. */
  means?(value: Leaf): Leaf;
}

type Unit = Reading["timeAs"];

const number = (label: string, of: (scope: Scope) => number | null | undefined, most = 1e-6): Quantity => ({
  label,
  of: (scope) => of(scope) ?? null,
  same: (value, wanted) => typeof value === "number" && typeof wanted === "number" && Math.abs(value - wanted) < most,
});

/** Like `number`, equal if reading both gives the same: an origin in half pixels, a duration in whole microseconds. */
const readAs = (
  label: string,
  of: (scope: Scope) => number | null | undefined,
  read: (value: number, scope: Scope) => number | null,
): Quantity => ({
  label,
  of: (scope) => of(scope) ?? null,
  same: (value, wanted, scope) => typeof value === "number" && typeof wanted === "number" && read(value, scope) === read(wanted, scope),
});

const text = (label: string, of: (scope: Scope) => string | null | undefined): Quantity => ({
  label,
  of: (scope) => of(scope) ?? null,
  same: (value, wanted) => String(value) === wanted,
});

const flag = (label: string, of: (scope: Scope) => boolean | null | undefined): Quantity => ({
  label,
  of: (scope) => of(scope) ?? null,
  means: (value) => value === true || (typeof value === "number" && value % 180 !== 0),
});

const halves = (value: number) => Math.round(value * 2) / 2;

function timeIn(unit: Unit, label: string, of: (scope: Scope) => number | null | undefined, tickMs?: number): Quantity {
  return readAs(
    `${label}, ${{ fps: "as frames a second", ms: "ms", seconds: "s", ticks: "in ticks" }[unit]}`,
    (scope) => {
      const ms = of(scope);
      return ms === null || ms === undefined
        ? null
        : unit === "fps"
          ? 1000 / ms
          : unit === "ticks" && tickMs !== undefined
            ? ms / tickMs
            : ms / (millis(1, unit) as number);
    },
    (value) => millis(value, unit, tickMs),
  );
}

/** Names with what the example puts before and behind all of them, such as a picture's ending. */
export function named(quantity: Quantity, suffix: string): Quantity {
  if (suffix === "") return quantity;
  return text(`${quantity.label} + ${suffix}`, (scope) => {
    const name = quantity.of(scope);
    return typeof name !== "string" ? null : name.endsWith(suffix) ? name : `${name}${suffix}`;
  });
}

const FRAME_NAME = text("name of the frame", ({ frame }) => frame?.name);
export const IMAGE = text("file name of the page", ({ frame, page }) => (frame?.page ?? page).image);
export const PAGE_WIDTH = number("width of the page", ({ frame, page }) => (frame?.page ?? page).size?.w);
export const PAGE_HEIGHT = number("height of the page", ({ frame, page }) => (frame?.page ?? page).size?.h);
export const FRAME_COUNT = number("number of frames", ({ sheet }) => sheet.frames.length);
export const SCALE = number("scale", ({ page }) => page.scale);
export const CLIP_NAME = text("name of the clip", ({ clip, frame }) => (clip ?? frame?.clip)?.name);

/** Facings in the example's own words, or else in its kind of words. */
export const FACING: Quantity = {
  label: "facing",
  of: ({ clip, frame }) => (clip ?? frame?.clip)?.facing ?? null,
  means: (value) => facingOfWord(String(value)) ?? value,
};

const SCREEN_WORDS: Record<Facing, string> = {
  e: "right",
  se: "down-right",
  s: "down",
  sw: "down-left",
  w: "left",
  nw: "up-left",
  n: "up",
  ne: "up-right",
};
const COMPASS_WORDS: Record<Facing, string> = {
  e: "east",
  se: "southeast",
  s: "south",
  sw: "southwest",
  w: "west",
  nw: "northwest",
  n: "north",
  ne: "northeast",
};

/** A facing that the example does not name, in words of its kind. */
export function facingLike(facing: Facing, seen: readonly string[]): string {
  const words = seen.map((each) => each.toLowerCase());
  if (words.some((word) => Object.values(SCREEN_WORDS).includes(word))) return SCREEN_WORDS[facing];
  if (words.some((word) => Object.values(COMPASS_WORDS).includes(word))) return COMPASS_WORDS[facing];
  return words.length > 0 && seen.every((each) => each === each.toUpperCase()) ? facing.toUpperCase() : facing;
}

export const PLAYBACK: Quantity = {
  label: "how it plays",
  of: ({ clip, frame }) => (clip ?? frame?.clip)?.playback ?? null,
  means: (value) => playbackOf(value, null).playback,
};

/**
 * The meaning of a field of a frame's record in a reading; null for fields handled elsewhere. `crossed` is whether the example has the
 * smaller number for the edge named bottom.
 */
export function frameQuantity(field: FrameField, reading: Reading, crossed = false): Quantity | null {
  const { turnedAs, originAs, originUp, timeAs, tickMs, inclusive = false, indexFrom = 0, insetAs } = reading;
  const share = originAs === "share";
  const edge = inclusive ? "last pixel" : "edge";
  /** A place or an extent along one axis of the page, by `of` in pixels. */
  const along = (label: string, axis: "w" | "h", of: (frame: Cell) => number) => alongPage(label, axis, reading, of);
  switch (field) {
    case "name":
      return FRAME_NAME;
    case "x":
      return along(reading.centred ? "middle, x" : "x", "w", (frame) => cornerTold(frame, reading).x);
    case "y":
      return along(`${reading.centred ? "middle, y" : "y"}${reading.yAs ? ", counted up" : ""}`, "h", (frame) =>
        reading.fields.bottom === undefined ? cornerTold(frame, reading).y : edgesTold(frame, reading)[crossed ? 1 : 0],
      );
    case "w":
      return along(turnedAs === "stored" ? "width, as stored" : "width", "w", (frame) => sizeTold(frame, reading).w);
    case "h":
      return along(turnedAs === "stored" ? "height, as stored" : "height", "h", (frame) => sizeTold(frame, reading).h);
    case "right":
      return along(`right ${edge}`, "w", (frame) => frame.rect.x + sizeTold(frame, reading).w - (inclusive ? 1 : 0));
    case "bottom":
      return along(`bottom ${edge}${reading.yAs ? ", counted up" : ""}`, "h", (frame) => edgesTold(frame, reading)[crossed ? 0 : 1]);
    case "column":
      return number("column", ({ frame }) => frame && frame.rect.x / frame.rect.w + indexFrom);
    case "row":
      return number("row", ({ frame }) => {
        const y = frame && (reading.yAs ? heightOfPage(frame) - frame.rect.y - frame.rect.h : frame.rect.y);
        return frame && y !== undefined ? y / frame.rect.h + indexFrom : null;
      });
    case "index":
      return number("number of the cell", ({ frame }) => frame && cellNumber(frame) + indexFrom);
    case "cellW":
      return number("width of a cell", ({ sheet }) => sheet.frames[0]?.rect.w);
    case "cellH":
      return number("height of a cell", ({ sheet }) => sheet.frames[0]?.rect.h);
    case "marginX":
    case "marginY":
    case "gapX":
    case "gapY":
      // Delivered cells are laid side by side from the corner.
      return number("space between cells", () => 0);
    case "columns":
      return number("columns", ({ sheet }) => sheet.frames[0] && columnsOf(sheet.frames[0]));
    case "turned":
      return flag("whether it is turned", ({ frame }) => frame?.turned);
    case "insetX":
      return insetAs === undefined ? number("inset, x", ({ frame }) => frame?.inset.x) : insetLike(insetAs, "x");
    case "insetY":
      return insetAs === undefined ? number("inset, y", ({ frame }) => frame?.inset.y) : insetLike(insetAs, "y");
    case "fullW":
      return number("untrimmed width", ({ frame }) => frame?.size.w);
    case "fullH":
      return number("untrimmed height", ({ frame }) => frame?.size.h);
    case "originX":
      return readAs(
        share ? "origin, x, as a fraction" : "origin, x",
        ({ frame }) => frame?.origin && (share ? frame.origin.x / frame.size.w : frame.origin.x),
        (value, { frame }) => halves(share ? value * (frame?.size.w ?? 1) : value),
      );
    case "originY":
      return readAs(
        `origin, y, ${share ? "as a fraction " : ""}counted ${originUp ? "up" : "down"}`,
        ({ frame }) => {
          if (!frame?.origin) return null;
          const y = originUp ? frame.size.h - frame.origin.y : frame.origin.y;
          return share ? y / frame.size.h : y;
        },
        (value, { frame }) => halves(share ? value * (frame?.size.h ?? 1) : value),
      );
    case "time":
      return timeIn(timeAs, "how long it shows", ({ frame, clip }) => frame?.ms ?? (clip ? pace(clip).ms : null), tickMs);
    case "total":
      return timeIn(timeAs, "how long all of it shows", ({ frame, clip }) => {
        const whole = clip ?? frame?.clip;
        return whole && totalOf(whole);
      });
    case "picture":
      return IMAGE;
    case "clip":
      return CLIP_NAME;
    case "facing":
      return FACING;
    case "loop":
      return PLAYBACK;
    case "event":
      return null;
  }
}

/** A place or an extent along one axis of the page, px or in shares of it; equal when the same pixel is read from both. */
function alongPage(label: string, axis: "w" | "h", { rectAs }: Reading, of: (frame: Cell) => number): Quantity {
  if (rectAs !== "share") return number(label, ({ frame }) => frame && of(frame));
  const length = (frame: Scope["frame"]) => frame?.page.size?.[axis] ?? 1;
  return {
    label: `${label}, as a fraction of the page`,
    of: ({ frame }) => (frame ? of(frame) / length(frame) : null),
    same: (value, wanted, { frame }) => {
      if (typeof value !== "number" || typeof wanted !== "number") return false;
      const [is, was] = [value * length(frame), wanted * length(frame)];
      return Math.abs(is - was) < HARDLY || wholeShare(is) === wholeShare(was);
    },
  };
}

/** The greatest error in pixels of a fraction: half a pixel, the centre of an odd size. */
const HARDLY = 0.05;

function insetLike(as: NonNullable<Reading["insetAs"]>, axis: "x" | "y"): Quantity {
  return readAs(
    `inset, ${axis}, ${INSET_WORDS[as]}`,
    ({ frame }) => frame && insetTold(frame.inset, uprightSize(frame), frame.size, as)[axis],
    (value, { frame }) => (frame ? insetOf(value, value, uprightSize(frame), frame.size, as)[axis] : null),
  );
}

const INSET_WORDS: Readonly<Record<NonNullable<Reading["insetAs"]>, string>> = {
  corner: "from the top left",
  negated: "with the other sign",
  bottom: "from the bottom left",
  centre: "of the middle, down",
  "centre-up": "of the middle, up",
};

/** A side of a frame's box or point of one kind; 0 if the frame has none, which is no box. */
export function markQuantity(name: string, side: "x" | "y" | "w" | "h", isBox: boolean): Quantity {
  return number(`${isBox ? "box" : "point"} ${name}, ${SIDE_WORDS[side]}`, ({ frame }) => {
    if (isBox) return ownOf(frame?.boxes, name)?.[side] ?? 0;
    return side === "x" || side === "y" ? (ownOf(frame?.points, name)?.[side] ?? 0) : null;
  });
}

const SIDE_WORDS = { x: "x", y: "y", w: "width", h: "height" };

/** An extent of a frame, px. */
const extent = (side: "w" | "h", label: string, of: (frame: Cell) => number): Quantity => ({
  ...number(label, ({ frame }) => frame && of(frame)),
  extent: side,
});

type Cell = NonNullable<Scope["frame"]>;
const columnsOf = ({ rect, page }: Cell) => Math.floor((page.size?.w ?? rect.w) / rect.w);
const cellNumber = (frame: Cell) => (frame.rect.y / frame.rect.h) * columnsOf(frame) + frame.rect.x / frame.rect.w;

/** The meaning of a field of a clip's or a step's record. `frameCalling` handles `frames` and `frame`. */
export function clipQuantity(field: ClipField, { timeAs, from, fields }: NonNullable<Reading["clips"]>): Quantity | null {
  const at = (frame: Scope["frame"]) => frame && frame.index + from;
  switch (field) {
    case "name":
      return CLIP_NAME;
    case "frames":
    case "frame":
      return null;
    case "first":
      return number("first frame", ({ clip }) => at(clip?.steps[0]?.frame));
    case "last":
      return number("last frame", ({ clip }) => at(clip?.steps.at(-1)?.frame));
    case "count":
      return number("number of steps", ({ clip }) => clip?.steps.length);
    case "row":
    case "pingpong":
    case "reversed":
    case "event":
      return null;
    case "prefix":
      return text("beginning of its frames' names", ({ clip }) => clip && prefixOf(clip));
    case "time":
      return timeIn(timeAs, "how long a step shows", ({ clip, step }) => (fields.frame === undefined ? clip && pace(clip).ms : step?.ms));
    case "fps":
      return timeIn("fps", "how long a step shows", ({ clip }) => clip && pace(clip).ms);
    case "total":
      return timeIn(timeAs, "how long all of it shows", ({ clip }) => clip && totalOf(clip));
    case "loop":
      return PLAYBACK;
    case "times":
      return number("passes", ({ clip }) => clip && (clip.playback === "once" ? 1 : clip.times));
    case "facing":
      return FACING;
  }
}

/** What all names of its frames begin with, up to their numbers. */
function prefixOf({ name }: Pick<NonNullable<Scope["clip"]>, "name">): string {
  return `${name}_`;
}

/** How a clip calls a frame: by its name or by its number. */
export function frameCalling(byNumber: boolean, from: 0 | 1): Quantity {
  return byNumber
    ? number("number of the frame", ({ step }) => step && step.frame.index + from)
    : text("name of the frame", ({ step }) => step?.frame.name);
}

/**
 * What a frame's record may contain, by the names under which projects store assignments. Searched in this order if a reading knows no
 * meaning: likelier ones first.
 */
export const ASSIGNABLE: Readonly<Record<string, Quantity>> = {
  width: extent("w", "width", (frame) => uprightSize(frame).w),
  height: extent("h", "height", (frame) => uprightSize(frame).h),
  x: number("x", ({ frame }) => frame?.rect.x),
  y: number("y", ({ frame }) => frame?.rect.y),
  right: number("right edge", ({ frame }) => frame && frame.rect.x + frame.rect.w),
  bottom: number("bottom edge", ({ frame }) => frame && frame.rect.y + frame.rect.h),
  "untrimmed-width": extent("w", "untrimmed width", ({ size }) => size.w),
  "untrimmed-height": extent("h", "untrimmed height", ({ size }) => size.h),
  "inset-x": number("inset, x", ({ frame }) => frame?.inset.x),
  "inset-y": number("inset, y", ({ frame }) => frame?.inset.y),
  "inset-right": number("inset from the right", ({ frame }) => frame && frame.size.w - frame.inset.x - uprightSize(frame).w),
  "inset-below": number("inset from below", ({ frame }) => frame && frame.size.h - frame.inset.y - uprightSize(frame).h),
  "stored-width": extent("w", "width, as stored", ({ rect }) => rect.w),
  "stored-height": extent("h", "height, as stored", ({ rect }) => rect.h),
  number: number("number of the frame, from 0", ({ frame }) => frame?.index),
  "number-from-1": number("number of the frame, from 1", ({ frame }) => frame && frame.index + 1),
  "origin-x": number("origin, x", ({ frame }) => frame?.origin?.x),
  "origin-y": number("origin, y", ({ frame }) => frame?.origin?.y),
  "origin-y-up": number("origin, y, counted up", ({ frame }) => frame?.origin && frame.size.h - frame.origin.y),
  "origin-x-trimmed": number("origin in what is left after trimming, x", ({ frame }) => frame?.origin && frame.origin.x - frame.inset.x),
  "origin-y-trimmed": number("origin in what is left after trimming, y", ({ frame }) => frame?.origin && frame.origin.y - frame.inset.y),
  "last-column": number("last column of pixels", ({ frame }) => frame && frame.rect.x + frame.rect.w - 1),
  "last-row": number("last row of pixels", ({ frame }) => frame && frame.rect.y + frame.rect.h - 1),
  "middle-x": number("middle, x", ({ frame }) => frame && frame.rect.x + frame.rect.w / 2),
  "middle-y": number("middle, y", ({ frame }) => frame && frame.rect.y + frame.rect.h / 2),
  pixels: number("number of pixels", ({ frame }) => frame && frame.rect.w * frame.rect.h),
  "y-up": number(
    "y, counted up from the page's bottom",
    ({ frame }) => frame?.page.size && frame.page.size.h - frame.rect.y - frame.rect.h,
  ),
  "left-share": number("left edge as a fraction of the page", ({ frame }) => frame?.page.size && frame.rect.x / frame.page.size.w, 6e-4),
  "top-share": number("top edge as a fraction of the page", ({ frame }) => frame?.page.size && frame.rect.y / frame.page.size.h, 6e-4),
  "right-share": number(
    "right edge as a fraction of the page",
    ({ frame }) => frame?.page.size && (frame.rect.x + frame.rect.w) / frame.page.size.w,
    6e-4,
  ),
  "bottom-share": number(
    "bottom edge as a fraction of the page",
    ({ frame }) => frame?.page.size && (frame.rect.y + frame.rect.h) / frame.page.size.h,
    6e-4,
  ),
  "width-share": number("width as a fraction of the page", ({ frame }) => frame?.page.size && frame.rect.w / frame.page.size.w, 6e-4),
  "height-share": number("height as a fraction of the page", ({ frame }) => frame?.page.size && frame.rect.h / frame.page.size.h, 6e-4),
  name: FRAME_NAME,
  page: IMAGE,
};

/** Further contents of a frame's record, likelier ones first. */
export const FURTHER: readonly Quantity[] = Object.values(ASSIGNABLE);

export const TRIMMED = flag("whether it is trimmed", ({ frame }) => frame && isTrimmed(frame));

/** Whether a value already says what a quantity would have it say. */
export function saysSame(quantity: Quantity, value: Leaf, scope: Scope, wanted = quantity.of(scope)): boolean {
  if (wanted === null) return false;
  if (quantity.same) return quantity.same(value, wanted, scope);
  return (quantity.means?.(value) ?? value) === wanted;
}
