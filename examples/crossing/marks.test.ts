import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { boxInWorld, outlineInWorld, pointInWorld } from "./marks";

const frame = {
  page: 0,
  rect: { x: 0, y: 0, w: 9, h: 9 },
  turned: false,
  inset: { x: 0, y: 0 },
  size: { w: 40, h: 48 },
  origin: { x: 20, y: 46 },
};
const whole = fc.integer({ min: -60, max: 60 });

describe("boxes and points in the world", () => {
  it("are equally far from the character as from the frame's origin", () => {
    expect(boxInWorld(frame, { x: 13, y: 13, w: 14, h: 33 }, { x: 100, y: 130, mirror: false })).toEqual({ x: 93, y: 97, w: 14, h: 33 });
    expect(pointInWorld(frame, { x: 26.5, y: 10 }, { x: 100, y: 130, mirror: false })).toEqual({ x: 106, y: 94 });
  });

  it("have outlines placed like boxes, mirrored too", () => {
    const corners = [{ x: 13, y: 13 }, { x: 27, y: 13 }, { x: 13, y: 46 }]; // biome-ignore format: corners
    const at = (mirror: boolean) => outlineInWorld(frame, corners, { x: 100, y: 130, mirror });
    expect(at(false)).toEqual([{ x: 93, y: 97 }, { x: 107, y: 97 }, { x: 93, y: 130 }]); // biome-ignore format: corners
    expect(at(true)).toEqual([{ x: 107, y: 97 }, { x: 93, y: 97 }, { x: 107, y: 130 }]); // biome-ignore format: corners
  });

  it("of a mirrored character are on its other side, with the same size", () =>
    fc.assert(
      fc.property(whole, whole, whole, whole, fc.integer({ min: 1, max: 50 }), (x, y, at, ground, w) => {
        const there = { x: at, y: ground };
        const plain = boxInWorld(frame, { x, y, w, h: 5 }, { ...there, mirror: false });
        const mirrored = boxInWorld(frame, { x, y, w, h: 5 }, { ...there, mirror: true });
        expect(mirrored).toEqual({ ...plain, x: 2 * at - plain.x - w });
        const [left, right] = [false, true].map((mirror) => pointInWorld(frame, { x, y }, { ...there, mirror }).x);
        expect((left as number) + (right as number)).toBe(2 * at);
      }),
    ));
});
