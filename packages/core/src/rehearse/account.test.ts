import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ownTime, type Rules, type Run, runFromStart, runGiven, runUntil } from "../behave";
import type { Condition, Facing, Input, Rule, Track, TrackEntry } from "../model";
import { accountOf } from "./account";
import { BEHAVIOURS } from "./behaviours.cases";
import { programOf } from "./program";
import { referenceAccount } from "./reference.fixture";
import { showsForTests } from "./shows.fixture";

const project = showsForTests();
const INPUTS: Input[] = [
  { name: "act", kind: "button", bufferMs: 120 },
  { name: "hit", kind: "button" },
  { name: "armed", kind: "switch" },
  { name: "speed", kind: "number" },
];
const NAMES = ["a", "b", "c", "d", "e"];

const conditions: fc.Arbitrary<Condition> = fc.oneof(
  fc.record({
    input: fc.constantFrom("act", "hit"),
    is: fc.constantFrom("down" as const, "up" as const, "pressed" as const, "released" as const),
  }),
  fc.record({ input: fc.constant("armed"), is: fc.boolean() }),
  fc.record({ input: fc.constant("speed"), above: fc.constantFrom(0, 5) }),
  fc.record({ input: fc.constant("speed"), below: fc.constantFrom(5, 9) }),
  fc.record(
    {
      showing: fc.subarray(NAMES, { minLength: 1 }),
      forMs: fc.constantFrom(0, 30, 150, 400),
      ended: fc.constant(true as const),
    },
    { requiredKeys: ["showing"] },
  ),
);

const ruleBody = fc.record(
  {
    when: fc.array(conditions, { maxLength: 2 }),
    play: fc.constantFrom("idle", "walk", "strike", "spin", "hurt", "walk-e", "nothing", "gone"),
    keep: fc.constantFrom("while" as const, "whole" as const, 0, 50, 140),
    cutBy: fc.subarray(NAMES),
    again: fc.constant(true as const),
    then: fc.constantFrom(...NAMES),
    set: fc.record({ armed: fc.boolean() }),
    phase: fc.constantFrom("start" as const, "carry" as const),
    turns: fc.boolean(),
    off: fc.constant(true as const),
  },
  { requiredKeys: ["when", "play"] },
);

const behaviours: fc.Arbitrary<Rules> = fc
  .array(ruleBody, { minLength: 1, maxLength: 5 })
  .map((bodies) => ({ inputs: INPUTS, rules: bodies.map((body, k): Rule => ({ name: NAMES[k] as string, ...body })) }));

const happenings = fc.oneof(
  fc.record({ press: fc.constantFrom("act", "hit") }),
  fc.record({ release: fc.constantFrom("act", "hit") }),
  fc.record({ set: fc.oneof(fc.record({ armed: fc.boolean() }), fc.record({ speed: fc.constantFrom(0, 5, 6, 9) })) }),
  fc.record({ face: fc.constantFrom<Facing>("e", "s", "w", "nw") }),
);

const tracks: fc.Arbitrary<Track> = fc
  .array(fc.tuple(fc.constantFrom(0, 1, 20, 40, 60, 100, 130), happenings), { maxLength: 14 })
  .map((parts) => {
    let at = 0;
    return parts.map(([wait, what]) => {
      at += wait;
      return { at, ...what } as TrackEntry;
    });
  });

const UNTIL = 1200;

describe("an account", () => {
  it.each(BEHAVIOURS)("$name", ({ rules, inputs, track, account }) => {
    const { rows } = accountOf(programOf(project, { inputs: inputs ?? INPUTS, rules }), track, { until: UNTIL * 1000 });
    expect(rows.map(({ at, rule, why }) => [at / 1000, rule, why])).toEqual(account);
  });

  it("equals a second interpreter's for any rules and any track, at every millisecond", () =>
    fc.assert(
      fc.property(behaviours, tracks, (behaviour, track) => {
        const program = programOf(project, behaviour);
        const asked = Array.from({ length: UNTIL + 1 }, (_, k) => k * 1000);
        const { rows, states } = accountOf(program, track, { asked });
        const reference = referenceAccount(project, behaviour, track, UNTIL);
        expect(rows.map((row) => ({ ...row, at: row.at / 1000 }))).toEqual(reference.rows);
        const shown = states.map((state) => {
          const { current } = state;
          if (!current) return { rule: null, clip: null, mirror: false, time: null };
          const { clip, mirror } = current.cast;
          return { rule: behaviour.rules[current.rule]?.name, clip, mirror, time: ownTime(state, current) / 1000 };
        });
        expect(shown).toEqual(reference.shown);
      }),
      { numRuns: 400 },
    ));

  it("does not depend on how often or when it is asked", () =>
    fc.assert(
      fc.property(behaviours, tracks, fc.array(fc.nat(UNTIL * 1000), { maxLength: 40 }), (behaviour, track, asked) => {
        const program = programOf(project, behaviour);
        const until = UNTIL * 1000;
        const steps = () => true;
        const plain = accountOf(program, track, { until, steps });
        const often = accountOf(program, track, { until, asked, steps });
        expect(often.rows).toEqual(plain.rows);
        expect(often.passed).toEqual(plain.passed);
      }),
    ));

  it("is the same if a game passes inputs one by one and asks between two at the same time", () =>
    fc.assert(
      fc.property(behaviours, tracks, (behaviour, track) => {
        const program = programOf(project, behaviour);
        const rows: unknown[] = [];
        const onPast = (past: Run) => rows.push(...past.rows);
        let run = runFromStart(program);
        for (const { at, ...given } of track) {
          run = runUntil(program, run, at * 1000, onPast);
          run = runGiven(program, run, [given]);
        }
        run = runUntil(program, run, UNTIL * 1000, onPast);
        expect([...rows, ...run.rows]).toEqual(accountOf(program, track, { until: UNTIL * 1000 }).rows);
      }),
    ));

  it("reports each step that shows once, and none of a clip already replaced", () => {
    const rules: Rule[] = [
      { name: "hurt", when: [{ input: "hit", is: "pressed" }], play: "hurt", keep: 60 },
      { name: "stand", when: [], play: "idle" },
    ];
    const { passed } = accountOf(programOf(project, { inputs: INPUTS, rules }), [{ at: 400, press: "hit" }], {
      until: 800_000,
      steps: () => true,
    });
    expect(passed.map(({ at, clip, step }) => `${at / 1000} ${clip} ${step}`)).toEqual([
      "0 idle 0",
      "200 idle 1",
      "400 hurt 0",
      "440 hurt 0",
      "460 idle 0",
      "660 idle 1",
    ]);
  });
});
