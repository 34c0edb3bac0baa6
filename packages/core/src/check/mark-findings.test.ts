import { describe, expect, it } from "vitest";
import { addBox, addClip, addMarkKind, boxesOf, changeBox, clearMarks, placeOrigins, putPoint } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { type ClipName, clipNamed, type FrameRef, findFrame, type MarkName, type PlacedFrame, type Project } from "../model";
import type { Finding } from "./finding";
import { markFindings } from "./mark-findings";
import { mended } from "./mend";

const ref = (column: number, row: number) => `s1/c${column}r${row}` as FrameRef;
const STEPS = [0, 1].flatMap((row) => [0, 1, 2, 3].map((column) => ref(column, row)));
const BODY = "body" as MarkName;
const HAND = "hand" as MarkName;
const kinds = addMarkKind(addMarkKind(addClip(porterProject(), STEPS, "walk"), "box", "body"), "point", "hand");
const project = addBox(kinds, "walk", STEPS, BODY, ref(0, 0), { x: 1, y: 2, w: 5, h: 7 });
const found = (each: Project): Finding[] => markFindings(each, clipNamed(each, "walk" as ClipName));
const bodyOf = (each: Project, of: FrameRef) => boxesOf((findFrame(each, of) as PlacedFrame).frame, BODY);

describe("findings on boxes and points", () => {
  it("are none while all steps have the same", () => {
    expect(found(kinds)).toEqual([]);
    expect(found(project)).toEqual([]);
  });

  it("report the step that lacks what all others have, and copy it from the previous step", () => {
    const lacking = clearMarks(project, "walk", [ref(0, 0)], BODY);
    expect(found(lacking)).toMatchObject([
      { code: "mark-missing", message: "Step 0 has no body, but all others do.", place: { stop: "marks", mark: "body", steps: [0] } },
    ]);
    expect(mended(lacking, found(lacking)[0] as Finding)).toEqual(project);
  });

  it("ignore what only a few steps have, such as hit boxes", () => {
    expect(found(putPoint(project, "walk", STEPS.slice(0, 5), HAND, ref(0, 0), { x: 4, y: 4 }))).toEqual([]);
  });

  it("report a box that dips on one step, and level it", () => {
    const dipping = changeBox(project, "walk", [ref(2, 0)], BODY, 0, { h: 2 });
    expect(found(dipping)).toMatchObject([{ code: "box-jumps", place: { steps: [2] } }]);
    expect(found(dipping)[0]?.message).toMatch(/lies 2 px lower than before and after it/);
    const level = mended(dipping, found(dipping)[0] as Finding);
    expect(found(level)).toEqual([]);
    expect(bodyOf(level, ref(2, 0))).toEqual([{ x: 1, y: 2, w: 5, h: 7 }]);
  });

  it("ignore half a pixel, which no box could correct", () =>
    expect(found(placeOrigins(project, "walk", new Map([[ref(2, 0), { x: 4, y: 9.5 }]])))).toEqual([]));

  it("go by the origin: a box that moves with it does not dip", () => {
    const raised = placeOrigins(project, "walk", new Map([[ref(2, 0), { x: 4, y: 8 }]]));
    expect(found(raised)).toMatchObject([{ code: "box-jumps" }]);
    expect(found(changeBox(raised, "walk", [ref(2, 0)], BODY, 0, { y: -2 }))).toEqual([]);
  });
});
