/** Defines a shape: what each value of an example says, which of its records repeat, and what it can express. */
import { facingOfWord } from "../facing";
import type { Reading } from "../model";
import type { Leaf } from "../notation";
import type { FrameFacts } from "./facts";
import type { Located } from "./locate";
import type { Repeats } from "./loops";
import type { OutlineList } from "./outline-lists";
import type { Place } from "./place";
import { PLAYBACK, type Quantity } from "./quantities";

export interface Slot {
  readonly quantity: Quantity;
  /** All values that the example has here. */
  readonly seen: readonly { readonly value: Leaf; readonly raw: string }[];
  /** Whether a reading says so, it was found by comparing, or a person assigned it. */
  readonly by: "reading" | "values" | "person";
}

/** Sets the meaning of the values at a path, unless already known. */
export type Add = (path: string, quantity: Quantity | null, by?: Slot["by"]) => void;

/** What a shape can express, for the delivery's settings and the list of frames. */
export interface Traits {
  /** How it gives pages: per frame, as records around the frames, or one page per file. */
  readonly pages: "by-frame" | "around" | "one";
  readonly trims: boolean;
  readonly turns: boolean;
  readonly origins: boolean;
  /** Cells of a grid instead of rectangles. */
  readonly cells: boolean;
  /** How it gives clips: not at all, by naming or numbering frames, by first and last, by name prefixes, or per frame. */
  readonly clips: "none" | "frames" | "runs" | "names" | "each-frame";
  readonly facings: boolean;
  readonly times: "none" | "by-step" | "by-clip" | "by-frame";
  /** Whether it says how often a clip plays. */
  readonly counts: boolean;
  /** Ways of playing that it has words for. */
  readonly playbacks: readonly string[];
}

export interface Shape {
  /** The example's file name. */
  readonly file: string;
  readonly located: Located;
  readonly reading: Reading;
  readonly slots: ReadonlyMap<string, Slot>;
  readonly repeats: ReadonlyMap<string, Repeats>;
  readonly traits: Traits;
  /** The records of the example that describe frames. */
  readonly frames: ReadonlyMap<Place, FrameFacts>;
  /** Lists of corners of frames' records, by their paths. */
  readonly outlines: ReadonlyMap<string, OutlineList>;
  /** The path of a frame's name; null if it has none. */
  readonly frameName: Slot | null;
  /** Values of frames' records that differ from one to the next and mean nothing that is known. */
  readonly strange: readonly string[];
  /** Those of them that look like geometry: kept as the example has them, they would be wrong for other frames. */
  readonly unassigned: readonly string[];
}

/** Whether rectangles depend on the size of the picture. */
export function needsPage({ rectAs, yAs }: Reading): boolean {
  return rectAs === "share" || yAs !== undefined;
}

/** What can be said in a shape of this reading. */
export function traitsOf(reading: Reading, repeats: ReadonlyMap<string, Repeats>, slots: ReadonlyMap<string, Slot>): Traits {
  const { fields, clips } = reading;
  const kinds = new Set(repeats.values());
  const told = clips?.fields;
  const way = [...slots.values()].find(({ quantity }) => quantity === PLAYBACK);
  const words = way?.seen.map(({ value }) => String(way.quantity.means?.(value))) ?? [];
  const plain = way?.seen.every(({ value }) => typeof value !== "string");
  return {
    // Pages of unlike sizes cannot be read from one file that counts by the size of one.
    pages: needsPage(reading)
      ? "one"
      : kinds.has("pages")
        ? "around"
        : fields.picture !== undefined && !fields.picture.startsWith("../")
          ? "by-frame"
          : "one",
    trims: fields.insetX !== undefined && fields.fullW !== undefined,
    turns: fields.turned !== undefined,
    origins: fields.originX !== undefined,
    cells: fields.column !== undefined || fields.index !== undefined,
    clips: fields.clip ? "each-frame" : !told ? "none" : told.prefix !== undefined ? "names" : told.first !== undefined ? "runs" : "frames",
    facings: fields.facing !== undefined || told?.facing !== undefined || kinds.has("facings"),
    times:
      told && (told.fps ?? told.total ?? (told.frame === undefined ? told.time : undefined)) !== undefined
        ? "by-clip"
        : told?.time !== undefined
          ? "by-step"
          : fields.time === undefined
            ? "none"
            : fields.time.startsWith("../")
              ? "by-clip"
              : "by-frame",
    counts: told?.times !== undefined,
    // Yes and no can distinguish looping from once; a ping-pong needs a word.
    playbacks: way === undefined ? [] : plain ? ["loop", "once"] : [...new Set([...words, "loop", "once"])],
  };
}

/** Words of facings that the example has at a slot. */
export function facingWords(slot: Slot): string[] {
  return slot.seen.map(({ value }) => String(value)).filter((word) => facingOfWord(word) !== null);
}
