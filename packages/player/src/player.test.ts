import { nearestPresent } from "@caravan/core/facing";
import { FACINGS } from "@caravan/core/model";
import { timelineOf } from "@caravan/core/playback";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { PLAYBACK_CASES } from "../../core/src/playback/timeline.cases";
import { type Atlas, type AtlasClip, createPlayer, type FacingName } from ".";

const RULES = { playback: "loop", times: 0, loopFrom: 0, after: "hold", doubleEnds: false } as const;

function atlasOf(clips: Record<string, AtlasClip>, actions: Atlas["actions"] = {}): Atlas {
  return { format: "caravan-atlas", version: 1, pages: [], frames: {}, clips, actions };
}
const clip = (ms: readonly number[], rules: Partial<AtlasClip> = {}, events: readonly number[] = []): AtlasClip => ({
  steps: ms.map((each, k) => ({ frame: `f${k}`, ms: each, ...(events.includes(k) ? { events: [`e${k}`] } : {}) })),
  ...rules,
});

describe("the player and the shared table", () => {
  for (const { name, ms, rules, at } of PLAYBACK_CASES)
    it(name, () => {
      for (const [time, step, pass, state] of at) {
        const player = createPlayer(atlasOf({ a: clip(ms, rules) }));
        player.play("a");
        const visible = state !== "hidden";
        const { duration, progress, ...now } = player.advance(time);
        expect(duration).toBeGreaterThan(0);
        expect(progress).toBeGreaterThanOrEqual(0);
        expect(progress).toBeLessThanOrEqual(1);
        expect(now).toEqual({
          clip: "a",
          frame: visible ? `f${step}` : null,
          mirror: false,
          step,
          pass,
          events: [],
          values: [],
          ended: state !== undefined,
          visible,
        });
      }
    });
});

const clips = fc
  .record({
    durations: fc.array(fc.integer({ min: 1, max: 300 }), { minLength: 1, maxLength: 6 }),
    playback: fc.constantFrom("once" as const, "loop" as const, "pingpong" as const),
    times: fc.nat({ max: 4 }),
    from: fc.nat(),
    after: fc.constantFrom("hold" as const, "first" as const, "hide" as const),
    doubleEnds: fc.boolean(),
  })
  .map(({ durations, from, ...rules }) => ({ durations, rules: { ...rules, loopFrom: from % durations.length } }));

describe("the player and the core", () => {
  it("show the same and fire the same events, however time is cut into pieces", () =>
    fc.assert(
      fc.property(clips, fc.array(fc.nat({ max: 2500 }), { minLength: 1, maxLength: 10 }), ({ durations, rules }, pieces) => {
        const timeline = timelineOf({ ...RULES, ...rules, steps: durations.map((duration) => ({ duration })) });
        const all = durations.map((_, k) => k);
        const player = createPlayer(
          atlasOf({
            a: clip(
              durations.map((each) => each / 1000),
              rules,
              all,
            ),
          }),
        );
        player.play("a");
        let t = -1;
        for (const piece of pieces) {
          const until = Math.max(0, t) + piece;
          const {
            events,
            frame,
            mirror,
            clip: _clip,
            duration: _duration,
            progress: _progress,
            values,
            ...shown
          } = player.advance(piece / 1000);
          expect(shown).toEqual(timeline.shownAt(until));
          expect(frame).toBe(shown.visible ? `f${shown.step}` : null);
          expect(mirror).toBe(false);
          expect(events).toEqual([...timeline.entries(t, until)].map(({ step }) => `e${step}`));
          expect(values).toHaveLength(events.length);
          t = until;
        }
      }),
      { numRuns: 400 },
    ));
});

describe("advance", () => {
  it("makes sixty calls of 1000/60 ms exactly one second", () => {
    const player = createPlayer(atlasOf({ a: clip([1000, 1000]) }));
    player.play("a");
    let now = player.advance(0);
    for (let k = 0; k < 60; k++) now = player.advance(1000 / 60);
    expect(now.step).toBe(1);
  });

  it("fires the first step's events at once, and every event that a long stall passed, in order", () => {
    const player = createPlayer(atlasOf({ a: clip([100, 100, 100], { playback: "pingpong", times: 1 }, [0, 1, 2]) }));
    player.play("a");
    expect(player.advance(0).events).toEqual(["e0"]);
    expect(player.advance(0).events).toEqual([]);
    expect(player.advance(10_000).events).toEqual(["e1", "e2", "e1", "e0"]);
  });

  it("returns each event's value, at the event's index", () => {
    const valued: AtlasClip = {
      steps: [
        { frame: "f0", ms: 100, events: ["footfall", "constructor"], eventValues: { footfall: "sand" } },
        { frame: "f1", ms: 100, events: ["footfall"], eventValues: { footfall: { on: "stone" } } },
      ],
    };
    const player = createPlayer(atlasOf({ a: valued }));
    player.play("a");
    expect(player.advance(150)).toMatchObject({
      events: ["footfall", "constructor", "footfall"],
      values: ["sand", undefined, { on: "stone" }],
    });
  });

  it("shows nothing before play, ignores negative time, and refuses invalid time", () => {
    const player = createPlayer(atlasOf({ a: clip([100, 100]) }));
    expect(player.advance(5)).toEqual({
      frame: null,
      mirror: false,
      clip: null,
      duration: 0,
      progress: 0,
      step: 0,
      pass: 0,
      events: [],
      values: [],
      ended: false,
      visible: false,
    });
    player.play("a");
    player.advance(100);
    expect(player.advance(-50).step).toBe(1);
    expect(() => player.advance(Number.NaN)).toThrow(RangeError);
  });
});

describe("the clip that plays", () => {
  it("is named, also for an action, with the length of its pass and the progress", () => {
    const player = createPlayer(atlasOf({ "walk-s": clip([100, 300], { loopFrom: 1 }) }, { walk: { facings: { s: { clip: "walk-s" } } } }));
    player.play("walk");
    expect(player.advance(100)).toMatchObject({ clip: "walk-s", duration: 400, progress: 0.25 });
    // Later passes leave the lead-in out.
    expect(player.advance(450)).toMatchObject({ pass: 1, duration: 300, progress: 0.5 });
  });

  it("counts the return home to the last pass, and has full progress at the end", () => {
    const player = createPlayer(atlasOf({ a: clip([100, 100, 100], { playback: "pingpong", times: 1 }) }));
    player.play("a");
    const progress = [0, 100, 100, 100, 100, 100].map((ms) => player.advance(ms).progress);
    expect(progress).toEqual([0, 0.2, 0.4, 0.6, 0.8, 1]);
  });

  it("restarts if requested after its end, and continues if requested before", () => {
    const player = createPlayer(atlasOf({ a: clip([100, 100], { playback: "once" }, [0]) }));
    player.play("a");
    player.advance(150);
    player.play("a");
    expect(player.advance(0).step).toBe(1);
    expect(player.advance(500).ended).toBe(true);
    player.play("a");
    expect(player.advance(0)).toMatchObject({ step: 0, ended: false, events: ["e0"] });
  });
});

describe("createPlayer", () => {
  it("refuses anything but an atlas file, and unknown versions, with a message", () => {
    for (const nothing of [undefined, null, {}, { format: "other", version: 1, clips: {} }, { format: "caravan-atlas", version: 1 }])
      expect(() => createPlayer(nothing as never)).toThrow("This is no parsed *.atlas.json file");
    for (const version of [2, 0, undefined, "1"])
      expect(() => createPlayer({ ...atlasOf({}), version: version as number })).toThrow(`of version ${version}`);
  });
});

describe("play", () => {
  const walk = (facings: Partial<Record<FacingName, { clip: string; mirror?: boolean }>>) =>
    createPlayer(atlasOf({ e: clip([100, 100]), s: clip([100, 100]), n: clip([100, 100]), walk1: clip([50]) }, { walk: { facings } }));

  it("shows the core's fallback for a facing, whatever is missing", () =>
    fc.assert(
      fc.property(fc.constantFrom(...FACINGS), fc.subarray([...FACINGS], { minLength: 1 }), (wanted, present) => {
        const clips = Object.fromEntries(present.map((facing) => [`go-${facing}`, clip([100])]));
        const facings = Object.fromEntries(present.map((facing) => [facing, { clip: `go-${facing}`, mirror: facing === "w" }]));
        const player = createPlayer(
          atlasOf(Object.fromEntries(Object.entries(clips).map(([name, each]) => [name, { ...each, steps: [{ frame: name, ms: 100 }] }])), {
            go: { facings },
          }),
        );
        player.play("go", { facing: wanted });
        const expected = nearestPresent(wanted, present);
        expect(player.advance(0)).toMatchObject({ frame: `go-${expected}`, mirror: expected === "w" });
      }),
    ));

  it("keeps its phase when only the facing changes, and restarts when told or for another clip", () => {
    const player = walk({ e: { clip: "e" }, w: { clip: "e", mirror: true } });
    player.play("walk", { facing: "e" });
    player.advance(150);
    player.play("walk", { facing: "w" });
    expect(player.advance(0)).toMatchObject({ step: 1, mirror: true });
    player.play("walk", { facing: "w", restart: true });
    expect(player.advance(0)).toMatchObject({ step: 0, mirror: true });
    player.advance(150);
    player.play("s");
    expect(player.advance(0)).toMatchObject({ step: 0, mirror: false });
  });

  it("falls back to the nearest facing, ties going to the one nearer s", () => {
    const shown = (facing: FacingName, present: Partial<Record<FacingName, { clip: string; mirror?: boolean }>>) => {
      const player = createPlayer(
        atlasOf(Object.fromEntries(["e", "s", "w", "n"].map((name) => [name, { steps: [{ frame: name, ms: 1 }] }])), {
          walk: { facings: present },
        }),
      );
      player.play("walk", { facing });
      return player.advance(0).frame;
    };
    const all = { e: { clip: "e" }, s: { clip: "s" }, w: { clip: "w" }, n: { clip: "n" } };
    expect(shown("se", all)).toBe("s");
    expect(shown("ne", all)).toBe("e");
    expect(shown("nw", { n: { clip: "n" }, w: { clip: "w" } })).toBe("w");
    expect(shown("n", { e: { clip: "e" }, s: { clip: "s" } })).toBe("e");
    expect(shown("w", { e: { clip: "e" } })).toBe("e");
  });

  it("lists similar names for an unknown one", () => {
    expect(() => walk({ e: { clip: "e" } }).play("wolk")).toThrow(/no action or clip "wolk" in this atlas\. Near it: "walk", "walk1"/);
    const alike = {
      ...atlasOf({ walk: { steps: [{ frame: "a", ms: 100 }], playback: "loop" } }),
      actions: { walk: { facings: { e: { clip: "walk" } } } },
    };
    expect(() => createPlayer(alike).play("wolk" as "walk")).toThrow(/Near it: "walk"\.$/);
    expect(() => createPlayer(atlasOf({})).play("x")).toThrow(/none at all/);
    expect(() => walk({}).play("constructor")).toThrow(/no action or clip "constructor"/);
    expect(() => walk({}).play("walk")).toThrow(/has no clip to play/);
  });
});
