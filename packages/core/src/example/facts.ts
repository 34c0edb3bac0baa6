/** Lists what a delivery can say, item by item, in the order in which a file says it. */
import type { AtlasClip, AtlasFrame } from "../atlas";
import type { Facing, FramePoint, Outline, Rect, Size } from "../model";

export interface PageFacts {
  readonly image: string;
  /** Null if the file does not give it. */
  readonly size: Size | null;
  readonly index: number;
  /** Pixels out for each pixel of the art. */
  readonly scale: number;
}

export interface FrameFacts {
  readonly name: string;
  /** On the page, as stored. */
  readonly rect: Rect;
  readonly turned: boolean;
  /** Of the upright rectangle in the untrimmed frame. */
  readonly inset: FramePoint;
  readonly size: Size;
  /** From the untrimmed frame's top-left corner; null if the file does not give it. */
  readonly origin: FramePoint | null;
  /** The first box of each kind, and the point of each, in pixels of the untrimmed frame. */
  readonly boxes: Readonly<Record<string, Rect>>;
  readonly points: Readonly<Record<string, FramePoint>>;
  /** All outlines of each kind, in pixels of the untrimmed frame. */
  readonly outlines: Readonly<Record<string, readonly Outline[]>>;
  /** How long it shows, ms, where all who show it agree. */
  readonly ms: number | null;
  readonly page: PageFacts;
  /** Its place among all frames of the file. */
  readonly index: number;
  /** The clip that this record is a step of, where records are steps. */
  readonly clip: ClipFacts | null;
}

export interface ClipFacts {
  /** Its name in the file: that of its action if the file gives facings separately. */
  readonly name: string;
  readonly facing: Facing | null;
  readonly playback: AtlasClip["playback"];
  readonly times: number;
  readonly steps: readonly StepFacts[];
}

export interface StepFacts {
  readonly frame: FrameFacts;
  readonly ms: number;
}

/** One file's worth. */
export interface Sheet {
  readonly pages: readonly PageFacts[];
  readonly frames: readonly FrameFacts[];
  readonly clips: readonly ClipFacts[];
}

/** The context of a value: its page, frame, clip and step. */
export interface Scope {
  readonly sheet: Sheet;
  readonly page: PageFacts;
  readonly frame?: FrameFacts;
  readonly clip?: ClipFacts;
  readonly step?: StepFacts;
}

/** The first box of each kind, which is all that a shape with one place can hold. */
export function firstOfEach(boxes: Readonly<Record<string, readonly Rect[]>> = {}): Record<string, Rect> {
  return Object.fromEntries(Object.entries(boxes).flatMap(([name, [first]]) => (first ? [[name, first] as const] : [])));
}

export function uprightSize({ rect, turned }: Pick<FrameFacts, "rect" | "turned">): Size {
  return turned ? { w: rect.h, h: rect.w } : { w: rect.w, h: rect.h };
}

export function isTrimmed(frame: Pick<AtlasFrame, "rect" | "turned" | "size">): boolean {
  const { w, h } = uprightSize(frame);
  return w !== frame.size.w || h !== frame.size.h;
}

/** The time that all steps share, ms; their mean if they do not, with `even` false. */
export function pace({ steps }: Pick<ClipFacts, "steps">): { readonly ms: number; readonly even: boolean } {
  const total = totalOf({ steps });
  return { ms: total / steps.length, even: steps.every(({ ms }) => ms === steps[0]?.ms) };
}

export function totalOf({ steps }: Pick<ClipFacts, "steps">): number {
  return steps.reduce((micros, { ms }) => micros + Math.round(ms * 1000), 0) / 1000;
}
