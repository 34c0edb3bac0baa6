import { describe, expect, it } from "vitest";
import { addClip, drawFrames, dropFrames, setClipRules, setStepDurations } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { type ClipName, clipNamed, type FrameRef, type Project, type SourceId } from "../model";
import { findingsOf } from "./findings";
import { mended } from "./mend";

const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const WALK = "walk" as ClipName;
const found = (project: Project) => findingsOf(project).filter(({ place }) => place.stop === "clips");
const allMended = (project: Project) => found(project).reduce(mended, project);

describe("findings of a clip's movement", () => {
  it("are none for a plain walk", () => expect(found(addClip(porterProject(), [ref(0), ref(1), ref(2)], "walk"))).toEqual([]));

  it("report equal frames in a row, and keep their total duration when merged", () => {
    const project = addClip(porterProject(), [ref(0), ref(1), ref(1), ref(2)], "walk");
    expect(found(project)).toMatchObject([{ code: "equal-neighbours", severity: "note", place: { clip: "walk", steps: [2] } }]);
    expect(clipNamed(allMended(project), WALK).steps.map(({ duration }) => duration)).toEqual([100_000, 200_000, 100_000]);
    expect(found(allMended(project))).toEqual([]);
  });

  it("report a loop that ends with its first frame, not a clip that plays once", () => {
    const project = addClip(porterProject(), [ref(0), ref(1), ref(2), ref(0)], "walk");
    expect(found(project)).toMatchObject([{ code: "doubled-seam", place: { steps: [3] } }]);
    expect(found(setClipRules(project, WALK, { playback: "once" })).map(({ code }) => code)).toEqual(["stops-short"]);
    expect(found(allMended(project))).toEqual([]);
  });

  it("report steps too short for a display", () => {
    const project = setStepDurations(addClip(porterProject(), [ref(0), ref(1), ref(2)], "walk"), WALK, [1], 5000);
    expect(found(project)).toMatchObject([{ code: "too-fast", place: { steps: [1] } }]);
    expect(found(allMended(project))).toEqual([]);
  });

  it("report a frame of another size among equals, and make all equal", () => {
    const drawn = drawFrames(porterProject(), "s1" as SourceId, [{ x: 0, y: 0, w: 9, h: 7 }]);
    const odd = drawn.sources[0]?.frames.at(-1)?.key;
    const project = addClip(drawn, [ref(0), ref(1), ref(2), `s1/${odd}` as FrameRef], "walk");
    expect(found(project)).toMatchObject([{ code: "odd-size-steps", place: { steps: [3] } }]);
    expect(found(allMended(project))).toEqual([]);
  });

  it("wait while frames are missing, which stops delivery", () => {
    const project = addClip(porterProject(), [ref(0), ref(0), ref(1)], "walk");
    expect(found(dropFrames(project, [ref(1)]))).toMatchObject([{ code: "missing-frames", severity: "error" }]);
  });
});
