/** Tests examples that count from the bottom, in shares of the picture, or insets in another way than from the top left. */
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Atlas, AtlasFrame } from "../atlas";
import { textFromUtf8 } from "../codec";
import { INSET_WAYS, insetOf, insetTold } from "../metadata/insets";
import type { Example, Reading, Rect, Size } from "../model";
import { clearPixels, coverageOf } from "../raster";
import { filesInShape, learnExample, shapeOf } from ".";

const PAGE: Size = { w: 128, h: 96 };
const RECTS: Record<string, Rect> = {
  "bale-0": { x: 0, y: 0, w: 32, h: 30 },
  "bale-1": { x: 40, y: 8, w: 21, h: 33 },
  "bale-2": { x: 64, y: 50, w: 32, h: 40 },
  "bale-3": { x: 5, y: 61, w: 17, h: 12 },
};

function atlasOf(rects: Readonly<Record<string, Rect>>, page: Size, more: Partial<AtlasFrame> = {}): Atlas {
  const frames = Object.entries(rects).map(([name, rect]): [string, AtlasFrame] => [
    name,
    { page: 0, rect, turned: false, inset: { x: 0, y: 0 }, size: { w: rect.w, h: rect.h }, origin: { x: 0, y: 0 }, ...more },
  ]);
  return {
    ...{ format: "caravan-atlas", version: 1, clips: {}, actions: {}, frames: Object.fromEntries(frames) },
    pages: [{ image: "goods.png", width: page.w, height: page.h, scale: 1, filter: "nearest" }],
  };
}

function seenBales() {
  const picture = clearPixels(PAGE.w, PAGE.h);
  for (const { x, y, w, h } of Object.values(RECTS))
    for (let row = y; row < y + h; row++) picture.bytes.fill(255, (row * PAGE.w + x) * 4, (row * PAGE.w + x + w) * 4);
  return { picture: "goods.png", coverage: coverageOf(picture) };
}

/** A file of the bales by the fields that `told` gives each. */
const textOf = (told: (rect: Rect) => object, rects: Readonly<Record<string, Rect>> = RECTS) =>
  JSON.stringify({ picture: "goods.png", bales: Object.entries(rects).map(([name, rect]) => ({ name, ...told(rect) })) }, null, 1);

const inShape = (example: Example, atlas: Atlas) =>
  textFromUtf8(filesInShape(shapeOf(example), atlas, "out").files[0]?.bytes ?? new Uint8Array());

describe("an example whose picture is at hand", () => {
  const ways: Record<string, (rect: Rect, page: Size) => object> = {
    "y counted up to the lower edge": ({ x, y, w, h }, page) => ({ x, y: page.h - y - h, w, h }),
    "four corners as shares": ({ x, y, w, h }, page) => ({ u0: x / page.w, v0: y / page.h, u1: (x + w) / page.w, v1: (y + h) / page.h }),
    "places and sizes as shares, counted up": ({ x, y, w, h }, page) => ({
      ...{ x: x / page.w, y: (page.h - y - h) / page.h, width: w / page.w, height: h / page.h },
    }),
    "shares with the upper edge first, counted up": ({ x, y, w, h }, page) => ({
      ...{ u0: x / page.w, v0: (page.h - y) / page.h, u1: (x + w) / page.w, v1: (page.h - y - h) / page.h },
    }),
  };

  it.each(Object.entries(ways))("is written in its own way: %s", (_way, told) => {
    const { example } = learnExample(
      textOf((rect) => told(rect, PAGE)),
      "bales.json",
      seenBales(),
    );
    expect(example.page).toEqual(PAGE);
    expect(JSON.parse(inShape(example, atlasOf(RECTS, PAGE)))).toEqual(JSON.parse(textOf((rect) => told(rect, PAGE))));
    // Another page of another size: what is told is told of that.
    const [page, rects] = [
      { w: 300, h: 50 },
      { "bale-1": { x: 7, y: 3, w: 11, h: 40 }, jar: { x: 201, y: 0, w: 99, h: 13 } },
    ];
    const written = JSON.parse(inShape(example, atlasOf(rects, page))) as { bales: Record<string, number | string>[] };
    for (const [k, [name, rect]] of Object.entries(rects).entries()) {
      const { name: called, ...numbers } = written.bales[k] as Record<string, number>;
      expect(called).toBe(name);
      for (const [field, wanted] of Object.entries(told(rect, page) as Record<string, number>))
        expect(numbers[field]).toBeCloseTo(wanted, 3);
    }
  });

  it("and counts up is refused without the picture, with the remedy", () => {
    const text = textOf(({ x, y, w, h }) => ({ x, y: PAGE.h - y - h, w, h }));
    const { example } = learnExample(text, "bales.json", seenBales());
    const { page: _page, ...without } = example;
    expect(() => shapeOf(without)).toThrow(/counts from the picture's bottom.*Give it together with its picture/s);
  });
});

const rect = (page: Size) =>
  fc
    .record({
      x: fc.nat(page.w - 2),
      y: fc.nat(page.h - 2),
      w: fc.integer({ min: 1, max: page.w }),
      h: fc.integer({ min: 1, max: page.h }),
    })
    .map(({ x, y, w, h }) => ({ x, y, w: Math.min(w, page.w - x), h: Math.min(h, page.h - y) }));

describe("in any way of counting,", () => {
  const readings = fc.record({
    rectAs: fc.constantFrom("pixels" as const, "share" as const),
    yAs: fc.constantFrom(undefined, "up" as const, "top-up" as const),
    edges: fc.boolean(),
    centred: fc.boolean(),
    turnedAs: fc.constantFrom("stored" as const, "upright" as const),
    insetAs: fc.constantFrom(undefined, ...INSET_WAYS.slice(1)),
  });

  it("frames written in its shape are read back correctly", () =>
    fc.assert(
      fc.property(
        readings,
        fc.array(fc.tuple(rect({ w: 500, h: 260 }), fc.boolean(), fc.nat(9), fc.nat(9), fc.nat(5), fc.nat(5)), {
          minLength: 1,
          maxLength: 6,
        }),
        ({ rectAs, yAs, edges, centred, turnedAs, insetAs }, cells) => {
          const reading: Reading = {
            ...{
              name: "bales",
              container: "json",
              frames: "bales.*",
              turnedAs,
              originAs: "pixels",
              originUp: false,
              timeAs: "ms",
              clips: null,
            },
            ...{ rectAs, ...(yAs ? { yAs } : {}), ...(centred && !edges ? { centred } : {}), ...(insetAs ? { insetAs } : {}) },
            fields: {
              ...{ name: "name", x: "x", y: "y", turned: "turned", insetX: "ix", insetY: "iy", fullW: "fw", fullH: "fh" },
              ...(edges ? { right: "right", bottom: "bottom" } : { w: "w", h: "h" }),
            },
          };
          const told = (px: number) => (rectAs === "share" ? px / 64 : px);
          const extent = edges ? { right: told(60), bottom: told(60) } : { w: told(8), h: told(8) };
          const some = { y: told(16), ...extent, turned: false, ix: 0, iy: 0, fw: 70, fh: 70 };
          const text = JSON.stringify({ bales: [0, 1].map((k) => ({ name: `bale-${k}`, x: told(8 + 16 * k), ...some })) });
          const example: Example = { name: "bales", file: "bales.json", text, reading, page: { w: 64, h: 64 } };
          const frames = cells.map(([stored, turned, left, top, right, below], k): [string, AtlasFrame] => {
            const upright = turned ? { w: stored.h, h: stored.w } : stored;
            return [
              `jar-${k}`,
              {
                ...{ page: 0, rect: stored, turned, inset: { x: left, y: top }, origin: { x: 0, y: 0 } },
                size: { w: upright.w + left + right, h: upright.h + top + below },
              },
            ];
          });
          // The proof within reads every frame back and compares it.
          const atlas = { ...atlasOf({}, { w: 500, h: 260 }), frames: Object.fromEntries(frames) };
          const written = JSON.parse(inShape(example, atlas)) as { bales: { name: string }[] };
          expect(written.bales.map(({ name }) => name)).toEqual(frames.map(([name]) => name));
        },
      ),
      { numRuns: 300 },
    ));

  it("an inset written and read again is the same", () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...INSET_WAYS),
        fc.nat(40),
        fc.nat(40),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 40 }),
        fc.nat(9),
        (as, x, y, w, h, more) => {
          const whole = { w: x + w + more, h: y + h + more };
          const told = insetTold({ x, y }, { w, h }, whole, as);
          expect(insetOf(told.x, told.y, { w, h }, whole, as)).toEqual({ x, y });
        },
      ),
    ));
});
