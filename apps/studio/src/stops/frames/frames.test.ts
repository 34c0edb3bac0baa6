import { cellRect } from "@caravan/core/cut";
import { cutSource, dropFrames } from "@caravan/core/edit";
import { type FrameRef, frameRef, type Source } from "@caravan/core/model";
import { coverageOf } from "@caravan/core/raster";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NO_SPACE, PORTER, porterProject, sheetOfCells } from "../../../../../packages/core/src/edit/project.fixture";
import { evenScale } from "../../ui/zooms";
import { describeCursor, movedCursor } from "./cursor";
import { cutOf, gridOfSource, maySpread, nudged, outcomeInWords, withCell, withCounts, withSpread } from "./recipe";
import { sheetScene } from "./sheet-scene";
import { fitted, onScreen, opening, panned, pixelAt, SHEET_ZOOMS, zoomedAt } from "./sheet-view";

const sheet = sheetOfCells(4, 3, [5, 11]);
const project = cutSource(
  porterProject(),
  PORTER,
  { by: "count", columns: 4, rows: 3, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false },
  coverageOf(sheet),
);
const source = project.sources[0] as Source;
const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const sizes = fc.record({ w: fc.integer({ min: 1, max: 9000 }), h: fc.integer({ min: 1, max: 9000 }) });
const room = { w: 740, h: 470 };
const densities = fc.constantFrom(1, 1.25, 1.5, 1.75, 2);

describe("the sheet's view", () => {
  it("shows a sheet whole when asked, however large", () =>
    fc.assert(
      fc.property(sizes, densities, (size, density) => {
        const surface = { sheet: size, room, density };
        const view = fitted(surface);
        if (view.zoom === SHEET_ZOOMS[0]) return;
        expect(view.x).toBeGreaterThanOrEqual(0);
        expect(view.x + size.w * view.scale).toBeLessThanOrEqual(room.w);
        expect(view.y + size.h * view.scale).toBeLessThanOrEqual(room.h);
        expect(opening(surface).zoom).toBeGreaterThanOrEqual(view.zoom);
      }),
    ));

  it("keeps the pixel under the pointer in place while zooming", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 740 }),
        fc.integer({ min: 0, max: 470 }),
        fc.constantFrom(1 as const, -1 as const),
        fc.constantFrom(...SHEET_ZOOMS.slice(3, 12)),
        densities,
        (x, y, direction, zoom, density) => {
          const view = { zoom, scale: evenScale(zoom, density), x: 33, y: -50 };
          const next = zoomedAt(view, direction, x, y, density);
          const before = [(x - view.x) / view.scale, (y - view.y) / view.scale];
          const after = [(x - next.x) / next.scale, (y - next.y) / next.scale];
          for (const k of [0, 1]) expect(Math.abs((before[k] as number) - (after[k] as number)) * next.scale).toBeLessThanOrEqual(0.51);
        },
      ),
    ));

  it("gives every pixel of the sheet as many whole ones of the screen, whatever its density, and keeps the middle on another screen", () =>
    fc.assert(
      fc.property(sizes, densities, densities, (sheet, density, other) => {
        const view = fitted({ sheet, room, density });
        const moved = onScreen(view, { sheet, room, density: other });
        for (const [{ zoom, scale, x, y }, on] of [
          [view, density],
          [moved, other],
        ] as const) {
          for (const px of [...(zoom < 1 ? [] : [scale * on]), x * on, y * on]) expect(px).toBeCloseTo(Math.round(px), 6);
          expect(Math.abs(scale - zoom) * on).toBeLessThanOrEqual(0.5);
        }
        const middle = (each: typeof view) => [(room.w / 2 - each.x) / each.scale, (room.h / 2 - each.y) / each.scale];
        for (const k of [0, 1])
          expect(Math.abs((middle(view)[k] as number) - (middle(moved)[k] as number)) * moved.scale).toBeLessThanOrEqual(0.51);
      }),
    ));

  it("never loses the sheet out of sight", () =>
    fc.assert(
      fc.property(sizes, fc.integer({ min: -99_999, max: 99_999 }), fc.integer({ min: -99_999, max: 99_999 }), (size, dx, dy) => {
        const surface = { sheet: size, room, density: 1 };
        const view = panned(fitted(surface), dx, dy, surface);
        expect(view.x).toBeLessThanOrEqual(room.w - 40);
        // To the nearest whole pixel.
        expect(view.x + size.w * view.scale).toBeGreaterThanOrEqual(39.5);
        expect(view.y + size.h * view.scale).toBeGreaterThanOrEqual(39.5);
      }),
    ));

  it("finds the pixel under a point", () => expect(pixelAt({ zoom: 4, scale: 4, x: 10, y: 20 }, 17, 19)).toEqual({ x: 1, y: -1 }));
});

const scene = (change: Partial<Parameters<typeof sheetScene>[0]> = {}) =>
  sheetScene({
    source,
    grid: gridOfSource(source),
    region: 0,
    picked: [],
    cursor: null,
    hoverRow: null,
    inSight: { x: 0, y: 0, w: 32, h: 30 },
    ...change,
  });

describe("the sheet's scene", () => {
  it("distinguishes frames, empty and dropped cells, picks with their numbers, cursor and row", () => {
    const dropped = dropFrames(project, [ref(0, 2)]).sources[0] as Source;
    const drawn = scene({ source: dropped, picked: [ref(3), ref(1)], cursor: ref(2), hoverRow: 1 });
    expect(drawn.frames).toHaveLength(9);
    expect(drawn.empty).toEqual([
      { x: 8, y: 10, w: 8, h: 10 },
      { x: 24, y: 20, w: 8, h: 10 },
    ]);
    expect(drawn.dropped).toEqual([{ x: 0, y: 20, w: 8, h: 10 }]);
    expect(drawn.picked.map(({ rect, number }) => [rect.x / 8, number])).toEqual([
      [1, 2],
      [3, 1],
    ]);
    expect(drawn.cursor).toEqual({ x: 16, y: 0, w: 8, h: 10 });
    expect(drawn.row).toEqual({ x: 0, y: 10, w: 32, h: 10 });
  });

  it("contains only what is visible", () => {
    const drawn = scene({ inSight: { x: 9, y: 0, w: 4, h: 9 } });
    expect(drawn.frames).toEqual([{ x: 8, y: 0, w: 8, h: 10 }]);
  });

  it("marks leftover pixels at right and bottom, each once", () => {
    const grid = gridOfSource({ ...source, cut: { by: "cell", cell: { w: 9, h: 7 }, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false } });
    expect(scene({ grid }).leftOver).toEqual([
      { x: 27, y: 0, w: 5, h: 30 },
      { x: 0, y: 28, w: 27, h: 2 },
    ]);
  });
});

describe("the recipe's fields", () => {
  it("begin with the whole sheet, and keep values that are not typed", () => {
    const uncut = { ...source, cut: null, frames: [] };
    const grid = gridOfSource(uncut);
    expect([grid.columns, grid.rows, grid.cell]).toEqual([1, 1, { w: 32, h: 30 }]);
    expect(withCounts(cutOf(uncut), grid, { columns: 4 })).toMatchObject({ by: "count", columns: 4, rows: 1 });
    expect(withCell(cutOf(uncut), grid, { h: 10 })).toMatchObject({ by: "cell", cell: { w: 32, h: 10 } });
  });

  it("offer to spread what counts leave over, which later counts and nudges keep, and a cell size ends", () => {
    const five = { by: "count" as const, columns: 5, rows: 3, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false };
    const cutInFive = { ...source, cut: five };
    expect(maySpread(five, gridOfSource(cutInFive))).toBe(true);
    expect(maySpread(cutOf(source), gridOfSource(source))).toBe(false);
    const cut = withSpread(five, gridOfSource(cutInFive), true);
    const spread = { ...source, cut };
    const grid = gridOfSource(spread);
    expect(cut).toEqual({ ...five, spread: true });
    expect(Array.from({ length: 5 }, (_, column) => cellRect(grid, column, 0).x)).toEqual([0, 6, 13, 19, 26]);
    expect(scene({ source: spread, grid }).leftOver).toEqual([]);
    expect(outcomeInWords(spread, grid).text).toContain("2 px spread between columns");
    expect(withCounts(cut, grid, { rows: 2 })).toEqual({ ...cut, rows: 2 });
    expect(nudged(cut, grid, 1, 0)).toEqual({ ...cut, margin: { x: 1, y: 0 } });
    expect(nudged(five, gridOfSource(cutInFive), 1, 0)).toMatchObject({ by: "cell", cell: { w: 6, h: 10 } });
    expect(withCell(cut, grid, { w: 6 })).toMatchObject({ by: "cell", cell: { w: 6, h: 10 } });
    expect(withSpread(cut, grid, false)).toEqual(five);
  });

  it("report the outcome", () => {
    expect(outcomeInWords(source, gridOfSource(source))).toEqual({ text: "10 frames, 2 empty left out, nothing left over", good: true });
    const odd = { ...source, pictures: source.pictures.map((each) => ({ ...each, width: 33, height: 31 })) };
    expect(outcomeInWords(odd, gridOfSource(odd)).text).toBe("10 frames, 2 empty left out, left over: 1 px at right, 1 px at bottom");
    const margin = { x: 1, y: 1 };
    const bordered = { ...odd, cut: { ...cutOf(odd), by: "count" as const, columns: 4, rows: 3, margin: { x: 0, y: 0 }, gap: margin } };
    expect(gridOfSource(bordered)).toMatchObject({ cell: { w: 7, h: 9 }, leftOver: { right: 2, bottom: 2 } });
    expect(outcomeInWords(bordered, gridOfSource(bordered)).good).toBe(false);
    const closed = { ...bordered, pictures: odd.pictures.map((each) => ({ ...each, width: 32, height: 30 })) };
    expect(outcomeInWords(closed, gridOfSource(closed))).toEqual({
      text: "10 frames, 2 empty left out, nothing left over but a border: 1 px at right, 1 px at bottom",
      good: true,
    });
    expect(outcomeInWords(dropFrames(project, [ref(0)]).sources[0] as Source, gridOfSource(source)).text).toContain(
      "9 frames, 2 empty left out, 1 dropped",
    );
  });
});

describe("the cursor", () => {
  it("starts at the first frame, reads along, and jumps over empty cells", () => {
    expect(movedCursor(source, null, 1, 0)).toBe(ref(0));
    expect(movedCursor(source, ref(0, 1), 1, 0)).toBe(ref(2, 1));
    expect(movedCursor(source, ref(3), 1, 0)).toBe(ref(0, 1));
    expect(movedCursor(source, ref(1), 0, 1)).toBe(ref(0, 1));
    expect(movedCursor(source, ref(3, 1), 0, 1)).toBe(ref(2, 2));
    expect(movedCursor(source, ref(2), 0, -1)).toBe(ref(2));
    expect(movedCursor({ ...source, frames: [] }, null, 1, 0)).toBeNull();
  });

  it("reaches every frame from the first by going right", () => {
    const seen = [movedCursor(source, null, 1, 0)];
    while (seen.length < 20) seen.push(movedCursor(source, seen.at(-1) as FrameRef, 1, 0));
    expect(new Set(seen)).toEqual(new Set(source.frames.map((frame) => frameRef(source, frame))));
  });

  it("is described in words", () =>
    expect(describeCursor(source, ref(2, 1), [ref(0), ref(2, 1)])).toBe("porter/6, column 2, row 1, picked 2"));
});
