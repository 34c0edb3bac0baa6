import { describe, expect, it } from "vitest";
import { type ActionName, actionNamed, type ClipName, clipNamed, type FrameRef, findFrame, originOf } from "../model";
import { clearPixels, coverageOf } from "../raster";
import {
  addAction,
  addClip,
  framesToMirror,
  freezeMirror,
  mirrorMissing,
  removeSteps,
  setPetal,
  setSourceOrigin,
  setStepDurations,
  setStepEvents,
} from ".";
import { CELL, PORTER, porterProject } from "./project.fixture";

const GO = "go" as ActionName;
const ref = (column: number) => `s1/c${column}r0` as FrameRef;
const picture = (frame: FrameRef, k: number) => {
  const pixels = clearPixels(CELL.w, CELL.h);
  pixels.bytes[3] = 255;
  return { frame, sha256: String(k).repeat(64), width: CELL.w, height: CELL.h, coverage: coverageOf(pixels) };
};

describe("freezing a mirror", () => {
  const walking = [
    (project: ReturnType<typeof porterProject>) => addClip(project, [ref(0), ref(1), ref(0)], "walk"),
    (project: ReturnType<typeof porterProject>) => setStepDurations(project, "walk" as ClipName, [2], 250_000),
    (project: ReturnType<typeof porterProject>) => setStepEvents(project, "walk" as ClipName, [1], ["footfall"]),
    (project: ReturnType<typeof porterProject>) => setPetal(addAction(project, "go", 2), GO, "e", { clip: "walk" as ClipName }),
    (project: ReturnType<typeof porterProject>) => mirrorMissing(project, GO),
  ].reduce((project, change) => change(project), setSourceOrigin(porterProject(), PORTER, { x: 2.5, y: 9 }));

  it("gives the facing its own clip, with the same times and events, each frame mirrored once about its origin", () => {
    expect(framesToMirror(walking, GO, "w")).toEqual([ref(0), ref(1)]);
    const frozen = freezeMirror(walking, GO, "w", [picture(ref(0), 1), picture(ref(1), 2)]);
    expect(actionNamed(frozen, "go").facings).toEqual({ e: { clip: "walk" }, w: { clip: "go-w" } });
    const { steps } = clipNamed(frozen, "go-w");
    expect(steps.map(({ duration, events }) => [duration, events])).toEqual([
      [100_000, undefined],
      [100_000, ["footfall"]],
      [250_000, undefined],
    ]);
    expect(steps[0]?.frame).toBe(steps[2]?.frame);
    const found = findFrame(frozen, steps[1]?.frame as FrameRef);
    expect(found && originOf(found.source, found.frame)).toEqual({ x: CELL.w - 2.5, y: 9 });
    expect(clipNamed(frozen, "walk")).toBe(clipNamed(walking, "walk"));
  });

  it("works for a clip of one frame, and refuses a facing that is not mirrored", () => {
    const single = mirrorMissing(
      setPetal(addAction(addClip(porterProject(), [ref(0)], "stand"), "go", 2), GO, "e", { clip: "stand" as ClipName }),
      GO,
    );
    expect(clipNamed(freezeMirror(single, GO, "w", [picture(ref(0), 3)]), "go-w").steps).toHaveLength(1);
    expect(() => freezeMirror(single, GO, "e", [picture(ref(0), 3)])).toThrow(/facing e is no mirror/);
    expect(() => freezeMirror(single, GO, "w", [])).toThrow(/no longer the mirrored ones/);
    // As many, but other frames: the clip was changed while the pictures were made.
    expect(() => freezeMirror(single, GO, "w", [picture(ref(1), 3)])).toThrow(/no longer the mirrored ones/);
    const empty = removeSteps(single, "stand" as ClipName, [0]);
    expect(() => freezeMirror(empty, GO, "w", [])).toThrow(/It has no steps/);
  });
});
