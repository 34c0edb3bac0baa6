import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Frame, FrameRef, Project, Source } from "../model";
import { clearPixels, coverageOf, type Pixels, paste } from "../raster";
import { porter, refreshed } from "./changed-art.fixture";
import { cutSource } from "./cutting";
import { placeOrigins } from "./origins";
import { CELL, NO_SPACE, PORTER, porterProject } from "./project.fixture";
import { withSource } from "./with-source";

/** A sheet of drawings by number: equal numbers look alike, all others do not. */
function sheetOf(rows: readonly (readonly number[])[]): Pixels {
  const sheet = clearPixels((rows[0]?.length ?? 0) * CELL.w, rows.length * CELL.h);
  for (const [row, drawings] of rows.entries())
    for (const [column, drawing] of drawings.entries())
      for (let y = 2; y < 9; y++)
        for (let x = 1; x < 6; x++) {
          const at = ((row * CELL.h + y) * sheet.width + column * CELL.w + x) * 4;
          sheet.bytes.set([drawing % 256, drawing >> 8, (x * y * 7) % 256, 255], at);
        }
  return sheet;
}

const cut = { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false } as const;

function inCells(sheet: Pixels): Project {
  const bare = porterProject();
  const picture = { file: "art/a.png", sha256: "1".repeat(64), width: sheet.width, height: sheet.height };
  const source: Source = { ...porter(bare), pictures: [picture], frames: [], cut: null };
  return cutSource({ ...bare, sources: [source] }, PORTER, cut, coverageOf(sheet));
}

function byHand(sheet: Pixels): Project {
  const project = inCells(sheet);
  const frames = porter(project).frames.map((frame) => ({ ...frame, key: `h${frame.number}` as Frame["key"] }));
  return withSource(project, { ...porter(project), cut: { by: "hand" }, frames });
}

/** Drawn anew, however often it was. */
const redrawn = (drawing: number) => drawing + 1000;

const ROWS = [0, 1, 2, 3].map((row) => [0, 1, 2, 3].map((column) => 10 + row * 4 + column));

describe.each([
  ["cut into cells", inCells],
  ["drawn by hand", byHand],
])("redrawn frames that are %s", (_, made) => {
  /** Where each frame of `before` is afterwards, by its drawing there. */
  const after = (before: readonly number[][], changed: readonly number[][]) => {
    const project = made(sheetOf(before));
    const numbers = new Map(porter(project).frames.map(({ key, number }) => [key, before.flat()[number] as number]));
    const next = refreshed(project, sheetOf(before), sheetOf(changed)).project;
    return new Map(
      porter(next).frames.flatMap(({ key, rect }) => {
        const drawing = numbers.get(key);
        return drawing === undefined ? [] : [[drawing, changed[rect.y / CELL.h]?.[rect.x / CELL.w]] as const];
      }),
    );
  };

  it("go with their row where a row is inserted between", () => {
    const [top, second, third, last] = ROWS as [number[], number[], number[], number[]];
    const changed = [top.with(1, redrawn(11)), second.with(2, redrawn(16)), [90, 91, 92, 93], third.with(0, redrawn(18)), last];
    const places = after(ROWS, changed);
    for (const drawing of [11, 16, 18]) expect(places.get(drawing)).toBe(redrawn(drawing));
    for (const drawing of [10, 14, 19, 25]) expect(places.get(drawing)).toBe(drawing);
  });

  it("go with their column where a column is inserted between", () => {
    const changed = ROWS.map((row, k) => {
      const drawn = row.map((drawing) => (drawing === 10 || drawing === 15 || drawing === 24 ? redrawn(drawing) : drawing));
      return [...drawn.slice(0, 2), 90 + k, ...drawn.slice(2)];
    });
    const places = after(ROWS, changed);
    for (const drawing of [10, 15, 24]) expect(places.get(drawing)).toBe(redrawn(drawing));
  });

  it("keep their place where a row beside them is removed, whose frames are gone", () => {
    const [top, , third, last] = ROWS as [number[], number[], number[], number[]];
    const places = after(ROWS, [top.with(0, redrawn(10)).with(3, redrawn(13)), third.with(1, redrawn(19)), last]);
    for (const drawing of [10, 13, 19]) expect(places.get(drawing)).toBe(redrawn(drawing));
    for (const drawing of [14, 15, 16, 17]) expect(places.has(drawing)).toBe(false);
  });

  it("are where their row went, whichever rows are inserted, removed and redrawn in part", () =>
    fc.assert(
      fc.property(
        fc.array(fc.record({ kept: fc.boolean(), inserted: fc.nat(2), redrawn: fc.option(fc.nat(3)) }), { minLength: 2, maxLength: 5 }),
        (plan) => {
          const before = plan.map((_, row) => [0, 1, 2, 3].map((column) => 10 + row * 4 + column));
          let fresh = 500;
          const changed = plan.flatMap((row, k) => {
            const drawn = (before[k] as number[]).map((drawing, column) => (column === row.redrawn ? redrawn(drawing) : drawing));
            const inserted = Array.from({ length: row.inserted }, () => [fresh++, fresh++, fresh++, fresh++]);
            return [...inserted, ...(row.kept ? [drawn] : [])];
          });
          fc.pre(plan.some(({ kept }) => kept));
          const places = after(before, changed);
          for (const [k, row] of plan.entries())
            for (const [column, drawing] of (before[k] as number[]).entries())
              if (row.kept) expect(places.get(drawing)).toBe(column === row.redrawn ? redrawn(drawing) : drawing);
        },
      ),
    ));
});

describe("a sheet whose drawings all moved by some pixels", () => {
  /** The second frame afterwards; it was redrawn, and stood on an origin of its own. */
  const secondAfter = (x: number, y: number) => {
    const before = sheetOf(ROWS);
    const project = byHand(before);
    const [, second] = porter(project).frames as [unknown, Frame];
    const placed = placeOrigins(project, "it", new Map([[`s1/${second.key}` as FrameRef, { x: 3, y: 9 }]]));
    const moved = clearPixels(before.width + x, before.height + y);
    const drawn = sheetOf(ROWS.with(0, (ROWS[0] as number[]).with(1, redrawn(11))));
    paste(moved, drawn, { x: 0, y: 0, w: drawn.width, h: drawn.height }, x, y);
    return porter(refreshed(placed, before, moved).project).frames.find(({ key }) => key === second.key);
  };

  it("takes redrawn frames along, and their origins with them", () => {
    expect(secondAfter(3, 1)).toMatchObject({ rect: { x: CELL.w + 3, y: 1, ...CELL }, origin: { x: 3, y: 9 } });
  });

  it("takes the origins of redrawn frames along where rectangles stay, because drawings moved within them", () => {
    expect(secondAfter(2, 1)).toMatchObject({ rect: { x: CELL.w, y: 0, ...CELL }, origin: { x: 5, y: 10 } });
  });
});
