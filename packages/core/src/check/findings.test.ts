import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addAction, addClip, addDelivery, dropFrames, removeSteps, setDelivery } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { type Clip, type ClipName, emptyProject, type FrameRef, type Project } from "../model";
import type { Finding } from "./finding";
import { findingsOf } from "./findings";
import { mended } from "./mend";
import { stoppingFinding } from "./stopping";

const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const walk = addClip(porterProject(), [ref(0), ref(1), ref(2)], "walk");

describe("findingsOf", () => {
  it("asks for art first", () => expect(findingsOf(emptyProject("x")).map((finding) => finding.code)).toEqual(["nothing-cut"]));

  it("notes frames in no clip, and shows the first", () => {
    const [finding] = findingsOf(walk);
    expect(finding).toMatchObject({ code: "unused-frames", severity: "note", place: { stop: "frames", frame: ref(3) } });
    expect(finding?.message).toMatch(/^9 frames are in no clip/);
  });

  it("mends a clip that shows dropped frames by taking those steps out", () => {
    const [finding] = findingsOf(dropFrames(walk, [ref(0), ref(2)]));
    expect(finding).toMatchObject({ code: "missing-frames", severity: "error", where: 'clip "walk"' });
    expect(finding?.message).toMatch(/^2 steps \(0, 2\) show frames that are dropped/);
    expect(mended(walk, finding as Finding).clips[0]?.steps.map((step) => step.frame)).toEqual([ref(1)]);
  });

  it("mends an empty clip by removing it", () => {
    const empty = removeSteps(walk, "walk" as ClipName, [0, 1, 2]);
    const [finding] = findingsOf(empty);
    expect(finding?.code).toBe("empty-clip");
    expect(mended(empty, finding as Finding).clips).toEqual([]);
  });

  it("reports two frames with one name, and mends the one named by hand", () => {
    const twins = {
      ...walk,
      sources: walk.sources.map((source) => ({
        ...source,
        frames: source.frames.map((frame) => (frame.key === "c3r0" ? { ...frame, name: "porter/0" } : frame)),
      })),
    };
    const [finding] = findingsOf(twins);
    expect(finding?.code).toBe("same-frame-name");
    expect(findingsOf(mended(twins, finding as Finding)).some((each) => each.code === "same-frame-name")).toBe(false);
  });
});

describe("the findings that stop a delivery", () => {
  it("is the first error of all findings that concerns it, however the project is spoilt", () =>
    fc.assert(
      fc.property(fc.array(fc.nat(5), { maxLength: 4 }), fc.nat(1), (spoils, index) => {
        const two = addDelivery(addClip(porterProject(), [ref(0), ref(1)], "walk"), "two", 0);
        const project = spoils.reduce((next, spoil) => SPOILS[spoil]?.(next) ?? next, two);
        const errors = findingsOf(project).filter(({ severity }) => severity === "error");
        const wanted = errors.find(({ delivery }) => delivery === undefined || delivery === index);
        expect(stoppingFinding(project, index)?.message).toBe(wanted?.message);
      }),
    ));
});

const SPOILS: readonly ((project: Project) => Project)[] = [
  (project) => dropFrames(project, [ref(1)]),
  (project) => addAction(project, `empty ${project.actions.length}`, 4),
  (project) => ({
    ...project,
    clips: [...project.clips, { ...(project.clips[0] as Clip), name: `none ${project.clips.length}` as ClipName, steps: [] }],
  }),
  (project) => setDelivery(project, 1, { choice: { of: "clips", names: [] } }),
  (project) => ({ ...project, sources: project.sources.map((source) => ({ ...source, frames: [] })) }),
  (project) => setDelivery(project, 0, { name: "con" }),
];
