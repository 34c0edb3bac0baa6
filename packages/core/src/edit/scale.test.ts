import { describe, expect, it } from "vitest";
import { type FrameRef, findFrame, frameSize, type MarkName, originOf, type PlacedFrame, sourceById } from "../model";
import { setPixelsPerUnit, setSourceScale } from ".";
import { addMarkKind } from "./mark-kinds";
import { addBox } from "./marks";
import { placeOrigins, setSourceOrigin } from "./origins";
import { PORTER, porterProject } from "./project.fixture";

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
