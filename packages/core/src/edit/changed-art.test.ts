import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { comparedByDrawings, foundAgain, framesChanged, movesInWords, placeOf, recipesFor, wayOnSheet } from "../frame-identity";
import { emptyProject, type FrameRef, findFrame, frameSize, type MarkName, type Project, type Source, sourceById } from "../model";
import { clearPixels, coverageOf, crop, drawingsIn, findDrawings, type Pixels, paste } from "../raster";
import { takeIn } from "./add-sources";
import { withOtherStills } from "./changed-art";
import { porter, refreshed } from "./changed-art.fixture";
import { addClip } from "./clips";
import { cutSource, refreshSource } from "./cutting";
import { addMarkKind } from "./mark-kinds";
import { addBox } from "./marks";
import { placeOrigins, setSourceOrigin } from "./origins";
import { CELL, NO_SPACE, PORTER, porterCoverage, porterProject, sheetOfCells } from "./project.fixture";
import { withSource } from "./with-source";

const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;

/** The sheet moved by so many pixels on one that is larger by as much to the right and down. */
function movedBy(sheet: Pixels, dx: number, dy: number, width = sheet.width + dx, height = sheet.height + dy): Pixels {
  const moved = clearPixels(width, height);
  for (let y = 0; y < Math.min(sheet.height, height - dy); y++)
    moved.bytes.set(
      sheet.bytes.subarray(y * sheet.width * 4, (y * sheet.width + Math.min(sheet.width, width - dx)) * 4),
      ((y + dy) * width + dx) * 4,
    );
  return moved;
}

const sheet = sheetOfCells(4, 3);
const base = addClip(porterProject(), [ref(0), ref(1), ref(2), ref(3)], "walk");

describe("changed art", () => {
  it("with a row inserted at the top moves every frame down a row, and clips follow their drawings", () => {
    // The new row holds drawings that no frame had.
    const taller = movedBy(sheet, 0, CELL.h);
    const fresh = sheetOfCells(4, 4);
    for (let y = 0; y < CELL.h; y++)
      taller.bytes.set(fresh.bytes.subarray((3 * CELL.h + y) * 32 * 4, (3 * CELL.h + y + 1) * 32 * 4), y * 32 * 4);
    const { project, drawings } = refreshed(base, sheet, taller);
    const changes = framesChanged(porter(base), porter(project), comparedByDrawings(drawings));
    expect([changes.moved.length, changes.added.length, changes.changed.length, changes.gone.length]).toEqual([12, 4, 0, 0]);
    expect(movesInWords(porter(base), porter(project), changes.moved, drawings)).toEqual(["12 frames moved down a row"]);
    for (const { frame } of project.clips[0]?.steps ?? []) expect(findFrame(project, frame)?.frame.rect.y).toBe(CELL.h);
  });

  it("drawn one pixel lower counts as moved, and a person's settings move by that pixel", () => {
    const lower = movedBy(sheet, 0, 1, sheet.width, sheet.height);
    const body = "body" as MarkName;
    const marked = addBox(addMarkKind(base, "box", "body"), "it", [ref(1)], body, ref(1), { x: 1, y: 2, w: 5, h: 7 });
    const placed = placeOrigins(setSourceOrigin(marked, PORTER, { x: 4, y: 8 }), "it", new Map([[ref(2), { x: 3, y: 9 }]]));
    const { project, drawings } = refreshed(placed, sheet, lower);
    const changes = framesChanged(porter(placed), porter(project), comparedByDrawings(drawings));
    expect([changes.moved.length, changes.changed.length]).toEqual([12, 0]);
    expect(movesInWords(porter(placed), porter(project), changes.moved, drawings)).toEqual(["12 frames moved 1 px down"]);
    expect(findFrame(project, ref(1))?.frame.marks?.boxes?.[body]).toEqual([{ x: 1, y: 3, w: 5, h: 7 }]);
    expect(findFrame(project, ref(2))?.frame.origin).toEqual({ x: 3, y: 10 });
    expect(porter(project).origin).toEqual({ x: 4, y: 9 });
  });

  it("moves redrawn frames along with the others", () => {
    const taller = movedBy(sheet, 0, CELL.h);
    // Two pixels of what was the second cell get another colour.
    taller.bytes.set([1, 2, 3, 255], ((CELL.h + 4) * 32 + CELL.w + 3) * 4);
    const { project, drawings } = refreshed(base, sheet, taller);
    const changes = framesChanged(porter(base), porter(project), comparedByDrawings(drawings));
    expect(findFrame(project, ref(1))?.frame.rect).toEqual({ x: CELL.w, y: CELL.h, ...CELL });
    expect([changes.changed, changes.moved.length]).toEqual([[ref(1)], 11]);
  });

  it("of frames drawn by hand is followed wherever it moved, two frames on one rectangle together", () => {
    const rects = porter(base).frames.map(({ rect }) => rect);
    const frames = porter(base).frames.map((frame, k) => ({ ...frame, key: `h${k}` as never }));
    const twin = { ...(frames[5] as (typeof frames)[number]), key: "h12" as never };
    const byHand = withSource(base, { ...porter(base), cut: { by: "hand" }, frames: [...frames, twin] });
    // Every row goes another way; the third row's drawings do not: one of them is redrawn where it is.
    const after = clearPixels(60, 60);
    const ways = [
      { x: 3, y: 1 },
      { x: 20, y: 12 },
      { x: 0, y: 20 },
    ];
    for (const rect of rects) {
      const way = ways[rect.y / CELL.h] as { x: number; y: number };
      paste(after, sheet, rect, rect.x + way.x, rect.y + way.y);
    }
    after.bytes.set([9, 8, 7, 255], ((2 * CELL.h + 20 + 3) * 60 + 3) * 4);
    const { project, drawings } = refreshed(byHand, sheet, after);
    const at = (key: string) => porter(project).frames.find((frame) => frame.key === key)?.rect;
    expect(at("h1")).toEqual({ ...rects[1], x: (rects[1]?.x ?? 0) + 3, y: 1 });
    expect(at("h5")).toEqual({ ...rects[5], x: (rects[5]?.x ?? 0) + 20, y: CELL.h + 12 });
    expect(at("h12")).toEqual(at("h5"));
    const changes = framesChanged(porter(byHand), porter(project), comparedByDrawings(drawings));
    expect([changes.moved.length, changes.changed.length, changes.gone.length]).toEqual([12, 1, 0]);
  });

  it("of frames drawn by hand stays if its drawing occurs several times and nothing decides", () => {
    const block = (at: readonly number[]) => {
      const pixels = clearPixels(40, 10);
      for (const x of at) for (let y = 2; y < 6; y++) pixels.bytes.fill(200, (y * 40 + x) * 4, (y * 40 + x + 4) * 4);
      return pixels;
    };
    const before = block([2]);
    const picture = { file: "art/a.png", sha256: "1".repeat(64), width: 40, height: 10 };
    const frame = { key: "h0" as never, column: 0, row: 0, number: 0, rect: { x: 1, y: 1, w: 6, h: 6 } };
    const project = withSource(base, { ...porter(base), pictures: [picture], cut: { by: "hand" }, frames: [frame] });
    expect(porter(refreshed(project, before, block([12, 30])).project).frames[0]?.rect.x).toBe(1);
    expect(porter(refreshed(project, before, block([12])).project).frames[0]?.rect.x).toBe(11);
  });

  it("gives no frame to two pieces and no piece two frames, however many drawings are equal", () =>
    fc.assert(
      fc.property(
        fc.array(fc.nat(2), { minLength: 8, maxLength: 8 }),
        fc.array(fc.nat(2), { minLength: 12, maxLength: 12 }),
        (before, after) => {
          const drawn = (kinds: readonly number[]) => {
            const pixels = clearPixels(4 * CELL.w, (kinds.length / 4) * CELL.h);
            for (const [k, kind] of kinds.entries())
              if (kind > 0)
                pixels.bytes.set(
                  [kind * 80, 9, 9, 255],
                  ((Math.floor(k / 4) * CELL.h + kind) * pixels.width + (k % 4) * CELL.w + kind) * 4,
                );
            return pixels;
          };
          const from = drawn(before);
          const cut = { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: true } as const;
          const bare = porterProject();
          const source = {
            ...porter(bare),
            pictures: [{ file: "art/a.png", sha256: "1".repeat(64), width: from.width, height: from.height }],
            frames: [],
            cut: null,
          };
          const project = cutSource({ ...bare, sources: [source] }, PORTER, cut, coverageOf(from));
          const next = refreshed(project, from, drawn(after)).project;
          const keys = porter(next).frames.map(({ key }) => key);
          expect(new Set(keys).size).toBe(12);
          expect(new Set(porter(next).frames.map(placeOf)).size).toBe(12);
        },
      ),
    ));
});

describe("changed art whose canvas is cropped", () => {
  it("keeps frames drawn by hand at its edges, and their size", () => {
    const frames = porter(base).frames.map((frame, k) => ({ ...frame, key: `h${k}` as never }));
    const byHand = withSource(base, { ...porter(base), cut: { by: "hand" }, frames });
    // Every cell has clear space of a pixel at the left, and of two at the right.
    const cropped = crop(sheet, { x: 1, y: 1, w: sheet.width - 3, h: sheet.height - 2 });
    const source = porter(refreshed(byHand, sheet, cropped).project);
    expect(source.frames.map(({ key }) => key)).toEqual(frames.map(({ key }) => key));
    for (const frame of source.frames) expect(frameSize(source, frame)).toEqual(CELL);
  });
});

describe("a grid that is moved", () => {
  const moved = (x: number, y: number) =>
    cutSource(
      base,
      PORTER,
      { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false, offset: { x, y } },
      porterCoverage(),
    );

  it("by a pixel up or left keeps its frames, though every cell has another column", () => {
    for (const [x, y] of [
      [-1, 0],
      [0, -1],
      [-1, -1],
      [1, 1],
    ] as const)
      for (const step of [ref(1, 1), ref(2, 1), ref(2, 2)]) {
        const found = findFrame(moved(x, y), step)?.frame.rect;
        if (x < 1)
          expect(found, `${step} by ${x}, ${y}`).toMatchObject({ x: Number(step[4]) * CELL.w + x, y: Number(step[6]) * CELL.h + y });
      }
  });

  it("and back restores exactly the earlier frames", () => {
    const back = cutSource(moved(-1, 0), PORTER, porter(base).cut as never, porterCoverage());
    expect(porter(back).frames.map(({ key, rect }) => [key, rect])).toEqual(porter(base).frames.map(({ key, rect }) => [key, rect]));
  });
});

/** The grid that fits changed art best, as it is chosen for people, and the project cut by it. */
function onOtherGrid(project: Project, before: Pixels, after: Pixels) {
  const picture = { sha256: "f".repeat(64), width: after.width, height: after.height };
  const drawnIn = (source: Source, pixels: Pixels, nameOf: (frame: Source["frames"][number]) => string) => {
    const drawings = drawingsIn(
      pixels,
      source.frames.map(({ rect }) => rect),
    );
    return new Map(source.frames.flatMap((frame, k) => (drawings[k] ? [[nameOf(frame), drawings[k]] as const] : [])));
  };
  const source = porter(project);
  const olds = drawnIn(source, before, ({ key }) => key);
  const rects = source.frames.map(({ rect }) => rect);
  const went = wayOnSheet(source.frames, findDrawings(before, rects, after));
  const tried = recipesFor(source, { w: after.width, h: after.height }, coverageOf(after), went).map((cut) => {
    const cutAnew = porter(refreshSource(project, PORTER, [picture], [coverageOf(after)], undefined, cut));
    const drawings = { before: olds, after: drawnIn(cutAnew, after, placeOf) };
    return { cut, drawings, found: foundAgain(olds.values(), drawings.after.values()) };
  });
  const best = tried.reduce((most, each) => (each.found > most.found ? each : most));
  return { ...best, project: refreshSource(project, PORTER, [picture], [coverageOf(after)], best.drawings, best.cut) };
}

describe("changed art on another grid", () => {
  it("with larger cells keeps every frame on its drawing, and figures stay where they stood", () => {
    const wide = { w: 14, h: 16 };
    const larger = clearPixels(4 * wide.w, 3 * wide.h);
    for (let row = 0; row < 3; row++)
      for (let column = 0; column < 4; column++)
        paste(larger, sheet, { x: column * CELL.w, y: row * CELL.h, w: CELL.w, h: CELL.h }, column * wide.w + 3, row * wide.h + 2);
    const { project, found, cut } = onOtherGrid(base, sheet, larger);
    expect([found, cut]).toMatchObject([12, { by: "cell", cell: wide }]);
    for (const frame of porter(base).frames) {
      const now = porter(project).frames.find(({ key }) => key === frame.key);
      expect(now?.rect).toEqual({ x: frame.column * wide.w, y: frame.row * wide.h, ...wide });
    }
    // The bottom middle of the old cell, which lies 3 px to the right and 2 px down in the new one.
    expect(porter(project).origin).toEqual({ x: CELL.w / 2 + 3, y: CELL.h + 2 });
    expect(project.clips).toEqual(base.clips);
  });

  it("moved by some pixels has its grid moved along", () => {
    const moved = movedBy(sheet, 5, 3);
    const { project, found } = onOtherGrid(base, sheet, moved);
    expect(found).toBe(12);
    for (const frame of porter(base).frames)
      expect(porter(project).frames.find(({ key }) => key === frame.key)?.rect).toEqual({
        ...frame.rect,
        x: frame.rect.x + 5,
        y: frame.rect.y + 3,
      });
  });
});

describe("a numbered series whose art changed", () => {
  const still = (number: number, hash = number) => ({ sha256: hash.toString(16).padStart(64, "0"), width: 8, height: 10, number });
  const one = coverageOf(sheetOfCells(1, 1));
  const series = (...numbers: number[]) =>
    takeIn(emptyProject("n"), [{ name: "flag", pictures: numbers.map((k) => still(k)), coverages: numbers.map(() => one) }]);
  const flag = (project: Project) => sourceById(project, PORTER);

  it("gets a still in between, and each frame stays the still of its number", () => {
    const before = series(16, 18, 20);
    const clip = addClip(
      before,
      flag(before).frames.map(({ key }) => `s1/${key}` as FrameRef),
      "wave",
    );
    // All redrawn, so that no drawing tells which is which.
    const numbers = [16, 17, 18, 20];
    const after = refreshSource(
      clip,
      PORTER,
      numbers.map((k) => still(k, k + 100)),
      numbers.map(() => one),
    );
    expect(after.clips[0]?.steps.map(({ frame }) => findFrame(after, frame)?.frame.number)).toEqual([16, 18, 20]);
    expect(flag(after).frames.map(({ number, picture = 0 }) => [number, picture])).toEqual([
      [16, 0],
      [17, 1],
      [18, 2],
      [20, 3],
    ]);
  });

  it("loses the frame of the missing still, and no other", () => {
    const before = series(1, 2, 3);
    const keys = new Map(flag(before).frames.map(({ number, key }) => [number, key]));
    const after = refreshSource(before, PORTER, [still(1, 7), still(3, 8)], [one, one]);
    expect(flag(after).frames.map(({ number, key }) => [number, key])).toEqual([
      [1, keys.get(1)],
      [3, keys.get(3)],
    ]);
  });

  it("keeps all other stills where only some are given, and finds the place of a new one by its number", () => {
    const before = series(1, 2, 4);
    const hashes = (changed: readonly { sha256: string }[] | null) => changed?.map(({ sha256 }) => Number.parseInt(sha256, 16));
    expect(hashes(withOtherStills(flag(before), [still(2, 7)]))).toEqual([1, 7, 4]);
    expect(hashes(withOtherStills(flag(before), [still(3, 8), still(1, 9)]))).toEqual([9, 2, 8, 4]);
    const pictures = withOtherStills(flag(before), [still(2, 7)]) ?? [];
    const after = refreshSource(
      before,
      PORTER,
      pictures,
      pictures.map(() => one),
    );
    expect(flag(after).frames.map(({ key, number, picture = 0 }) => [key, number, picture])).toEqual(
      flag(before).frames.map(({ key, number, picture = 0 }) => [key, number, picture]),
    );
  });

  it("has no others to keep where all are given, or where numbers do not say which they are", () => {
    const { number: _, ...unnumbered } = still(9);
    expect(withOtherStills(flag(series(1, 2)), [still(2, 7), still(1, 8)])).toBeNull();
    expect(withOtherStills(flag(series(1, 2)), [unnumbered])).toBeNull();
    expect(withOtherStills(flag(series(1, 2)), [still(1, 7), still(1, 8)])).toBeNull();
  });
});
