import type { FrameMarks, MarkKind, MarkName } from "@caravan/core/model";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { framePlace, marksOnStage } from "./marks-scene";
import { frameOnStage } from "./stage-scene";

const BODY: MarkKind = { name: "body" as MarkName, shape: "box", letter: "B", line: "solid" };
const HAND: MarkKind = { name: "hand" as MarkName, shape: "point", letter: "H", line: "dots" };
const marks: FrameMarks = { boxes: { [BODY.name]: [{ x: -2, y: 3, w: 5, h: 9 }] }, points: { [HAND.name]: { x: 6.5, y: 4 } } };
const frame = { size: { w: 16, h: 20 }, origin: { x: 7, y: 19 }, marks };
const scene = { scale: 4, standing: { x: 200, y: 150 } };

describe("boxes and points on the stage", () => {
  it("lie where the frame's pixels do", () => {
    const at = frameOnStage(frame, scene);
    expect(marksOnStage(frame, [BODY, HAND], scene)).toEqual([
      { kind: BODY, shape: "box", index: 0, rect: { x: at.x - 8, y: at.y + 12, w: 20, h: 36 } },
      { kind: HAND, shape: "point", at: { x: at.x + 26, y: at.y + 16 } },
    ]);
  });

  it("of a mirrored figure lie as far on the other side of the origin", () => {
    const [box, point] = marksOnStage(frame, [BODY, HAND], scene, { mirror: true });
    const { x } = scene.standing;
    // From 9 px left to 4 px left of the origin becomes from 4 px right to 9 px right.
    expect(box).toMatchObject({ rect: { x: x + 4 * 4, w: 20 } });
    expect(point).toMatchObject({ at: { x: x + 0.5 * 4 } });
  });

  it("are only those of the project's kinds", () => {
    expect(marksOnStage(frame, [HAND], scene)).toHaveLength(1);
    expect(marksOnStage({ ...frame, marks: undefined }, [BODY, HAND], scene)).toEqual([]);
  });

  it("a place of the canvas and the same one of the frame are told back and forth", () =>
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 60 }), fc.integer({ min: -40, max: 60 }), fc.integer({ min: 1, max: 16 }), (x, y, scale) => {
        const own = { scale, standing: scene.standing };
        const at = frameOnStage(frame, own, { held: "frame" });
        expect(framePlace(frame, own, "frame", { x: at.x + x * scale, y: at.y + y * scale })).toEqual({ x, y });
      }),
    ));
});
