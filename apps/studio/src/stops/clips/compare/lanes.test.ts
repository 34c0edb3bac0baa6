import type { ClipName } from "@caravan/core/model";
import { timelineOf } from "@caravan/core/playback";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { firstLanes, laneTime, phaseAt } from "./lanes";

const durations = fc.array(fc.integer({ min: 1_000, max: 900_000 }), { minLength: 1, maxLength: 9 });
const loop = (steps: readonly number[], loopFrom = 0) =>
  timelineOf({ steps: steps.map((duration) => ({ duration })), playback: "loop", times: 0, loopFrom, after: "hold", doubleEnds: false });
const names = ["a", "b", "c"] as ClipName[];

describe("lanes that are compared", () => {
  it("begin with the selected clip and the next one, or with one if there is no other", () => {
    expect(firstLanes(names, "c" as ClipName).map(({ clip }) => clip)).toEqual(["c", "a"]);
    expect(firstLanes(names.slice(0, 1), "a" as ClipName).map(({ clip }) => clip)).toEqual(["a"]);
  });

  it("in step by time, run at their own speed", () =>
    expect(laneTime(300_000, { speed: 0.25 }, loop([100_000]), "time", loop([50_000]))).toBe(75_000));

  it("in step by phase, are all as far in their rounds as the first, also after lead-ins", () =>
    fc.assert(
      fc.property(durations, durations, fc.nat(3), fc.integer({ min: 0, max: 20_000_000 }), (one, two, from, elapsed) => {
        const lead = loop(one, Math.min(from, one.length - 1));
        const other = loop(two);
        const expected = phaseAt(lead, elapsed);
        const found = phaseAt(other, laneTime(elapsed, { speed: 3 }, other, "phase", lead));
        const turns = (phase: { round: number; share: number }) => phase.round + phase.share;
        expect(turns(found)).toBeCloseTo(turns(expected), 6);
      }),
    ));
});
