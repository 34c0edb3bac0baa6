import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { parseRanges } from "../clip";
import { type Clip, type ClipName, clipNamed, type FrameRef, type Project } from "../model";
import {
  duplicateSteps,
  joinClips,
  mergeEqualSteps,
  partByRows,
  pasteSteps,
  removeFrameEverywhere,
  reverseSomeSteps,
  splitClip,
} from "./clip-parts";
import { addClip } from "./clips";
import { setStepEvents } from "./events";
import { porterProject } from "./project.fixture";
import { addToSteps, holdUntil, moveBorder, scaleSteps, spreadOverSteps } from "./step-times";
import { setStepDurations } from "./times";

const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const WALK = "walk" as ClipName;
const walk = addClip(porterProject(), [ref(0), ref(1), ref(2), ref(3), ref(0, 1), ref(1, 1)], "walk");
const frames = (project: Project, name: string = "walk") => clipNamed(project, name as ClipName).steps.map(({ frame }) => frame.slice(3));
const times = (project: Project) => clipNamed(project, WALK).steps.map(({ duration }) => duration / 1000);
const total = (clip: Clip) => clip.steps.reduce((sum, { duration }) => sum + duration, 0);

describe("parts of clips", () => {
  it("are split before chosen steps, in order, each playing as the whole did", () => {
    const split = splitClip(walk, WALK, [4, 2, 2, 0, 99]);
    expect(split.clips.map(({ name }) => name)).toHaveLength(3);
    expect(split.clips.map((clip) => clip.steps.length)).toEqual([2, 2, 2]);
    expect(split.clips[0]?.name).toBe("walk");
    expect(() => splitClip(walk, WALK, [0])).toThrow(/no step after which to split/);
  });

  it("joined again equal the original: no step lost, none twice", () =>
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 5 }), { minLength: 1 }), (places) => {
        const split = splitClip(walk, WALK, places);
        const others = split.clips.slice(1).map(({ name }) => name);
        expect(joinClips(split, WALK, others)).toEqual(walk);
      }),
    ));

  it("are split by the rows of their sheet", () => {
    const parted = partByRows(walk, WALK);
    expect(parted.clips.map((clip) => clip.steps.map(({ frame }) => frame.slice(3)))).toEqual([
      ["c0r0", "c1r0", "c2r0", "c3r0"],
      ["c0r1", "c1r1"],
    ]);
    expect(() => partByRows(parted, WALK)).toThrow(/one row/);
  });
});

describe("steps", () => {
  it("are duplicated after the last, turned round at their places, and pasted with their times", () => {
    expect(frames(duplicateSteps(walk, WALK, [0, 1]))).toEqual(["c0r0", "c1r0", "c0r0", "c1r0", "c2r0", "c3r0", "c0r1", "c1r1"]);
    expect(frames(reverseSomeSteps(walk, WALK, [1, 3, 4]))).toEqual(["c0r0", "c0r1", "c2r0", "c3r0", "c1r0", "c1r1"]);
    const long = setStepDurations(walk, WALK, [2], 250_000);
    const pasted = pasteSteps(long, WALK, 99, clipNamed(long, WALK).steps.slice(2, 3));
    expect([frames(pasted).at(-1), times(pasted).at(-1)]).toEqual(["c2r0", 250]);
  });

  it("that show the same frame in a row become one with the total duration", () => {
    const doubled = setStepDurations(duplicateSteps(walk, WALK, [3]), WALK, [4], 50_000);
    expect(times(mergeEqualSteps(doubled, WALK))).toEqual([100, 100, 100, 150, 100, 100]);
    expect(mergeEqualSteps(walk, WALK)).toBe(walk);
  });

  it("of a frame are removed from every clip that shows it", () => {
    const two = addClip(walk, [ref(0), ref(3)], "idle");
    const without = removeFrameEverywhere(two, ref(3));
    expect([frames(without).length, frames(without, "idle")]).toEqual([5, ["c0r0"]]);
  });
});

describe("events", () => {
  it("are named on steps, each once, and removed without a trace", () => {
    const named = setStepEvents(walk, WALK, [1, 3], ["foot", " dust ", "foot"]);
    expect(clipNamed(named, WALK).steps.map(({ events }) => events)).toEqual([
      undefined,
      ["foot", "dust"],
      undefined,
      ["foot", "dust"],
      undefined,
      undefined,
    ]);
    expect(setStepEvents(named, WALK, [1, 3], [])).toEqual(walk);
    expect(setStepEvents(named, WALK, [1], ["foot", "dust"])).toBe(named);
    expect(() => setStepEvents(walk, WALK, [0], ["a\tb"])).toThrow(/event name/);
  });
});

describe("times of some steps", () => {
  it("are added to, scaled and spread exactly; others stay", () => {
    expect(times(addToSteps(walk, WALK, [0, 2], 20_000))).toEqual([120, 100, 120, 100, 100, 100]);
    expect(times(scaleSteps(walk, WALK, [1], 0.333))).toEqual([100, 33.3, 100, 100, 100, 100]);
    expect(times(spreadOverSteps(walk, WALK, [0, 1, 2], 100_000))).toEqual([33.333, 33.333, 33.334, 100, 100, 100]);
    expect(() => addToSteps(walk, WALK, [0], -100_000)).toThrow(/walk/);
    expect(() => spreadOverSteps(walk, WALK, [0, 1, 2], 2)).toThrow(/cannot share/);
  });

  it("together last exactly as long as asked, to the microsecond, whatever they were", () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 900_000 }), { minLength: 6, maxLength: 6 }),
        fc.integer({ min: 6, max: 9_000_000 }),
        (own, wanted) => {
          const uneven = own.reduce((project, duration, k) => setStepDurations(project, WALK, [k], duration), walk);
          expect(total(clipNamed(spreadOverSteps(uneven, WALK, [0, 1, 2, 3, 4, 5], wanted), WALK))).toBe(wanted);
        },
      ),
    ));

  it("move across a border that is dragged: the clip stays as long, and neither step vanishes", () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4 }), fc.integer({ min: -900_000, max: 900_000 }), (step, by) => {
        const moved = clipNamed(moveBorder(walk, WALK, step, by), WALK);
        expect(total(moved)).toBe(total(clipNamed(walk, WALK)));
        expect(Math.min(...moved.steps.map(({ duration }) => duration))).toBeGreaterThanOrEqual(1000);
      }),
    ));

  it("at the clip's end change how long it is", () => {
    expect(times(holdUntil(walk, WALK, 2, 1_000_000))).toEqual([100, 100, 500, 100, 100, 100]);
    expect(() => holdUntil(walk, WALK, 2, 500_000)).toThrow(/other steps last 500 ms already/);
    expect(times(moveBorder(walk, WALK, 5, 40_000))).toEqual([100, 100, 100, 100, 100, 140]);
    expect(times(moveBorder(walk, WALK, 5, -400_000))).toEqual([100, 100, 100, 100, 100, 1]);
  });
});

describe("parseRanges", () => {
  it("reads numbers, runs up and down, and how often", () => {
    expect(parseRanges("3-9, 12, 9-3", 0, 12)).toEqual([3, 4, 5, 6, 7, 8, 9, 12, 9, 8, 7, 6, 5, 4, 3]);
    expect(parseRanges(" 0 2  1-0;4x3 ", 0, 4)).toEqual([0, 2, 1, 0, 4, 4, 4]);
    expect(parseRanges("", 0, 4)).toEqual([]);
  });

  it("reports which part it cannot read, and what exists", () => {
    expect(() => parseRanges("1, x", 0, 4)).toThrow(/"x": This is neither a number/);
    expect(() => parseRanges("1-9", 0, 4)).toThrow(/There is no 9: numbers go from 0 to 4/);
    expect(() => parseRanges("0-4x5000", 0, 4)).toThrow(/more than 10000/);
  });

  it("gives back any list that is written out", () =>
    fc.assert(
      fc.property(fc.array(fc.nat(99)), (numbers) => {
        expect(parseRanges(numbers.join(", "), 0, 99)).toEqual(numbers);
      }),
    ));
});
