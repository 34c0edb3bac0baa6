import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { AtlasClip } from "../atlas";
import { timelineOf } from "../playback";
import { playedAs } from "./played-as";

const clip = (count: number, rules: Partial<AtlasClip>): AtlasClip => ({
  steps: Array.from({ length: count }, (_, k) => ({ frame: `f${k}`, ms: 10 * (k + 1) })),
  playback: "loop",
  times: 0,
  loopFrom: 0,
  after: "hold",
  ...rules,
});
const shown = (given: AtlasClip, traits: Parameters<typeof playedAs>[1]) =>
  playedAs(given, traits)
    .steps.map(({ frame }) => frame.slice(1))
    .join("");

describe("playedAs", () => {
  it("keeps a clip as it is if the file can express it", () => {
    const finite = clip(3, { playback: "pingpong", times: 2 });
    expect(playedAs(finite, { playbacks: ["loop", "once", "pingpong"], counts: true })).toEqual({
      steps: finite.steps,
      playback: "pingpong",
      times: 2,
      instead: null,
    });
  });

  it("writes the way back out, ends doubled or not", () => {
    expect(shown(clip(4, { playback: "pingpong" }), { playbacks: ["loop"], counts: false })).toBe("012321");
    expect(shown(clip(4, { playback: "pingpong", doubleEnds: true }), { playbacks: ["pingpong"], counts: false })).toBe("01233210");
  });

  it("writes all loops of an ending clip, and the return home, if the file knows playing once", () => {
    const once = { playbacks: ["loop", "once"], counts: false };
    expect(shown(clip(4, { playback: "pingpong", times: 2 }), once)).toBe("0123210123210");
    expect(shown(clip(3, { times: 3, loopFrom: 1 }), once)).toBe("0121212");
    expect(playedAs(clip(3, { times: 3 }), once)).toMatchObject({ playback: "once", instead: "all rounds are written out" });
  });

  it("reports the losses if nothing can be written out", () => {
    const loops = { playbacks: [], counts: false };
    expect(playedAs(clip(3, { times: 3 }), loops)).toMatchObject({ playback: "loop", times: 0, instead: "it goes on forever" });
    expect(playedAs(clip(3, { loopFrom: 1 }), loops)).toMatchObject({ playback: "loop", instead: "its lead-in comes again" });
    expect(playedAs(clip(3, { times: 100_000 }), { playbacks: ["once"], counts: false }).instead).toBe("it goes on forever");
  });

  it("shows for as long as the clip does, all rounds written out", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 7 }),
        fc.constantFrom("loop" as const, "pingpong" as const),
        fc.integer({ min: 1, max: 9 }),
        fc.nat(6),
        fc.boolean(),
        (count, playback, times, loopFrom, doubleEnds) => {
          const given = clip(count, { playback, times, loopFrom, doubleEnds });
          const told = playedAs(given, { playbacks: ["once"], counts: false });
          const steps = given.steps.map(({ ms }) => ({ duration: ms * 1000 }));
          const { end } = timelineOf({ playback, times, loopFrom, doubleEnds, after: "hold", steps });
          expect(told.steps.reduce((sum, { ms }) => sum + ms * 1000, 0)).toBe(end);
        },
      ),
    );
  });
});
