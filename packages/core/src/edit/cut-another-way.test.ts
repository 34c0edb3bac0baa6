import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { findingsOf } from "../check";
import {
  type ClipName,
  type Cut,
  clipNamed,
  type Frame,
  type FrameRef,
  findFrame,
  frameRef,
  frameSize,
  type MarkName,
  originOf,
  type PlacedFrame,
  type Project,
  type Source,
  scaleOf,
  sourceById,
} from "../model";
import { clearPixels, coverageOf, type Pixels } from "../raster";
import {
  addBox,
  addClip,
  addFrameOfPieces,
  addMarkKind,
  addPiecesSource,
  cutByMetadata,
  cutSource,
  dropFrames,
  flipPieces,
  makeEqual,
  placeFrames,
  placeOrigins,
  putPieces,
  renameFrame,
  restoreCut,
  setSourceOrigin,
  setSourceScale,
} from ".";
import { NO_SPACE, PORTER, porterProject } from "./project.fixture";
import { BY_METADATA } from "./random-choices.fixture";

const CELLS: Cut = { by: "cell", cell: { w: 8, h: 10 }, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false };
const OUTLINES: Cut = { by: "outlines", joinPx: 0, leastPx: 1, level: false };
const BODY = "body" as MarkName;
const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;

/** A sheet of 4 × 3 cells with blocks drawn where told, in pixels of the sheet. */
function drawn(...blocks: { x: number; y: number; w: number; h: number }[]): Pixels {
  const sheet = clearPixels(32, 30);
  for (const [k, { x, y, w, h }] of blocks.entries())
    for (let row = y; row < y + h; row++)
      for (let column = x; column < x + w; column++) sheet.bytes.set([k * 9, 80, 90, 255], (row * sheet.width + column) * 4);
  return sheet;
}

const cut = (project: Project, how: Cut, sheet: Pixels) => cutSource(project, PORTER, how, coverageOf(sheet));
const framesOf = (project: Project) => sourceById(project, PORTER).frames;
const frame = (project: Project, of: FrameRef) => findFrame(project, of)?.frame as Frame;
/** The pixel of the sheet that a point of a frame means. */
const onSheet = ({ rect }: Frame, { x, y }: { x: number; y: number }) => [rect.x + x, rect.y + y];
/** A figure of a quarter of its cell, which has little in common with the cell's area. */
const small = (column: number, row: number) => ({ x: column * 8 + 2, y: row * 10 + 4, w: 4, h: 5 });

describe("a sheet that is cut another way", () => {
  const figures = drawn(...[0, 1, 2, 3].map((column) => small(column, 0)));
  const celled = addClip(
    cut(porterProject(), CELLS, figures),
    [0, 1, 2, 3].map((column) => ref(column)),
    "walk",
  );

  it("keeps its frames, their marks and their clips along outlines, however little of a cell is drawn on", () => {
    const decided = placeOrigins(
      addBox(addMarkKind(celled, "box", "body"), "it", [ref(1)], BODY, ref(1), { x: 3, y: 5, w: 2, h: 3 }),
      "it",
      new Map([[ref(1), { x: 4, y: 9 }]]),
    );
    const outlined = cut(decided, OUTLINES, figures);
    expect(framesOf(outlined).map(({ key, rect }) => [key, rect])).toEqual([0, 1, 2, 3].map((k) => [`c${k}r0`, small(k, 0)]));
    const now = frame(outlined, ref(1));
    expect(onSheet(now, now.origin as never)).toEqual([8 + 4, 9]);
    expect(onSheet(now, now.marks?.boxes?.[BODY]?.[0] as never)).toEqual([8 + 3, 5]);
    expect(findingsOf(outlined).map(({ code }) => code)).not.toContain("missing-frames");
    expect(framesOf(cut(outlined, CELLS, figures))).toEqual(framesOf(decided));
  });

  it("leaves figures that clips show standing where they stood in their cells, and returns to the cells' own middle", () => {
    const leaning = drawn(small(0, 0), { x: 9, y: 4, w: 4, h: 5 }, small(2, 0), { x: 28, y: 2, w: 3, h: 7 });
    const cells = addClip(
      cut(porterProject(), CELLS, leaning),
      [0, 1].map((column) => ref(column)),
      "walk",
    );
    const outlined = cut(cells, OUTLINES, leaning);
    const standing = (project: Project) =>
      [0, 1, 2, 3].map((k) => onSheet(frame(project, ref(k)), originOf(sourceById(project, PORTER), frame(project, ref(k)))));
    expect(standing(outlined)).toEqual([0, 1, 2, 3].map((k) => [k * 8 + 4, 10]));
    expect(restoreCut(outlined, PORTER, sourceById(cells, PORTER))).toEqual(cells);
    // Nobody watches these yet: each stands on the middle of its own bottom edge.
    expect(standing(cut(cut(porterProject(), CELLS, leaning), OUTLINES, leaning))[1]).toEqual([11, 9]);
  });

  it("takes the origins of a file as they are, in the file's rectangles", () => {
    const told = [0, 1].map((k) => ({
      ...{ key: `m${k}`, column: k, row: 0, number: k, rect: small(k, 0), empty: false, name: `step ${k}`, origin: { x: 1, y: 4 } },
      marks: { boxes: { head: [{ x: 0, y: 1, w: 2, h: 2 }] } },
    }));
    const described = cutByMetadata(celled, PORTER, BY_METADATA, told);
    expect(framesOf(described).map(({ origin }) => origin)).toEqual([told[0]?.origin, told[1]?.origin]);
    expect(framesOf(described).map(({ marks }) => marks)).toEqual([told[0]?.marks, told[1]?.marks]);
    // What a person had decided in the cells stays at its pixel.
    const decided = cutByMetadata(placeOrigins(celled, "it", new Map([[ref(1), { x: 4, y: 9 }]])), PORTER, BY_METADATA, told);
    expect(onSheet(frame(decided, ref(1)), frame(decided, ref(1)).origin as never)).toEqual([8 + 4, 9]);
  });

  it("returns to its common origin when the cells return", () => {
    const standing = setSourceOrigin(celled, PORTER, { x: 4, y: 9 });
    const uneven = drawn({ x: 2, y: 4, w: 4, h: 5 }, { x: 9, y: 3, w: 6, h: 6 }, small(2, 0), small(3, 0));
    const outlined = cut(standing, OUTLINES, uneven);
    expect(onSheet(frame(outlined, ref(1)), frame(outlined, ref(1)).origin as never)).toEqual([8 + 4, 9]);
    expect(sourceById(cut(outlined, CELLS, uneven), PORTER)).toEqual(sourceById(standing, PORTER));
  });

  it("is in its earlier cells again with what was decided since, and what only the cells had", () => {
    const standing = setSourceOrigin(addMarkKind(celled, "box", "body"), PORTER, { x: 4, y: 9 });
    // The figure in the last cell is gone along outlines, because two of one size are there.
    const twins = drawn(small(0, 0), small(1, 0), small(2, 0), { x: 25, y: 2, w: 2, h: 6 }, { x: 29, y: 2, w: 2, h: 6 });
    const cells = renameFrame(cut(standing, CELLS, twins), ref(3), "twins");
    const outlined = cut(cells, OUTLINES, twins);
    expect(restoreCut(outlined, PORTER, sourceById(cells, PORTER))).toEqual(cells);
    const decided = dropFrames(renameFrame(outlined, ref(1), "stride"), [ref(2)]);
    const boxed = addBox(decided, "it", [ref(1)], BODY, ref(1), { x: 1, y: 1, w: 2, h: 3 });
    const back = restoreCut(placeOrigins(boxed, "it", new Map([[ref(1), { x: 0, y: 5 }]])), PORTER, sourceById(cells, PORTER));
    expect(framesOf(back).map(({ rect }) => rect)).toEqual(framesOf(cells).map(({ rect }) => rect));
    expect(sourceById(back, PORTER).origin).toEqual({ x: 4, y: 9 });
    expect(framesOf(back).map(({ name, dropped, origin }) => [name, dropped, origin])).toEqual([
      [undefined, undefined, undefined],
      ["stride", undefined, { x: 2, y: 9 }],
      [undefined, true, undefined],
      ["twins", undefined, undefined],
    ]);
    expect(frame(back, ref(1)).marks?.boxes?.[BODY]).toEqual([{ x: 3, y: 5, w: 2, h: 3 }]);
  });

  it("keeps the figure's frame if sparks are drawn beside it, and gives the sparks their own", () => {
    const sparks = drawn(small(0, 0), { x: 7, y: 1, w: 1, h: 1 }, small(1, 0));
    const outlined = cut(celled, OUTLINES, sparks);
    expect(frame(outlined, ref(0)).rect).toEqual(small(0, 0));
    expect(framesOf(outlined).filter(({ key }) => key.startsWith("i"))).toHaveLength(1);
  });

  it("gives an old frame to neither of two figures of one size, nor to one outline around several cells", () => {
    const twins = drawn({ x: 1, y: 2, w: 3, h: 6 }, { x: 5, y: 2, w: 3, h: 6 }, { x: 16, y: 0, w: 16, h: 10 });
    const outlined = cut(celled, OUTLINES, twins);
    expect(framesOf(outlined).map(({ key }) => key[0])).toEqual(["i", "i", "i"]);
    expect(clipNamed(outlined, "walk" as ClipName).steps).toHaveLength(4);
    expect(findingsOf(outlined).map(({ code }) => code)).toContain("missing-frames");
  });

  it("never shows another drawing under an old key: a frame moved away by hand is missing, not replaced by what its cell shows now", () => {
    const full = drawn(...[0, 1, 2, 3].flatMap((column) => [0, 1, 2].map((row) => small(column, row))));
    const project = addClip(cut(porterProject(), CELLS, full), [ref(1)], "walk");
    const byHand = placeFrames(project, new Map([[ref(1), { x: 1, y: 1, w: 30, h: 28 }]]));
    const again = cut(byHand, CELLS, full);
    expect(framesOf(again)).toHaveLength(12);
    expect(findFrame(again, ref(1))).toBeNull();
  });

  it("keeps its frames by a metadata file that describes the figures", () => {
    const told = [0, 1, 2, 3].map((k) => ({
      ...{ key: `m${k}`, column: k, row: 0, number: k, rect: small(k, 0), empty: false, name: `step ${k}` },
    }));
    const described = cutByMetadata(celled, PORTER, BY_METADATA, told);
    expect(framesOf(described).map(({ key, name }) => [key, name])).toEqual([0, 1, 2, 3].map((k) => [`c${k}r0`, `step ${k}`]));
  });

  it("has the same frames after outlines and cells again, whatever is drawn in the cells", () => {
    const within = fc.record({ x: fc.nat(7), y: fc.nat(9), w: fc.integer({ min: 1, max: 8 }), h: fc.integer({ min: 1, max: 10 }) });
    fc.assert(
      fc.property(fc.array(within, { minLength: 12, maxLength: 12 }), (figuresInCells) => {
        const blocks = figuresInCells.map(({ x, y, w, h }, k) => {
          const [left, top] = [(k % 4) * 8, Math.floor(k / 4) * 10];
          // A pixel of ground keeps the figures apart.
          return {
            x: left + Math.min(x, 6),
            y: top + Math.min(y, 8),
            w: Math.min(w, 7 - Math.min(x, 6)),
            h: Math.min(h, 9 - Math.min(y, 8)),
          };
        });
        const sheet = drawn(...blocks);
        const project = setSourceOrigin(cut(porterProject(), CELLS, sheet), PORTER, { x: 4, y: 9 });
        const outlined = cut(project, OUTLINES, sheet);
        expect(new Set(framesOf(outlined).map(({ key }) => key))).toEqual(new Set(framesOf(project).map(({ key }) => key)));
        expect(framesOf(cut(outlined, CELLS, sheet))).toEqual(framesOf(project));
      }),
    );
  });
});

describe("frames that are put together from a sheet's frames", () => {
  const everywhere = drawn(...[0, 1, 2, 3].flatMap((column) => [0, 1, 2].map((row) => small(column, row))));
  const bench = addPiecesSource(cut(porterProject(), CELLS, everywhere), "bench", { w: 24, h: 24 });
  const bench2 = addFrameOfPieces(bench, "s2/a0" as FrameRef, false);
  const ofPieces = (project: Project) => frameRef(project.sources[1] as Source, project.sources[1]?.frames[0] as Frame);
  const put = putPieces(
    bench2,
    ofPieces(bench2),
    [0, 1, 2].map((k) => ({ of: ref(k), x: 5 + k, y: 3 })),
    null,
  );
  const flipped = flipPieces(flipPieces(put, ofPieces(put), [1], "across"), ofPieces(put), [2], "down");

  /** Where on the canvas each piece shows the top left pixel of the figure that was drawn in its cell. */
  const figures = (project: Project) =>
    (project.sources[1]?.frames[0]?.pieces ?? []).map(({ of, x, y, flip }, k) => {
      const { source, frame: piece } = findFrame(project, of) as PlacedFrame;
      const [scale, size] = [scaleOf(source), frameSize(source, piece)];
      const inset = piece.inset ?? { x: 0, y: 0 };
      const figure = small(k, 0);
      const [u, v] = [(figure.x - piece.rect.x + inset.x) * scale, (figure.y - piece.rect.y + inset.y) * scale];
      return [flip === "across" ? x + size.w - u : x + u, flip === "down" ? y + size.h - v : y + v];
    });

  it("look as before when that sheet is cut along outlines, made equal, and cut into cells again", () => {
    const outlined = cut(flipped, OUTLINES, everywhere);
    expect(frame(outlined, ref(1)).rect).toEqual(small(1, 0));
    expect(figures(outlined)).toEqual(figures(flipped));
    const equal = makeEqual(
      placeFrames(outlined, new Map([[ref(2), { x: 16, y: 1, w: 8, h: 9 }]])),
      [0, 1, 2].map((k) => ref(k)),
      "middle",
    );
    expect(figures(equal)).toEqual(figures(flipped));
    expect(cut(outlined, CELLS, everywhere)).toEqual(flipped);
    expect(restoreCut(outlined, PORTER, sourceById(flipped, PORTER))).toEqual(flipped);
  });

  it("look as before when a piece's edges are dragged, at any whole scale", () =>
    fc.assert(
      fc.property(fc.nat(2), fc.nat(3), fc.nat(3), fc.nat(5), fc.integer({ min: 1, max: 3 }), (left, up, right, down, scale) => {
        const project = setSourceScale(flipped, PORTER, scale);
        const rects = [0, 1, 2].map((k) => {
          const { x, y, w, h } = small(k, 0);
          return [ref(k), { x: x - left, y: y - up, w: w + left + Math.min(right, 2), h: h + up + down }] as const;
        });
        expect(figures(placeFrames(project, new Map(rects)))).toEqual(figures(project));
      }),
    ));
});
