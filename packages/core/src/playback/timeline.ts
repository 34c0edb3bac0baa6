/**
 * Gives what a clip shows at a time since its start, exactly: whole microseconds, no drift, random access.
 *
 * Step k shows for start ≤ t < end. Cost: O(steps) to make a timeline, O(log steps) to query it.
 */
import type { Clip, FrameRef, Micros } from "../model";
import { type ClipRules, stepOrder } from "./order";

/** What shows. */
export interface Shown {
  /** Index of the step, also while coming home; after the end the step it ended on, or 0 if the clip then shows its first. */
  readonly step: number;
  /** From 0; stays at the last pass while coming home and after the end. */
  readonly pass: number;
  readonly ended: boolean;
  /** False only after the end of a clip that hides. */
  readonly visible: boolean;
}

/** A step being entered. */
export interface Entry {
  readonly at: Micros;
  readonly step: number;
  readonly pass: number;
}

/** The interval of one showing of a step: at ≤ t < until. */
export interface Span extends Entry {
  readonly until: Micros;
}

export interface Timeline {
  /** Length of pass 0, and of every later one. */
  readonly firstPass: Micros;
  readonly laterPass: Micros;
  /** When it ends; Infinity if it never does. */
  readonly end: Micros;
  shownAt(t: Micros): Shown;
  /** The step being shown at `t` with the times at which it was entered and will be left; after the end the last one. */
  spanAt(t: Micros): Span;
  /** The interval of the pass showing at `t`, including the return home; after the end that of the last pass. */
  passAt(t: Micros): { readonly at: Micros; readonly until: Micros };
  /** Steps entered at times `from < at ≤ to`; with `from` −1 the start counts too. Lazily, since there may be many. */
  entries(from: Micros, to: Micros): Generator<Entry>;
}

type Timed = ClipRules & Pick<Clip, "after"> & { readonly steps: readonly { readonly duration: Micros }[] };

/** The timeline of a clip that has at least one step. */
export function timelineOf(clip: Timed): Timeline {
  const order = stepOrder(clip, clip.steps.length);
  const first = run(order.first, clip);
  const later = run(order.later, clip);
  const passesEnd = order.passes === Number.POSITIVE_INFINITY ? order.passes : first.length + (order.passes - 1) * later.length;
  const home = order.home === null ? null : { step: order.home, duration: (clip.steps[order.home] as { duration: Micros }).duration };
  const end = passesEnd + (home?.duration ?? 0);
  const lastOrder = order.passes > 1 ? order.later : order.first;
  const endedOn = home?.step ?? (lastOrder[lastOrder.length - 1] as number);
  const lastPass = order.passes - 1;

  /** The pass that a time falls into, the last one after the end. */
  const passOf = (t: Micros): number => Math.min(t < first.length ? 0 : 1 + Math.floor((t - first.length) / later.length), lastPass);
  const startOf = (pass: number): Micros => (pass === 0 ? 0 : first.length + (pass - 1) * later.length);

  const passAt = (t: Micros) => {
    const pass = passOf(t);
    return { at: startOf(pass), until: pass === lastPass ? end : startOf(pass + 1) };
  };

  const spanAt = (t: Micros): Span => {
    const now = Math.max(0, t);
    if (home && now >= passesEnd) return { at: passesEnd, until: end, step: home.step, pass: lastPass };
    const pass = passOf(now);
    const start = startOf(pass);
    const run = pass === 0 ? first : later;
    const k = run.indexAt(now - start);
    return { at: start + (run.starts[k] as number), until: start + (run.starts[k + 1] ?? run.length), step: run.steps[k] as number, pass };
  };

  const shownAt = (t: Micros): Shown => {
    if (t >= end) return { step: clip.after === "first" ? 0 : endedOn, pass: lastPass, ended: true, visible: clip.after !== "hide" };
    const { step, pass } = spanAt(t);
    return { step, pass, ended: false, visible: true };
  };

  function* entries(from: Micros, to: Micros): Generator<Entry> {
    // Starts at the pass that `from` falls into; earlier ones cannot hold an entry after it.
    for (let pass = passOf(from); pass < order.passes; pass++) {
      const start = startOf(pass);
      if (start > to) return;
      const { steps, starts } = pass === 0 ? first : later;
      for (let k = 0; k < steps.length; k++) {
        const at = start + (starts[k] as number);
        if (at > to) return;
        if (at > from) yield { at, step: steps[k] as number, pass };
      }
    }
    if (home && passesEnd > from && passesEnd <= to) yield { at: passesEnd, step: home.step, pass: lastPass };
  }

  return { firstPass: first.length, laterPass: later.length, end, shownAt, spanAt, passAt, entries };
}

/** One pass laid out in time. */
function run(steps: readonly number[], clip: Timed) {
  const starts: Micros[] = [];
  let length = 0;
  for (const step of steps) {
    starts.push(length);
    length += (clip.steps[step] as { duration: Micros }).duration;
  }
  /** Index of the last start at or before `t`. */
  const indexAt = (t: Micros): number => {
    let low = 0;
    let high = starts.length - 1;
    // Keeps starts[low] ≤ t < starts[high + 1].
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((starts[middle] as number) <= t) low = middle;
      else high = middle - 1;
    }
    return low;
  };
  return { steps, starts, length, indexAt };
}

/** The answer of `caravan play` for one time. */
export interface PlayedAt {
  readonly frame: FrameRef | null;
  readonly step: number;
  readonly pass: number;
  readonly ended: boolean;
}

/** The frame that a clip shows at `t`, null when nothing is visible. */
export function playedAt(clip: Clip, timeline: Timeline, t: Micros): PlayedAt {
  const { step, pass, ended, visible } = timeline.shownAt(t);
  return { frame: visible ? (clip.steps[step]?.frame ?? null) : null, step, pass, ended };
}
