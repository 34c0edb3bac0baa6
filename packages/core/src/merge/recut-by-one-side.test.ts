import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addBox, addClip, addMarkKind, cutSource, drawFrames, nameFrames, placeFrames, placeOrigins } from "../edit";
import { CELL, NO_SPACE, porterCoverage, porterProject } from "../edit/project.fixture";
import type { Frame, FrameRef, MarkName, Project, Source, SourceId } from "../model";
import { mergeProjects } from "./merge";

const PORTER = "s1" as SourceId;
const BODY = "body" as MarkName;
const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const base = addClip(addMarkKind(porterProject(), "box", "body"), [ref(0), ref(1), ref(2)], "idle");
const cells = (margin: { x: number; y: number }, keepEmpty = true) =>
  cutSource(base, PORTER, { by: "cell", cell: CELL, margin, gap: NO_SPACE, keepEmpty }, porterCoverage());
const framesOf = ({ sources }: Project) => (sources[0] as Source).frames;
const at = (project: Project, of: FrameRef) => framesOf(project).find(({ key }) => of.endsWith(`/${key}`)) as Frame;
const bothWays = (ours: Project, theirs: Project) => [mergeProjects(base, ours, theirs), mergeProjects(base, theirs, ours)];

describe("a source that one side cut another way", () => {
  it("keeps what the other side marked at its pixels of the sheet", () =>
    fc.assert(
      fc.property(fc.nat(2), fc.nat(2), fc.nat(2), (x, y, column) => {
        const box = { x: 1, y: 2, w: 4, h: 3 };
        const boxed = addBox(base, "it", [ref(column)], BODY, ref(column), box);
        const marked = placeOrigins(boxed, "it", new Map([[ref(column), { x: 4, y: 9 }]]));
        const before = at(marked, ref(column)).rect;
        for (const { project, conflicts } of bothWays(cells({ x, y }), marked)) {
          expect(conflicts).toEqual([]);
          const { rect, origin, marks } = at(project, ref(column));
          expect(rect).toEqual(at(cells({ x, y }), ref(column)).rect);
          const [own] = marks?.boxes?.[BODY] ?? [];
          expect([rect.x + (own?.x ?? 0), rect.y + (own?.y ?? 0), own?.w, own?.h]).toEqual([before.x + 1, before.y + 2, 4, 3]);
          expect([rect.x + (origin?.x ?? 0), rect.y + (origin?.y ?? 0)]).toEqual([before.x + 4, before.y + 9]);
        }
      }),
    ));

  it("takes no frames that the other side added to the earlier cut, and names them", () => {
    const byHand = drawFrames(base, PORTER, [{ x: 1, y: 1, w: 3, h: 3 }]);
    const added = framesOf(byHand).filter(({ key }) => !framesOf(base).some((each) => each.key === key));
    expect(added).toHaveLength(1);
    const wider = cutSource(
      base,
      PORTER,
      { by: "cell", cell: { w: 16, h: 10 }, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: true },
      porterCoverage(),
    );
    // Drawing a frame leaves the cells: both sides cut otherwise, and ours is one cut, whole.
    for (const [ours, theirs] of [
      [wider, byHand],
      [byHand, wider],
    ] as const) {
      const { project, conflicts } = mergeProjects(base, ours, theirs);
      expect((project.sources[0] as Source).cut).toEqual((ours.sources[0] as Source).cut);
      expect(framesOf(project)).toEqual(framesOf(ours));
      expect(conflicts.map(({ where }) => where)).toContain("sources, s1, cut");
    }
    // With frames drawn by hand on both sides from the start, only one of them cuts otherwise.
    const hand = placeFrames(base, new Map([[ref(0), { x: 0, y: 0, w: 7, h: 9 }]]));
    const more = drawFrames(hand, PORTER, [{ x: 2, y: 2, w: 3, h: 3 }]);
    const again = cutSource(hand, PORTER, { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false }, porterCoverage());
    for (const { project, conflicts } of [mergeProjects(hand, again, more), mergeProjects(hand, more, again)]) {
      expect(framesOf(project).map(({ key }) => key)).toEqual(framesOf(again).map(({ key }) => key));
      expect(conflicts).toEqual([
        {
          where: "sources, porter, frames",
          message: expect.stringMatching(/Left out are frames that the other added: porter\/\d+\.$/),
        },
      ]);
    }
  });

  it("keeps the names that the other side gave to frames that both cuts have", () => {
    const named = nameFrames(base, PORTER, ["c1r0"], { text: "stride", start: 0, step: 1, padding: 0 });
    const wider = cells({ x: 1, y: 0 });
    const other = cells({ x: 0, y: 1 });
    const both = nameFrames(other, PORTER, ["c1r0"], { text: "stride", start: 0, step: 1, padding: 0 });
    for (const { project } of bothWays(wider, named)) expect(at(project, ref(1)).name).toBe("stride");
    const { project } = mergeProjects(base, wider, both);
    expect(at(project, ref(1))).toMatchObject({ name: "stride", rect: at(wider, ref(1)).rect });
  });
});
