import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { artFrom, looksOf } from "../art";
import { layered } from "../assemble";
import { readAtlas } from "../atlas";
import { readApng } from "../codec";
import { png } from "../codec/png.fixture";
import { addClip, addLayer, type DeliveryChange, setDelivery, setSourceScale } from "../edit";
import { CELL, PORTER, porterProject, sheetOfCells } from "../edit/project.fixture";
import { type Delivery, frameRef, keptFrames, type Project } from "../model";
import { frameFromPage } from "../pack";
import { clearPixels, coverageOf, crop, looksSame, type Pixels } from "../raster";
import { deliver } from "./project";

const [BODY, LIGHT, SHADE] = ["a", "b", "c"].map((each) => each.repeat(64)) as [string, string, string];
const body = sheetOfCells(4, 3);
const size = { width: body.width, height: body.height };

/** Where spots of light and shade are: places, so that what fails is told in few words. */
const places = fc.array(fc.tuple(fc.nat(30), fc.nat(28)), { minLength: 1, maxLength: 12 });

function spots(at: readonly (readonly [number, number])[], colour: readonly number[]): Pixels {
  const made = clearPixels(size.width, size.height);
  for (const [x, y] of at)
    for (const [u, v] of [
      [x, y],
      [x + 1, y],
      [x, y + 1],
    ] as const)
      made.bytes.set(colour, (v * size.width + u) * 4);
  return made;
}
const LIGHTS = [255, 220, 90, 120];
const SHADES = [40, 30, 60, 200];

interface Lit {
  readonly project: Project;
  readonly art: ReturnType<typeof artFrom>;
}

function lit(light: Pixels, shade: Pixels): Lit {
  const art = artFrom(
    new Map([
      [BODY, body],
      [LIGHT, light],
      [SHADE, shade],
    ]),
    { sources: [] },
  );
  const over = (project: Project, name: string, blend: "add" | "multiply", sha256: string): Project => {
    const layer = { name, blend, pictures: [{ sha256, ...size }] };
    const uncut = addLayer({ ...project, sources: project.sources.map((each) => ({ ...each, cut: null })) }, PORTER, layer, []);
    const coverages = looksOf(uncut.sources[0] as never).map((look) => coverageOf(art.picture(look)));
    return addLayer(project, PORTER, layer, coverages);
  };
  const project = over(over(porterProject(), "shade", "multiply", SHADE), "light", "add", LIGHT);
  const refs = keptFrames(project).map(({ source, frame }) => frameRef(source, frame));
  return { project: addClip(project, refs.slice(0, 5), "walk"), art };
}

function out({ project, art }: Lit, change: DeliveryChange) {
  const chosen = setDelivery(project, 0, change);
  return deliver(chosen, chosen.deliveries[0] as Delivery, art, png);
}

const decoded = (made: ReturnType<typeof out>, path: string | undefined) => {
  const found = made.files.find((file) => file.path === path);
  return found ? png.decode(found.bytes, found.path) : null;
};
const cellOf = (sheet: Pixels, column: number, row: number) => crop(sheet, { x: column * CELL.w, y: row * CELL.h, ...CELL });

describe("a delivery of layered art", () => {
  it("has every pixel of every layer where the atlas says, each layer in its own picture", () =>
    fc.assert(
      fc.property(places, places, (lights, shades) => {
        const [light, shade] = [spots(lights, LIGHTS), spots(shades, SHADES)];
        const made = out(lit(light, shade), { kind: "atlas" });
        const atlas = readAtlas(made.files.find(({ path }) => path.endsWith(".json"))?.bytes as Uint8Array, "atlas");
        expect(atlas.layers).toEqual([
          { name: "shade", blend: "multiply" },
          { name: "light", blend: "add" },
        ]);
        const page = atlas.pages[0];
        for (const [name, sheet] of [
          [null, body],
          ["light", light],
          ["shade", shade],
        ] as const) {
          const image = decoded(made, name === null ? page?.image : page?.layers?.[name]);
          for (let k = 0; k < 12; k++) {
            const frame = atlas.frames[`porter/${k}`];
            if (!frame) throw new Error(`Frame ${k} is not there.`);
            const read = image ? frameFromPage(image, frame) : clearPixels(CELL.w, CELL.h);
            expect(looksSame(read, cellOf(sheet, k % 4, Math.floor(k / 4)))).toBe(true);
          }
        }
        expect(made.pages[0]?.memory).toBe((page?.width ?? 0) * (page?.height ?? 0) * 4 * 3);
      }),
      { numRuns: 25 },
    ));

  it("lays out sheets, strips and single pictures the same on every layer", () =>
    fc.assert(
      fc.property(places, places, (lights, shades) => {
        const [light, shade] = [spots(lights, LIGHTS), spots(shades, SHADES)];
        const all = lit(light, shade);
        const sheet = out(all, { kind: "grid", sheet: { columns: 4 } });
        expect(looksSame(decoded(sheet, "atlas.light.png") as Pixels, light)).toBe(true);
        expect(looksSame(decoded(sheet, "atlas.shade.png") as Pixels, shade)).toBe(true);
        const strip = out(all, { kind: "strips" });
        const cell = crop(decoded(strip, "atlas-walk.light.png") ?? clearPixels(40, 10), { x: 8, y: 0, ...CELL });
        expect(looksSame(cell, cellOf(light, 1, 0))).toBe(true);
        const singles = out(all, { kind: "singles" });
        expect(looksSame(decoded(singles, "atlas/porter/6.shade.png") ?? clearPixels(CELL.w, CELL.h), cellOf(shade, 2, 1))).toBe(true);
      }),
      { numRuns: 15 },
    ));

  it("shows films as a game does, layers blended", () =>
    fc.assert(
      fc.property(places, places, (lights, shades) => {
        const [light, shade] = [spots(lights, LIGHTS), spots(shades, SHADES)];
        const made = out(lit(light, shade), { kind: "films", films: ["apng"] });
        const film = readApng(made.files[0]?.bytes as Uint8Array, "film", png);
        const frames = [...(film?.frames(() => {}) ?? [])];
        for (const [k, { pixels }] of frames.entries()) {
          const blended = layered([
            { pixels: cellOf(body, k % 4, Math.floor(k / 4)), blend: "normal" },
            { pixels: cellOf(shade, k % 4, Math.floor(k / 4)), blend: "multiply" },
            { pixels: cellOf(light, k % 4, Math.floor(k / 4)), blend: "add" },
          ]);
          expect(looksSame(pixels, blended)).toBe(true);
        }
        expect(frames).toHaveLength(5);
      }),
      { numRuns: 10 },
    ));

  it("goes by its figure: light and shade move no outline and no feet", () => {
    const light = clearPixels(size.width, size.height);
    light.bytes.set([255, 220, 90, 255], ((CELL.h - 1) * size.width + 7) * 4);
    const { project, art } = lit(light, clearPixels(size.width, size.height));
    const [first] = keptFrames(project);
    if (!first) throw new Error("There is no frame.");
    const figure = art.figure(first.source, first.frame);
    expect(looksSame(crop(figure.pixels, figure.rect), cellOf(body, 0, 0))).toBe(true);
    const { coverage, frame } = art.drawn(first.source, first.frame);
    expect(coverageOf(crop(body, frame.rect)).bits).toEqual(coverageOf(crop(body, first.frame.rect)).bits);
    expect(coverage.bits).toEqual(coverageOf(body).bits);
  });

  it("is scaled layer by layer, so that soft light makes no crisp body soft", () => {
    const light = clearPixels(size.width, size.height);
    for (let x = 0; x < 32; x++) light.bytes.set([255, 220, 90, 100], (3 * size.width + x) * 4);
    const all = lit(light, clearPixels(size.width, size.height));
    const half = { ...all, project: setSourceScale(all.project, PORTER, 2) };
    const made = out(half, { kind: "grid", sheet: { columns: 4 } });
    expect(decoded(made, "atlas.light.png")).toMatchObject({ width: 64, height: 60 });
    const read = decoded(made, "atlas.png") as Pixels;
    expect([...read.bytes.subarray((4 * 64 + 4) * 4, (4 * 64 + 4) * 4 + 4)]).toEqual([
      ...body.bytes.subarray((2 * 32 + 2) * 4, (2 * 32 + 2) * 4 + 4),
    ]);
  });
});
