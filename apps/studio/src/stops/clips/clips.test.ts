import { addClip, setStepDurations } from "@caravan/core/edit";
import { type ClipName, clipNamed, type FrameRef } from "@caravan/core/model";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { porterProject } from "../../../../../packages/core/src/edit/project.fixture";
import { startOfStep } from "../../preview/timelines";
import { chosenSteps, clickedSteps, extendedSteps } from "./chosen-steps";
import { secondsInWords } from "./pace-words";
import { bandsOf, edgesOf, nearestEdge, ribbonScale, rulerMarks, stepsBetween, timeThatFits } from "./ribbon-scale";

const refs = [0, 1, 2, 3].map((column) => `s1/c${column}r0` as FrameRef);
const project = setStepDurations(addClip(porterProject(), refs, "walk"), "walk" as ClipName, [1], 300_000);
const walk = clipNamed(project, "walk");

describe("choosing steps", () => {
  it("by click: one, a run with Shift, toggled with Ctrl", () => {
    expect(clickedSteps([], 2, false, false)).toEqual([2]);
    expect(clickedSteps([1], 3, true, false)).toEqual([1, 2, 3]);
    expect(clickedSteps([3], 1, true, false)).toEqual([1, 2, 3]);
    expect(clickedSteps([1, 3], 2, false, true)).toEqual([1, 2, 3]);
    expect(clickedSteps([1, 3], 3, false, true)).toEqual([1]);
  });

  it("by arrow keys: from the near end, never beyond the ends", () => {
    expect(extendedSteps(4, [], 1, false)).toEqual([0]);
    expect(extendedSteps(4, [], -1, false)).toEqual([3]);
    expect(extendedSteps(4, [3], 1, false)).toEqual([3]);
    expect(extendedSteps(4, [1, 2], 1, true)).toEqual([1, 2, 3]);
    expect(extendedSteps(0, [], 1, false)).toEqual([]);
    expect(chosenSteps(walk, [9, 2, 0])).toEqual([0, 2]);
  });
});

describe("the ribbon", () => {
  it("of another clip shades every second step, wherever its edges are", () => {
    expect(bandsOf([0, 100_000, 400_000, 500_000], 1 / 10_000, 20)).toBe("M0.00 0H10.00V20H0.00ZM40.00 0H50.00V20H40.00Z");
    expect(bandsOf([0], 1, 20)).toBe("");
    expect(
      bandsOf(
        Array.from({ length: 2001 }, (_, k) => k * 1000),
        0.01,
        20,
      ).match(/M/g),
    ).toHaveLength(1000);
  });

  it("lays steps out end to end, as wide as they are long", () => {
    expect(edgesOf(walk)).toEqual([0, 100_000, 400_000, 500_000, 600_000]);
    expect(startOfStep(walk, 2)).toBe(400_000);
    expect(ribbonScale(walk, 600) * 600_000).toBeCloseTo(600);
  });

  it("is never so tight that a step has no room", () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1000, max: 900_000 }), { minLength: 1, maxLength: 60 }),
        fc.integer({ min: 120, max: 2000 }),
        (durations, width) => {
          const clip = { ...walk, steps: durations.map((duration) => ({ frame: refs[0] as FrameRef, duration })) };
          const scale = ribbonScale(clip, width);
          const total = durations.reduce((sum, each) => sum + each, 0);
          if (total * scale < 399_999) expect(Math.min(...durations) * scale).toBeGreaterThanOrEqual(27.99);
          expect(total * scale).toBeLessThanOrEqual(400_001);
        },
      ),
    ));

  it("has marks at round times that do not crowd", () => {
    const marks = rulerMarks(800_000, 0.0007);
    expect(marks).toEqual([0, 100_000, 200_000, 300_000, 400_000, 500_000, 600_000, 700_000, 800_000]);
    expect(rulerMarks(3_600_000_000, 400_000 / 3_600_000_000).length).toBeLessThanOrEqual(2000);
  });

  it("says lengths with the decimals they need", () =>
    expect([800_000, 42_000, 1_234_567].map(secondsInWords)).toEqual(["0.80 s", "0.042 s", "1.235 s"]));
});

describe("times under steps", () => {
  it("are shortened or omitted if there is no room, and never cut off or passed off as exact", () => {
    expect([200, 66, 54, 44, 30, 20].map((width) => timeThatFits("153.846", width))).toEqual([
      "153.846 ms",
      "153.846",
      "≈153.8",
      "≈154",
      "",
      "",
    ]);
    expect([60, 30, 20].map((width) => timeThatFits("100", width))).toEqual(["100 ms", "100", ""]);
    expect(timeThatFits("0.004", 30)).toBe("");
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9_999_999 }), fc.integer({ min: 0, max: 200 }), (micros, width) => {
        const text = timeThatFits(String(micros / 1000), width);
        expect(text.length * 7.4).toBeLessThanOrEqual(width);
        if (text !== "" && !text.startsWith("≈")) expect(Number.parseFloat(text)).toBe(micros / 1000);
      }),
    );
  });
});

describe("sweeping along the ruler", () => {
  const edges = [0, 100, 150, 400];

  it("chooses every step that it touches, in either direction", () => {
    expect(stepsBetween(edges, 0, 99)).toEqual([0]);
    expect(stepsBetween(edges, 120, 390)).toEqual([1, 2]);
    expect(stepsBetween(edges, 390, 20)).toEqual([0, 1, 2]);
  });

  it("finds the step that begins nearest to where the bracket is dropped", () =>
    expect([-5, 49, 51, 149, 9999].map((t) => nearestEdge(edges, t))).toEqual([0, 0, 1, 2, 3]));
});
