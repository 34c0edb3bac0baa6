import { describe, expect, it } from "vitest";
import { addClip, addFrameOfPieces, addPalette, addPiecesSource, colourPieces, movePieces, putPieces, removeSource } from "../edit";
import { porterProject } from "../edit/project.fixture";
import type { FrameRef, Project } from "../model";
import { mended } from "./mend";
import { pieceFindings } from "./piece-findings";

const part = (column: number) => `s1/c${column}r0` as FrameRef;
const ref = (k: number) => `s2/a${k}` as FrameRef;

/** Four frames of a body and a head, in one clip. */
function bearer(): Project {
  let project = addPiecesSource(porterProject(), "bearer", { w: 32, h: 24 });
  project = putPieces(
    project,
    ref(0),
    [
      { of: part(0), x: 0, y: 8 },
      { of: part(1), x: 8, y: 0 },
      { of: part(2), x: 16, y: 8 },
    ],
    null,
  );
  for (let k = 0; k < 3; k++) project = addFrameOfPieces(project, ref(k), true);
  for (let k = 1; k < 4; k++) project = movePieces(project, ref(k), [0], { x: 8 * k, y: 0 });
  project = addPalette(project, { name: "robe", colours: ["#111111", "#222222"] });
  project = addPalette(project, { name: "guard", of: "robe", colours: ["#333333", "#444444"] });
  return addClip(project, [0, 1, 2, 3].map(ref), "walk");
}

const codes = (project: Project) =>
  pieceFindings(project).flatMap(({ code, where }) => (code === "unused-pieces" ? [] : [`${code}: ${where}`]));
const mendedBy = (project: Project, code: string) => {
  const found = pieceFindings(project).find((each) => each.code === code);
  if (!found) throw new Error(`There is no ${code}.`);
  return mended(project, found);
};

describe("findings on frames of pieces", () => {
  it("are none if all is in order", () => expect(codes(bearer())).toEqual([]));

  it("report the one step in another palette, and mend it", () => {
    const project = colourPieces(bearer(), ref(2), [1], "guard");
    expect(codes(project)).toEqual(["odd-palette: bearer/2"]);
    expect(codes(mendedBy(project, "odd-palette"))).toEqual([]);
    const all = [0, 1, 2, 3].reduce((next, k) => colourPieces(next, ref(k), [1], "guard"), bearer());
    expect(codes(all)).toEqual([]);
  });

  it("report missing pieces, palettes and colours, and mend it", () => {
    const gone = removeSource(bearer(), "s1" as never);
    expect(codes(gone)).toEqual([0, 1, 2, 3].map((k) => `piece-gone: bearer/${k}`));
    expect(codes(mendedBy(gone, "piece-gone")).filter((each) => each.startsWith("piece-gone"))).toHaveLength(3);
    const colourless = colourPieces(bearer(), ref(0), [0], "who");
    expect(codes(colourless)).toContain("palette-gone: bearer/0");
    const unlike = addPalette(bearer(), { name: "short", of: "robe", colours: ["#555555"] });
    expect(codes(unlike)).toEqual(['palette-length: palette "short"']);
    expect(codes(mendedBy(unlike, "palette-length"))).toEqual([]);
  });

  it("report a piece a pixel off the grid, one in all steps but one, and equal frames", () => {
    const slipped = movePieces(bearer(), ref(1), [2], { x: -1, y: 0 });
    expect(codes(slipped)).toEqual(["piece-off-grid: bearer/1"]);
    expect(codes(mendedBy(slipped, "piece-off-grid"))).toEqual([]);
    const more = [0, 1, 3].reduce((next, k) => putPieces(next, ref(k), [{ of: part(3), x: 0, y: 0 }], null), bearer());
    expect(codes(more)).toEqual(["piece-in-all-but-one: bearer/2"]);
    expect(codes(mendedBy(more, "piece-in-all-but-one"))).toEqual([]);
    const twice = addFrameOfPieces(bearer(), ref(3), true);
    expect(codes(twice)).toEqual(["equal-frames-of-pieces: bearer/3"]);
    expect(codes(mendedBy(twice, "equal-frames-of-pieces"))).toEqual([]);
    expect(pieceFindings(bearer()).map(({ code }) => code)).toEqual(["unused-pieces"]);
    expect(pieceFindings(mendedBy(bearer(), "unused-pieces"))).toEqual([]);
  });
});
