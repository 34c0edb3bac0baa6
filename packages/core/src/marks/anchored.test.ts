import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addBox, addMarkKind, cutSource, makeEqual, placeFrames, placeOrigins, setSourceOrigin } from "../edit";
import { PORTER, porterProject, sheetOfCells } from "../edit/project.fixture";
import { type Frame, type FrameRef, findFrame, type MarkName, type Project, type Source, sourceById } from "../model";
import { coverageOf } from "../raster";
import { withAnchoredFrames } from ".";

const BODY = "body" as MarkName;
const porter = (project: Project): Source => sourceById(project, PORTER);

/** The pixel of the sheet that a point of an upright frame means. */
const onSheet = ({ rect, inset = { x: 0, y: 0 } }: Frame, { x, y }: { x: number; y: number }) => ({
  x: rect.x - inset.x + x,
  y: rect.y - inset.y + y,
});

describe("origins and marks of frames whose rectangle changes", () => {
  // Outlines of the fixture's cells: a block of 5 × 7 px in each.
  const sheet = sheetOfCells(4, 3);
  const outlined = cutSource(porterProject(), PORTER, { by: "outlines", joinPx: 0, leastPx: 1, level: false }, coverageOf(sheet));
  const refs = porter(outlined).frames.map(({ key }) => `s1/${key}` as FrameRef);
  const [first, second] = refs as [FrameRef, FrameRef];
  const placed = placeOrigins(
    addBox(addMarkKind(outlined, "box", "body"), "it", [first, second], BODY, first, { x: 1, y: 1, w: 3, h: 4 }),
    "it",
    new Map([[first, { x: 2.5, y: 7 }]]),
  );
  const before = findFrame(placed, first)?.frame as Frame;
  const expectSamePixels = (project: Project) => {
    const frame = findFrame(project, first)?.frame as Frame;
    expect(onSheet(frame, frame.origin as { x: number; y: number })).toEqual(onSheet(before, { x: 2.5, y: 7 }));
    const box = frame.marks?.boxes?.[BODY]?.[0];
    expect(box && onSheet(frame, box)).toEqual(onSheet(before, { x: 1, y: 1 }));
    return frame;
  };

  it("stay at their pixels when a spark is joined", () => {
    const sparked = sheetOfCells(4, 3);
    for (const x of [0, 1]) sparked.bytes.set([255, 200, 0, 255], (0 * sparked.width + x) * 4);
    const joined = cutSource(placed, PORTER, { by: "outlines", joinPx: 2, leastPx: 1, level: false }, coverageOf(sparked));
    expect(expectSamePixels(joined).rect).toMatchObject({ x: 0, y: 0 });
  });

  it("stay when rows are made level and when an edge is dragged", () => {
    const uneven = sheetOfCells(4, 3);
    for (let y = 0; y < 2; y++) uneven.bytes.set([9, 9, 9, 255], (y * uneven.width + 11) * 4);
    expectSamePixels(cutSource(placed, PORTER, { by: "outlines", joinPx: 0, leastPx: 1, level: true }, coverageOf(uneven)));
    const { rect } = before;
    expectSamePixels(placeFrames(placed, new Map([[first, { x: rect.x - 1, y: rect.y - 2, w: rect.w + 3, h: rect.h + 2 }]])));
    expectSamePixels(placeFrames(placed, new Map([[first, { x: rect.x + 1, y: rect.y + 2, w: rect.w - 1, h: rect.h - 2 }]])));
  });

  it("stay when frames are made equal in size, however they meet", () => {
    const taller = placeFrames(placed, new Map([[second, { x: 9, y: 0, w: 6, h: 10 }]]));
    for (const meeting of ["feet", "middle", "origin"] as const) expectSamePixels(makeEqual(taller, [first, second], meeting));
  });

  it("stay for all frames with the source's origin, by that origin if they all moved equally", () => {
    const standing = setSourceOrigin(outlined, PORTER, { x: 2, y: 7 });
    const all = (by: number) =>
      placeFrames(
        standing,
        new Map(
          porter(standing).frames.map((frame, k) => [refs[k] as FrameRef, { ...frame.rect, y: frame.rect.y - by, h: frame.rect.h + by }]),
        ),
      );
    expect(porter(all(1)).origin).toEqual({ x: 2, y: 8 });
    expect(porter(all(1)).frames.every(({ origin }) => origin === undefined)).toBe(true);
    const one = placeFrames(standing, new Map([[first, { ...before.rect, y: before.rect.y - 1, h: before.rect.h + 1 }]]));
    expect(porter(one).origin).toEqual({ x: 2, y: 7 });
    expect(findFrame(one, first)?.frame.origin).toEqual({ x: 2, y: 8 });
  });

  it("stay on turned frames too, and keep their numbers on frames that now show something else", () =>
    fc.assert(
      fc.property(fc.integer({ min: -1, max: 1 }), fc.integer({ min: -1, max: 1 }), fc.nat(2), fc.nat(2), (dx, dy, grow, more) => {
        // Stored turned by 90° clockwise: a point (u, v) of the upright frame is the pixel (right edge − v, top + u).
        const old: Frame = {
          key: "m0",
          column: 0,
          row: 0,
          number: 0,
          rect: { x: 10, y: 10, w: 8, h: 6 },
          turned: true,
          origin: { x: 3, y: 5 },
        };
        const rect = { x: 10 + dx, y: 10 + dy, w: 8 + grow, h: 6 + more };
        const source: Source = { ...porter(outlined), frames: [old] };
        const frame = withAnchoredFrames(source, [{ ...old, rect }]).frames[0] as Frame;
        const pixel = (each: Frame) => ({ x: each.rect.x + each.rect.w - (each.origin?.y ?? 0), y: each.rect.y + (each.origin?.x ?? 0) });
        expect(pixel(frame)).toEqual(pixel(old));
        const away = withAnchoredFrames(source, [{ ...old, rect: { ...old.rect, x: 100 } }]).frames[0] as Frame;
        expect(away.origin).toEqual(old.origin);
      }),
    ));
});
