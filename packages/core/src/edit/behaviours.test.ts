import { describe, expect, it } from "vitest";
import {
  type Behaviour,
  type BehaviourName,
  type ClipName,
  checkDocument,
  type FrameRef,
  type MarkName,
  type Project,
  projectFromFile,
  projectToFile,
  type Rule,
  type Stage,
  type StageName,
} from "../model";
import { stageFor } from "../stage";
import { addAction, renameAction } from "./actions";
import {
  addInput,
  addRule,
  duplicateRule,
  moveRule,
  removeInput,
  removeRule,
  renameBehaviour,
  renameInput,
  renameRule,
  setInput,
  setRule,
} from "./behaviours";
import { addClip, removeClip, renameClip } from "./clips";
import { addMarkKind, renameMarkKind } from "./mark-kinds";
import { porterProject } from "./project.fixture";
import { addRehearsal, keepDrive, removeDrive, renameStage, setDrive, setStage } from "./stages";

const ref = (column: number, row: number) => `s1/c${column}r${row}` as FrameRef;
const PORTER = "porter" as BehaviourName;
const ROAD = "road" as StageName;

const RULES: Rule[] = [
  {
    name: "strike",
    when: [
      { input: "act", is: "pressed" },
      { input: "armed", is: true },
    ],
    play: "strike",
    keep: "whole",
    cutBy: ["walk"],
    then: "walk",
    set: { armed: false },
  },
  { name: "walk", when: [{ input: "speed", above: 5 }], play: "walk", phase: "carry" },
  { name: "stand", when: [{ showing: ["walk", "stand"] }], play: "idle" },
];

/** A project in which every name is used at every place that can name it. */
function project(): Project {
  let made = addClip(porterProject(), [ref(0, 0), ref(1, 0)], "idle");
  made = addClip(addClip(made, [ref(0, 1)], "walk"), [ref(0, 2)], "strike");
  made = addMarkKind(addMarkKind(made, "box", "body"), "point", "hand");
  const behaviour: Behaviour = {
    name: PORTER,
    inputs: [
      { name: "act", kind: "button" },
      { name: "armed", kind: "switch" },
      { name: "speed", kind: "number" },
    ],
    rules: RULES,
  };
  const stage: Stage = {
    ...stageFor(made, "walk", "side"),
    name: ROAD,
    body: "body" as MarkName,
    feeds: { speed: "speed" },
    keys: [{ code: "Space", input: "act" }],
    zones: [{ name: "gate", area: { x: 0, y: 0, w: 9, h: 9 }, input: "armed", on: "entering", effect: "spark" }],
    effects: [{ name: "spark", event: "shot", play: "strike", point: "hand" as MarkName, speed: 0, reach: 0 }],
    extras: [{ name: "target", play: "idle", facing: "w", x: 9, y: 9 }],
    hits: [{ ours: "body" as MarkName, theirs: "body" as MarkName, input: "act" }],
  };
  made = addRehearsal(made, behaviour, stage);
  return keepDrive(made, {
    name: "drive",
    behaviour: PORTER,
    stage: ROAD,
    length: 500,
    keys: [{ at: 10, input: "act", down: true }],
    track: [
      { at: 10, press: "act" },
      { at: 20, set: { armed: true, speed: 9 } },
      { at: 20, release: "act" },
    ],
    account: [
      { at: 0, rule: "stand", play: "idle", why: "start" },
      { at: 10, rule: null, play: null, why: "input" },
    ],
  });
}

/** Everything of it that names something, as text. */
const text = ({ behaviours, stages, drives }: Project) => JSON.stringify({ behaviours, stages, drives });

describe("names in behaviours, stages and drives", () => {
  it.each([
    ["a clip", (made: Project) => renameClip(made, "strike" as ClipName, "NEW"), '"play":"strike"', 2],
    ["a kind of boxes", (made: Project) => renameMarkKind(made, "body" as MarkName, "NEW"), '"body":"body"', 1],
    ["a kind of points", (made: Project) => renameMarkKind(made, "hand" as MarkName, "NEW"), '"point":"hand"', 1],
    ["a behaviour", (made: Project) => renameBehaviour(made, PORTER, "NEW"), '"behaviour":"porter"', 2],
    ["a stage", (made: Project) => renameStage(made, ROAD, "NEW"), '"stage":"road"', 1],
    ["a button", (made: Project) => renameInput(made, PORTER, "act", "NEW"), '"act"', 7],
    ["a switch", (made: Project) => renameInput(made, PORTER, "armed", "NEW"), '"armed"', 5],
    ["a number", (made: Project) => renameInput(made, PORTER, "speed", "NEW"), '"speed":"speed"', 1],
    ["a rule", (made: Project) => renameRule(made, PORTER, "walk", "NEW"), '"showing":["walk"', 1],
  ] as const)("follow %s that is renamed", (_what, rename, before, times) => {
    const was = project();
    expect(text(was).split(before)).toHaveLength(times + 1);
    const now = rename(was);
    expect(text(now)).not.toContain(before);
    expect(text(now)).toContain("NEW");
    checkDocument(now, "renamed");
    expect(projectFromFile(JSON.parse(JSON.stringify(projectToFile(now))), "again")).toEqual(now);
  });

  it("mean the action if an action and a clip have one name", () => {
    const was = addAction(project(), "walk", 4);
    expect(renameClip(was, "walk" as ClipName, "stroll").behaviours).toBe(was.behaviours);
    expect(text(renameAction(was, "walk" as never, "march"))).toContain('"play":"march"');
  });

  it("stay if a clip is removed, and nothing else changes", () => {
    const was = project();
    expect(removeClip(was, "strike" as ClipName).behaviours).toBe(was.behaviours);
  });
});

describe("rules", () => {
  const rulesOf = ({ behaviours }: Project) => behaviours?.[0]?.rules ?? [];
  const names = (made: Project) => rulesOf(made).map(({ name }) => name);

  it("move, are duplicated and inserted at a position, each under its own name", () => {
    expect(names(moveRule(project(), PORTER, "stand", 0))).toEqual(["stand", "strike", "walk"]);
    expect(names(duplicateRule(project(), PORTER, "walk"))).toEqual(["strike", "walk", "walk-2", "stand"]);
    expect(names(addRule(project(), PORTER, { name: "walk", when: [], play: "idle" }, 1))).toEqual(["strike", "walk-2", "walk", "stand"]);
  });

  it("are kept for their whole length when they get a press condition, unless told otherwise", () => {
    const asked = setRule(project(), PORTER, "walk", { when: [{ input: "act", is: "pressed" }] });
    expect(rulesOf(asked)[1]?.keep).toBe("whole");
    expect(rulesOf(setRule(asked, PORTER, "walk", { keep: 250 }))[1]?.keep).toBe(250);
  });

  it("that are removed are forgotten by those that named them, and conditions on them say so", () => {
    const [strike, stand] = rulesOf(removeRule(project(), PORTER, "walk"));
    expect(strike).not.toHaveProperty("cutBy");
    expect(strike).not.toHaveProperty("then");
    expect(stand?.when).toEqual([{ showing: ["walk", "stand"] }]);
  });

  it("that change nothing return the same project, and invalid values are refused with their place", () => {
    const was = project();
    expect(setRule(was, PORTER, "walk", { phase: "carry" })).toBe(was);
    expect(moveRule(was, PORTER, "walk", 1)).toBe(was);
    expect(() => setRule(was, PORTER, "walk", { keep: -1 })).toThrow(/rules 1 keep/);
    expect(() => setRule(was, PORTER, "walk", { when: [{ input: "speed" } as never] })).toThrow(/rules 1 when 0/);
    expect(() => setInput(was, PORTER, { name: "speed", kind: "number", initial: Number.NaN })).toThrow(/inputs 2 initial/);
    expect(() => renameRule(was, PORTER, "walk", "stand")).toThrow(/already a rule of this name/);
    expect(() => addInput(was, PORTER, "switch", "armed")).toThrow(/already an input of this name/);
    expect(() => renameInput(was, PORTER, "act", "__proto__")).toThrow(/name/);
    expect(() => setRule(was, "nobody" as BehaviourName, "walk", {})).toThrow(/no such behaviour/);
    expect(removeInput(was, PORTER, "act").behaviours?.[0]?.inputs).toHaveLength(2);
  });
});

describe("stages and drives", () => {
  it("are changed, renamed and removed by name", () => {
    const was = project();
    expect(() => setStage(was, ROAD, { size: { w: 0, h: 9 } })).toThrow(/size w/);
    expect(setStage(was, ROAD, { camera: "follows" })).toBe(was);
    const again = keepDrive(was, { ...(was.drives?.[0] as NonNullable<Project["drives"]>[number]) });
    expect(again.drives?.map(({ name }) => name)).toEqual(["drive", "drive-2"]);
    expect(() => setDrive(again, "drive-2", { name: "drive" })).toThrow(/already a drive of this name/);
    expect(removeDrive(again, "drive").drives?.map(({ name }) => name)).toEqual(["drive-2"]);
  });

  it("with duplicate names are refused when a document is opened", () => {
    const was = project();
    const twice = { ...was, stages: [...(was.stages ?? []), ...(was.stages ?? [])] };
    expect(() => checkDocument(twice, "opened")).toThrow(/two stages named "road"/);
  });
});
