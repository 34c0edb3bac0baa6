import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type ActionName, type ClipName, type FrameRef, findFrame, type MarkName, type Project } from "../model";
import {
  addAction,
  addBox,
  addClip,
  addMarkKind,
  clearMarks,
  placeOrigins,
  putPoint,
  setClipRules,
  setOutlines,
  setPetal,
  turnPoint,
} from ".";
import { clipAcross, copyMarksMirrored, fillPoint } from "./marks-along";
import { porterProject } from "./project.fixture";

const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const row = (at: number) => [0, 1, 2, 3].map((column) => ref(column, at));
const [BODY, HAND, SHAPE] = ["body", "hand", "shape"] as MarkName[] as [MarkName, MarkName, MarkName];
const [EAST, WEST] = ["walk-e", "walk-w"] as ClipName[] as [ClipName, ClipName];
const start = (): Project => {
  const marked = addMarkKind(addMarkKind(addMarkKind(porterProject(), "box", "body"), "point", "hand"), "outline", "shape");
  return addClip(addClip(marked, row(0), EAST), row(1), WEST);
};
const marks = (project: Project, of: FrameRef) => findFrame(project, of)?.frame.marks;

describe("marks for the other side", () => {
  it("are mirrored about each frame's own origin, and twice restores them", () =>
    fc.assert(
      fc.property(fc.integer({ min: -6, max: 14 }), fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 16 }), (x, y, half) => {
        let project = placeOrigins(start(), "it", new Map([[ref(1, 1), { x: half / 2, y: 8 }]]));
        project = putPoint(project, "it", row(0), HAND, ref(0), { x, y });
        project = turnPoint(project, "it", [ref(0)], HAND, ref(0), 30);
        project = addBox(project, "it", row(0), BODY, ref(0), { x, y, w: 3, h: 2 });
        project = setOutlines(project, "it", row(0), SHAPE, ref(0), [
          [
            { x: 1, y: 1 },
            { x: 5, y: 1 },
            { x: 5, y: 6 },
          ],
        ]);
        const given = [BODY, HAND, SHAPE].reduce((next, name) => copyMarksMirrored(next, name, EAST, WEST), project);
        // The origins are at 4, 10 of 8 × 10.
        expect(marks(given, ref(0, 1))).toEqual({
          boxes: { body: [{ x: 8 - x - 3, y, w: 3, h: 2 }] },
          points: { hand: { x: 8 - x, y, angle: 150 } },
          outlines: {
            shape: [
              [
                { x: 3, y: 6 },
                { x: 3, y: 1 },
                { x: 7, y: 1 },
              ],
            ],
          },
        });
        expect(marks(given, ref(1, 1))?.points?.[HAND]).toEqual({ x: half / 2 + 4 - x, y: y - 2 });
        const back = copyMarksMirrored(given, HAND, WEST, EAST);
        expect(row(0).map((of) => marks(back, of)?.points)).toEqual(row(0).map((of) => marks(project, of)?.points));
      }),
      { numRuns: 30 },
    ));

  it("are not guessed for clips of different length, and steps without any remove nothing", () => {
    const project = putPoint(start(), "it", [ref(0), ref(0, 1), ref(1, 1)], HAND, ref(0), { x: 1, y: 1 });
    const given = copyMarksMirrored(project, HAND, EAST, WEST);
    expect(marks(given, ref(1, 1))).toEqual(marks(project, ref(1, 1)));
    const shorter = addClip(project, row(2).slice(1), "walk-n");
    expect(() => copyMarksMirrored(shorter, HAND, EAST, "walk-n" as ClipName)).toThrow(/3 steps, and walk-e has 4/);
  });
});

describe("a point that steps lack", () => {
  const some = (places: Record<number, { x: number; y: number }>) =>
    Object.entries(places).reduce((next, [k, at]) => putPoint(next, "it", [ref(Number(k))], HAND, ref(Number(k)), at), start());
  const hands = (project: Project) => row(0).map((of) => marks(project, of)?.points?.[HAND]);

  it("is interpolated between its neighbours, in halves, and around the end of a loop", () => {
    const filled = fillPoint(some({ 0: { x: 0, y: 0 }, 3: { x: 3, y: 1 } }), EAST, HAND);
    expect(hands(filled)).toEqual([
      { x: 0, y: 0 },
      { x: 1, y: 0.5 },
      { x: 2, y: 0.5 },
      { x: 3, y: 1 },
    ]);
    const gap = some({ 0: { x: 0, y: 0 }, 1: { x: 1, y: 0 }, 2: { x: 4, y: 4 } });
    expect(hands(fillPoint(gap, EAST, HAND))[3]).toEqual({ x: 2, y: 2 });
    const once = setClipRules(gap, EAST, { playback: "once" });
    expect(hands(fillPoint(once, EAST, HAND))[3]).toEqual({ x: 4, y: 4 });
  });

  it("goes by the frames' origins and turns the shorter way", () => {
    let project = placeOrigins(some({ 0: { x: 0, y: 0 }, 2: { x: 4, y: 0 } }), "it", new Map([[ref(1), { x: 6, y: 9 }]]));
    project = turnPoint(turnPoint(project, "it", [ref(0)], HAND, ref(0), 350), "it", [ref(2)], HAND, ref(2), 20);
    expect(hands(fillPoint(project, EAST, HAND))[1]).toEqual({ x: 4, y: -1, angle: 5 });
  });

  it("changes nothing if none is missing, or if there is none at all", () => {
    const full = putPoint(start(), "it", row(0), HAND, ref(0), { x: 1, y: 1 });
    expect(fillPoint(full, EAST, HAND)).toEqual(full);
    const none = clearMarks(full, "it", row(0), HAND);
    expect(fillPoint(none, EAST, HAND)).toEqual(none);
  });
});

describe("the clip across", () => {
  const walk = "walk" as ActionName;
  const both = setPetal(setPetal(addAction(start(), "walk", 4), walk, "e", { clip: EAST }), walk, "w", { clip: WEST });

  it("is the clip that the action shows on the opposite side, unmirrored", () => {
    expect(clipAcross(both, EAST)).toBe(WEST);
    expect(clipAcross(both, WEST)).toBe(EAST);
    expect(clipAcross(setPetal(both, walk, "w", { clip: EAST, mirror: true }), EAST)).toBeNull();
    expect(clipAcross(setPetal(both, walk, "s", { clip: EAST }), EAST)).toBe(WEST);
    expect(clipAcross(start(), EAST)).toBeNull();
  });
});
