import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  type ClipName,
  type Cut,
  checkDocument,
  clipNamed,
  type Frame,
  type FrameRef,
  findFrame,
  frameRef,
  type MarkName,
  type Project,
  type Source,
  sourceById,
} from "../model";
import { clearPixels, coverageOf } from "../raster";
import {
  addBox,
  addClip,
  addMarkKind,
  clearMarks,
  cutSource,
  dropFrames,
  framesLost,
  type LostFrame,
  placeOrigins,
  removeMarkKind,
  renameFrame,
  restoreCut,
  setSourceScale,
  stillLost,
} from ".";
import { NO_SPACE, PORTER, porterProject } from "./project.fixture";

/** The sheet has 4 × 3 cells of 8 × 10 px, each with a figure in the middle. */
const SHEET = clearPixels(32, 30);
for (let y = 0; y < 30; y++)
  for (let x = 0; x < 32; x++) if (x % 8 > 1 && x % 8 < 6 && y % 10 > 2 && y % 10 < 8) SHEET.bytes.set([90, 80, 70, 255], (y * 32 + x) * 4);
const COVERAGE = coverageOf(SHEET);

const cells = (w: number, h: number, left = 0, top = 0): Cut => ({
  by: "cell",
  cell: { w, h },
  margin: { x: left, y: top },
  gap: NO_SPACE,
  keepEmpty: false,
});
const CELLS = cells(8, 10);
/** Also such as give most keys to other places. */
const ANY_CUT = fc.oneof(
  fc.constantFrom(...[4, 7, 8, 9, 16].flatMap((w) => [5, 10, 11].flatMap((h) => [0, 1, 3].map((left) => cells(w, h, left))))),
  fc.constantFrom<Cut>({ by: "outlines", joinPx: 0, leastPx: 1, level: false }, { by: "outlines", joinPx: 5, leastPx: 1, level: true }),
);
const BODY = "body" as MarkName;
const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const porter = (project: Project): Source => sourceById(project, PORTER);
const frame = (project: Project, of: FrameRef) => findFrame(project, of)?.frame as Frame;

/** Cuts as the studio does: what a cut loses is remembered for the next, and if `exactly`, how it was cut before. */
function memory({ exactly = false, isDecided = (_key: string): boolean => false } = {}) {
  let lost: readonly LostFrame[] = [];
  const sources = new Map<string, Source>();
  return {
    cut(project: Project, how: Cut): Project {
      const before = exactly ? sources.get(JSON.stringify(how)) : undefined;
      const after = cutSource(project, PORTER, how, COVERAGE, { lost, before, isDecided });
      const latest = framesLost(porter(project), porter(after));
      lost = [...stillLost(lost, porter(after), latest), ...latest];
      sources.set(JSON.stringify(porter(project).cut), porter(project));
      return after;
    },
  };
}

/** Cells with a clip of the last column, and everything that can be decided about its frames. */
function decided(): Project {
  let project = cutSource(porterProject(), PORTER, CELLS, COVERAGE);
  project = addMarkKind(addClip(project, [ref(3, 0), ref(3, 1), ref(3, 2)], "last"), "box", "body");
  project = addBox(project, "it", [ref(3, 0)], BODY, ref(3, 0), { x: 2, y: 3, w: 4, h: 4 });
  project = placeOrigins(project, "it", new Map([[ref(3, 1), { x: 5, y: 6 }]]));
  return dropFrames(renameFrame(project, ref(3, 2), "salute"), [ref(3, 2)]);
}

describe("frames that a cut has lost", () => {
  it("are as they were when a grid nudged by a pixel is nudged back", () => {
    const before = decided();
    const { cut } = memory();
    const nudged = cut(before, cells(8, 10, 1));
    expect(findFrame(nudged, ref(3))).toBeNull();
    const back = cut(nudged, CELLS);
    expect(porter(back)).toEqual(porter(before));
    expect(clipNamed(back, "last" as ClipName)).toEqual(clipNamed(before, "last" as ClipName));
  });

  it("return to their pixels where the grid is a little beside where it was", () => {
    const { cut } = memory();
    const nudged = cut(decided(), cells(8, 10, 1));
    const back = cut(nudged, cells(7, 10, 1));
    const { rect, marks } = frame(back, ref(3));
    expect([rect.x, marks?.boxes?.[BODY]]).toEqual([22, [{ x: 4, y: 3, w: 4, h: 4 }]]);
  });

  it("return even if another cut gave their keys to other places meanwhile", () => {
    const before = decided();
    const { cut } = memory();
    const coarse = cut(before, cells(16, 10));
    const fine = cut(coarse, cells(4, 5));
    expect(frame(fine, ref(3)).rect).toMatchObject({ x: 12, w: 4 });
    expect(porter(cut(fine, CELLS)).frames.map(({ key, rect, marks, name }) => [key, rect, marks, name])).toEqual(
      porter(before).frames.map(({ key, rect, marks, name }) => [key, rect, marks, name]),
    );
  });

  it("return at another scale as they would be had they stayed", () => {
    const { cut } = memory();
    const nudged = cut(decided(), cells(8, 10, 1));
    const back = cut(setSourceScale(nudged, PORTER, 2), CELLS);
    expect(frame(back, ref(3)).marks?.boxes?.[BODY]).toEqual([{ x: 4, y: 6, w: 8, h: 8 }]);
    expect(frame(back, ref(3, 1)).origin).toEqual({ x: 10, y: 12 });
  });

  it("return without marks of a kind that was removed, and without a name that another frame has", () => {
    const { cut } = memory();
    const nudged = cut(decided(), cells(8, 10, 1));
    const changed = renameFrame(removeMarkKind(nudged, BODY), ref(0), "salute");
    const back = cut(changed, CELLS);
    expect(frame(back, ref(3)).marks).toBeUndefined();
    expect([frame(back, ref(0)).name, frame(back, ref(3, 2)).name]).toEqual(["salute", undefined]);
    checkDocument(back, "it");
  });

  it("stay lost on other art, and do not bring back what was taken away from them after they had returned", () => {
    const before = decided();
    const lost = framesLost(porter(before), porter(cutSource(before, PORTER, cells(8, 10, 1), COVERAGE)));
    expect(lost).toHaveLength(3);
    const other = cutSource(before, PORTER, cells(8, 10, 1), COVERAGE);
    const onOtherArt = cutSource(other, PORTER, CELLS, COVERAGE, { lost: lost.map((each) => ({ ...each, art: "another" })) });
    expect(frame(onOtherArt, ref(3)).marks).toBeUndefined();
    const { cut } = memory();
    const back = cut(cut(before, cells(8, 10, 1)), CELLS);
    const cleared = clearMarks(back, "it", [ref(3)], BODY);
    expect(frame(cut(cut(cleared, cells(8, 10, 1)), CELLS), ref(3)).marks).toBeUndefined();
  });

  it("keep what was decided about frames while they were cut another way", () => {
    const { cut } = memory({ exactly: true, isDecided: (key) => key === "c0r0" });
    const moved = cut(decided(), cells(8, 10, 1));
    const named = renameFrame(moved, ref(0), "first");
    const back = cut(named, CELLS);
    expect([frame(back, ref(0)).name, frame(back, ref(3, 2)).name]).toEqual(["first", "salute"]);
    expect(frame(back, ref(3)).marks?.boxes?.[BODY]).toEqual([{ x: 2, y: 3, w: 4, h: 4 }]);
  });

  it.each<[string, boolean, fc.Arbitrary<Cut>]>([
    // Grids of other sizes give keys to other places: what was there is known only by the recipe.
    ["grids and outlines", true, ANY_CUT],
    [
      "moved cells and outlines",
      false,
      fc.constantFrom<Cut>(
        ...[0, 1, 2].flatMap((left) => [0, 1, 2].map((top) => cells(8, 10, left, top))),
        ...[1, 30].map((leastPx): Cut => ({ by: "outlines", joinPx: 0, leastPx, level: false })),
        { by: "outlines", joinPx: 5, leastPx: 1, level: false },
        { by: "outlines", joinPx: 0, leastPx: 1, level: true },
      ),
    ],
  ])("have all that was decided, at the same pixels, after any %s", (_, exactly, how) => {
    const marked = (project: Project) =>
      porter(project).frames.reduce((made, each, k) => {
        const of = frameRef(porter(made), each);
        return renameFrame(addBox(made, "it", [of], BODY, of, { x: 2, y: 3, w: 4, h: 5 }), of, `frame ${k}`);
      }, project);
    const first = marked(addMarkKind(cutSource(porterProject(), PORTER, CELLS, COVERAGE), "box", "body"));
    fc.assert(
      fc.property(fc.array(how, { maxLength: 8 }), (ways) => {
        const { cut } = memory({ exactly });
        const last = cut(ways.reduce(cut, first), CELLS);
        checkDocument(last, "it");
        const facts = ({ key, rect, name, marks }: Frame) => ({ key, rect, name, marks });
        expect(porter(last).frames.map(facts)).toEqual(porter(first).frames.map(facts));
      }),
    );
  });
});

it("of any cuts, one after the other, no two frames have one key, however many return", () => {
  const first = decided();
  fc.assert(
    fc.property(fc.array(ANY_CUT, { maxLength: 10 }), (ways) => {
      const { cut } = memory();
      ways.reduce((project, how) => {
        const after = cut(project, how);
        checkDocument(after, "it");
        return after;
      }, first);
    }),
  );
});

describe("cells restored after another way was tried", () => {
  it("have no marks of a kind that was removed meanwhile, so that the document can be stored", () => {
    const before = decided();
    // Nothing is as large as that.
    const tried = cutSource(before, PORTER, { by: "outlines", joinPx: 0, leastPx: 200, level: false }, COVERAGE);
    expect(porter(tried).frames).toEqual([]);
    const back = restoreCut(removeMarkKind(tried, BODY), PORTER, porter(before));
    expect(frame(back, ref(3)).marks).toBeUndefined();
    expect(frame(back, ref(3, 2)).name).toBe("salute");
    expect(() => checkDocument(back, "it")).not.toThrow();
  });
});
