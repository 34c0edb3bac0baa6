import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { atlasAction, atlasClip } from "../../core/src/atlas";
import { type Behaviour, behavioursToFile, type Facing, type Rule, type Track } from "../../core/src/model";
import { accountOf, programOf } from "../../core/src/rehearse";
import { BEHAVIOURS } from "../../core/src/rehearse/behaviours.cases";
import { showsForTests } from "../../core/src/rehearse/shows.fixture";
import type { Atlas } from "./atlas";
import { createBehaviour } from "./behaviour";

const project = showsForTests();
const INPUTS: Behaviour["inputs"] = [
  { name: "act", kind: "button", bufferMs: 120 },
  { name: "hit", kind: "button" },
  { name: "armed", kind: "switch" },
  { name: "speed", kind: "number" },
];

/** The clips for tests as a game gets them, every step with an event of its own. */
function atlasWith(rules: Rule[], inputs = INPUTS): Atlas {
  const clips = project.clips.filter(({ steps }) => steps.length > 0);
  const behaviour = { name: "porter", inputs, rules } as Behaviour;
  return JSON.parse(
    JSON.stringify({
      format: "caravan-atlas",
      version: 1,
      pages: [],
      frames: {},
      clips: Object.fromEntries(
        clips.map((clip) => {
          const made = atlasClip(clip, ({ frame }) => frame);
          return [clip.name, { ...made, steps: made.steps.map((step, k) => ({ ...step, events: [`${clip.name} ${k}`] })) }];
        }),
      ),
      actions: Object.fromEntries(project.actions.map((action) => [action.name, atlasAction(action)])),
      behaviours: behavioursToFile([behaviour]),
    }),
  );
}

/** Plays a track at the times of a display: inputs are given when their time is reached, however the display cuts it. */
function played(atlas: Atlas, track: Track, untilMs: number, cuts: readonly number[]) {
  const behaviour = createBehaviour(atlas, "porter");
  const events: string[] = [];
  const rules: [number, string | null][] = [];
  let at = 0;
  const goTo = (next: number) => {
    const now = behaviour.advance(next - at);
    at = next;
    events.push(...now.events);
    return now;
  };
  const times = [...new Set([...track.map((entry) => entry.at), ...cuts, untilMs])].sort((a, b) => a - b);
  for (const time of times) {
    if (time > at) goTo(time);
    for (const entry of track.filter((each) => each.at === time)) {
      if ("press" in entry) behaviour.press(entry.press);
      else if ("release" in entry) behaviour.release(entry.release);
      else if ("face" in entry) behaviour.face(entry.face);
      else for (const [name, value] of Object.entries(entry.set)) behaviour.set(name, value);
    }
    const { rule } = goTo(time);
    expect(behaviour.rule).toBe(rule);
    rules.push([time, rule]);
  }
  return { events, rules };
}

/** The times at which displays of 30, 60 and 144 Hz ask, and at no rate at all. */
const rate = (hz: number) => Array.from({ length: Math.ceil(1.2 * hz) }, (_, k) => (k * 1000) / hz);
const DISPLAYS = [rate(30), rate(60), rate(144), []];

describe("a behaviour in a game", () => {
  it.each(BEHAVIOURS)("$name", ({ rules, inputs, track, account }) => {
    for (const cuts of DISPLAYS) {
      const { rules: shown } = played(atlasWith(rules, inputs), track, 1200, cuts);
      for (const [at, rule] of shown) expect([at, rule]).toEqual([at, account.filter(([since]) => since <= at).at(-1)?.[1] ?? null]);
    }
  });

  it("shows and fires the same at 30, 60, 144 pictures a second and at any others", () => {
    const face = fc.constantFrom<Facing>("e", "s", "w");
    const happening = fc.oneof(
      fc.record({ press: fc.constantFrom("act", "hit") }),
      fc.record({ release: fc.constantFrom("act", "hit") }),
      fc.record({ set: fc.record({ speed: fc.constantFrom(0, 9) }) }),
      fc.record({ face }),
    );
    const tracks = fc.array(fc.tuple(fc.constantFrom(7, 33, 61, 100), happening), { maxLength: 10 }).map((parts): Track => {
      let at = 0;
      return parts.map(([wait, what]) => {
        at += wait;
        return { at, ...what };
      });
    });
    fc.assert(
      fc.property(
        fc.nat(BEHAVIOURS.length - 1),
        tracks,
        fc.array(fc.double({ min: 0, max: 1200, noNaN: true }), { maxLength: 30 }),
        (which, track, cuts) => {
          const { rules, inputs } = BEHAVIOURS[which] as (typeof BEHAVIOURS)[number];
          const atlas = atlasWith(rules, inputs);
          // Asked only when something is given: what no display can change.
          const plain = played(atlas, track, 1200, []);
          for (const display of [...DISPLAYS, cuts]) {
            const { events, rules: shown } = played(atlas, track, 1200, display);
            expect(events).toEqual(plain.events);
            const account = accountOf(programOf(project, { inputs: inputs ?? INPUTS, rules }), track, { until: 1_200_000 }).rows;
            for (const [at, rule] of shown)
              expect(rule).toBe(account.filter((row) => row.at <= Math.round(at * 1000)).at(-1)?.rule ?? null);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it("accepts degrees, and does not jitter at the border of two facings", () => {
    const behaviour = createBehaviour(atlasWith([{ name: "go", when: [], play: "walk" }]), "porter");
    const shows = (degrees: number) => {
      behaviour.face(degrees);
      const { clip, mirror } = behaviour.advance(0);
      return `${clip}${mirror ? ", mirrored" : ""}`;
    };
    expect([0, 180, 540, -180, 90].map(shows)).toEqual(["walk-e", "walk-e, mirrored", "walk-e, mirrored", "walk-e, mirrored", "walk-s"]);
    const turnedFromEast = (degrees: number) => {
      behaviour.face(0);
      return shows(degrees);
    };
    expect([20, 26, 29].map(turnedFromEast)).toEqual(["walk-e", "walk-e", "walk-s"]);
    expect(() => behaviour.face(Number.NaN)).toThrow(RangeError);
    expect(() => behaviour.face("up" as never)).toThrow(/facing or degrees/);
  });

  it("refuses invalid names and values, and lists similar ones", () => {
    const atlas = atlasWith([{ name: "go", when: [], play: "walk" }]);
    expect(() => createBehaviour(atlas, "portr")).toThrow(/no behaviour "portr" in this atlas\. Near it: "porter"/);
    expect(() => createBehaviour({ ...atlas, behaviours: {} } as Atlas, "constructor")).toThrow(/none at all/);
    expect(() => createBehaviour({ ...atlas, version: 2 }, "porter")).toThrow(/version 2/);
    const behaviour = createBehaviour(atlas, "porter");
    expect(() => behaviour.press("akt")).toThrow(/no input "akt" in this atlas\. Near it: "act"/);
    expect(() => behaviour.press("armed")).toThrow(/"armed" is a switch/);
    expect(() => behaviour.set("act", true)).toThrow(/"act" is a button/);
    expect(() => behaviour.set("speed", Number.POSITIVE_INFINITY)).toThrow(/"speed" is a number/);
    expect(() => behaviour.set("speed", true)).toThrow(RangeError);
    expect(() => behaviour.advance(Number.NaN)).toThrow(RangeError);
    expect(behaviour.advance(-5)).toMatchObject({ rule: "go", clip: "walk-s", step: 0, events: ["walk-s 0"] });
  });

  it("draws nothing if no rule holds, and continues if a rule plays something not delivered", () => {
    const rules: Rule[] = [
      { name: "gone", when: [], play: "no such clip" },
      { name: "walk", when: [{ input: "speed", above: 1 }], play: "walk" },
    ];
    const behaviour = createBehaviour(atlasWith(rules), "porter");
    expect(behaviour.advance(16)).toMatchObject({ rule: null, frame: null, clip: null, visible: false });
    behaviour.set("speed", 2);
    expect(behaviour.advance(16)).toMatchObject({ rule: "walk", clip: "walk-s", visible: true });
  });
});
