import type { SeenOutlines } from "@caravan/core/check";
import type { FrameMarks, FrameRef, MarkKind, MarkName } from "@caravan/core/model";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { framePlace, marksOnStage } from "./marks-scene";
import { frameOnStage } from "./stage-scene";

const BODY: MarkKind = { name: "body" as MarkName, shape: "box", letter: "B", line: "solid" };
const SOLID: MarkKind = { name: "solid" as MarkName, shape: "outline", letter: "S", line: "dashes" };
const HAND: MarkKind = { name: "hand" as MarkName, shape: "point", letter: "H", line: "dots" };
const marks: FrameMarks = { boxes: { [BODY.name]: [{ x: -2, y: 3, w: 5, h: 9 }] }, points: { [HAND.name]: { x: 6.5, y: 4 } } };
const frame = { size: { w: 16, h: 20 }, origin: { x: 7, y: 19 }, marks };
const NONE = new Map();
const scene = { scale: 4, standing: { x: 200, y: 150 } };

describe("outlines on the stage", () => {
  const traced = [{ x: 0, y: 0 }, { x: 8, y: 0 }, { x: 0, y: 20 }]; // biome-ignore format: corners
  const ref = "s1/c0r0" as FrameRef;
  const outlines = new Map([[ref, { [SOLID.name]: { polygons: [traced], over: 0, own: false } }]]) as SeenOutlines;
  const cornersOf = (of: Parameters<typeof marksOnStage>[0], mirror = false) =>
    marksOnStage(of, { kinds: [SOLID], outlines }, scene, { mirror }).map((each) => (each.shape === "outline" ? each.corners : []));

  it("are the traced ones, mirrored with the frame, unless a person set others or removed them", () => {
    const whole = frameOnStage(frame, scene, {});
    expect(cornersOf({ ...frame, ref })).toEqual([traced.map(({ x, y }) => ({ x: whole.x + 4 * x, y: whole.y + 4 * y }))]);
    const turned = frameOnStage(frame, scene, { mirror: true });
    expect(cornersOf({ ...frame, ref }, true)).toEqual([traced.map(({ x, y }) => ({ x: turned.x + 4 * (16 - x), y: turned.y + 4 * y }))]);
    expect(cornersOf({ ...frame, ref, marks: { outlines: { [SOLID.name]: [] } } })).toEqual([]);
    expect(cornersOf({ ...frame, ref, marks: { outlines: { [SOLID.name]: [traced, traced] } } })).toHaveLength(2);
    expect(cornersOf(frame)).toEqual([]);
  });
});

describe("boxes and points on the stage", () => {
  it("are where the frame's pixels are", () => {
    const at = frameOnStage(frame, scene);
    expect(marksOnStage(frame, { kinds: [BODY, HAND], outlines: NONE }, scene)).toEqual([
      { kind: BODY, shape: "box", index: 0, rect: { x: at.x - 8, y: at.y + 12, w: 20, h: 36 } },
      { kind: HAND, shape: "point", at: { x: at.x + 26, y: at.y + 16 } },
    ]);
  });

  it("of a mirrored figure are equally far on the other side of the origin", () => {
    const [box, point] = marksOnStage(frame, { kinds: [BODY, HAND], outlines: NONE }, scene, { mirror: true });
    const { x } = scene.standing;
    // From 9 px left to 4 px left of the origin becomes from 4 px right to 9 px right.
    expect(box).toMatchObject({ rect: { x: x + 4 * 4, w: 20 } });
    expect(point).toMatchObject({ at: { x: x + 0.5 * 4 } });
  });

  it("are only those of the project's kinds", () => {
    expect(marksOnStage(frame, { kinds: [HAND], outlines: NONE }, scene)).toHaveLength(1);
    expect(marksOnStage({ ...frame, marks: undefined }, { kinds: [BODY, HAND], outlines: NONE }, scene)).toEqual([]);
  });

  it("a place of the canvas and the same one of the frame convert back and forth", () =>
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 60 }), fc.integer({ min: -40, max: 60 }), fc.integer({ min: 1, max: 16 }), (x, y, scale) => {
        const own = { scale, standing: scene.standing };
        const at = frameOnStage(frame, own, { held: "frame" });
        expect(framePlace(frame, own, "frame", { x: at.x + x * scale, y: at.y + y * scale })).toEqual({ x, y });
      }),
    ));
});
