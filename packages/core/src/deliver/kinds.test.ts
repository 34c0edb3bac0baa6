import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { readAtlas } from "../atlas";
import { findingsOf, mended } from "../check";
import { readApng, readGif, textFromUtf8 } from "../codec";
import { png } from "../codec/png.fixture";
import { matches } from "../delivery-plan";
import {
  addAction,
  addBox,
  addClip,
  addMarkKind,
  type DeliveryChange,
  makeEqual,
  putPoint,
  setClipRules,
  setDelivery,
  setOutlines,
  setPetal,
  setSourceOrigin,
  setStepDurations,
  setStepEvents,
} from "../edit";
import { PORTER, porterProject, sheetOfCells } from "../edit/project.fixture";
import type { ActionName, ClipName, Delivery, FrameRef, MarkName, Project } from "../model";
import { crop, looksSame, mirrored as mirrorOf, type Pixels, scaled } from "../raster";
import { arranged, proposedColumns } from "./cells";
import { deliver } from "./project";

const sheet = sheetOfCells(4, 3);
const art = artFrom(new Map([["a".repeat(64), sheet]]), { sources: [] });
const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const walk = "walk" as ClipName;
let project: Project = addClip(setSourceOrigin(porterProject(), PORTER, { x: 3.5, y: 9 }), [ref(0), ref(1), ref(0), ref(2)], "walk");
project = setStepDurations(addClip(project, [ref(1, 1), ref(2, 1)], "wave"), walk, [0, 1, 2, 3], 37_500);
project = setStepEvents(setClipRules(project, walk, { playback: "pingpong" }), walk, [1], ["step"]);
project = setPetal(addAction(project, "going", 2), "going" as ActionName, "e", { clip: walk });

const out = (change: DeliveryChange, from: Project = project) => {
  const chosen = setDelivery(from, 0, change);
  return deliver(chosen, chosen.deliveries[0] as Delivery, art, png);
};
const fileIn = ({ files }: ReturnType<typeof out>, path: string): Uint8Array => {
  const found = files.find((file) => file.path === path);
  if (!found) throw new Error(`There are only ${files.map((file) => file.path).join(", ")}.`);
  return found.bytes;
};
const text = (made: ReturnType<typeof out>, path: string) => textFromUtf8(fileIn(made, path));
const cell = (column: number, row = 0) => crop(sheet, { x: column * 8, y: row * 10, w: 8, h: 10 });

describe("a grid sheet", () => {
  it("is the sheet again when its columns, margin and gap are those of the sheet", () => {
    const made = out({ kind: "grid", sheet: { columns: 4 } });
    expect(looksSame(png.decode(fileIn(made, "atlas.png"), "atlas.png"), crop(sheet, { x: 0, y: 0, w: 32, h: 30 }))).toBe(true);
    expect(made.proof).toMatchObject({ frames: 12, exact: 12 });
  });

  it("has every frame in its own cell, with any columns, margin and gap", () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 14 }), fc.nat({ max: 5 }), fc.nat({ max: 5 }), (columns, marginPx, gapPx) => {
        const made = out({ kind: "grid", sheet: { columns, marginPx, gapPx } });
        const picture = png.decode(fileIn(made, "atlas.png"), "atlas.png");
        for (let k = 0; k < 12; k++) {
          const x = marginPx + (k % columns) * (8 + gapPx);
          const y = marginPx + Math.floor(k / columns) * (10 + gapPx);
          expect(looksSame(crop(picture, { x, y, w: 8, h: 10 }), cell(k % 4, Math.floor(k / 4)))).toBe(true);
        }
      }),
      { numRuns: 25 },
    ));

  it("has each clip on a row if asked, step by step, and the frames of no clip below", () => {
    const made = out({ kind: "grid", sheet: { rows: "clips", marginPx: 1, gapPx: 2 } });
    const read = png.decode(fileIn(made, "atlas.png"), "atlas.png");
    const rows = [
      [cell(0), cell(1), cell(0), cell(2)],
      [cell(1, 1), cell(2, 1)],
    ];
    for (const [row, cells] of rows.entries())
      for (const [step, wanted] of cells.entries()) {
        const found = crop(read, { x: 1 + step * 10, y: 1 + row * 12, w: 8, h: 10 });
        expect(looksSame(found, wanted)).toBe(true);
      }
    expect(made.notes.join()).toMatch(/2 rows of clips, 4 columns of 8 × 10 px.*7 frames are in no clip, below/);
    const { frames } = readAtlas(fileIn(made, "atlas.atlas.json"), "atlas");
    expect(Object.keys(frames)).toHaveLength(12);
    expect(frames["porter/0"]?.rect).toEqual({ x: 1, y: 1, w: 8, h: 10 });
    expect(read).toMatchObject({ width: 2 + 4 * 8 + 3 * 2, height: 2 + 4 * 10 + 3 * 2 });
  });

  it("refuses a sheet larger than pictures can be", () =>
    expect(() => arranged(3000, 3000, { w: 8, h: 10 }, 0, 0, "wide.png")).toThrow(
      /wide.png: It would be 24000 × 10 px; the limit is 16384 a side/,
    ));

  it("of narrow, high cells is one row rather than one column", () => expect(proposedColumns(13, { w: 4, h: 54 })).toBe(13));

  it("is proposed wide and with few empty cells", () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), fc.integer({ min: 4, max: 90 }), fc.integer({ min: 4, max: 90 }), (count, w, h) => {
        const columns = proposedColumns(count, { w, h });
        expect(columns).toBeGreaterThanOrEqual(1);
        expect(columns).toBeLessThanOrEqual(count);
        const rows = Math.ceil(count / columns);
        // One row is as wide as a sheet can be.
        if (count > 12 && rows > 1) expect((columns * w) / (rows * h)).toBeGreaterThan(0.7);
        expect(rows * columns - count).toBeLessThan(columns);
      }),
    ));
});

describe("strips", () => {
  it("show each clip's steps in order, along or down, frames shown twice standing there twice", () => {
    for (const run of ["along", "down"] as const) {
      const made = out({ kind: "strips", sheet: { run } });
      const picture = png.decode(fileIn(made, "atlas-walk.png"), "walk");
      [cell(0), cell(1), cell(0), cell(2)].forEach((frame, k) => {
        const rect = { x: run === "along" ? k * 8 : 0, y: run === "down" ? k * 10 : 0, w: 8, h: 10 };
        expect(looksSame(crop(picture, rect), frame)).toBe(true);
      });
      expect(made.pages.map(({ image }) => image)).toEqual(["atlas-walk.png", "atlas-wave.png"]);
      expect(made.notes.join()).toMatch(/7 frames are in no clip/);
    }
  });
});

describe("single pictures", () => {
  it("are the frames, named by the pattern, and the atlas file knows them", () => {
    const made = out({ kind: "singles", frameNames: "{clip}_{step:2}", choice: { of: "clips", names: ["wave"] }, counting: { from: 1 } });
    expect(made.files.map(({ path }) => path)).toEqual(["atlas.atlas.json", "atlas/wave_01.png", "atlas/wave_02.png"]);
    expect(looksSame(png.decode(fileIn(made, "atlas/wave_02.png"), "wave_02"), cell(2, 1))).toBe(true);
    const atlas = readAtlas(fileIn(made, "atlas.atlas.json"), "atlas");
    expect(Object.keys(atlas.clips)).toEqual(["wave"]);
    expect(atlas.frames.wave_02).toMatchObject({ page: 1, origin: { x: 3.5, y: 9 } });
  });

  it("refuse names that two frames would share, and files that some system refuses", () => {
    expect(() => out({ kind: "singles", frameNames: "{source}" })).toThrow(/12 frames have only 1 name/);
    expect(() => out({ kind: "singles", frameNames: "a?{n}" })).toThrow(/would write a file named atlas\/a\?0\.png, which some systems/);
    expect(() => out({ kind: "singles", frameNames: "aux.{n}" })).toThrow(/a file named atlas\/aux\.0\.png/);
  });
});

describe("films", () => {
  it("show a round of each clip, there and back, with times exact in APNG and rounded without loss in GIF", () => {
    const made = out({ kind: "films" });
    const apng = readApng(fileIn(made, "atlas/walk.png"), "walk", png);
    const frames = [...(apng?.frames(() => expect.fail()) ?? [])];
    expect(frames.map(({ ms }) => ms)).toEqual(Array.from({ length: 6 }, () => 37.5));
    [cell(0), cell(1), cell(0), cell(2), cell(0), cell(1)].forEach((frame, k) => {
      expect(looksSame(frames[k]?.pixels as Pixels, frame)).toBe(true);
    });
    const gif = [...readGif(fileIn(made, "atlas/walk.gif"), "walk").frames(() => expect.fail())];
    expect(gif.map(({ ms }) => ms)).toEqual([40, 40, 30, 40, 40, 40]);
    expect(Math.abs(gif.reduce((sum, { ms }) => sum + ms, 0) - 225)).toBeLessThanOrEqual(5);
    expect(made.notes.join("\n")).toMatch(/walk.gif: GIF counts hundredths of a second, so 6 of 6 times are rounded \(37.5 to 40 ms\)/);
  });

  it("play an ending clip once and whole, an endless one forever", () => {
    const once = setClipRules(project, walk, { playback: "pingpong", times: 2 });
    const made = out({ kind: "films", films: ["apng"] }, once);
    const film = readApng(fileIn(made, "atlas/walk.png"), "walk", png);
    expect([film?.plays, film?.count]).toEqual([1, 13]);
    expect(readApng(fileIn(made, "atlas/wave.png"), "wave", png)?.plays).toBe(0);
    expect(made.files).toHaveLength(2);
  });

  it("are made of mirrored facings if asked, named after their clip or action, each once", () => {
    const mirrored = setPetal(project, "going" as ActionName, "w", { clip: walk, mirror: true });
    const plain = out({ kind: "films", films: ["apng"] }, mirrored);
    expect(plain.files.map(({ path }) => path)).toEqual(["atlas/walk.png", "atlas/wave.png"]);
    const both = out({ kind: "films", films: ["apng"], mirroredFilms: true }, mirrored);
    expect(both.files.map(({ path }) => path)).toEqual(["atlas/walk.png", "atlas/wave.png", "atlas/going-w.png"]);
    const films = ["walk", "going-w"].map((name) => [...(readApng(fileIn(both, `atlas/${name}.png`), name, png)?.frames(() => {}) ?? [])]);
    expect(films[0]?.map(({ ms }) => ms)).toEqual(films[1]?.map(({ ms }) => ms));
    for (const [k, { pixels }] of (films[0] ?? []).entries())
      expect(looksSame(mirrorOf(pixels), films[1]?.[k]?.pixels as Pixels)).toBe(true);
    const named = addClip(mirrored, [ref(0)], "going-w");
    expect(out({ kind: "films", films: ["gif"], mirroredFilms: true }, named).files.map(({ path }) => path)).toContain(
      "atlas/going-w-2.gif",
    );
  });

  it("in GIF are drawn over a colour on wish, and APNG stays clear", () => {
    const made = out({ kind: "films", gifBackground: "#3fa9c4" });
    const [gif] = [...readGif(fileIn(made, "atlas/walk.gif"), "walk").frames(() => {})];
    const [apng] = [...(readApng(fileIn(made, "atlas/walk.png"), "walk", png)?.frames(() => {}) ?? [])];
    const colours = (pixels: Pixels | undefined) => {
      const seen = new Set<string>();
      for (let k = 0; k < (pixels?.bytes.length ?? 0); k += 4) seen.add(pixels?.bytes.subarray(k, k + 4).join() ?? "");
      return seen;
    };
    expect(colours(gif?.pixels)).toContain("63,169,196,255");
    expect([...colours(gif?.pixels)].every((each) => each.endsWith(",255"))).toBe(true);
    expect([...colours(apng?.pixels)].some((each) => each.endsWith(",0"))).toBe(true);
    expect(() => out({ kind: "films", gifBackground: "blue" })).toThrow(/gifBackground/);
  });

  it("report that there is no clip to show", () => {
    expect(() => out({ kind: "films" }, { ...project, clips: [], actions: [] })).toThrow(/no clips to film/);
    expect(() => out({ kind: "strips" }, { ...project, clips: [], actions: [] })).toThrow(/no clips to make strips of/);
  });
});

describe("a page that some devices do not support", () => {
  it("is reported by its name and size", () => {
    const made = out({ kind: "grid", sheet: { columns: 1 }, densities: [{ scale: 16, suffix: "" }], frameNames: "f{n:2}" }, project);
    expect(made.notes.join()).not.toContain("px a side");
    const tall = out({ kind: "grid", sheet: { columns: 12, gapPx: 256 }, densities: [{ scale: 16, suffix: "" }] });
    expect(tall.notes.join()).toMatch(/atlas\.png is 4352 × 160 px: some phones/);
  });
});

describe("densities", () => {
  it("go out side by side, each with its own atlas, exact at whole factors", () => {
    const made = out({
      densities: [
        { scale: 1, suffix: "" },
        { scale: 3, suffix: "@3x" },
      ],
      packing: { trim: false, extrudePx: 0, paddingPx: 0 },
    });
    expect(made.files.map(({ path }) => path)).toEqual(["atlas.atlas.json", "atlas.png", "atlas@3x.atlas.json", "atlas@3x.png"]);
    const atlas = readAtlas(fileIn(made, "atlas@3x.atlas.json"), "atlas");
    const picture = png.decode(fileIn(made, "atlas@3x.png"), "atlas");
    expect(atlas.pages[0]).toMatchObject({ scale: 3, image: "atlas@3x.png" });
    const frame = atlas.frames["porter/6"];
    expect(frame?.origin).toEqual({ x: 10.5, y: 27 });
    expect(looksSame(crop(picture, frame?.rect as { x: number; y: number; w: number; h: number }), scaled(cell(2, 1), 3))).toBe(true);
    expect(made.pages.map(({ size, memory }) => memory / (size.w * size.h))).toEqual([4, 4]);
  });

  it("refuse two of the same file names", () =>
    expect(() =>
      out({
        densities: [
          { scale: 1, suffix: "" },
          { scale: 2, suffix: "" },
        ],
      }),
    ).toThrow(/would make atlas.png, but there is one already/));
});

describe("boxes and points", () => {
  const BODY = "body" as MarkName;
  const HAND = "hand" as MarkName;
  const refs = [ref(0), ref(1)];
  const kinds = addMarkKind(addMarkKind(project, "box", "body"), "point", "hand");
  const marked = putPoint(addBox(kinds, "it", refs, BODY, ref(0), { x: -1, y: 2, w: 6, h: 8 }), "it", [ref(0)], HAND, ref(0), {
    x: 5.5,
    y: 4,
  });
  const frameOf = (made: ReturnType<typeof out>, name = "porter/0", path = "atlas.atlas.json") =>
    JSON.parse(text(made, path)).frames[name] as { boxes?: unknown; points?: unknown };

  it("are in the atlas file in untrimmed pixels, however frames are packed, and nowhere else", () => {
    for (const packing of [{}, { trim: false }, { turn: true }, { trim: true, turn: true }]) {
      const made = out({ packing }, marked);
      expect(frameOf(made)).toMatchObject({ boxes: { body: [{ x: -1, y: 2, w: 6, h: 8 }] }, points: { hand: { x: 5.5, y: 4 } } });
      expect(made.proof.marked).toBe(2);
      expect(frameOf(made, "porter/1")).not.toHaveProperty("points");
      expect(frameOf(made, "porter/2")).not.toHaveProperty("boxes");
    }
    expect(text(out({}, kinds), "atlas.atlas.json")).toBe(text(out({}), "atlas.atlas.json"));
  });

  it("move with the frame in its cell, and with the density", () => {
    const uneven = makeEqual(marked, [ref(2)], "feet");
    const wide = {
      ...uneven,
      sources: uneven.sources.map((source) => ({
        ...source,
        frames: source.frames.map((each) =>
          each.key === "c2r0" ? { ...each, size: { w: 14, h: 16 }, inset: { x: 5, y: 3 }, origin: { x: 9, y: 12 } } : each,
        ),
      })),
    };
    // The third frame reaches 3 px further up and 5.5 further left of its origin than the others, so they stand lower in equal cells.
    const { boxes, points } = frameOf(out({ kind: "grid" }, wide));
    expect({ boxes, points }).toEqual({ boxes: { body: [{ x: 5, y: 5, w: 6, h: 8 }] }, points: { hand: { x: 11.5, y: 7 } } });
    const twice = out({ densities: [{ scale: 2, suffix: "@2x" }] }, marked);
    expect(frameOf(twice, "porter/0", "atlas@2x.atlas.json")).toMatchObject({
      boxes: { body: [{ x: -2, y: 4, w: 12, h: 16 }] },
      points: { hand: { x: 11, y: 8 } },
    });
  });

  it("have their names as types", () => {
    const made = out({ data: { module: "typed" } }, marked);
    expect(text(made, "atlas.atlas.ts")).toContain('export type BoxName = "body";\nexport type PointName = "hand";');
  });
});

describe("outlines", () => {
  const SOLID = "solid" as MarkName;
  const traced = addMarkKind(project, "outline", "solid");
  const own = [{ x: 1, y: 2 }, { x: 6, y: 2 }, { x: 1, y: 8 }]; // biome-ignore format: corners
  const outlined = setOutlines(traced, "one", [ref(1)], SOLID, ref(1), [own]);
  const outlinesOf = (made: ReturnType<typeof out>, name: string, path = "atlas.atlas.json") =>
    JSON.parse(text(made, path)).frames[name].outlines as Record<string, { x: number; y: number }[][]>;

  it("are traced for the atlas file, a person's own unchanged, and proved in every packing and kind", () => {
    for (const change of [{}, { packing: { turn: true } }, { packing: { trim: false } }, { kind: "strips" as const }]) {
      const made = out(change, outlined);
      expect(outlinesOf(made, "porter/0")).toEqual({ solid: [[{ x: 1, y: 2 }, { x: 6, y: 2 }, { x: 6, y: 9 }, { x: 1, y: 9 }]] }); // biome-ignore format: corners
      expect(outlinesOf(made, "porter/1")).toEqual({ solid: [own] });
    }
    const twice = out({ densities: [{ scale: 2, suffix: "@2x" }] }, outlined);
    expect(outlinesOf(twice, "porter/1", "atlas@2x.atlas.json")).toEqual({ solid: [own.map(({ x, y }) => ({ x: 2 * x, y: 2 * y }))] });
  });

  it("are in a table beside that of frames, counted the same way, and have their names in modules", () => {
    const made = out({ data: { frames: true, module: "typed" }, counting: { origin: "pixels", y: "up", from: 1 } }, outlined);
    const rows = text(made, "atlas.outlines.csv").split("\n");
    expect(rows[0]).toBe("frame,outline,polygon,corner,x,y");
    expect(rows.filter((row) => row.startsWith("porter/1,"))).toEqual([
      "porter/1,solid,1,1,1,8",
      "porter/1,solid,1,2,6,8",
      "porter/1,solid,1,3,1,2",
    ]);
    expect(text(made, "atlas.atlas.ts")).toContain('export type OutlineName = "solid";');
    expect(text(out({ data: { module: "plain" } }, outlined), "atlas.atlas.js")).toContain('export const outlines = ["solid"];');
    expect(() => fileIn(out({ data: { frames: true } }), "atlas.outlines.csv")).toThrow();
  });
});

describe("the contents", () => {
  it("is chosen by names and patterns, with the frames that it shows, and actions that are whole", () => {
    const made = out({ choice: { of: "clips", pattern: "wa*k" } });
    const atlas = readAtlas(fileIn(made, "atlas.atlas.json"), "atlas");
    expect([Object.keys(atlas.clips), Object.keys(atlas.frames), Object.keys(atlas.actions)]).toEqual([
      ["walk"],
      ["porter/0", "porter/1", "porter/2"],
      ["going"],
    ]);
    const going = readAtlas(fileIn(out({ choice: { of: "actions", names: ["going"] } }), "atlas.atlas.json"), "atlas");
    expect(Object.keys(going.clips)).toEqual(["walk"]);
    expect(() => out({ choice: { of: "clips", pattern: "swim*" } })).toThrow(/No clip of this project is chosen and none matches swim\*/);
  });

  it("is chosen by several patterns with commas between", () => {
    const clips = (pattern: string) =>
      Object.keys(readAtlas(fileIn(out({ choice: { of: "clips", pattern } }), "atlas.atlas.json"), "atlas").clips);
    expect(clips("wa?k, *ave")).toEqual(["walk", "wave"]);
    expect(clips(" wave ,, ")).toEqual(["wave"]);
    expect(() => clips(" , ")).toThrow(/No clip of this project is chosen/);
  });

  it("is chosen frame by frame, with the clips and actions that show no others; missing frames are reported", () => {
    const of = (frames: FrameRef[]) => readAtlas(fileIn(out({ choice: { of: "frames", frames } }), "atlas.atlas.json"), "atlas");
    const some = of([ref(0), ref(1), ref(2)]);
    expect(Object.keys(some.frames)).toEqual(["porter/0", "porter/1", "porter/2"]);
    expect([Object.keys(some.clips), Object.keys(some.actions)]).toEqual([["walk"], ["going"]]);
    expect(Object.keys(of([ref(3)]).clips)).toEqual([]);
    expect(() => of([])).toThrow(/None of the chosen frames exists/);
    const gone = setDelivery(project, 0, { choice: { of: "frames", frames: [ref(0), "s9/c0r0" as FrameRef] } });
    const finding = findingsOf(gone).find(({ code }) => code === "chosen-gone");
    expect(finding?.message).toBe("1 chosen frame no longer exists.");
    expect(mended(gone, finding as never).deliveries[0]?.choice.frames).toEqual([ref(0)]);
  });

  it("matches whole names, with * and ? and nothing else", () => {
    expect(["walk_s", "walk_se", "xwalk_s"].filter((name) => matches("walk_s", name))).toEqual(["walk_s"]);
    expect(["walk_s", "walk_se", "walk_n"].filter((name) => matches("walk_s*", name))).toEqual(["walk_s", "walk_se"]);
    expect(["a.b", "axb"].filter((name) => matches("a.b", name))).toEqual(["a.b"]);
    expect(matches("(?", "(x")).toBe(true);
  });
});

describe("an atlas file without spaces", () => {
  it("says the same in fewer bytes", () => {
    const [wide, tight] = [out({}), out({ data: { compact: true } })].map((made) => text(made, "atlas.atlas.json")) as [string, string];
    expect(JSON.parse(tight)).toEqual(JSON.parse(wide));
    expect(tight).toBe(JSON.stringify(JSON.parse(wide)));
    expect(tight.length).toBeLessThan(wide.length * 0.7);
  });
});

describe("tables and modules", () => {
  it("give the start of each step, in ms and in ticks without accumulated rounding", () => {
    const made = out({ data: { times: true, ticksPerSecond: 60 }, counting: { from: 1 } });
    const rows = text(made, "atlas.times.csv")
      .trim()
      .split("\n")
      .map((line) => line.split(","));
    expect(rows[0]?.join()).toBe("clip,step,frame,start_ms,duration_ms,start_ticks,duration_ticks,error_ms");
    expect(rows.slice(1, 5).map((row) => row.join())).toEqual([
      "walk,1,porter/0,0,37.5,0,2,0",
      "walk,2,porter/1,37.5,37.5,2,3,-4.167",
      "walk,3,porter/0,75,37.5,5,2,8.333",
      "walk,4,porter/2,112.5,37.5,7,2,4.167",
    ]);
    expect(made.notes.join()).toMatch(/at 60 ticks a second steps begin up to 8.333 ms off their time/);
  });

  it("give origins as requested: in pixels or fractions, from the top or from the bottom", () => {
    const row = (change: DeliveryChange) =>
      text(out({ ...change, data: { frames: true } }), "atlas.frames.csv")
        .split("\n")[1]
        ?.split(",");
    expect(row({})?.slice(-2)).toEqual(["3.5", "9"]);
    expect(row({ counting: { origin: "fraction" } })?.slice(-2)).toEqual(["0.4375", "0.9"]);
    expect(row({ counting: { origin: "fraction", y: "up", from: 1 } })?.slice(-2)).toEqual(["0.4375", "0.1"]);
    expect(row({ counting: { y: "up", from: 1 } })?.[1]).toBe("1");
  });

  it("give the names as types, or as lists", () => {
    const typed = text(out({ data: { module: "typed" } }), "atlas.atlas.ts");
    expect(typed).toContain('export type ClipName = "walk" | "wave";');
    expect(typed).toContain('export type EventName = "step";');
    expect(typed).toContain('export type ActionName = "going";');
    const plain = text(out({ data: { module: "plain", atlas: false } }), "atlas.atlas.js");
    const atlas = JSON.parse(plain.slice(plain.indexOf("{"), plain.indexOf("};") + 1));
    expect(atlas.clips.wave.steps).toHaveLength(2);
    expect(plain).toContain('export const clips = ["walk","wave"];');
  });

  it("are the same bytes each time", () => {
    const change: DeliveryChange = { data: { times: true, frames: true, module: "typed" }, densities: [{ scale: 0.5, suffix: "-half" }] };
    expect(out(change).files).toEqual(out(change).files);
  });
});
