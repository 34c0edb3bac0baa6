import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mirroredMarks } from "../marks";
import {
  type Box,
  type ClipName,
  type FrameRef,
  findFrame,
  type MarkName,
  originOf,
  type PlacedFrame,
  type Project,
  projectFromFile,
  projectToFile,
} from "../model";
import { cropCoverage } from "../raster";
import { addAction, addClip, cutSource, freezeMirror, makeEqual, mirrorMissing, setPetal } from ".";
import { addMarkKind, removeMarkKind, renameMarkKind, setBoxUse, setMarkLook } from "./mark-kinds";
import { addBox, boxesOf, changeBox, clearMarks, copyMarks, putPoint, removeBox, setBoxes, turnPoint } from "./marks";
import { placeOrigins } from "./origins";
import { porterCoverage, porterProject } from "./project.fixture";

const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const BODY = "body" as MarkName;
const HAND = "hand" as MarkName;
const project = addMarkKind(addMarkKind(porterProject(), "box", "body"), "point", "hand");
const BOX: Box = { x: 1, y: 2, w: 5, h: 7 };
const placed = (each: Project, of: FrameRef) => findFrame(each, of) as PlacedFrame;
const body = (each: Project, of: FrameRef) => boxesOf(placed(each, of).frame, BODY);
const hand = (each: Project, of: FrameRef) => placed(each, of).frame.marks?.points?.[HAND];
const four = [ref(0), ref(1), ref(2), ref(3)];

describe("kinds of marks", () => {
  it("get distinct letters and lines", () => {
    const more = addMarkKind(addMarkKind(project, "box", "blade"), "box", "beak");
    expect(more.marks.map(({ letter }) => letter)).toEqual(["B", "H", "L", "E"]);
    expect(new Set(more.marks.map(({ line }) => line)).size).toBe(4);
    expect(setMarkLook(more, BODY, { letter: "7" }).marks[0]?.letter).toBe("7");
    expect(() => setMarkLook(more, BODY, { letter: "xy" })).toThrow(/one letter or digit/);
    expect(setMarkLook(more, BODY, { line: more.marks[0]?.line ?? "solid" })).toBe(more);
  });

  it("have a use, boxes only, also after renaming and in the file", () => {
    const hurt = setBoxUse(project, BODY, "hurt");
    expect(renameMarkKind(hurt, BODY, "trunk").marks[0]).toMatchObject({ name: "trunk", shape: "box", use: "hurt" });
    expect(projectFromFile(projectToFile(hurt), "it").marks).toEqual(hurt.marks);
    expect(setBoxUse(hurt, BODY, "hurt")).toBe(hurt);
    expect(setBoxUse(hurt, BODY, null)).toEqual(project);
    expect(() => setBoxUse(project, HAND, "hit")).toThrow(/Choose boxes/);
  });

  it("keep their marks when renamed, and take them along when removed", () => {
    const marked = putPoint(addBox(project, "it", four, BODY, ref(0), BOX), "it", [ref(0)], HAND, ref(0), { x: 3, y: 4.5 });
    const renamed = renameMarkKind(marked, BODY, "trunk");
    expect(four.map((each) => boxesOf(placed(renamed, each).frame, "trunk" as MarkName))).toEqual([[BOX], [BOX], [BOX], [BOX]]);
    expect(placed(renamed, ref(0, 1)).frame).toBe(placed(marked, ref(0, 1)).frame);
    expect(placed(renamed, ref(0)).frame.marks).toEqual({ boxes: { trunk: [BOX] }, points: { hand: { x: 3, y: 4.5 } } });
    expect(removeMarkKind(removeMarkKind(marked, BODY), HAND).sources).toEqual(porterProject().sources);
    expect(() => renameMarkKind(marked, BODY, "hand")).toThrow(/Other marks have this name/);
  });
});

describe("angles of points", () => {
  const put = putPoint(project, "it", four, HAND, ref(0), { x: 3, y: 4 });
  const angles = (each: Project) => four.map((of) => hand(each, of)?.angle);

  it("are set on all frames with the point, and later turn each from its own", () => {
    const aimed = turnPoint(put, "it", four.slice(0, 2), HAND, ref(0), 350);
    expect(angles(aimed)).toEqual([350, 350, undefined, undefined]);
    const apart = turnPoint(aimed, "it", [ref(1)], HAND, ref(1), 10);
    expect(angles(turnPoint(apart, "it", four, HAND, ref(0), 22.5))).toEqual([22.5, 42.5, 22.5, 22.5]);
    expect(angles(turnPoint(aimed, "it", four, HAND, ref(0), -90))).toEqual([270, 270, 270, 270]);
    expect(turnPoint(aimed, "it", four, HAND, ref(0), null)).toEqual(put);
    expect(() => turnPoint(put, "it", four, HAND, ref(0), 10.25)).toThrow(/whole or half degrees/);
  });

  it("stay when the point is moved, and are copied, mirrored and saved with it", () => {
    const aimed = turnPoint(put, "it", [ref(0)], HAND, ref(0), 30);
    expect(hand(putPoint(aimed, "it", four, HAND, ref(0), { x: 5, y: 5 }), ref(0))).toEqual({ x: 5, y: 5, angle: 30 });
    expect(angles(copyMarks(aimed, "it", four, HAND, ref(0)))).toEqual([30, 30, 30, 30]);
    expect(mirroredMarks({ points: { [HAND]: { x: 1, y: 2, angle: 30 } } }, 8)).toEqual({ points: { hand: { x: 7, y: 2, angle: 150 } } });
    expect(projectFromFile(projectToFile(aimed), "it")).toEqual(aimed);
  });
});

describe("boxes", () => {
  it("are drawn on several frames at the same place from the origin", () => {
    const moved = placeOrigins(project, "it", new Map([[ref(1), { x: 6, y: 8 }]]));
    const drawn = addBox(moved, "it", four, BODY, ref(0), BOX);
    expect(originOf(placed(drawn, ref(0)).source, placed(drawn, ref(0)).frame)).toEqual({ x: 4, y: 10 });
    expect(body(drawn, ref(1))).toEqual([{ x: 3, y: 0, w: 5, h: 7 }]);
    expect(body(drawn, ref(2))).toEqual([BOX]);
  });

  it("move by the same amount anywhere, and are restored when moved back", () =>
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -40, max: 40 }), fc.integer({ min: 0, max: 9 }), (x, y, w) => {
        const start = changeBox(addBox(project, "it", four, BODY, ref(0), BOX), "it", [ref(1)], BODY, 0, { x: 1 });
        const there = changeBox(start, "it", four, BODY, 0, { x, y, w });
        expect(body(there, ref(1))).toEqual([{ x: 2 + x, y: 2 + y, w: 5 + w, h: 7 }]);
        expect(changeBox(there, "it", four, BODY, 0, { x: -x, y: -y, w: -w })).toEqual(start);
      }),
    ));

  it("keep a pixel however they are shrunk, and are removed one by one", () => {
    const two = addBox(addBox(project, "it", [ref(0)], BODY, ref(0), BOX), "it", [ref(0)], BODY, ref(0), { ...BOX, x: 3 });
    expect(body(changeBox(two, "it", [ref(0)], BODY, 1, { w: -99, h: -99 }), ref(0))[1]).toEqual({ x: 3, y: 2, w: 1, h: 1 });
    expect(body(removeBox(two, "it", [ref(0)], BODY, 0), ref(0))).toEqual([{ ...BOX, x: 3 }]);
    expect(placed(clearMarks(two, "it", [ref(0)], BODY), ref(0)).frame).toEqual(placed(project, ref(0)).frame);
    expect(removeBox(two, "it", four, BODY, 5)).toBe(two);
  });

  it("are refused in halves and far away", () => {
    expect(() => setBoxes(project, "it", BODY, new Map([[ref(0), [{ ...BOX, w: 2.5 }]]]))).toThrow(/whole pixels/);
    expect(() => addBox(project, "it", four, BODY, ref(0), { ...BOX, x: 99_999 })).toThrow(/whole pixels/);
    expect(() => addBox(project, "it", four, "tail" as MarkName, ref(0), BOX)).toThrow(/There are: body, hand/);
  });
});

describe("points", () => {
  it("move together, each from its place; frames without one get it", () => {
    const one = putPoint(project, "it", [ref(0)], HAND, ref(0), { x: 2, y: 3 });
    const apart = putPoint(putPoint(one, "it", [ref(1)], HAND, ref(1), { x: 5, y: 3.5 }), "it", [ref(0), ref(1), ref(2)], HAND, ref(0), {
      x: 2.5,
      y: 3,
    });
    expect([0, 1, 2, 3].map((k) => hand(apart, ref(k)))).toEqual([{ x: 2.5, y: 3 }, { x: 5.5, y: 3.5 }, { x: 2.5, y: 3 }, undefined]);
    expect(() => putPoint(project, "it", four, HAND, ref(0), { x: 0.3, y: 1 })).toThrow(/half pixels/);
  });

  it("are copied to others as one frame has them", () => {
    const one = putPoint(addBox(project, "it", [ref(0)], BODY, ref(0), BOX), "it", [ref(0)], HAND, ref(0), { x: 2, y: 3 });
    const given = copyMarks(copyMarks(one, "it", four, BODY, ref(0)), "it", four, HAND, ref(0));
    expect(four.map((each) => placed(given, each).frame.marks)).toEqual(four.map(() => placed(one, ref(0)).frame.marks));
    expect(copyMarks.label(one, "walk", four, HAND, ref(0))).toBe("copy hand of porter/0 to walk");
    expect(copyMarks(given, "it", four, HAND, ref(0))).toBe(given);
  });
});

describe("marks", () => {
  const marked = putPoint(addBox(project, "it", four, BODY, ref(0), BOX), "it", four, HAND, ref(0), { x: 2, y: 3 });

  it("stay on their frames when the sheet is cut again", () => {
    const cut = marked.sources[0]?.cut;
    if (cut?.by !== "cell") throw new Error("The fixture is cut by cell.");
    const wider = cutSource(marked, marked.sources[0]?.id as never, { ...cut, cell: { w: 7, h: 9 } }, porterCoverage());
    expect(body(wider, ref(2))).toEqual([{ ...BOX, x: BOX.x + 2 }]);
  });

  it("move with the picture when frames are made equal", () => {
    const taller = {
      ...marked,
      sources: marked.sources.map((source) => ({
        ...source,
        frames: source.frames.map((frame) => (frame.key === "c1r0" ? { ...frame, size: { w: 12, h: 16 }, inset: { x: 2, y: 3 } } : frame)),
      })),
    };
    const equal = makeEqual(taller, four, "feet");
    expect(body(equal, ref(0))).toEqual([BOX]);
    expect(body(equal, ref(1))).toEqual([{ ...BOX, x: BOX.x - 2, y: BOX.y - 3 }]);
    expect(hand(equal, ref(1))).toEqual({ x: 0, y: 0 });
  });

  it("are mirrored with a facing that is frozen", () => {
    const clip = addClip(marked, [ref(0)], "go-e");
    const action = mirrorMissing(setPetal(addAction(clip, "go", 4), "go" as never, "e", { clip: "go-e" as ClipName }), "go" as never);
    const coverage = cropCoverage(porterCoverage(), { x: 0, y: 0, w: 8, h: 10 });
    const frozen = freezeMirror(action, "go" as never, "w", [{ frame: ref(0), sha256: "c".repeat(64), width: 8, height: 10, coverage }]);
    const step = frozen.clips.at(-1)?.steps[0]?.frame as FrameRef;
    expect(placed(frozen, step).frame.marks).toEqual({ boxes: { body: [{ x: 2, y: 2, w: 5, h: 7 }] }, points: { hand: { x: 6, y: 3 } } });
  });

  it("are of the kind's own shape: no boxes are put under a point's name, and no point under that of boxes", () => {
    expect(() => addBox(project, "it", [ref(0)], HAND, ref(0), BOX)).toThrow(/These are no boxes/);
    expect(() => setBoxes(project, "it", HAND, new Map([[ref(0), [BOX]]]))).toThrow(/These are no boxes/);
    expect(() => putPoint(project, "it", [ref(0)], BODY, ref(0), { x: 1, y: 1 })).toThrow(/These are no points/);
  });

  it("are saved and read unchanged; marks of no kind are refused", () => {
    const file = JSON.parse(JSON.stringify(projectToFile(marked)));
    expect(projectFromFile(file, "caravan.json")).toEqual(marked);
    file.marks = file.marks.slice(1);
    expect(() => projectFromFile(file, "caravan.json")).toThrow(/has a box "body", which is not a kind/);
  });
});
