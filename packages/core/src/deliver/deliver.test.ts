import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { readAtlas } from "../atlas";
import type { NamedFile, PngCodec } from "../codec";
import { png } from "../codec/png.fixture";
import {
  addClip,
  cutSource,
  dropFrames,
  removeSteps,
  renameFrame,
  setClipRules,
  setPixelsPerUnit,
  setSourceOrigin,
  setSourceScale,
} from "../edit";
import { NO_SPACE, PORTER, porterCoverage, porterProject, sheetOfCells } from "../edit/project.fixture";
import { type ClipName, type Delivery, emptyProject, type FrameRef, type Project } from "../model";
import { crop, looksSame, type Pixels, scaled } from "../raster";
import { deliver } from "./project";
import { framesTable } from "./tables";

const sheet = sheetOfCells(4, 3);
const art = artFrom(new Map([["a".repeat(64), sheet]]), { sources: [] });
const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const project = setClipRules(
  addClip(setSourceOrigin(porterProject(), PORTER, { x: 3.5, y: 9 }), [ref(0), ref(1), ref(0)], "walk"),
  "walk" as ClipName,
  {
    playback: "pingpong",
    times: 2,
    after: "hide",
  },
);
const delivered = (from: Project = project, codec: PngCodec = png) => deliver(from, from.deliveries[0] as Delivery, art, codec);

const atlasIn = (files: readonly NamedFile[]) =>
  readAtlas(files.find(({ path }) => path.endsWith(".atlas.json"))?.bytes as Uint8Array, "atlas");

/** A reader of the tests' own: takes a frame off its page by the atlas file's words alone, pixel by pixel. */
function rebuilt(atlas: ReturnType<typeof readAtlas>, pages: readonly Pixels[], name: string): Pixels {
  const { page, rect, turned, inset, size } = atlas.frames[name] as NonNullable<(typeof atlas.frames)[string]>;
  const from = pages[page] as Pixels;
  const bytes = new Uint8Array(size.w * size.h * 4);
  for (let y = 0; y < rect.h; y++)
    for (let x = 0; x < rect.w; x++) {
      // Turned by 90° clockwise: the stored column x is the upright row from the top, the stored row y counts from the left.
      const [ux, uy] = turned ? [y, rect.w - 1 - x] : [x, y];
      const at = ((rect.y + y) * from.width + rect.x + x) * 4;
      bytes.set(from.bytes.subarray(at, at + 4), ((uy + inset.y) * size.w + ux + inset.x) * 4);
    }
  return { width: size.w, height: size.h, bytes };
}

describe("deliver", () => {
  it("gives frames of a scaled source in project pixels, beside unscaled ones, and the pixels per unit", () => {
    for (const scale of [3, 0.5, 0.75]) {
      const scaledProject = setPixelsPerUnit(setSourceScale(project, PORTER, scale), 16);
      const { files } = delivered(scaledProject);
      const atlas = atlasIn(files);
      const page = png.decode(files.find(({ path }) => path.endsWith(".png"))?.bytes as Uint8Array, "page");
      // The cells of the sheet hold half-transparent pixels, so that a half is the mean of what it covers.
      const expected = scaled(crop(sheet, { x: 8, y: 0, w: 8, h: 10 }), scale);
      expect(looksSame(rebuilt(atlas, [page], "porter/1"), expected)).toBe(true);
      expect(atlas.frames["porter/1"]?.origin).toEqual({ x: Math.round(3.5 * scale * 2) / 2, y: Math.round(9 * scale * 2) / 2 });
      expect(atlas.pixelsPerUnit).toBe(16);
      const [head, row] = new TextDecoder().decode(framesTable(atlas, { origin: "pixels", y: "down", from: 0 })).split("\n");
      expect([head?.endsWith(",origin_y,pixels_per_unit"), row?.endsWith(",16")]).toEqual([true, true]);
    }
    expect("pixelsPerUnit" in atlasIn(delivered().files)).toBe(false);
  });

  it("gives an atlas that holds every frame exactly, by a reader that shares nothing with the writer", () => {
    for (const packing of [{}, { turn: true, maxPx: 32 }, { trim: false, extrudePx: 3 }, { sides: "powerOfTwo" as const, share: false }]) {
      const chosen = {
        ...project,
        deliveries: [{ ...(project.deliveries[0] as Delivery), packing: { ...(project.deliveries[0] as Delivery).packing, ...packing } }],
      };
      const { files, pages } = delivered(chosen);
      const atlas = atlasIn(files);
      const decoded = pages.map(({ image }) => png.decode(files.find((file) => file.path === image)?.bytes as Uint8Array, image));
      for (const frame of porterProject().sources[0]?.frames ?? [])
        expect(looksSame(rebuilt(atlas, decoded, `porter/${frame.number}`), crop(sheet, frame.rect))).toBe(true);
    }
  });

  it("writes clips with times in milliseconds and frames by name, origins in untrimmed pixels", () => {
    const atlas = atlasIn(delivered().files);
    expect(atlas.clips.walk).toEqual({
      steps: [
        { frame: "porter/0", ms: 100 },
        { frame: "porter/1", ms: 100 },
        { frame: "porter/0", ms: 100 },
      ],
      playback: "pingpong",
      times: 2,
      loopFrom: 0,
      after: "hide",
    });
    expect(atlas.frames["porter/5"]).toMatchObject({ size: { w: 8, h: 10 }, inset: { x: 1, y: 2 }, origin: { x: 3.5, y: 9 } });
  });

  it("proves what it wrote, with the same bytes each time", () => {
    const first = delivered();
    expect(first.proof).toEqual({ frames: 12, exact: 12, shared: 0, clips: 1, marked: 0 });
    expect(delivered().files).toEqual(first.files);
  });

  it("leaves dropped frames out", () =>
    expect(Object.keys(atlasIn(delivered(dropFrames(project, [ref(3, 2)])).files).frames)).toHaveLength(11));

  it("fails rather than deliver a page that does not read back the same", () => {
    const spoiling: PngCodec = {
      ...png,
      encode: (pixels) => {
        const bytes = pixels.bytes.slice();
        const drawn = bytes.findIndex((_, k) => k % 4 === 3 && bytes[k] === 255);
        bytes[drawn - 1] = (bytes[drawn - 1] as number) ^ 1;
        return png.encode({ ...pixels, bytes });
      },
    };
    // The very first opaque pixel of a page belongs to an extruded edge; without one it belongs to a frame.
    const bare = {
      ...project,
      deliveries: [{ ...(project.deliveries[0] as Delivery), packing: { ...(project.deliveries[0] as Delivery).packing, extrudePx: 0 } }],
    };
    expect(() => delivered(bare, spoiling)).toThrow(/Read back, frame "porter\/\d+" is not what was meant/);
  });

  it("reports what stops it: nothing cut, an empty clip, missing frames, two frames with one name", () => {
    expect(() => delivered(emptyProject("x"))).toThrow(/There are no pictures yet/);
    expect(() => delivered(removeSteps(project, "walk" as ClipName, [0, 1, 2]))).toThrow(/clip "walk": It has no steps/);
    expect(() => delivered(dropFrames(project, [ref(1)]))).toThrow(/1 step \(1\) shows a frame that is dropped/);
    const narrow = cutSource(
      project,
      PORTER,
      { by: "count", columns: 1, rows: 3, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false },
      porterCoverage(),
    );
    expect(() => delivered(narrow)).toThrow(/no longer cut/);
    const named = renameFrame(project, ref(0), "x");
    const twins = {
      ...named,
      sources: named.sources.map((source) => ({ ...source, frames: source.frames.map((frame) => ({ ...frame, name: "x" })) })),
    };
    expect(() => delivered(twins)).toThrow(/Two frames have this name/);
  });

  it("names frames and clips as people do, even like parts of the language", () => {
    const odd = renameFrame(addClip(project, [ref(1)], "constructor"), ref(2), "toString");
    const { files, proof } = delivered(odd);
    const atlas = atlasIn(files);
    expect(proof.exact).toBe(12);
    expect(() => renameFrame(project, ref(2), "__proto__")).toThrow(/Type another name/);
    expect(Object.keys(atlas.frames)).toContain("toString");
  });
});
