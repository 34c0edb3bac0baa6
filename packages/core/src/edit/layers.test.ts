import { describe, expect, it } from "vitest";
import { artFrom, looksOf } from "../art";
import { readBundle, writeBundle } from "../bundle";
import { findingsOf, mended } from "../check";
import { sha256Hex } from "../codec";
import { png } from "../codec/png.fixture";
import { allPictures, type Blend, checkDocument, emptyProject, type Project, type Source, type SourceId } from "../model";
import { type Coverage, clearPixels, coverageOf, type Pixels } from "../raster";
import { addSources } from "./add-sources";
import { isSameArt, sourceWithArt } from "./changed-art";
import { cutSource, refreshSource } from "./cutting";
import { addLayer, blendLayer, moveLayer, removeLayer, renameLayer } from "./layers";
import { NO_SPACE, sheetOfCells } from "./project.fixture";

const S1 = "s1" as SourceId;
const S2 = "s2" as SourceId;
const pictures = new Map<string, Pixels>();
const files = new Map<string, Uint8Array>();

function stored(pixels: Pixels) {
  const bytes = png.encode(pixels);
  const sha256 = sha256Hex(bytes);
  pictures.set(sha256, pixels);
  files.set(sha256, bytes);
  return { sha256, width: pixels.width, height: pixels.height };
}

/** Light in the cells of a sheet of 4 × 3 cells. */
function lightIn(...cells: readonly (readonly [column: number, row: number])[]): Pixels {
  const light = clearPixels(32, 30);
  for (const [column, row] of cells) light.bytes.set([255, 220, 90, 120], ((row * 10 + 1) * 32 + column * 8) * 4);
  return light;
}

const body = stored(sheetOfCells(4, 3, [5]));
const light = stored(lightIn([0, 0], [1, 1]));
const wide = stored(clearPixels(33, 30));

function coverages(source: Source): Coverage[] {
  const art = artFrom(pictures, { sources: [] });
  return looksOf(source).map((look) => coverageOf(art.picture(look)));
}

function withLayer(project: Project, id: SourceId, name: string, blend: Blend, ...own: readonly ReturnType<typeof stored>[]): Project {
  const layer = { name, blend, pictures: own };
  const uncut = { ...project, sources: project.sources.map((each) => ({ ...each, cut: null })) };
  const source = addLayer(uncut, id, layer, []).sources.find((each) => each.id === id) as Source;
  return addLayer(project, id, layer, coverages(source));
}

function plain(names: readonly string[] = ["camp"]): Project {
  const added = addSources(
    emptyProject("test"),
    names.map((name) => ({ fileName: `${name}.png`, ...body })),
  );
  return added.sources.reduce(
    (next, { id }) =>
      cutSource(
        next,
        id,
        { by: "cell", cell: { w: 8, h: 10 }, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false },
        coverageOf(pictures.get(body.sha256) as Pixels),
      ),
    added,
  );
}

const keys = (project: Project, id: SourceId = S1) =>
  (project.sources.find((each) => each.id === id) as Source).frames.filter(({ empty }) => !empty).map(({ key }) => key);

describe("a layer over a source", () => {
  const lit = withLayer(plain(), S1, "light", "add", light);

  it("is cut with it: a cell with only light is a frame, and disappears with the layer", () => {
    expect(keys(plain())).not.toContain("c1r1");
    expect(keys(lit)).toContain("c1r1");
    const bare = removeLayer(lit, S1, "light", [coverageOf(pictures.get(body.sha256) as Pixels)]);
    expect(keys(bare)).toEqual(keys(plain()));
    expect(bare.sources[0]).not.toHaveProperty("layers");
  });

  it("is stored beside the picture below it, complete in a bundle", () => {
    expect(allPictures(lit.sources[0] as Source).map(({ file }) => file)).toEqual(["art/camp.png", "art/camp_light.png"]);
    const read = readBundle(writeBundle({ project: lit, pictures: files }), "test");
    expect(read.project).toEqual(lit);
    expect([...read.pictures.keys()].sort()).toEqual([body.sha256, light.sha256].sort());
  });

  it("is refused if it does not fit, and nothing changes", () => {
    expect(() => addLayer(plain(), S1, { name: "light", blend: "add", pictures: [wide] }, [])).toThrow(/33 × 30 px.*32 × 30 px/);
    expect(() => addLayer(plain(), S1, { name: "light", blend: "add", pictures: [light, light] }, [])).toThrow(/2 pictures/);
    expect(() => addLayer(lit, S1, { name: "LIGHT", blend: "add", pictures: [light] }, [])).toThrow(/already/);
    expect(() => addLayer(plain(), S1, { name: "a/b", blend: "add", pictures: [light] }, [])).toThrow(/part of file names/);
    const [source] = lit.sources as [Source];
    const unlike = {
      ...lit,
      sources: [{ ...source, layers: [{ name: "light", blend: "add" as const, pictures: [{ ...wide, file: "art/w.png" }] }] }],
    };
    expect(() => checkDocument(unlike, "test")).toThrow(/33 × 30 px over a picture of 32 × 30 px/);
  });

  it("takes new art with its picture or alone, and refuses a picture that it does not fit", () => {
    const moved = stored(lightIn([2, 2]));
    const changed = { ...body, layers: [{ name: "light", ...moved }] };
    expect(isSameArt(lit.sources[0] as Source, [body])).toBe(true);
    expect(isSameArt(lit.sources[0] as Source, [changed])).toBe(false);
    const next = refreshSource(lit, S1, [changed], coverages(sourceWithArt(lit, lit.sources[0] as Source, [changed])));
    expect(next.sources[0]?.layers?.[0]?.pictures[0]).toEqual({ file: "art/camp_light.png", ...moved });
    expect(keys(next)).not.toContain("c1r1");
    expect(() => refreshSource(lit, S1, [wide], [])).toThrow(/layer "light" is 32 × 30 px.*33 × 30 px/);
  });
});

describe("layers with the same name", () => {
  const two = withLayer(withLayer(plain(["camp", "well"]), S1, "light", "add", light), S2, "Light", "multiply", light);
  const namesOf = (project: Project) => project.sources.map(({ layers = [] }) => layers.map(({ name, blend }) => `${name} ${blend}`));

  it("have the same spelling, blend mode and name in all sources", () => {
    expect(namesOf(two)).toEqual([["light add"], ["light add"]]);
    expect(namesOf(blendLayer(two, "light", "multiply"))).toEqual([["light multiply"], ["light multiply"]]);
    expect(namesOf(renameLayer(two, "light", "glow"))).toEqual([["glow add"], ["glow add"]]);
    expect(blendLayer(two, "light", "add")).toBe(two);
  });

  it("are joined by a name that others have, unless a source then had two of it", () => {
    const shaded = withLayer(two, S1, "shade", "multiply", light);
    expect(() => renameLayer(shaded, "shade", "light")).toThrow(/already/);
    const apart = withLayer(withLayer(plain(["camp", "well"]), S1, "light", "add", light), S2, "glow", "multiply", light);
    expect(namesOf(renameLayer(apart, "glow", "light"))).toEqual([["light add"], ["light add"]]);
  });

  it("that disagree in a document from elsewhere stop a delivery, and are mended", () => {
    const [first, second] = two.sources as [Source, Source];
    const unlike = (layers: Source["layers"]): Project => ({ ...two, sources: [first, { ...second, layers }] as Source[] });
    const layer = second.layers?.[0] as NonNullable<Source["layers"]>[number];
    for (const each of [unlike([{ ...layer, blend: "multiply" }]), unlike([{ ...layer, name: "LIGHT" }])]) {
      const finding = findingsOf(each).find(({ code }) => code === "layers-disagree");
      expect(finding).toMatchObject({ severity: "error", place: { stop: "sources", source: S2 } });
      expect(namesOf(mended(each, finding as never))).toEqual([["light add"], ["light add"]]);
    }
    const both = withLayer(withLayer(two, S1, "shade", "multiply", light), S2, "shade", "multiply", light);
    const crossed = moveLayer(both, S2, "shade", -1);
    const finding = findingsOf(crossed).find(({ code }) => code === "layers-disagree");
    expect(finding?.message).toMatch(/above another layer in camp and below it in well|above another layer in well and below it in camp/);
    expect(findingsOf(mended(crossed, finding as never)).map(({ code }) => code)).not.toContain("layers-disagree");
  });
});
