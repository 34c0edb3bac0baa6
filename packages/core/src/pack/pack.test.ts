import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { overlaps, type Packing, type Rect, USUAL_PACKING } from "../model";
import { clearPixels, crop, looksSame, type Pixels } from "../raster";
import { drawPage, type FrameToPack, frameFromPage, packFrames } from "./frames";
import { type PageOptions, packPages } from "./pages";
import { chance } from "./search-parts";

const OPTIONS: PageOptions = { ...USUAL_PACKING, maxPx: 256 };
const sizes = fc.array(fc.record({ w: fc.integer({ min: 1, max: 60 }), h: fc.integer({ min: 1, max: 60 }) }), {
  minLength: 1,
  maxLength: 40,
});
const options = fc
  .record({
    paddingPx: fc.nat({ max: 4 }),
    borderPx: fc.nat({ max: 2 }),
    maxPx: fc.constantFrom(64, 100, 256),
    turn: fc.boolean(),
    sides: fc.constantFrom("free" as const, "powerOfTwo" as const, "fixed" as const),
    square: fc.boolean(),
    effort: fc.constantFrom("normal" as const, "high" as const),
  })
  .map((each): PageOptions => ({ ...each, fixed: { w: 90, h: 70 } }));

describe("packPages", () => {
  it("places every item exactly once, inside its page, apart by the padding", () =>
    fc.assert(
      fc.property(sizes, options, (items, chosen) => {
        const packed = packPages(items, chosen);
        if (packed.kind === "too-large") throw new Error("All of these fit.");
        expect(packed.places).toHaveLength(items.length);
        const rects = packed.places.map(({ x, y, turned }, k): Rect => {
          const { w, h } = items[k] as Rect;
          return turned ? { x, y, w: h, h: w } : { x, y, w, h };
        });
        rects.forEach((rect, k) => {
          const { page, turned } = packed.places[k] as (typeof packed.places)[number];
          const size = packed.pages[page] as { w: number; h: number };
          if (turned) expect(chosen.turn).toBe(true);
          expect(rect.x >= 0 && rect.y >= 0 && rect.x + rect.w <= size.w && rect.y + rect.h <= size.h).toBe(true);
          const { paddingPx: pad } = chosen;
          const border = chosen.borderPx;
          expect(rect.x >= border && rect.y >= border && rect.x + rect.w + border <= size.w && rect.y + rect.h + border <= size.h).toBe(
            true,
          );
          const around = { x: rect.x - pad, y: rect.y - pad, w: rect.w + 2 * pad, h: rect.h + 2 * pad };
          for (let j = 0; j < k; j++) if (packed.places[j]?.page === page) expect(overlaps(around, rects[j] as Rect)).toBe(false);
        });
        for (const { w, h } of packed.pages) {
          if (chosen.sides === "fixed") {
            expect({ w, h }).toEqual(chosen.fixed);
            continue;
          }
          expect(Math.max(w, h)).toBeLessThanOrEqual(chosen.maxPx);
          if (chosen.square) expect(w).toBe(h);
          if (chosen.sides === "powerOfTwo") expect([Math.log2(w) % 1, Math.log2(h) % 1]).toEqual([0, 0]);
        }
      }),
      { numRuns: 60 },
    ));

  it("gives the same layout for the same items", () =>
    fc.assert(
      fc.property(sizes, options, (items, chosen) => void expect(packPages(items, chosen)).toEqual(packPages(items, chosen))),
      { numRuns: 15 },
    ));

  it("uses one page while one is enough", () => {
    const packed = packPages(
      Array.from({ length: 16 }, () => ({ w: 30, h: 30 })),
      { ...OPTIONS, maxPx: 128, paddingPx: 0 },
    );
    expect(packed.kind === "placed" && packed.pages).toHaveLength(1);
  });

  it("fills a perfect grid without waste", () => {
    const packed = packPages(
      Array.from({ length: 64 }, () => ({ w: 16, h: 16 })),
      { ...OPTIONS, paddingPx: 0 },
    );
    expect(packed.kind === "placed" && packed.pages[0]).toEqual({ w: 128, h: 128 });
  });

  it("keeps groups on one page, and reports those too large for any", () => {
    const items = Array.from({ length: 60 }, (_, k) => ({ w: 20 + (k % 7), h: 20 + (k % 5) }));
    const groups = items.map((_, k) => (k < 40 ? Math.floor(k / 10) : -1));
    const packed = packPages(items, { ...OPTIONS, paddingPx: 0, maxPx: 100 }, groups);
    if (packed.kind !== "placed") throw new Error("All of these fit.");
    expect(packed.pages.length).toBeGreaterThan(2);
    expect(packed.split).toEqual([]);
    for (let group = 0; group < 4; group++)
      expect(new Set(packed.places.filter((_, k) => groups[k] === group).map(({ page }) => page)).size).toBe(1);
    const one = packPages(
      items,
      { ...OPTIONS, paddingPx: 0, maxPx: 100 },
      items.map(() => 7),
    );
    expect(one.kind === "placed" && one.split).toEqual([7]);
  });

  it("fills pages of real sizes better than nineteen twentieths, figures in walking poses", () => {
    const random = chance(3);
    const items = Array.from({ length: 150 }, () => ({ w: 17 + random(12), h: 36 + random(5) }));
    const packed = packPages(items, { ...OPTIONS, paddingPx: 0, maxPx: 4096 });
    const [page] = packed.kind === "placed" ? packed.pages : [];
    const area = items.reduce((sum, { w, h }) => sum + w * h, 0);
    expect(area / ((page?.w ?? 0) * (page?.h ?? 0))).toBeGreaterThan(0.97);
  });

  it("names items that fit no page, and packs nothing", () =>
    expect(
      packPages(
        [
          { w: 8, h: 8 },
          { w: 300, h: 8 },
        ],
        OPTIONS,
      ),
    ).toEqual({ kind: "too-large", items: [1] }));

  it("packs nothing into no pages, and reports progress", () => {
    expect(packPages([], OPTIONS)).toEqual({ kind: "placed", pages: [], places: [], split: [] });
    const told: number[] = [];
    packPages(
      Array.from({ length: 30 }, (_, k) => ({ w: 10 + k, h: 12 })),
      OPTIONS,
      null,
      (done) => told.push(done),
    );
    expect(told.at(-1)).toBe(1);
    expect(told.toSorted((a, b) => a - b)).toEqual(told);
  });
});

/** Frames of a few kinds, some alike, some empty, with clear borders of all widths and half-transparent edges. */
const frames = fc
  .array(fc.record({ w: fc.integer({ min: 1, max: 20 }), h: fc.integer({ min: 1, max: 20 }), kind: fc.nat({ max: 5 }) }), {
    minLength: 1,
    maxLength: 14,
  })
  .map((list) =>
    list.map(({ w, h, kind }, k): FrameToPack => {
      const pixels = clearPixels(w + 3, h + 2);
      if (kind > 0)
        for (let y = 0; y < h; y++)
          for (let x = 0; x < w; x++)
            if ((x + kind) % 3 !== 0 && y % (kind + 1) !== 0)
              pixels.bytes.set([kind * 50, x * 9, y * 9, x === 1 ? 100 : 255], ((y + 1) * pixels.width + x + 2) * 4);
      return { name: `f${k}`, pixels, rect: { x: 1, y: 1, w: w + 2, h: h + 1 } };
    }),
  );
const packings = fc
  .record({
    paddingPx: fc.nat({ max: 3 }),
    extrudePx: fc.nat({ max: 3 }),
    turn: fc.boolean(),
    trim: fc.boolean(),
    share: fc.boolean(),
    shareMirrored: fc.boolean(),
    trimMarginPx: fc.nat({ max: 2 }),
    borderPx: fc.nat({ max: 2 }),
    sides: fc.constantFrom("free" as const, "powerOfTwo" as const, "fixed" as const),
  })
  .map((each): Packing => ({ ...USUAL_PACKING, ...each, maxPx: 64, fixed: { w: 40, h: 44 }, maxPages: 99 }));

/** Nothing, something wholly clear, or a few pixels that may lie where the frame itself is clear; in a picture of its own. */
function layerOver({ rect: { w, h } }: FrameToPack, kind = 0) {
  if (kind === 0) return null;
  const pixels = clearPixels(w + 1, h + 4);
  if (kind > 1) for (let k = 0; k < w; k += kind) pixels.bytes.set([255, 200, 90, 60 * kind], ((3 + (k % h)) * pixels.width + 1 + k) * 4);
  return { pixels, rect: { x: 1, y: 3, w, h } };
}

describe("packFrames", () => {
  it("gives every frame's pixels back from its page", () =>
    fc.assert(
      fc.property(frames, packings, (all, packing) => {
        const packed = packFrames(all, packing);
        const pages = packed.pages.map((_, page) => drawPage(page, packed, all, packing.extrudePx));
        all.forEach((frame, k) => {
          const place = packed.frames[k] as (typeof packed.frames)[number];
          expect(looksSame(frameFromPage(pages[place.page] as Pixels, place), crop(frame.pixels, frame.rect))).toBe(true);
          if (!packing.trim) expect(place.inset).toEqual({ x: 0, y: 0 });
          if (!packing.share) expect(place.sameAs).toBe(k);
        });
      }),
      { numRuns: 150 },
    ));

  it("restores every layer's pixels, packed once, and shares places only if all layers are equal", () =>
    fc.assert(
      fc.property(frames, packings, fc.array(fc.nat({ max: 3 }), { minLength: 28, maxLength: 28 }), (flat, packing, kinds) => {
        const all = flat.map(
          (frame, k): FrameToPack => ({ ...frame, layers: [layerOver(frame, kinds[k]), layerOver(frame, kinds[k + 14])] }),
        );
        const packed = packFrames(all, packing);
        const pages = [0, 1, 2].map((layer) => packed.pages.map((_, page) => drawPage(page, packed, all, packing.extrudePx, layer)));
        all.forEach((frame, k) => {
          const place = packed.frames[k] as (typeof packed.frames)[number];
          const whole = [frame, ...(frame.layers ?? [])].map((part) =>
            part ? crop(part.pixels, part.rect) : clearPixels(frame.rect.w, frame.rect.h),
          );
          for (const [layer, pixels] of whole.entries())
            expect(looksSame(frameFromPage(pages[layer]?.[place.page] as Pixels, place), pixels)).toBe(true);
        });
        // Without layers as before.
        expect(
          packFrames(
            flat.map((frame) => ({ ...frame, layers: [null, null] })),
            packing,
          ),
        ).toEqual(packFrames(flat, packing));
      }),
      { numRuns: 80 },
    ));

  it("shares the place of frames with equal trimmed pixels", () => {
    const block = (x: number): FrameToPack => {
      const pixels = clearPixels(8, 8);
      pixels.bytes.set([1, 2, 3, 255], (8 + x) * 4);
      return { name: `at ${x}`, pixels, rect: { x: 0, y: 0, w: 8, h: 8 } };
    };
    const packed = packFrames([block(1), block(5)], USUAL_PACKING);
    expect(packed.frames[1]).toMatchObject({ sameAs: 0, rect: packed.frames[0]?.rect, inset: { x: 5, y: 1 } });
  });

  it("shares the place of mirror pictures when the game can mirror, and says which those are", () => {
    const mark = (x: number): FrameToPack => {
      const pixels = clearPixels(6, 4);
      for (let k = 0; k < 3; k++) pixels.bytes.set([k * 40, 2, 3, 255], (6 + x + (x === 1 ? k : 2 - k)) * 4);
      return { name: `from ${x}`, pixels, rect: { x: 0, y: 0, w: 6, h: 4 } };
    };
    const both = [mark(1), mark(3), mark(1)];
    expect(packFrames(both, USUAL_PACKING).frames.map(({ sameAs }) => sameAs)).toEqual([0, 1, 0]);
    const packed = packFrames(both, { ...USUAL_PACKING, shareMirrored: true });
    expect(packed.frames.map(({ sameAs, mirrored }) => [sameAs, mirrored])).toEqual([
      [0, false],
      [0, true],
      [0, false],
    ]);
    const page = drawPage(0, packed, both, USUAL_PACKING.extrudePx);
    expect(looksSame(frameFromPage(page, packed.frames[1] as (typeof packed.frames)[number]), (both[1] as FrameToPack).pixels)).toBe(true);
  });

  it("leaves a margin when trimming, and refuses more pages than are allowed", () => {
    const pixels = clearPixels(20, 20);
    pixels.bytes.set([9, 9, 9, 255], (10 * 20 + 18) * 4);
    const dot: FrameToPack = { name: "dot", pixels, rect: { x: 0, y: 0, w: 20, h: 20 } };
    expect(packFrames([dot], { ...USUAL_PACKING, trimMarginPx: 3 }).frames[0]).toMatchObject({
      inset: { x: 15, y: 7 },
      rect: { w: 5, h: 7 },
    });
    const many = Array.from({ length: 9 }, (_, k): FrameToPack => ({ ...dot, name: `${k}` }));
    expect(() => packFrames(many, { ...USUAL_PACKING, trim: false, share: false, maxPx: 32, maxPages: 2 })).toThrow(/need 9 pages; 2 are/);
  });

  it("stores a fully transparent frame as one transparent pixel", () => {
    const packed = packFrames([{ name: "clear", pixels: clearPixels(9, 9), rect: { x: 0, y: 0, w: 9, h: 9 } }], USUAL_PACKING);
    expect(packed.frames[0]).toMatchObject({ rect: { w: 1, h: 1 }, inset: { x: 0, y: 0 }, size: { w: 9, h: 9 } });
  });

  it("repeats each frame's edge pixels around it", () => {
    const pixels: Pixels = { width: 2, height: 1, bytes: Uint8Array.of(9, 9, 9, 255, 7, 7, 7, 255) };
    const one = [{ name: "a", pixels, rect: { x: 0, y: 0, w: 2, h: 1 } }];
    const packed = packFrames(one, { ...USUAL_PACKING, extrudePx: 1 });
    expect(packed.pages[0]?.size).toEqual({ w: 4, h: 3 });
    const page = drawPage(0, packed, one, 1);
    expect([0, 1, 2, 3].map((x) => page.bytes[x * 4])).toEqual([9, 9, 7, 7]);
  });

  it("names the frame that is too large", () => {
    const pixels = clearPixels(70, 4);
    pixels.bytes.fill(255);
    expect(() => packFrames([{ name: "hall/2", pixels, rect: { x: 0, y: 0, w: 70, h: 4 } }], { ...USUAL_PACKING, maxPx: 64 })).toThrow(
      /frame "hall\/2": It is 70 × 4 px.*at most 64 px/,
    );
  });
});
