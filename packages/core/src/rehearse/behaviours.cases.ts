/**
 * The meaning of rules, case by case, as docs/formats/behaviours.md defines it; written by hand. Core and player package are both tested
 * with it.
 */
import type { Input, Rule, Track } from "../model";

export interface BehaviourCase {
  readonly name: string;
  /** Absent: a button act that waits 120 ms, a button hit, a switch armed, a number speed. */
  readonly inputs?: Input[];
  readonly rules: Rule[];
  readonly track: Track;
  /** Time in ms, the rule that starts then, and why. */
  readonly account: readonly (readonly [at: number, rule: string | null, why: string])[];
}

const STAND: Rule = { name: "stand", when: [], play: "idle" };
const WALK: Rule = { name: "walk", when: [{ input: "speed", above: 5 }], play: "walk", phase: "carry" };
const STRIKE: Rule = { name: "strike", when: [{ input: "act", is: "pressed" }], play: "strike", keep: "whole", turns: false };

export const BEHAVIOURS: readonly BehaviourCase[] = [
  {
    name: "walks while it has speed and stands when it has none",
    rules: [WALK, STAND],
    track: [
      { at: 100, set: { speed: 40 } },
      { at: 250, set: { speed: 5 } },
    ],
    account: [
      [0, "stand", "start"],
      [100, "walk", "input"],
      [250, "stand", "input"],
    ],
  },
  {
    name: "a blow shows for its whole length and then what holds shows again",
    rules: [STRIKE, WALK, STAND],
    track: [
      { at: 50, set: { speed: 40 } },
      { at: 100, press: "act" },
      { at: 150, set: { speed: 0 } },
    ],
    account: [
      [0, "stand", "start"],
      [50, "walk", "input"],
      [100, "strike", "input"],
      [340, "stand", "over"],
    ],
  },
  {
    name: "a press waits for its time and no longer",
    rules: [STRIKE, STAND],
    track: [
      { at: 0, face: "e" },
      { at: 0, press: "act" },
      { at: 79, release: "act" },
      { at: 80, press: "act" },
      { at: 250, release: "act" },
      { at: 279, press: "act" },
      { at: 280, release: "act" },
    ],
    account: [
      [0, "strike", "start"],
      [200, "strike", "over"],
      [400, "stand", "over"],
    ],
  },
  {
    name: "only what may cut a kept rule starts while it is kept",
    rules: [
      { name: "hurt", when: [{ input: "hit", is: "pressed" }], play: "hurt", keep: 300, set: { armed: false } },
      { ...STRIKE, when: [...STRIKE.when, { input: "armed", is: true }], cutBy: ["hurt"], again: true },
      STAND,
    ],
    track: [
      { at: 10, set: { armed: true } },
      { at: 20, press: "act" },
      { at: 60, release: "act" },
      { at: 70, press: "act" },
      { at: 100, press: "hit" },
      { at: 150, release: "act" },
      { at: 160, press: "act" },
    ],
    account: [
      [0, "stand", "start"],
      [20, "strike", "input"],
      [70, "strike", "input"],
      [100, "hurt", "input"],
      [400, "stand", "over"],
    ],
  },
  {
    name: "what follows a keeping starts whatever its conditions say",
    rules: [
      { name: "fall", when: [{ input: "hit", is: "pressed" }], play: "hurt", keep: 100, then: "rise" },
      { name: "rise", when: [{ input: "speed", above: 1000 }], play: "strike", keep: "whole" },
      STAND,
    ],
    track: [{ at: 50, press: "hit" }],
    account: [
      [0, "stand", "start"],
      [50, "fall", "input"],
      [150, "rise", "then"],
      [390, "stand", "over"],
    ],
  },
  {
    name: "glances when it has stood for a while, then stands again",
    rules: [{ name: "glance", when: [{ showing: ["stand"], forMs: 300 }], play: "strike", keep: "whole" }, STAND],
    track: [{ at: 100, face: "e" }],
    account: [
      [0, "stand", "start"],
      [300, "glance", "time"],
      [500, "stand", "over"],
      [800, "glance", "time"],
      [1000, "stand", "over"],
    ],
  },
  {
    name: "a turn in the middle keeps it until the clip of the new facing has ended",
    rules: [{ ...STRIKE, turns: true }, STAND],
    track: [
      { at: 0, face: "e" },
      { at: 10, press: "act" },
      { at: 150, face: "s" },
    ],
    account: [
      [0, "stand", "start"],
      [10, "strike", "input"],
      [250, "stand", "over"],
    ],
  },
  {
    name: "turning to a clip that never ends ends the keeping",
    rules: [{ name: "spin", when: [{ input: "act", is: "pressed" }], play: "spin", keep: "whole" }, STAND],
    track: [
      { at: 0, face: "w" },
      { at: 10, press: "act" },
      { at: 30, face: "e" },
    ],
    account: [
      [0, "stand", "start"],
      [10, "spin", "input"],
      [30, "stand", "input"],
    ],
  },
  {
    name: "nothing shows where no rule holds, and rules that chase one another start once an instant",
    rules: [
      { name: "second", when: [{ showing: ["first"] }], play: "walk" },
      { name: "first", when: [{ input: "speed", below: 5 }], play: "idle" },
    ],
    track: [
      { at: 100, set: { speed: 9 } },
      { at: 200, set: { speed: 0 } },
    ],
    account: [
      [0, "first", "start"],
      [0, "second", "start"],
      [0, null, "start"],
      [200, "first", "input"],
      [200, "second", "input"],
      [200, null, "input"],
    ],
  },
  {
    name: "a clip that never ends keeps nothing, and a rule that can show nothing is passed over",
    rules: [
      { name: "gone", when: [], play: "no such clip" },
      { name: "turn", when: [{ input: "act", is: "pressed" }], play: "walk", keep: "whole" },
      STAND,
    ],
    track: [{ at: 100, press: "act" }],
    account: [
      [0, "stand", "start"],
      [100, "turn", "input"],
      [100, "stand", "input"],
    ],
  },
  {
    name: "a release is a moment of its own instant",
    rules: [
      { name: "loose", when: [{ input: "act", is: "released" }], play: "hurt", keep: "whole" },
      { ...WALK, when: [{ input: "act", is: "down" }] },
      STAND,
    ],
    track: [
      { at: 100, press: "act" },
      { at: 100, press: "act" },
      { at: 200, release: "act" },
      { at: 210, release: "act" },
    ],
    account: [
      [0, "stand", "start"],
      [100, "walk", "input"],
      [200, "loose", "input"],
      [280, "stand", "over"],
    ],
  },
];
