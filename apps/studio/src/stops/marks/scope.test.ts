import { addAction, addClip, dropFrames, setPetal } from "@caravan/core/edit";
import { type ActionName, type ClipName, clipNamed, type FrameRef } from "@caravan/core/model";
import { describe, expect, it } from "vitest";
import { porterProject } from "../../../../../packages/core/src/edit/project.fixture";
import { framesInScope, refsOf } from "./scope";

const ref = (column: number, row: number) => `s1/c${column}r${row}` as FrameRef;
const GO = "go" as ActionName;
const clips = ["go-e", "go-n"].reduce((next, name, row) => addClip(next, [ref(0, row), ref(1, row), ref(0, row)], name), porterProject());
const project = ["e", "n"].reduce(
  (next, facing) => setPetal(next, GO, facing as "e", { clip: `go-${facing}` as ClipName }),
  addAction(clips, "go", 4),
);
const east = clipNamed(project, "go-e");
const inScope = (scope: Parameters<typeof framesInScope>[1], step = 1, from = project) => framesInScope(from, scope, east, step);

describe("the frames that an origin is set for", () => {
  it("are the shown one, those of the clip once each, or those of all clips of its action", () => {
    expect(refsOf(inScope("frame"))).toEqual([ref(1, 0)]);
    expect(refsOf(inScope("clip"))).toEqual([ref(0, 0), ref(1, 0)]);
    expect(inScope("action")).toMatchObject({ name: "the action go" });
    expect(refsOf(inScope("action"))).toEqual([ref(0, 0), ref(1, 0), ref(0, 1), ref(1, 1)]);
  });

  it("are all kept ones of the source or of the project, without dropped ones", () => {
    expect(refsOf(inScope("source"))).toHaveLength(12);
    expect(refsOf(inScope("all", 1, dropFrames(project, [ref(3, 2)])))).toHaveLength(11);
    expect(refsOf(inScope("clip", 0, dropFrames(project, [ref(0, 0)])))).toEqual([ref(1, 0)]);
  });

  it("of a clip that no action shows, the action's are the clip's", () => {
    const loose = addClip(project, [ref(2, 2)], "loose");
    expect(framesInScope(loose, "action", clipNamed(loose, "loose"), 0)).toMatchObject({ name: "loose" });
  });
});
