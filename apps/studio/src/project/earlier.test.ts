import { addClip, renameClip, setClipTotal, setSourceOrigin } from "@caravan/core/edit";
import type { ClipName, FrameRef, Project } from "@caravan/core/model";
import { differenceBetween } from "@caravan/core/undo";
import { describe, expect, it } from "vitest";
import { PORTER, porterProject } from "../../../../packages/core/src/edit/project.fixture";
import { earlierClip } from "./earlier";
import { type History, NO_HISTORY, remembered } from "./history";

const WALK = "walk" as ClipName;
const refs = [0, 1].map((column) => `s1/c${column}r0` as FrameRef);

/** Makes changes one after the other, each remembered under its place. */
function after(start: Project, ...changes: ((project: Project) => Project)[]): { project: Project; history: History } {
  return changes.reduce(
    ({ project, history }, change, k) => {
      const next = change(project);
      return { project: next, history: remembered(history, `change ${k}`, project, next, k * 10_000) };
    },
    { project: start, history: NO_HISTORY },
  );
}

describe("the earlier state of a clip", () => {
  const start = addClip(addClip(porterProject(), refs, "walk"), refs, "idle");
  const slower = (project: Project) => setClipTotal(project, WALK, 900_000);
  const other = (project: Project) => setClipTotal(project, "idle" as ClipName, 300_000);

  it("is that before its own last change, however many changes to others came after", () => {
    const { project, history } = after(start, slower, other, other);
    const earlier = earlierClip(history, project, WALK);
    expect(earlier?.label).toBe("change 0");
    expect(earlier?.clip.steps.map(({ duration }) => duration)).toEqual([100_000, 100_000]);
    expect(differenceBetween(earlier?.project, start)).toEqual([]);
  });

  it("also changes with the origins of its frames", () => {
    const { project, history } = after(start, slower, (each) => setSourceOrigin(each, PORTER, { x: 1, y: 2 }));
    expect(earlierClip(history, project, WALK)?.label).toBe("change 1");
  });

  it("is none if nothing changed it, or if it had another name", () => {
    expect(earlierClip(NO_HISTORY, start, WALK)).toBeNull();
    const { project, history } = after(start, other, (each) => renameClip(each, WALK, "stride"));
    expect(earlierClip(history, project, "stride" as ClipName)).toBeNull();
  });
});
