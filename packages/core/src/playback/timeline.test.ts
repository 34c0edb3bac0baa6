import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Clip } from "../model";
import { microsFromMs } from "../model";
import { stepOrder } from "./order";
import { timelineOf } from "./timeline";
import { PLAYBACK_CASES } from "./timeline.cases";

const RULES = { playback: "loop", times: 0, loopFrom: 0, after: "hold", doubleEnds: false } as const;

const clips = fc
  .record({
    durations: fc.array(fc.integer({ min: 1, max: 300 }), { minLength: 1, maxLength: 7 }),
    playback: fc.constantFrom("once" as const, "loop" as const, "pingpong" as const),
    times: fc.nat({ max: 4 }),
    from: fc.nat(),
    after: fc.constantFrom("hold" as const, "first" as const, "hide" as const),
    doubleEnds: fc.boolean(),
  })
  .map(({ durations, from, ...rules }) => ({
    ...rules,
    loopFrom: from % durations.length,
    steps: durations.map((duration) => ({ duration })),
  }));

/** Playback the slow way: every entry in turn, from the order alone. */
function entriesByHand(
  clip: Pick<Clip, "playback" | "times" | "loopFrom" | "doubleEnds"> & { steps: { duration: number }[] },
  passes: number,
) {
  const order = stepOrder(clip, clip.steps.length);
  const entries: { at: number; step: number; pass: number }[] = [];
  let at = 0;
  const enter = (step: number, pass: number) => {
    entries.push({ at, step, pass });
    at += (clip.steps[step] as { duration: number }).duration;
  };
  const last = Math.min(order.passes, passes);
  for (let pass = 0; pass < last; pass++) for (const step of pass === 0 ? order.first : order.later) enter(step, pass);
  if (order.home !== null) enter(order.home, last - 1);
  return { entries, end: at, complete: order.passes <= passes };
}

describe("timelineOf", () => {
  for (const { name, ms, rules, at } of PLAYBACK_CASES)
    it(name, () => {
      const timeline = timelineOf({ ...RULES, ...rules, steps: ms.map((each) => ({ duration: microsFromMs(each) })) });
      for (const [time, step, pass, state] of at)
        expect({ time, ...timeline.shownAt(microsFromMs(time)) }).toEqual({
          time,
          step,
          pass,
          ended: state !== undefined,
          visible: state !== "hidden",
        });
    });

  it("agrees with playing it out entry by entry", () =>
    fc.assert(
      fc.property(clips, (clip) => {
        const { entries, end, complete } = entriesByHand(clip, 6);
        const timeline = timelineOf(clip);
        if (complete) expect(timeline.end).toBe(end);
        entries.forEach((entry, k) => {
          const until = entries[k + 1]?.at ?? end;
          for (const t of [entry.at, until - 1]) {
            expect(timeline.shownAt(t)).toEqual({ step: entry.step, pass: entry.pass, ended: false, visible: true });
            expect(timeline.spanAt(t)).toEqual({ ...entry, until });
          }
        });
      }),
      { numRuns: 300 },
    ));

  it("enters every step exactly once, however time is cut into pieces", () =>
    fc.assert(
      fc.property(clips, fc.array(fc.nat({ max: 900 }), { minLength: 1, maxLength: 12 }), (clip, cuts) => {
        const timeline = timelineOf(clip);
        let from = -1;
        const pieces: unknown[] = [];
        for (const cut of cuts) {
          pieces.push(...timeline.entries(from, Math.max(0, from) + cut));
          from = Math.max(0, from) + cut;
        }
        expect(pieces).toEqual([...timeline.entries(-1, from)]);
        const { entries, complete } = entriesByHand(clip, 60);
        if (complete) expect(pieces).toEqual(entries.filter((entry) => entry.at <= from));
      }),
    ));
});
