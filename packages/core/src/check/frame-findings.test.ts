import { describe, expect, it } from "vitest";
import { addClip, cutSource, dropFrames, keepFirstOf } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { type Cut, type FrameRef, frameRef, type Project, type Source } from "../model";
import { clearPixels, coverageOf, crop, mirrored, type Pixels, paste } from "../raster";
import { frameFindings } from "./frame-findings";
import { findRepeats, NO_REPEATS } from "./repeats";

const CELLS: Cut = { by: "cell", cell: { w: 10, h: 10 }, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, keepEmpty: true };

function fill(pixels: Pixels, x: number, y: number, w: number, h: number, red = 200): Pixels {
  for (let row = y; row < y + h; row++)
    for (let column = x; column < x + w; column++) pixels.bytes.set([red, 1, 2, 255], (row * pixels.width + column) * 4);
  return pixels;
}

/** A 30×20 sheet of cells of 10×10, cut, as the porter's project knows it. */
function cutSheet(pixels: Pixels, cut: Cut = CELLS): { project: Project; source: Source } {
  const before = porterProject();
  const [first] = before.sources as [Source];
  const picture = { file: "porter.png", sha256: "a".repeat(64), width: pixels.width, height: pixels.height };
  const project = cutSource(
    { ...before, sources: [{ ...first, pictures: [picture], frames: [], cut: null }] },
    first.id,
    cut as never,
    coverageOf(pixels),
  );
  return { project, source: project.sources[0] as Source };
}

const codes = (source: Source, pixels: Pixels) => frameFindings(source, [coverageOf(pixels)], NO_REPEATS).map(({ code }) => code);
const sheet = () => clearPixels(30, 20);

describe("frameFindings", () => {
  it("says nothing of figures that stay within their cells", () => {
    const pixels = [0, 1, 2, 3, 4, 5].reduce((on, k) => fill(on, (k % 3) * 10 + 2, Math.floor(k / 3) * 10 + 2, 6, 6), sheet());
    expect(codes(cutSheet(pixels).source, pixels)).toEqual([]);
  });

  it("finds frames that are cut through, across and down", () => {
    const pixels = fill(fill(sheet(), 7, 2, 6, 5), 22, 7, 5, 6);
    const [cut, empty] = frameFindings(cutSheet(pixels).source, [coverageOf(pixels)], NO_REPEATS);
    expect(cut).toMatchObject({ code: "cut-through", frames: ["s1/c0r0", "s1/c1r0", "s1/c2r0", "s1/c2r1"] });
    expect(cut?.message).toMatch(/across 2 borders between cells, so 4 frames are cut through/);
    expect(empty).toMatchObject({ code: "empty-frames", frames: ["s1/c0r1", "s1/c1r1"] });
  });

  it("does not report tiles that fill their cells as cut through, nor touching corners", () => {
    const tiles = fill(sheet(), 0, 0, 30, 20);
    expect(codes(cutSheet(tiles).source, tiles)).toEqual([]);
    const corners = fill(fill(sheet(), 2, 2, 8, 8), 10, 10, 6, 6);
    expect(codes(cutSheet(corners).source, corners)).not.toContain("cut-through");
  });

  it("finds isolated pixels, in kept frames only", () => {
    const pixels = fill(fill(sheet(), 1, 1, 1, 1), 12, 12, 5, 5);
    const { project, source } = cutSheet(pixels);
    const found = frameFindings(source, [coverageOf(pixels)], NO_REPEATS).find(({ code }) => code === "specks");
    expect(found).toMatchObject({ frames: ["s1/c0r0"], message: expect.stringMatching(/^1 pixel stands alone in 1 frame/) });
    const dropped = dropFrames(project, ["s1/c0r0" as FrameRef]).sources[0] as Source;
    expect(codes(dropped, pixels)).not.toContain("specks");
  });

  it("reports frames of unusual size if nothing explains it", () => {
    const pixels = [0, 1, 2].reduce((on, k) => fill(on, k * 10 + 1, 1, 6, k === 1 ? 9 : 6), sheet());
    const { source } = cutSheet(pixels, { by: "outlines", joinPx: 0, leastPx: 1, level: false });
    expect(frameFindings(source, [coverageOf(pixels)], NO_REPEATS)).toEqual([
      { code: "odd-sizes", message: "1 frame is not 6 × 6 px as the other 2 are.", frames: [frameRef(source, source.frames[1] as never)] },
    ]);
    const level = cutSheet(pixels, { by: "outlines", joinPx: 0, leastPx: 1, level: true }).source;
    expect(codes(level, pixels)).toEqual([]);
  });
});

describe("findRepeats", () => {
  const figure = fill(fill(clearPixels(8, 8), 1, 1, 3, 6), 4, 2, 2, 2, 90);
  const other = fill(clearPixels(8, 8), 2, 2, 4, 4);
  const seen = (...pictures: Pixels[]) => pictures.map((pixels, k) => ({ ref: `s1/c${k}r0` as FrameRef, pixels }));

  it("groups frames that look the same and pairs mirror pictures, each once", () => {
    expect(findRepeats(seen(figure, other, mirrored(figure), figure, mirrored(figure), other))).toEqual({
      same: [
        ["s1/c0r0", "s1/c3r0"],
        ["s1/c1r0", "s1/c5r0"],
        ["s1/c2r0", "s1/c4r0"],
      ],
      mirrored: [["s1/c0r0", "s1/c2r0"]],
    });
  });

  it("does not report a symmetric picture as a mirrored repeat, nor a moved one as a repeat", () => {
    const moved = clearPixels(8, 8);
    paste(moved, crop(other, { x: 0, y: 0, w: 8, h: 7 }), { x: 0, y: 0, w: 8, h: 7 }, 0, 1);
    expect(findRepeats(seen(other, moved))).toEqual(NO_REPEATS);
  });

  it("is mended by using the first in all clips, as one undo step", () => {
    const { project } = cutSheet(fill(sheet(), 1, 1, 28, 18));
    const refs = ["s1/c0r0", "s1/c1r0", "s1/c2r0"] as FrameRef[];
    const mended = keepFirstOf(addClip(project, refs, "walk"), [[refs[0], refs[2]] as FrameRef[]]);
    expect(mended.clips[0]?.steps.map(({ frame }) => frame)).toEqual([refs[0], refs[1], refs[0]]);
    expect(mended.sources[0]?.frames.filter(({ dropped }) => dropped).map(({ key }) => key)).toEqual(["c2r0"]);
    expect(keepFirstOf.label(project, [[refs[0], refs[2]] as FrameRef[]])).toBe("use one frame for 1 repeat");
  });
});
