import { describe, expect, it } from "vitest";
import {
  type Cut,
  checkDocument,
  type FrameRef,
  findFrame,
  frameSize,
  type MarkName,
  originOf,
  type PlacedFrame,
  type SourceId,
  sourceById,
} from "../model";
import { addFrameOfPieces, addPiecesSource, addSources, cutSource, putPieces, setCanvas, setPixelsPerUnit, setSourceScale } from ".";
import { addMarkKind } from "./mark-kinds";
import { addBox } from "./marks";
import { placeOrigins, setSourceOrigin } from "./origins";
import { PORTER, porterCoverage, porterProject } from "./project.fixture";

const ref = "s1/c1r0" as FrameRef;
const body = "body" as MarkName;
const marked = addBox(addMarkKind(porterProject(), "box", "body"), "it", [ref], body, ref, { x: 1, y: 2, w: 5, h: 7 });
const base = placeOrigins(setSourceOrigin(marked, PORTER, { x: 4, y: 9 }), "it", new Map([[ref, { x: 3.5, y: 8 }]]));

describe("setSourceScale", () => {
  it("makes frames larger and adjusts origins and marks", () => {
    const scaled = setSourceScale(base, PORTER, 3);
    const { source, frame } = findFrame(scaled, ref) as PlacedFrame;
    expect(frameSize(source, frame)).toEqual({ w: 24, h: 30 });
    expect(originOf(source, frame)).toEqual({ x: 10.5, y: 24 });
    expect(source.origin).toEqual({ x: 12, y: 27 });
    expect(frame.marks?.boxes?.[body]).toEqual([{ x: 3, y: 6, w: 15, h: 21 }]);
    expect(frame.rect).toEqual(findFrame(base, ref)?.frame.rect);
  });

  it("returns to the same project, leaves no field at 1, and changes nothing if equal", () => {
    expect(setSourceScale(setSourceScale(base, PORTER, 2), PORTER, 1)).toEqual(base);
    expect(setSourceScale(base, PORTER, 1)).toBe(base);
    expect("scale" in sourceById(setSourceScale(setSourceScale(base, PORTER, 0.5), PORTER, 1), PORTER)).toBe(false);
  });

  it("loses nothing while scales are tried out, if the first state is given", () => {
    const quarter = setSourceScale(base, PORTER, 0.25, base);
    const third = setSourceScale(quarter, PORTER, 1 / 3, base);
    expect(third).toEqual(setSourceScale(base, PORTER, 1 / 3));
    expect(setSourceScale(third, PORTER, 1, base)).toEqual(base);
    // By itself, each step rounds again.
    expect(setSourceScale(setSourceScale(base, PORTER, 0.25), PORTER, 1)).not.toEqual(base);
    // Edits of other things meanwhile stay.
    const named = { ...quarter, name: "other" };
    expect(setSourceScale(named, PORTER, 1, base)).toEqual({ ...base, name: "other" });
  });

  it("scales frames that are put together from the source alone as a whole, and refuses a canvas that would be too large", () => {
    const bench = addFrameOfPieces(addPiecesSource(porterProject(), "bench", { w: 24, h: 20 }), "s2/a0" as FrameRef, false);
    const [made] = bench.sources[1]?.frames ?? [];
    const together = `s2/${made?.key}` as FrameRef;
    const laid = putPieces(bench, together, [{ of: ref, x: 5, y: -3 }], null);
    const put = placeOrigins(laid, "it", new Map([[together, { x: 12, y: 18.5 }]]));
    const { frame } = findFrame(setSourceScale(put, PORTER, 2), together) as PlacedFrame;
    expect(frame).toMatchObject({ size: { w: 48, h: 40 }, rect: { x: 0, y: 0, w: 48, h: 40 }, origin: { x: 24, y: 37 } });
    expect(frame.pieces).toMatchObject([{ of: ref, x: 10, y: -6 }]);
    expect(setSourceScale(setSourceScale(put, PORTER, 2), PORTER, 1)).toEqual(put);
    expect(() => checkDocument(setSourceScale(put, PORTER, 0.01), "p")).not.toThrow();
    const large = setCanvas(put, "s2" as SourceId, { w: 4000, h: 20 });
    expect(() => setSourceScale(large, PORTER, 2)).toThrow(/would become 8000 × 40 px.*at most 4096 px/s);
    // A frame with pieces of another sheet, too, keeps its canvas.
    const other = addSources(put, [{ fileName: "camel.png", sha256: "b".repeat(64), width: 32, height: 30 }]);
    const camel = cutSource(other, "s3" as SourceId, sourceById(other, PORTER).cut as Cut, porterCoverage());
    const mixed = putPieces(camel, together, [{ of: "s3/c0r0" as FrameRef, x: 1, y: 1 }], null);
    expect(findFrame(setSourceScale(mixed, PORTER, 2), together)?.frame).toEqual(findFrame(mixed, together)?.frame);
  });

  it("refuses an invalid scale", () => {
    for (const scale of [0, -1, 17, Number.NaN]) expect(() => setSourceScale(base, PORTER, scale)).toThrow(/does not work/);
    expect(setSourceScale.label(base, PORTER, 0.25)).toBe("scale porter ×¼");
  });
});

describe("setPixelsPerUnit", () => {
  it("is set, changed and forgotten", () => {
    const set = setPixelsPerUnit(base, 16);
    expect(set.pixelsPerUnit).toBe(16);
    expect(setPixelsPerUnit(set, null)).toEqual(base);
    expect(setPixelsPerUnit(set, 16)).toBe(set);
    expect(() => setPixelsPerUnit(base, 0)).toThrow(/does not work/);
  });
});
