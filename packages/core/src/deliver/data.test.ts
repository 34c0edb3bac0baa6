import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { readAtlas } from "../atlas";
import { findingsOf } from "../check";
import { textFromUtf8 } from "../codec";
import { png } from "../codec/png.fixture";
import { addClip, setData, setDelivery, setEventValue, setStepDurations, setStepEvents } from "../edit";
import { porterProject, sheetOfCells } from "../edit/project.fixture";
import type { ClipName, Delivery, FrameRef, Project } from "../model";
import { deliver } from "./project";

const art = artFrom(new Map([["a".repeat(64), sheetOfCells(4, 3)]]), { sources: [] });
const refs = ["s1/c0r0", "s1/c1r0", "s1/c2r0"] as FrameRef[];
const walk = "walk" as ClipName;
const base = addClip(porterProject(), refs, walk);
const atlasText = (project: Project) => {
  const { files } = deliver(project, project.deliveries[0] as Delivery, art, png);
  return textFromUtf8(files.find(({ path }) => path.endsWith(".atlas.json"))?.bytes as Uint8Array);
};
const atlasOf = (project: Project) => readAtlas(new TextEncoder().encode(atlasText(project)), "atlas");

describe("an atlas", () => {
  it("has the data of frames, clips and events, in order", () => {
    let project = setData(base, { frames: [refs[1] as FrameRef] }, "zeal", 2);
    project = setData(project, { frames: [refs[1] as FrameRef] }, "0", "nought");
    project = setData(project, { clips: [walk] }, "blocks", true);
    project = setEventValue(setStepEvents(project, walk, [1], ["footfall"]), walk, [1], "footfall", { on: "sand" });
    const atlas = atlasOf(project);
    expect(atlas.frames["porter/1"]?.data).toEqual({ zeal: 2, 0: "nought" });
    expect(atlas.frames["porter/0"]).not.toHaveProperty("data");
    expect(atlas.clips.walk?.data).toEqual({ blocks: true });
    expect(atlas.clips.walk?.steps[1]?.eventValues).toEqual({ footfall: { on: "sand" } });
    expect(atlasText(project)).toMatch(/"data": \{\s*"zeal": 2,\s*"0": "nought"\s*\}/);
    expect(atlasText(setDelivery(project, 0, { densities: [{ scale: 2, suffix: "" }] }))).toContain('"zeal": 2');
  });

  it("gives ticks if asked: never longer than the clip, each to the nearest tick", () => {
    expect(atlasOf(base).ticksPerSecond).toBeUndefined();
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 400_000 }), { minLength: 3, maxLength: 3 }),
        fc.constantFrom(20, 24, 60, 1000),
        (micros, rate) => {
          const timed = micros.reduce((project, each, k) => setStepDurations(project, walk, [k], each), base);
          const atlas = atlasOf(setDelivery(timed, 0, { data: { ticks: true, ticksPerSecond: rate } }));
          expect(atlas.ticksPerSecond).toBe(rate);
          let [ticks, total] = [0, 0];
          for (const [k, step] of (atlas.clips.walk?.steps ?? []).entries()) {
            ticks += step.ticks ?? Number.NaN;
            total += micros[k] as number;
            expect(Math.abs(ticks - (total * rate) / 1_000_000)).toBeLessThanOrEqual(0.5);
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it("lists all sizes of its delivery, in each of them, and none if there is one", () => {
    expect(atlasOf(base).densities).toBeUndefined();
    const densities = [
      { scale: 1, suffix: "" },
      { scale: 2, suffix: "@2x" },
    ];
    const sized = setDelivery(base, 0, { densities });
    const { files } = deliver(sized, sized.deliveries[0] as Delivery, art, png);
    const atlases = files.filter(({ path }) => path.endsWith(".atlas.json"));
    expect(atlases).toHaveLength(2);
    for (const { path, bytes } of atlases) {
      const atlas = readAtlas(bytes, path);
      expect(atlas.densities).toEqual([
        { atlas: "atlas.atlas.json", scale: 1, suffix: "" },
        { atlas: "atlas@2x.atlas.json", scale: 2, suffix: "@2x" },
      ]);
      expect(atlas.densities?.find((each) => each.atlas === path)?.scale).toBe(atlas.pages[0]?.scale);
    }
  });

  it("warns if a step has no tick of its own, and by how much ticks miss the times", () => {
    const short = setDelivery(setStepDurations(base, walk, [1], 3_000), 0, { data: { ticks: true, ticksPerSecond: 60 } });
    expect(findingsOf(short)).toContainEqual(expect.objectContaining({ code: "no-ticks", where: 'clip "walk"' }));
    expect(findingsOf(setDelivery(short, 0, { data: { ticks: undefined } })).map(({ code }) => code)).not.toContain("no-ticks");
    const { notes } = deliver(short, short.deliveries[0] as Delivery, art, png);
    expect(notes.join()).toMatch(/atlas\.json: at 60 ticks a second steps begin up to [\d.]+ ms off their time/);
  });
});
