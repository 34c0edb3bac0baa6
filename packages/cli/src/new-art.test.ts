import { addSources, cutSource, placeOrigins } from "@caravan/core/edit";
import { emptyProject, type Frame, type FrameRef, type GridCut, type Project, type Source, type SourceId } from "@caravan/core/model";
import { clearPixels, coverageOf, type Pixels } from "@caravan/core/raster";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { withNewArt } from "./new-art";

const SHEET = "s1" as SourceId;
const NONE = { x: 0, y: 0 };

/** Rows of drawings by number; null is an empty cell. */
type Rows = readonly (readonly (number | null)[])[];

interface Laid {
  readonly rows: Rows;
  readonly cell: { readonly w: number; readonly h: number };
  /** px before the first cell, and how far right and down each drawing stands from the upper left of its cell. */
  readonly margin?: { readonly x: number; readonly y: number };
  readonly inset?: { readonly x: number; readonly y: number };
}

/** Every drawing has a size, a place in its cell and pixels of its own. */
const drawingOf = (number: number) => ({ w: 4 + (number % 4), h: 5 + (number % 3), x: 1 + (number % 3), y: 1 + (number % 2) });

/** Where each drawing's upper left pixel is on the sheet. */
function placesOf({ rows, cell, margin = NONE, inset = NONE }: Laid): Map<number, { x: number; y: number }> {
  const at = (k: number, row: number, column: number) => {
    const { x, y } = drawingOf(k);
    return { x: margin.x + column * cell.w + inset.x + x, y: margin.y + row * cell.h + inset.y + y };
  };
  return new Map(rows.flatMap((row, r) => row.flatMap((k, c) => (k === null ? [] : [[k, at(k, r, c)] as const]))));
}

function painted(laid: Laid): Pixels {
  const { rows, cell, margin = NONE } = laid;
  const pixels = clearPixels(margin.x + (rows[0]?.length ?? 0) * cell.w, margin.y + rows.length * cell.h);
  for (const [k, { x: left, y: top }] of placesOf(laid)) {
    const { w, h } = drawingOf(k);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) pixels.bytes.set([k * 3, x * 20, y * 20, 255], ((top + y) * pixels.width + left + x) * 4);
  }
  return pixels;
}

/** The sheet cut, with an origin on each frame at the upper left pixel of its drawing. */
function cutUp(laid: Laid, cut: GridCut): { project: Project; owners: Map<string, number> } {
  const pixels = painted(laid);
  const added = addSources(emptyProject("it"), [
    { fileName: "crowd.png", sha256: "a".repeat(64), width: pixels.width, height: pixels.height },
  ]);
  const project = cutSource(added, SHEET, cut, coverageOf(pixels));
  const owners = new Map<string, number>();
  const origins = new Map<FrameRef, { x: number; y: number }>();
  for (const [k, { x, y }] of placesOf(laid)) {
    const frame = framesOf(project).find(({ rect }) => rect.x <= x && x < rect.x + rect.w && rect.y <= y && y < rect.y + rect.h) as Frame;
    owners.set(frame.key, k);
    origins.set(`${SHEET}/${frame.key}` as FrameRef, { x: x - frame.rect.x, y: y - frame.rect.y });
  }
  return { project: placeOrigins(project, "it", origins), owners };
}

const framesOf = ({ sources }: Project) => (sources[0] as Source).frames;

/** Brings it to new art, and holds every frame against where its drawing is now. */
function expectFollowed(before: Laid, after: Laid, cut: GridCut): ReturnType<typeof withNewArt>["refreshed"] {
  const { project, owners } = cutUp(before, cut);
  const pixels = painted(after);
  const known = new Map([
    ["a".repeat(64), painted(before)],
    ["b".repeat(64), pixels],
  ]);
  const picture = { sha256: "b".repeat(64), width: pixels.width, height: pixels.height };
  const done = withNewArt(project, project.sources[0] as Source, [picture], known);
  const source = done.project.sources[0] as Source;
  const places = placesOf(after);
  for (const [key, k] of owners) {
    const place = places.get(k);
    if (!place) continue;
    const frame = source.frames.find((each) => each.key === key);
    const origin = frame?.origin ?? source.origin;
    const seen = frame && origin ? { x: frame.rect.x + origin.x, y: frame.rect.y + origin.y } : null;
    expect({ key, k, ...seen }).toEqual({ key, k, ...place });
  }
  return done.refreshed;
}

const CELLS: GridCut = { by: "cell", cell: { w: 12, h: 12 }, margin: NONE, gap: NONE, keepEmpty: false };
const COUNTED: GridCut = { by: "count", columns: 5, rows: 4, margin: NONE, gap: NONE, keepEmpty: false };
const ROWS: Rows = [0, 1, 2, 3].map((row) => [0, 1, 2, 3, 4].map((column) => row * 5 + column));
const BEFORE: Laid = { rows: ROWS, cell: { w: 12, h: 12 } };
const withColumn: Rows = ROWS.map((row, k) => [...row.slice(0, 1), 40 + k, ...row.slice(1)]);

describe("new art of a sheet", () => {
  it("on a larger canvas, all of it moved, is found whichever way the sheet was cut", () =>
    fc.assert(
      fc.property(fc.nat(4), fc.nat(4), fc.constantFrom(CELLS, COUNTED), (x, y, cut) => {
        expectFollowed(BEFORE, { ...BEFORE, margin: { x, y } }, cut);
      }),
      { numRuns: 40 },
    ));

  it("with a column put in and all of it moved is found by the part of a cell that it moved", () => {
    for (const cut of [CELLS, COUNTED]) {
      const { grid } = expectFollowed(BEFORE, { rows: withColumn, cell: BEFORE.cell, margin: { x: 2, y: 4 } }, cut);
      expect(grid).toBe("The grid moved by 2, 4: 20 of 20 drawings found there");
    }
  });

  it("without one of its rows and with larger cells, or moved, is found by what is left", () => {
    const three = [...ROWS.slice(0, 1), ...ROWS.slice(2)];
    for (const after of [
      { rows: three, cell: { w: 15, h: 14 }, inset: { x: 2, y: 1 } },
      { rows: three, cell: BEFORE.cell, margin: { x: 3, y: 2 } },
    ]) {
      const { grid, changes } = expectFollowed(BEFORE, after, CELLS);
      expect(grid).toMatch(/: 15 of 20 drawings found there$/);
      expect(changes.gone).toHaveLength(5);
    }
  });

  it("with hardly any of its earlier drawings stays on its grid", () => {
    const others = ROWS.map((row, k) => row.map((_, c) => (k === 0 && c < 2 ? k * 5 + c : 50 + k * 5 + c)));
    const { project } = cutUp(BEFORE, CELLS);
    const after = painted({ rows: others, cell: BEFORE.cell, margin: { x: 1, y: 0 } });
    const known = new Map([
      ["a".repeat(64), painted(BEFORE)],
      ["b".repeat(64), after],
    ]);
    const picture = { sha256: "b".repeat(64), width: after.width, height: after.height };
    const { refreshed } = withNewArt(project, project.sources[0] as Source, [picture], known);
    expect(refreshed.grid).toBeNull();
    expect(refreshed.changes.changed.length + refreshed.changes.moved.length).toBeGreaterThan(0);
  });
});
