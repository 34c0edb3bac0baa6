import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { readAtlas } from "../atlas";
import { findingsOf, mended } from "../check";
import { readApng } from "../codec";
import { png } from "../codec/png.fixture";
import {
  addClip,
  addMarkKind,
  attachPart,
  type DeliveryChange,
  putPoint,
  removePart,
  renamePart,
  setClipRules,
  setDelivery,
  setPart,
  setStepDurations,
  setStepPart,
  turnPoint,
} from "../edit";
import { porterProject, sheetOfCells } from "../edit/project.fixture";
import type { ClipName, Delivery, FramePoint, FrameRef, MarkName, Part, Project } from "../model";
import { clearPixels, crop, lay, looksSame, mirrored, type Pixels, turnClockwise } from "../raster";
import { deliver } from "./project";

const sheet = sheetOfCells(4, 3);
const art = artFrom(new Map([["a".repeat(64), sheet]]), { sources: [] });
const ref = (column: number, row: number) => `s1/c${column}r${row}` as FrameRef;
const walk = "walk" as ClipName;
const hand = "hand" as MarkName;
const lamp: Part = { name: "lamp", host: "walk", guest: "swing", at: hand, time: "own", front: true };
const cell = (column: number, row: number) => crop(sheet, { x: column * 8, y: row * 10, w: 8, h: 10 });

/** A walk of four frames of the first row with a hand on each, and a swing of two of the second. */
function carrying(hands: readonly FramePoint[], hostMs = 100, guestMs = 100): Project {
  let project = addMarkKind(porterProject(), "point", "hand");
  project = addClip(
    project,
    [0, 1, 2, 3].map((k) => ref(k, 0)),
    "walk",
  );
  project = addClip(
    project,
    [0, 1].map((k) => ref(k, 1)),
    "swing",
  );
  project = setStepDurations(project, walk, [0, 1, 2, 3], hostMs * 1000);
  project = setStepDurations(project, "swing" as ClipName, [0, 1], guestMs * 1000);
  for (const [k, at] of hands.entries()) project = putPoint(project, "walk", [ref(k, 0)], hand, ref(k, 0), at);
  return attachPart(project, lamp);
}

function out(project: Project, change: DeliveryChange) {
  const chosen = setDelivery(project, 0, change);
  const made = deliver(chosen, chosen.deliveries[0] as Delivery, art, png);
  return { ...made, atlas: () => readAtlas(made.files.find(({ path }) => path.endsWith(".json"))?.bytes as Uint8Array, "atlas") };
}

const HANDS = [
  { x: 6, y: 4 },
  { x: 7, y: 5 },
  { x: 1, y: 4 },
  { x: 0, y: 3 },
];

describe("parts in a delivery", () => {
  it("are listed with the steps that override them, and include their guests", () => {
    const behind = setStepPart(carrying(HANDS), walk, [1], "lamp", { front: false });
    const { atlas } = out(behind, { choice: { of: "clips", names: ["walk"], pattern: "" } });
    expect(atlas().parts).toEqual([{ ...lamp }]);
    expect(Object.keys(atlas().clips).sort()).toEqual(["swing", "walk"]);
    expect(atlas().clips.walk?.steps.map(({ parts }) => parts)).toEqual([undefined, { lamp: { front: false } }, undefined, undefined]);
    const without = out(removePart(behind, "lamp"), { choice: { of: "clips", names: ["walk"], pattern: "" } });
    expect(without.atlas()).not.toHaveProperty("parts");
    expect(Object.keys(without.atlas().clips)).toEqual(["walk"]);
  });

  it("are written the same in whatever order their fields were set", () => {
    const [first] = carrying(HANDS).parts as Part[];
    const turned = Object.fromEntries(Object.entries(first as Part).reverse()) as Part;
    expect(out({ ...carrying(HANDS), parts: [turned] }, {}).atlas().parts).toEqual([first]);
  });

  it("are drawn in on wish, each pair once, over or under, pixel by pixel", () =>
    fc.assert(
      fc.property(
        fc.tuple(...[0, 1, 2, 3].map(() => fc.record({ x: fc.integer({ min: -6, max: 14 }), y: fc.integer({ min: -6, max: 14 }) }))),
        fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
        (hands, fronts) => {
          let project = carrying(hands);
          for (const [k, front] of fronts.entries()) project = setStepPart(project, walk, [k], "lamp", front ? null : { front });
          const { atlas, files } = out(project, { kind: "singles", parts: "baked", choice: { of: "clips", names: ["walk"], pattern: "" } });
          const { clips, frames, pages } = atlas();
          expect(clips.walk?.steps.map(({ frame }) => frame)).toEqual([0, 1, 2, 3].map((k) => `porter/${k}+lamp`));
          expect(atlas()).not.toHaveProperty("parts");
          for (const [k, at] of hands.entries()) {
            const frame = frames[`porter/${k}+lamp`] as (typeof frames)[string];
            const image = pages[frame.page]?.image as string;
            const read = png.decode(files.find(({ path }) => path === image)?.bytes as Uint8Array, image);
            // The origins are in the middle of the bottom edges: 4, 10. What stands at the host's origin stands at the canvas's.
            const meant = clearPixels(read.width, read.height);
            const [x, y] = [frame.origin.x - 4, frame.origin.y - 10];
            const draw = (pixels: Pixels, dx: number, dy: number) => lay(meant, pixels, x + dx, y + dy, true);
            const guest = () => draw(cell(k % 2, 1), at.x - 4, at.y - 10);
            if (!fronts[k]) guest();
            draw(cell(k, 0), 0, 0);
            if (fronts[k]) guest();
            expect(looksSame(read, meant)).toBe(true);
          }
        },
      ),
      { numRuns: 40 },
    ));

  it("are rotated by their host point's angle, by 90° in pictures and exactly in the atlas", () => {
    let project = carrying(HANDS.map(() => ({ x: 6, y: 4 })));
    for (const [k, angle] of [0, 90, 180, 250].entries()) project = turnPoint(project, "walk", [ref(k, 0)], hand, ref(k, 0), angle);
    const choice = { of: "clips" as const, names: ["walk"], pattern: "" };
    expect([0, 1, 2, 3].map((k) => out(project, { choice }).atlas().frames[`porter/${k}`]?.points?.hand)).toEqual(
      [0, 90, 180, 250].map((angle) => ({ x: 6, y: 4, angle })),
    );
    const { atlas, files } = out(project, { kind: "singles", parts: "baked", choice });
    for (const k of [0, 1, 2, 3]) {
      const frame = atlas().frames[`porter/${k}+lamp`] as ReturnType<typeof atlas>["frames"][string];
      const image = atlas().pages[frame.page]?.image as string;
      const read = png.decode(files.find(({ path }) => path === image)?.bytes as Uint8Array, image);
      let guest = cell(k % 2, 1);
      for (let quarters = 0; quarters < k; quarters++) guest = turnClockwise(guest);
      // The guest hangs by its origin, 4, 10 of 8 × 10, which goes around with it.
      const [left, top] = [
        [4, 10],
        [0, 4],
        [4, 0],
        [10, 4],
      ][k] as [number, number];
      const meant = clearPixels(read.width, read.height);
      const [x, y] = [frame.origin.x - 4, frame.origin.y - 10];
      lay(meant, cell(k, 0), x, y, true);
      lay(meant, guest, x + 6 - left, y + 4 - top, true);
      expect(looksSame(read, meant)).toBe(true);
    }
    const note = findingsOf(project).find(({ code }) => code === "part-turns");
    expect(note).toMatchObject({ severity: "note", message: expect.stringMatching(/^At step 3 of walk/), place: { steps: [3] } });
  });

  it("split a step if the guest changes within it, and lose no time", () =>
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 300 }), fc.integer({ min: 20, max: 300 }), (hostMs, guestMs) => {
        const { clips } = out(carrying(HANDS, hostMs, guestMs), { parts: "baked" }).atlas();
        const steps = clips.walk?.steps ?? [];
        expect(steps.reduce((sum, { ms }) => sum + Math.round(ms * 1000), 0)).toBe(4 * hostMs * 1000);
        const changes = new Set([0, 1, 2, 3].map((k) => k * hostMs));
        for (let at = guestMs; at < 4 * hostMs; at += guestMs) changes.add(at);
        expect(steps).toHaveLength(changes.size);
      }),
      { numRuns: 40 },
    ));

  it("are in films, whatever atlases list", () => {
    const { files } = out(carrying(HANDS), { kind: "films", films: ["apng"], choice: { of: "clips", names: ["walk"], pattern: "" } });
    expect(files.map(({ path }) => path)).toEqual(["atlas/walk.png"]);
    const frames = [...(readApng(files[0]?.bytes as Uint8Array, "film", png)?.frames(() => {}) ?? [])];
    const alone = out(removePart(carrying(HANDS), "lamp"), {
      kind: "films",
      films: ["apng"],
      choice: { of: "clips", names: ["walk"], pattern: "" },
    });
    const plain = [...(readApng(alone.files[0]?.bytes as Uint8Array, "film", png)?.frames(() => {}) ?? [])];
    expect(frames).toHaveLength(4);
    expect(frames[0]?.pixels.width).toBeGreaterThan(plain[0]?.pixels.width as number);
    expect(mirrored(mirrored(frames[0]?.pixels as Pixels)).bytes).toEqual(frames[0]?.pixels.bytes);
  });
});

describe("parts that are wrong", () => {
  const codes = (project: Project) => findingsOf(project).map(({ code }) => code);
  const found = (project: Project, code: string) => findingsOf(project).find((each) => each.code === code);

  it("lack their point on a step: it is copied from another", () => {
    const project = carrying(HANDS.slice(0, 3));
    expect(found(project, "part-no-point")?.message).toBe("Step 3 of walk has no hand, so it is not drawn there.");
    expect(codes(mended(project, found(project, "part-no-point") as never))).not.toContain("part-no-point");
    expect(codes(setStepPart(project, walk, [3], "lamp", { hidden: true }))).not.toContain("part-no-point");
  });

  it("have a guest that ends while the host continues", () => {
    const project = setClipRules(carrying(HANDS), "swing" as ClipName, { playback: "once" });
    expect(found(project, "part-ends")?.message).toMatch(/swing ends and holds still, and its host walk goes on/);
    expect(codes(mended(project, found(project, "part-ends") as never))).not.toContain("part-ends");
  });

  it("are attached in a circle, or to something missing: neither is delivered", () => {
    const circle = attachPart(carrying(HANDS), { ...lamp, name: "back", host: "swing", guest: "walk" });
    expect(codes(circle).filter((code) => code === "part-circle")).toHaveLength(2);
    expect(() => out(circle, {})).toThrow(/circle/);
    const gone = { ...carrying(HANDS), marks: [] as Project["marks"] };
    expect(found(gone, "part-gone")?.message).toMatch(/the point hand, which is gone/);
    const choice = { of: "clips", names: ["walk"], pattern: "" } as const;
    for (const parts of ["baked", undefined] as const)
      expect(() => out(gone, { ...(parts ? { parts } : {}), choice: { ...choice, names: [...choice.names] } })).toThrow(
        /the point hand, which is gone/,
      );
  });

  it("have a point that jumps", () => {
    const jumps = carrying([HANDS[0], { x: 30, y: 4 }, HANDS[0], HANDS[0]] as FramePoint[]);
    expect(found(setPart(jumps, "lamp", { front: false }), "part-jumps")).toBeUndefined();
    const once = carrying([...HANDS.slice(0, 2), { x: 6, y: 4 }, { x: 40, y: 4 }]);
    expect(found(once, "part-jumps")?.message).toMatch(/jumps by 34 px at step 3 of walk/);
  });

  it("keep the exceptions of steps when renamed, and refuse missing names", () => {
    const project = renamePart(setStepPart(carrying(HANDS), walk, [2], "lamp", { hidden: true }), "lamp", "lantern");
    expect(project.clips[0]?.steps[2]?.parts).toEqual({ lantern: { hidden: true } });
    expect(() => attachPart(project, { ...lamp, name: "x", guest: "gone" })).toThrow(/no action or clip "gone"/);
    expect(() => attachPart(project, { ...lamp, name: "x", at: "foot" as MarkName })).toThrow(/no kind of points "foot"/);
    expect(() => attachPart(project, { ...lamp, name: "lantern" })).toThrow(/already/);
    expect(() => attachPart(project, { ...lamp, name: "x", guest: "walk" })).toThrow(/attached to itself/);
  });
});
