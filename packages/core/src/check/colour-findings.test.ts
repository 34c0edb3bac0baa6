import { describe, expect, it } from "vitest";
import { artFrom, lookOf } from "../art";
import { addPalette, addPiecesSource, putPieces, setSourcePalette } from "../edit";
import { PORTER, porterProject } from "../edit/project.fixture";
import type { FrameRef, Project, Source } from "../model";
import type { UsedColour } from "../palette";
import { clearPixels, crop } from "../raster";
import { NOTHING_SEEN } from "./art-findings";
import { colourFindings } from "./colour-findings";
import { mended } from "./mend";

const KEY = lookOf({}, { sha256: "a".repeat(64) }).key;
const found = (project: Project, ...colours: readonly (readonly [string, number])[]) =>
  colourFindings(project, {
    ...NOTHING_SEEN,
    colours: new Map([[KEY, colours.map(([colour, pixels]): UsedColour => ({ colour, pixels }))]]),
  });

/** The first pixel of the first frame, of a sheet that is of one colour all over. */
function shown(project: Project, [red, green, blue]: readonly [number, number, number]): number[] {
  const sheet = clearPixels(32, 30);
  for (let k = 0; k < sheet.bytes.length; k += 4) sheet.bytes.set([red, green, blue, 255], k);
  const [source] = project.sources as [Source];
  const { pixels, rect } = artFrom(new Map([["a".repeat(64), sheet]]), project).frame(source, source.frames[0] as Source["frames"][number]);
  return [...crop(pixels, rect).bytes.subarray(0, 3)];
}

describe("colours that nobody can tell apart", () => {
  it("are reported with their pixel counts, and made equal by a palette without changing the art", () => {
    const project = porterProject();
    const [finding] = found(project, ["#783c1e", 300], ["#793c1f", 2], ["#1020c0", 40]);
    expect(finding).toMatchObject({ code: "colours-nearly-equal", where: 'source "porter"' });
    expect(finding?.message).toContain("#793c1f (2 pixels) and #783c1e (300)");
    const made = mended(project, finding as NonNullable<typeof finding>);
    expect(shown(made, [0x79, 0x3c, 0x1f])).toEqual([0x78, 0x3c, 0x1e]);
    expect(shown(made, [0x78, 0x3c, 0x1e])).toEqual([0x78, 0x3c, 0x1e]);
    expect(made.sources[0]?.pictures).toEqual(project.sources[0]?.pictures);
    expect(found(made, ["#783c1e", 300], ["#793c1f", 2])).toEqual([]);
  });

  it("form chains if three were meant to be one", () => {
    const colours = [
      ["#783c1e", 300],
      ["#793c1f", 20],
      ["#7a3d1f", 1],
    ] as const;
    const [finding] = found(porterProject(), ...colours);
    const made = mended(porterProject(), finding as NonNullable<typeof finding>);
    for (const colour of [
      [0x79, 0x3c, 0x1f],
      [0x7a, 0x3d, 0x1f],
    ] as const)
      expect(shown(made, colour)).toEqual([0x78, 0x3c, 0x1e]);
    expect(found(made, ...colours)).toEqual([]);
  });

  it("are made equal in the palette in use, and in others that replace it", () => {
    let project = addPalette(porterProject(), { name: "cloth", colours: ["#783c1e", "#ffffff"] });
    project = addPalette(project, { name: "dusk", of: "cloth", colours: ["#101020", "#202030"] });
    project = addPalette(project, { name: "dawn", of: "cloth", colours: ["#f0e0d0", "#ffffff"] });
    project = setSourcePalette(project, PORTER, "dusk");
    const told = found(project, ["#783c1e", 300], ["#793c1f", 2]);
    expect(told.map(({ code }) => code)).toEqual(["colours-nearly-equal", "colour-outside-palette"]);
    for (const finding of told) {
      const made = mended(project, finding);
      expect(shown(made, [0x79, 0x3c, 0x1f])).toEqual([0x10, 0x10, 0x20]);
      expect(shown(setSourcePalette(made, PORTER, "dawn"), [0x79, 0x3c, 0x1f])).toEqual([0xf0, 0xe0, 0xd0]);
      expect(found(made, ["#783c1e", 300], ["#793c1f", 2])).toEqual([]);
    }
  });

  it("are no finding in a painting, in unread pictures, and where nothing is similar", () => {
    const many = Array.from({ length: 80 }, (_, k) => [`#0000${(k + 100).toString(16)}`, 5] as const);
    expect(found(porterProject(), ...many)).toEqual([]);
    expect(colourFindings(porterProject(), NOTHING_SEEN)).toEqual([]);
    expect(found(porterProject(), ["#ff0000", 3], ["#00ff00", 3])).toEqual([]);
  });
});

describe("a colour that a palette misses by little", () => {
  it("is reported if pieces wear the palette, and not otherwise", () => {
    let project = addPalette(porterProject(), { name: "cloth", colours: ["#783c1e"] });
    project = addPalette(project, { name: "dusk", of: "cloth", colours: ["#101020"] });
    expect(found(project, ["#7b3f22", 9])).toEqual([]);
    project = addPiecesSource(project, "bearer", { w: 8, h: 10 });
    project = putPieces(project, "s2/a0" as FrameRef, [{ of: "s1/c0r0" as FrameRef, x: 0, y: 0, palette: "dusk" }], null);
    const [finding] = found(project, ["#7b3f22", 9], ["#00ff00", 3]);
    expect(finding?.message).toContain("#7b3f22 is not in cloth, though nearly its #783c1e");
    const made = mended(project, finding as NonNullable<typeof finding>);
    expect(made.palettes?.map(({ colours }) => colours)).toEqual([
      ["#783c1e", "#7b3f22"],
      ["#101020", "#101020"],
    ]);
    expect(found(made, ["#7b3f22", 9])).toEqual([]);
  });
});
