import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { AT_START, advanced, isOver, movedTo, type Playhead, passed, timeAt } from "./playhead";
import { timelineOf } from "./timeline";

const RULES = { playback: "loop", times: 0, loopFrom: 0, after: "hold", doubleEnds: false } as const;
const ms = (value: number) => Math.round(value * 1000);

const timelines = fc
  .record({
    durations: fc.array(fc.integer({ min: 5, max: 300 }), { minLength: 1, maxLength: 5 }),
    playback: fc.constantFrom("once" as const, "loop" as const, "pingpong" as const),
    times: fc.nat({ max: 3 }),
    doubleEnds: fc.boolean(),
  })
  .map(({ durations, ...rules }) => timelineOf({ ...RULES, ...rules, steps: durations.map((each) => ({ duration: ms(each) })) }));

describe("a playhead", () => {
  it("reports every step once, however time is divided and at any speed", () =>
    fc.assert(
      fc.property(timelines, fc.array(fc.nat(300_000), { maxLength: 12 }), fc.constantFrom(0.25, 0.5, 1, 2), (timeline, pieces, speed) => {
        const told: unknown[] = [];
        let playhead: Playhead = { ...AT_START, speed };
        for (const micros of pieces) {
          playhead = advanced(playhead, micros);
          const now = passed(timeline, playhead);
          told.push(...now.entries);
          playhead = now.told;
        }
        const elapsed = pieces.reduce((sum, micros) => sum + micros, 0) * speed;
        expect(timeAt(playhead)).toBe(Math.round(elapsed));
        // Nothing is told before the first time that it is asked, not even the step that stands there.
        expect(told).toEqual(pieces.length === 0 ? [] : [...timeline.entries(-1, Math.round(elapsed))]);
      }),
    ));

  it("loses no part of a microsecond between two refreshes", () => {
    let playhead = AT_START;
    for (let k = 0; k < 144 * 60; k++) playhead = advanced(playhead, 1_000_000 / 144);
    expect(timeAt(playhead)).toBe(60_000_000);
  });

  it("moved elsewhere skips what is between, and reports the step entered there", () => {
    const timeline = timelineOf({ ...RULES, steps: [100, 100, 100].map((each) => ({ duration: ms(each) })) });
    const there = movedTo(advanced(AT_START, ms(10)), ms(200));
    expect([...passed(timeline, there).entries]).toEqual([{ at: ms(200), step: 2, pass: 0 }]);
    expect([...passed(timeline, movedTo(there, ms(150))).entries]).toEqual([]);
    expect(movedTo(there, -5).elapsed).toBe(0);
  });

  it("ends at exactly the moment when its clip ends", () => {
    const timeline = timelineOf({ ...RULES, playback: "once", steps: [{ duration: ms(100) }] });
    expect([99_999, 100_000].map((elapsed) => isOver(timeline, { elapsed }))).toEqual([false, true]);
  });
});

describe("a timeline", () => {
  it("gives for every time its pass, one after the other until the end", () =>
    fc.assert(
      fc.property(timelines, fc.nat(3_000_000), (timeline, t) => {
        const { at, until } = timeline.passAt(t);
        expect(at).toBeLessThanOrEqual(t);
        if (t < timeline.end) expect(t).toBeLessThan(until);
        else expect(until).toBe(timeline.end);
        expect(timeline.shownAt(at).pass).toBe(timeline.shownAt(Math.min(t, until - 1)).pass);
      }),
    ));
});
