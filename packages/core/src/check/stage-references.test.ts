import { describe, expect, it } from "vitest";
import {
  addClip,
  addMarkKind,
  addRehearsal,
  keepDrive,
  removeBehaviour,
  removeClip,
  removeInput,
  removeMarkKind,
  removeStage,
  setStage,
} from "../edit";
import { porterProject } from "../edit/project.fixture";
import {
  type BehaviourName,
  type ClipName,
  keptRefs,
  type MarkName,
  type Project,
  type Source,
  type Stage,
  type StageName,
} from "../model";
import { proposed } from "../stage";
import { findingsOf } from "./findings";
import { mended } from "./mend";

const HAND = "hand" as MarkName;
const BODY = "body" as MarkName;

/** A stage on which everything refers to something. */
function busy(): Project {
  const refs = keptRefs(porterProject().sources[0] as Source);
  let project = addClip(addClip(porterProject(), refs.slice(0, 4), "walk"), refs.slice(0, 2), "dust");
  project = addMarkKind(addMarkKind(project, "point", "hand"), "box", "body");
  const { behaviour, stage } = proposed(project, { stand: null, move: "walk", jump: null, fall: null, acts: [] }, "hero");
  project = addRehearsal(project, { ...behaviour, inputs: [...behaviour.inputs, { name: "wet", kind: "switch" }] }, stage);
  const [made] = project.stages as [Stage];
  const zone = { name: "pond", area: { x: 0, y: 0, w: 9, h: 9 }, on: "entering", input: "wet", effect: "splash" } as const;
  return setStage(project, made.name, {
    body: BODY,
    effects: [{ name: "splash", play: "dust", point: HAND, speed: 0, reach: 0 }],
    extras: [{ name: "camel", play: "walk", facing: "w", x: 9, y: 9 }],
    hits: [{ ours: BODY, theirs: BODY }],
    zones: [zone],
  });
}

const goneIn = (project: Project) =>
  findingsOf(project).filter(({ code }) => code === "stage-names-nothing" || code === "drive-names-nothing");
const [STAGE] = busy().stages as [Stage];

describe("what a stage refers to and is removed", () => {
  it("is no finding while everything is there", () => expect(goneIn(busy())).toEqual([]));

  it.each<[string, (project: Project) => Project, string]>([
    ["the clip of an effect", (project) => removeClip(project, "dust" as ClipName), "dust of the effect splash"],
    ["the clip of another figure", (project) => removeClip(project, "walk" as ClipName), "walk that camel plays"],
    ["a point", (project) => removeMarkKind(project, HAND), "the point hand of the effect splash"],
    ["boxes", (project) => removeMarkKind(project, BODY), "the marks body, the marks body"],
    ["an input", (project) => removeInput(project, STAGE.behaviour, "wet"), "the input wet"],
  ])("is named when it is %s, and can be taken off", (_what, remove, words) => {
    const [finding, ...others] = goneIn(remove(busy()));
    expect(finding).toMatchObject({ severity: "warning", where: `stage "${STAGE.name}"`, message: expect.stringContaining(words) });
    expect(others).toEqual([]);
    const after = mended(remove(busy()), finding as NonNullable<typeof finding>);
    expect(goneIn(after)).toEqual([]);
    expect(after.stages).toHaveLength(1);
  });

  it("takes along the zone's effect when the effect is taken off", () => {
    const gone = removeClip(busy(), "dust" as ClipName);
    const after = mended(gone, goneIn(gone)[0] as ReturnType<typeof goneIn>[number]);
    expect(after.stages?.[0]).toMatchObject({ effects: [], zones: [{ name: "pond", input: "wet" }] });
    expect(after.stages?.[0]?.zones[0]).not.toHaveProperty("effect");
  });

  it("is named when it is the behaviour, and the only other one is offered", () => {
    const { behaviour } = proposed(busy(), { stand: null, move: "walk", jump: null, fall: null, acts: [] }, "other");
    const two: Project = { ...busy(), behaviours: [...(busy().behaviours ?? []), { ...behaviour, name: "other" as BehaviourName }] };
    const [finding] = goneIn(removeBehaviour(two, STAGE.behaviour));
    expect(finding?.message).toContain(`Its behaviour ${STAGE.behaviour} no longer exists`);
    expect(finding?.mend?.label).toBe("Use other");
    expect(goneIn(removeBehaviour(busy(), STAGE.behaviour))[0]?.mend).toBeUndefined();
  });

  it("leaves a drive that says so", () => {
    const drive = { name: "out", behaviour: STAGE.behaviour, stage: STAGE.name, length: 100, keys: [], track: [], account: [] };
    const kept = keepDrive(busy(), drive);
    const gone = removeStage(kept, STAGE.name as StageName);
    const [finding] = goneIn(gone);
    expect(finding).toMatchObject({
      code: "drive-names-nothing",
      message: expect.stringContaining(`The stage ${STAGE.name} no longer exists`),
    });
    expect(mended(gone, finding as NonNullable<typeof finding>).drives).toEqual([]);
  });
});
