import { describe, expect, it } from "vitest";
import type { Behaviour, Project, Rule } from "../model";
import { showsForTests } from "../rehearse/shows.fixture";
import { behaviourFindings } from "./behaviour-findings";
import { mended } from "./mend";

const STAND: Rule = { name: "stand", when: [], play: "idle" };

function withRules(...rules: Rule[]): Project {
  const behaviour = {
    name: "porter",
    inputs: [
      { name: "act", kind: "button" },
      { name: "armed", kind: "switch" },
      { name: "speed", kind: "number" },
    ],
    rules: [
      ...rules,
      {
        ...STAND,
        when: [
          { input: "act", is: "down" },
          { input: "armed", is: true },
          { input: "speed", above: 1 },
        ],
        name: "asks",
        off: true,
      },
    ],
  } as Behaviour;
  return { ...showsForTests(), behaviours: [behaviour] };
}

const found = (project: Project) => behaviourFindings(project).map(({ code, where }) => `${code}: ${where}`);

describe("findings on behaviours", () => {
  it("are none if every rule shows in its time", () =>
    expect(found(withRules({ name: "walk", when: [{ input: "speed", above: 5 }], play: "walk", phase: "carry" }, STAND))).toEqual([]));

  it.each<[string, Rule[], string]>([
    ["plays what is not there", [{ name: "a", when: [{ input: "armed", is: true }], play: "gone" }, STAND], "rule-shows-nothing"],
    ["plays a clip without steps", [{ name: "a", when: [{ input: "armed", is: true }], play: "nothing" }, STAND], "rule-shows-nothing"],
    ["asks for an input that is not there", [{ name: "a", when: [{ input: "who", is: true }], play: "walk" }, STAND], "rule-names-nothing"],
    [
      "asks for an input of another kind",
      [{ name: "a", when: [{ input: "speed", is: "down" }], play: "walk" }, STAND],
      "rule-names-nothing",
    ],
    ["asks for a rule that is not there", [{ name: "a", when: [{ showing: ["who"] }], play: "walk" }, STAND], "rule-names-nothing"],
    [
      "contradicts itself",
      [
        {
          name: "a",
          when: [
            { input: "speed", above: 5 },
            { input: "speed", below: 5 },
          ],
          play: "walk",
        },
        STAND,
      ],
      "rule-never-holds",
    ],
    [
      "is kept for a clip that never ends",
      [{ name: "a", when: [{ input: "act", is: "pressed" }], play: "walk", keep: "whole" }, STAND],
      "kept-for-ever",
    ],
    ["is not kept beyond its instant", [{ name: "a", when: [{ input: "act", is: "pressed" }], play: "strike" }, STAND], "not-kept"],
    ["is too short to be seen", [{ name: "a", when: [{ input: "act", is: "pressed" }], play: "strike", keep: 40 }, STAND], "hardly-seen"],
    [
      "shows a one-shot without keeping it",
      [{ name: "a", when: [{ input: "armed", is: true }], play: "strike" }, STAND],
      "stands-after-end",
    ],
    ["stands below what always holds", [STAND, { name: "a", when: [{ input: "armed", is: true }], play: "walk" }], "rule-covered"],
  ])("tell a rule that %s, and their mending mends it", (_what, rules, code) => {
    const project = withRules(...rules);
    const finding = behaviourFindings(project).find((each) => each.code === code);
    expect(finding?.where).toBe('rule "a" of "porter"');
    expect(finding?.mend).toBeDefined();
    expect(behaviourFindings(mended(project, finding as never)).map((each) => each.code)).not.toContain(code);
  });

  it("report that nothing may show, rules that restart each other, and unused inputs", () => {
    const chase: Rule[] = [
      { name: "b", when: [{ showing: ["a"] }], play: "walk" },
      { name: "a", when: [{ input: "armed", is: true }], play: "walk" },
    ];
    expect(found(withRules(...chase))).toEqual(['nothing-shows: behaviour "porter"', 'rules-chase: rule "b" of "porter"']);
    const project = withRules(STAND);
    const [behaviour] = project.behaviours as [Behaviour];
    const unasked = { ...project, behaviours: [{ ...behaviour, rules: [STAND] }] };
    expect(found(unasked)).toEqual(Array(3).fill('input-unasked: behaviour "porter"'));
  });

  it("wait for a clip's end if a rule does", () => {
    const rules: Rule[] = [
      { name: "b", when: [{ showing: ["a"], ended: true }], play: "walk" },
      { name: "a", when: [{ input: "armed", is: true }], play: "strike" },
      STAND,
    ];
    expect(found(withRules(...rules))).toEqual([]);
  });
});
