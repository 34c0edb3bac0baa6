import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawnPixels } from "../art";
import type { Frame } from "../model";
import { clearPixels, crop, paste } from "../raster";
import { onPicture } from "./on-picture";

const WHOLE = { w: 20, h: 16 };
const picture = clearPixels(WHOLE.w, WHOLE.h);
for (let k = 0; k < picture.bytes.length; k++) picture.bytes[k] = 1 + ((k * 37) % 255);

const frame = (rect: Frame["rect"], turned?: Frame["turned"], padded = false): Frame => ({
  key: "h0" as Frame["key"],
  column: 0,
  row: 0,
  number: 0,
  rect,
  ...(turned ? { turned } : {}),
  ...(padded ? { size: { w: 14, h: 13 }, inset: { x: 2, y: 1 } } : {}),
});

describe("a frame of a picture whose canvas is cropped", () => {
  it("shows the same at the same place of the same size, but for what is cropped away; turned and padded too", () =>
    fc.assert(
      fc.property(
        fc.record({ x: fc.nat(10), y: fc.nat(7), w: fc.integer({ min: 1, max: 10 }), h: fc.integer({ min: 1, max: 9 }) }),
        fc.constantFrom(undefined, true as const, "counter" as const),
        fc.boolean(),
        fc.record({ left: fc.nat(6), top: fc.nat(6), right: fc.nat(6), bottom: fc.nat(6) }),
        (rect, turned, padded, { left, top, right, bottom }) => {
          const area = { x: left, y: top, w: WHOLE.w - left - right, h: WHOLE.h - top - bottom };
          const kept = onPicture(frame({ ...rect, x: rect.x - left, y: rect.y - top }, turned, padded), area);
          if (!kept) return;
          const rest = clearPixels(WHOLE.w, WHOLE.h);
          paste(rest, picture, area, area.x, area.y);
          expect(drawnPixels(crop(picture, area), kept)).toEqual(drawnPixels(rest, frame(rect, turned, padded)));
        },
      ),
    ));

  it("stays as it is while it lies on it, and is gone when more than half of it is cropped away", () => {
    const inside = frame({ x: 0, y: 0, w: 8, h: 8 });
    expect(onPicture(inside, { w: 8, h: 8 })).toBe(inside);
    expect(onPicture(inside, { w: 4, h: 8 })).not.toBeNull();
    expect(onPicture(inside, { w: 3, h: 8 })).toBeNull();
  });
});
