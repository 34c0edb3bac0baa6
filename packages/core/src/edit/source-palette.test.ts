import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { pieceFindings } from "../check/piece-findings";
import type { ActionName, ClipName, Frame, FrameRef, MarkName, Project, Source } from "../model";
import { findFrame } from "../model";
import { coverageOf, crop } from "../raster";
import { addAction, setPetal } from "./actions";
import { addClip } from "./clips";
import { refreshSource } from "./cutting";
import { renameFrame } from "./frames";
import { addMarkKind } from "./mark-kinds";
import { putPoint } from "./marks";
import { addPalette, removePalette, renamePalette, setPaletteColours } from "./palettes";
import { addPiecesSource, putPieces } from "./pieces";
import { PORTER, porterProject, sheetOfCells } from "./project.fixture";
import { addSourceVariant, drawAlike, setSourcePalette } from "./source-palette";
import { renameSource } from "./sources";

const ref = (column: number) => `s1/c${column}r0` as FrameRef;

/** The colour of the first cell's middle, and another for it. */
const DRAWN = "#00ff2a";

function project(): Project {
  let made = addPalette(porterProject(), { name: "cloth", colours: [DRAWN] });
  made = addPalette(made, { name: "dusk", of: "cloth", colours: ["#112233"] });
  made = renameFrame(addClip(made, [ref(0), ref(1)], "walk"), ref(1), "stride");
  made = putPoint(addMarkKind(made, "point", "hand"), "walk", [ref(0)], "hand" as MarkName, ref(0), { x: 3, y: 4 });
  return setPetal(addAction(made, "going", 4), "going" as ActionName, "e", { clip: "walk" as ClipName });
}

/** The pixel at 2, 3 of a frame, as it is delivered. */
function pixelOf(of: Project, frame: FrameRef): number[] {
  const { source, frame: found } = findFrame(of, frame) as { source: Source; frame: Frame };
  const { pixels, rect } = artFrom(new Map([["a".repeat(64), sheetOfCells(4, 3)]]), of).frame(source, found);
  const cut = crop(pixels, rect);
  return [...cut.bytes.subarray((3 * cut.width + 2) * 4, (3 * cut.width + 2) * 4 + 4)];
}

describe("a palette that a drawn source wears", () => {
  it("turns its colours, follows the palette's change and name, and is undone by null", () => {
    const before = project();
    expect(pixelOf(before, ref(0))).toEqual([0, 255, 42, 255]);
    const worn = setSourcePalette(before, PORTER, "dusk");
    expect(pixelOf(worn, ref(0))).toEqual([0x11, 0x22, 0x33, 255]);
    expect(pixelOf(setPaletteColours(worn, "dusk", ["#445566"]), ref(0))).toEqual([0x44, 0x55, 0x66, 255]);
    expect(pixelOf(renamePalette(worn, "dusk", "night"), ref(0))).toEqual([0x11, 0x22, 0x33, 255]);
    expect(setSourcePalette(worn, PORTER, null)).toEqual(before);
  });

  it("also applies to pieces taken from it", () => {
    let made = addPiecesSource(setSourcePalette(project(), PORTER, "dusk"), "bearer", { w: 8, h: 10 });
    made = putPieces(made, "s2/a0" as FrameRef, [{ of: ref(0), x: 0, y: 0 }], null);
    expect(pixelOf(made, "s2/a0" as FrameRef)).toEqual([0x11, 0x22, 0x33, 255]);
  });

  it("is reported if missing, and then ignored", () => {
    const gone = removePalette(setSourcePalette(project(), PORTER, "dusk"), "dusk");
    expect(pixelOf(gone, ref(0))).toEqual([0, 255, 42, 255]);
    expect(pieceFindings(gone).map(({ code, where }) => [code, where])).toEqual([["palette-gone", 'source "porter"']]);
    expect(() => setSourcePalette(project(), PORTER, "nowhere")).toThrow(/nowhere/);
    expect(() => setSourcePalette(addPiecesSource(project(), "bearer", { w: 8, h: 8 }), "s2" as never, "dusk")).toThrow(/put together/);
  });
});

describe("a variant of a drawn source", () => {
  it("is a source with the same pictures, with its names, marks, clips and actions, and no art of its own", () => {
    const made = addSourceVariant(project(), PORTER, "dusk");
    const [one, twin] = made.sources as [Source, Source];
    expect([twin.name, twin.palette, twin.pictures]).toEqual(["porter-dusk", "dusk", one.pictures]);
    expect(made.clips.map(({ name, steps }) => [name, steps.map(({ frame }) => frame)])).toEqual([
      ["walk", [ref(0), ref(1)]],
      ["walk-dusk", [`${twin.id}/c0r0`, `${twin.id}/c1r0`]],
    ]);
    expect(made.actions.map(({ name, facings }) => [name, facings.e?.clip])).toEqual([
      ["going", "walk"],
      ["going-dusk", "walk-dusk"],
    ]);
    expect(twin.frames[1]?.name).toBe("stride-dusk");
    expect(twin.frames[0]?.marks).toEqual(one.frames[0]?.marks);
    expect(pixelOf(made, `${twin.id}/c0r0` as FrameRef)).toEqual([0x11, 0x22, 0x33, 255]);
    expect(pixelOf(made, ref(0))).toEqual([0, 255, 42, 255]);
    expect(() => addSourceVariant(project(), PORTER, "cloth")).toThrow(/replaces no other palette/);
  });

  it("gets the changed art of the pictures that it shares", () => {
    const made = addSourceVariant(project(), PORTER, "dusk");
    const larger = sheetOfCells(4, 4);
    const changed = refreshSource(
      made,
      PORTER,
      [{ sha256: "b".repeat(64), width: larger.width, height: larger.height }],
      [coverageOf(larger)],
    );
    const [one, twin] = changed.sources as [Source, Source];
    expect(twin.pictures).toEqual(one.pictures);
    expect([one.frames.length, twin.frames.length]).toEqual([16, 16]);
    expect([twin.palette, twin.frames[1]?.name]).toEqual(["dusk", "stride-dusk"]);
  });
});

describe("colours shown as others", () => {
  it("get two palettes of different names, however long the source's name is", () => {
    const long = renameSource(porterProject(), PORTER, "x".repeat(200));
    const { palettes = [] } = drawAlike(long, PORTER, [[DRAWN, "#112233"]]);
    expect(palettes).toHaveLength(2);
    expect(new Set(palettes.map(({ name }) => name)).size).toBe(2);
    expect(palettes[1]?.of).toBe(palettes[0]?.name);
  });
});
