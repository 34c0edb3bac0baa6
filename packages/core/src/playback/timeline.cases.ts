/**
 * Playback, case by case, as docs/formats/playback.md defines it. Written by hand from the definition; both the core's timeline and the
 * player package are tested with this table.
 */
import type { ClipRules } from "./order";

export interface PlaybackCase {
  readonly name: string;
  /** Milliseconds of each step. */
  readonly ms: readonly number[];
  readonly rules?: Partial<ClipRules> & { readonly after?: "hold" | "first" | "hide" };
  /** What shows when: time in ms, step, pass, and after the end `"ended"`, or `"hidden"` if nothing is visible. */
  readonly at: readonly (readonly [ms: number, step: number, pass: number, state?: "ended" | "hidden"])[];
}

export const PLAYBACK_CASES: readonly PlaybackCase[] = [
  {
    name: "a step is shown up to its end, and at the exact end the next one",
    ms: [100, 50],
    at: [
      [0, 0, 0],
      [99.999, 0, 0],
      [100, 1, 0],
      [149.999, 1, 0],
      [150, 0, 1],
      [1500, 0, 10],
      [1649.999, 1, 10],
    ],
  },
  {
    name: "once holds its last step",
    ms: [100, 50],
    rules: { playback: "once" },
    at: [
      [149.999, 1, 0],
      [150, 1, 0, "ended"],
      [1e6, 1, 0, "ended"],
    ],
  },
  {
    name: "once may show its first step after the end",
    ms: [100, 50],
    rules: { playback: "once", after: "first" },
    at: [
      [149, 1, 0],
      [150, 0, 0, "ended"],
    ],
  },
  {
    name: "once may hide",
    ms: [100, 50],
    rules: { playback: "once", after: "hide" },
    at: [
      [149, 1, 0],
      [150, 1, 0, "hidden"],
    ],
  },
  {
    name: "once has one pass whatever times says",
    ms: [10],
    rules: { playback: "once", times: 5 },
    at: [
      [9, 0, 0],
      [10, 0, 0, "ended"],
    ],
  },
  {
    name: "a loop of three passes stays on its last pass",
    ms: [10, 10],
    rules: { times: 3 },
    at: [
      [0, 0, 0],
      [20, 0, 1],
      [59.999, 1, 2],
      [60, 1, 2, "ended"],
      [600, 1, 2, "ended"],
    ],
  },
  {
    name: "a lead-in is played once",
    ms: [10, 20, 30],
    rules: { loopFrom: 1 },
    at: [
      [0, 0, 0],
      [10, 1, 0],
      [30, 2, 0],
      [60, 1, 1],
      [79.999, 1, 1],
      [80, 2, 1],
      [110, 1, 2],
    ],
  },
  {
    name: "a lead-in before a single looping step",
    ms: [10, 20],
    rules: { loopFrom: 1, times: 3 },
    at: [
      [0, 0, 0],
      [10, 1, 0],
      [30, 1, 1],
      [50, 1, 2],
      [70, 1, 2, "ended"],
    ],
  },
  {
    name: "a ping-pong does not double the ends",
    ms: [10, 10, 10, 10],
    rules: { playback: "pingpong" },
    at: [
      [0, 0, 0],
      [10, 1, 0],
      [20, 2, 0],
      [30, 3, 0],
      [40, 2, 0],
      [50, 1, 0],
      [60, 0, 1],
      [90, 3, 1],
    ],
  },
  {
    name: "a finite ping-pong comes home for the first step's time",
    ms: [10, 20, 30],
    rules: { playback: "pingpong", times: 1 },
    at: [
      [60, 1, 0],
      [79.999, 1, 0],
      [80, 0, 0],
      [89.999, 0, 0],
      [90, 0, 0, "ended"],
    ],
  },
  {
    name: "two passes of a ping-pong, then home",
    ms: [10, 10, 10],
    rules: { playback: "pingpong", times: 2, after: "hide" },
    at: [
      [30, 1, 0],
      [40, 0, 1],
      [70, 1, 1],
      [80, 0, 1],
      [90, 0, 1, "hidden"],
    ],
  },
  {
    name: "two steps alternate",
    ms: [10, 30],
    rules: { playback: "pingpong" },
    at: [
      [0, 0, 0],
      [10, 1, 0],
      [40, 0, 1],
      [50, 1, 1],
    ],
  },
  {
    name: "two steps alternate once and come home",
    ms: [10, 30],
    rules: { playback: "pingpong", times: 1 },
    at: [
      [39, 1, 0],
      [40, 0, 0],
      [49, 0, 0],
      [50, 0, 0, "ended"],
    ],
  },
  {
    name: "a single step as a ping-pong is that step, without coming home",
    ms: [10],
    rules: { playback: "pingpong", times: 2 },
    at: [
      [9, 0, 0],
      [10, 0, 1],
      [19, 0, 1],
      [20, 0, 1, "ended"],
    ],
  },
  {
    name: "doubled ends are shown twice, and a finite one ends with its pass",
    ms: [10, 20, 30],
    rules: { playback: "pingpong", doubleEnds: true, times: 1 },
    at: [
      [30, 2, 0],
      [60, 2, 0],
      [89.999, 2, 0],
      [90, 1, 0],
      [110, 0, 0],
      [119.999, 0, 0],
      [120, 0, 0, "ended"],
    ],
  },
  {
    name: "doubled ends forever",
    ms: [10, 10],
    rules: { playback: "pingpong", doubleEnds: true },
    at: [
      [10, 1, 0],
      [20, 1, 0],
      [30, 0, 0],
      [40, 0, 1],
    ],
  },
  {
    name: "a ping-pong turns within the part after the lead-in",
    ms: [10, 10, 10, 10],
    rules: { playback: "pingpong", loopFrom: 1 },
    at: [
      [0, 0, 0],
      [10, 1, 0],
      [20, 2, 0],
      [30, 3, 0],
      [40, 2, 0],
      [50, 1, 1],
      [60, 2, 1],
      [70, 3, 1],
      [80, 2, 1],
      [90, 1, 2],
    ],
  },
  {
    name: "home is where the loop begins",
    ms: [10, 10, 10],
    rules: { playback: "pingpong", loopFrom: 1, times: 2 },
    at: [
      [30, 1, 1],
      [40, 2, 1],
      [50, 1, 1],
      [59.999, 1, 1],
      [60, 1, 1, "ended"],
    ],
  },
  {
    name: "a lead-in with doubled ends",
    ms: [10, 10, 10],
    rules: { playback: "pingpong", doubleEnds: true, loopFrom: 1, times: 2 },
    at: [
      [30, 2, 0],
      [40, 1, 0],
      [50, 1, 1],
      [60, 2, 1],
      [70, 2, 1],
      [80, 1, 1],
      [90, 1, 1, "ended"],
    ],
  },
  {
    name: "nothing is lost over a day of steps of a microsecond",
    ms: [0.001, 0.002],
    at: [
      [86_400_000, 0, 28_800_000_000],
      [86_400_000.001, 1, 28_800_000_000],
      [86_400_000.002, 1, 28_800_000_000],
    ],
  },
];
