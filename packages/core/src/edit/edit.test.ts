import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  type ClipName,
  type Cut,
  clipNamed,
  emptyProject,
  type FrameRef,
  findFrame,
  frameName,
  type Project,
  type SourceId,
  USUAL_DELIVERY,
} from "../model";
import { coverageOf } from "../raster";
import {
  addClip,
  addSources,
  cutSource,
  dropFrames,
  duplicateClip,
  evenOut,
  insertSteps,
  moveSteps,
  refreshSource,
  removeClip,
  removeSource,
  removeSteps,
  renameClip,
  renameFrame,
  renameProject,
  renameSource,
  restoreFrames,
  reverseSteps,
  setClipFps,
  setClipRules,
  setClipTotal,
  setDelivery,
  setSourceOrigin,
  setStepDurations,
} from ".";
import { NO_SPACE, PORTER, porterCoverage, porterProject, sheetOfCells } from "./project.fixture";

const WALK = "walk" as ClipName;
const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const walk = (count = 4) =>
  addClip(
    porterProject(),
    Array.from({ length: count }, (_, k) => ref(k % 4, Math.floor(k / 4))),
    "walk",
  );
const byCount = (columns: number, rows: number, keepEmpty = false): Cut => ({
  by: "count",
  columns,
  rows,
  margin: NO_SPACE,
  gap: NO_SPACE,
  keepEmpty,
});
const durations = (project: Project) => clipNamed(project, WALK).steps.map((step) => step.duration);
const shown = (project: Project) => clipNamed(project, WALK).steps.map((step) => step.frame);
const picture = (fileName: string) => ({ fileName, sha256: "b".repeat(64), width: 32, height: 30 });

describe("sources", () => {
  it("are named after their file; taken names get a number", () => {
    const project = addSources(porterProject(), [
      picture("deep/porter.png"),
      picture("porter.PNG"),
      picture("..png"),
      picture('a:b"c.png'),
    ]);
    expect(project.sources.map(({ id, name, pictures }) => [id, name, pictures[0]?.file])).toEqual([
      ["s1", "porter", "art/porter.png"],
      ["s2", "porter-2", "art/porter-2.png"],
      ["s3", "porter-3", "art/porter-3.png"],
      ["s4", "picture", "art/picture.png"],
      ["s5", "a-b-c", "art/a-b-c.png"],
    ]);
    expect(addSources.label(project, [picture("a.png"), picture("b.png")])).toBe("add 2 pictures");
  });

  it("never get an id that was there before", () => {
    const project = addSources(porterProject(), [picture("b.png"), picture("c.png")]);
    const next = addSources(removeSource(project, "s2" as SourceId), [picture("d.png")]);
    expect(next.sources.map((source) => source.id)).toEqual(["s1", "s3", "s4"]);
  });

  it("remove their steps too when removed, and say so", () => {
    expect(removeSource.label(walk(), PORTER)).toBe("remove porter and 4 steps");
    expect(clipNamed(removeSource(walk(), PORTER), WALK).steps).toEqual([]);
  });

  it("refuse a duplicate name, and an empty one", () => {
    const project = addSources(porterProject(), [picture("b.png")]);
    expect(() => renameSource(project, PORTER, "b")).toThrow(/already a source of this name/);
    expect(() => renameSource(project, PORTER, "  ")).toThrow(/needs 1 to 200 characters/);
    expect(renameSource(project, PORTER, "porter")).toBe(project);
  });
});

describe("cutting again", () => {
  it("keeps what was decided about frames at the same column and row", () => {
    const origin = { x: 4, y: 9.5 };
    const decided = renameFrame(dropFrames(setSourceOrigin(walk(), PORTER, origin), [ref(1, 1)]), ref(2), "stride");
    const again = cutSource(decided, PORTER, byCount(2, 3), porterCoverage());
    const back = cutSource(again, PORTER, byCount(4, 3), porterCoverage());
    expect(again.sources[0]?.origin).toEqual(origin);
    expect(findFrame(again, ref(1, 1))?.frame).toMatchObject({ dropped: true, rect: { x: 16, y: 10, w: 16, h: 10 } });
    expect(findFrame(back, ref(1, 1))?.frame.dropped).toBe(true);
  });

  it("keeps a clip's steps, also of frames that are missing for now, and they return", () => {
    const narrower = cutSource(walk(), PORTER, byCount(2, 3), porterCoverage());
    expect(shown(narrower)).toEqual([ref(0), ref(1), ref(2), ref(3)]);
    expect(findFrame(narrower, ref(3))).toBeNull();
    expect(findFrame(cutSource(narrower, PORTER, byCount(4, 3), porterCoverage()), ref(3))).not.toBeNull();
  });

  it("numbers frames among all cells, so that an empty one shifts no name", () => {
    const sheet = sheetOfCells(4, 3, [1]);
    const project = cutSource(porterProject(), PORTER, byCount(4, 3), coverageOf(sheet));
    const source = project.sources[0] as Project["sources"][number];
    expect(source.frames.slice(0, 3).map((frame) => frameName(source, frame))).toEqual(["porter/0", "porter/2", "porter/3"]);
  });

  it("returns the same object if the cut is the same", () => {
    const once = cutSource(porterProject(), PORTER, byCount(4, 3), porterCoverage());
    expect(cutSource(once, PORTER, byCount(4, 3), porterCoverage())).toBe(once);
  });

  it("throws and changes nothing when the grid does not fit", () =>
    expect(() =>
      cutSource(
        porterProject(),
        PORTER,
        { by: "cell", cell: { w: 99, h: 9 }, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false },
        porterCoverage(),
      ),
    ).toThrow(/99 × 9 px cell exceeds/));

  it("runs the recipe again on changed art and keeps the clips", () => {
    const wider = sheetOfCells(5, 3, [14]);
    const project = refreshSource(
      walk(),
      PORTER,
      [{ sha256: "c".repeat(64), width: wider.width, height: wider.height }],
      [coverageOf(wider)],
    );
    expect(project.sources[0]?.frames).toHaveLength(14);
    expect(shown(project)).toEqual(shown(walk()));
    expect(refreshSource(project, PORTER, [{ sha256: "c".repeat(64), width: 1, height: 1 }], [coverageOf(wider)])).toBe(project);
  });
});

describe("frames", () => {
  it("are dropped and restored in their places", () => {
    const dropped = dropFrames(porterProject(), [ref(0), ref(3, 2)]);
    expect(dropped.sources[0]?.frames.filter((frame) => frame.dropped)).toHaveLength(2);
    expect(restoreFrames(dropped, [ref(0), ref(3, 2)])).toEqual(porterProject());
    expect(dropFrames(dropped, [ref(0)])).toBe(dropped);
    expect(dropFrames.label(dropped, [ref(0), ref(1)])).toBe("drop 2 frames");
  });

  it("refuse another frame's name, given or default, and return to the default", () => {
    const named = renameFrame(porterProject(), ref(0), "first");
    expect(() => renameFrame(named, ref(1), "first")).toThrow(/already a frame of this name/);
    expect(() => renameFrame(named, ref(1), "porter/2")).toThrow(/already a frame/);
    expect(renameFrame(named, ref(0), " ")).toEqual(porterProject());
  });

  it("are at whole or half pixels", () => {
    expect(setSourceOrigin(porterProject(), PORTER, { x: 3.5, y: 9 }).sources[0]?.origin).toEqual({ x: 3.5, y: 9 });
    expect(() => setSourceOrigin(porterProject(), PORTER, { x: 3.3, y: 9 })).toThrow(/whole or half pixels/);
  });
});

describe("clips", () => {
  it("show the picked frames in picking order, ten a second, in a loop", () => {
    const project = addClip(porterProject(), [ref(2), ref(0), ref(2)], " walk ");
    expect(shown(project)).toEqual([ref(2), ref(0), ref(2)]);
    expect(clipNamed(project, "walk")).toMatchObject({ playback: "loop", times: 0, loopFrom: 0, after: "hold" });
    expect(durations(project)).toEqual([100_000, 100_000, 100_000]);
  });

  it("cannot be made of nothing, or under a taken name; without a name they take their source's", () => {
    expect(() => addClip(porterProject(), [])).toThrow(/No frames are picked/);
    expect(() => addClip(walk(), [ref(0)], "walk")).toThrow(/already a clip of this name/);
    expect(addClip(addClip(porterProject(), [ref(0)]), [ref(1)]).clips.map((clip) => clip.name)).toEqual(["porter", "porter-2"]);
    expect(() => renameClip(duplicateClip(walk(), WALK), WALK, "walk-2")).toThrow(/already a clip of this name/);
    expect(() => renameClip(walk(), WALK, "a\u0000b")).toThrow(/control characters/);
  });

  it("are renamed, duplicated beside themselves and removed", () => {
    const three = addClip(duplicateClip(walk(), WALK), [ref(0)], "idle");
    expect(three.clips.map((clip) => clip.name)).toEqual(["walk", "walk-2", "idle"]);
    expect(removeClip(three, WALK).clips).toHaveLength(2);
    expect(renameClip(three, WALK, "stroll").clips[0]?.name).toBe("stroll");
  });

  it("keep the loop's beginning inside when they get shorter", () => {
    const late = setClipRules(walk(), WALK, { loopFrom: 3 });
    expect(clipNamed(removeSteps(late, WALK, [2, 3]), WALK).loopFrom).toBe(1);
    expect(clipNamed(setClipRules(walk(), WALK, { loopFrom: 9 }), WALK).loopFrom).toBe(3);
    expect(setClipRules(late, WALK, { loopFrom: 3 })).toBe(late);
  });

  it("insert frames at the right place, with the previous step's duration", () => {
    const slow = setStepDurations(walk(), WALK, [1], 70_000);
    const more = insertSteps(slow, WALK, 2, [ref(0, 1), ref(1, 1)]);
    expect(shown(more)).toEqual([ref(0), ref(1), ref(0, 1), ref(1, 1), ref(2), ref(3)]);
    expect(durations(more)).toEqual([100_000, 70_000, 70_000, 70_000, 100_000, 100_000]);
    expect(insertSteps.label(more, WALK, 2, [ref(0)])).toBe("add 1 frame to walk");
  });

  it("lose no step however they are reordered", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.array(fc.nat({ max: 11 }), { maxLength: 6 }),
        fc.nat({ max: 14 }),
        (count, picks, to) => {
          const project = walk(count);
          const moving = [...new Set(picks.filter((pick) => pick < count))].sort((a, b) => a - b);
          const after = shown(moveSteps(project, WALK, moving, to));
          expect(after.toSorted()).toEqual(shown(project).toSorted());
          const at = Math.min(to, count - moving.length);
          expect(after.slice(at, at + moving.length)).toEqual(moving.map((k) => shown(project)[k]));
          expect(shown(reverseSteps(reverseSteps(project, WALK), WALK))).toEqual(shown(project));
        },
      ),
    ));
});

describe("times", () => {
  it("at 8 fps each of 4 steps lasts 125 ms", () => expect(durations(setClipFps(walk(), WALK, 8))).toEqual(Array(4).fill(125_000)));

  it("twelve steps at 12 fps last exactly a second", () =>
    expect(durations(setClipFps(walk(12), WALK, 12)).reduce((sum, each) => sum + each, 0)).toBe(1_000_000));

  it("a step's exception survives a change of speed", () => {
    const uneven = setStepDurations(walk(), WALK, [3], 300_000);
    expect(durations(setClipTotal(uneven, WALK, 1_200_000))).toEqual([200_000, 200_000, 200_000, 600_000]);
    expect(durations(evenOut(uneven, WALK))).toEqual(Array(4).fill(150_000));
  });

  it("refuse anything that leaves a step without time, or with more than an hour", () => {
    expect(() => setClipTotal(walk(), WALK, 3)).toThrow(/4 steps cannot share 0.003 ms/);
    expect(() => setStepDurations(walk(), WALK, [0], 0)).toThrow(/more than 0 ms and at most one hour/);
    expect(() => setStepDurations(walk(), WALK, [0], Number.NaN)).toThrow(/more than 0 ms/);
    expect(() => setClipFps(walk(), WALK, 0)).toThrow(/above 0 fps/);
    expect(setStepDurations(walk(), WALK, [0, 1], 100_000)).toEqual(walk());
  });

  it("divide any total exactly, and do not change the old project", () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 12, max: 60_000_000 }), (count, total) => {
        const before = walk(count);
        const copy = structuredClone(before);
        expect(durations(setClipTotal(before, WALK, total)).reduce((sum, each) => sum + each, 0)).toBe(total);
        expect(before).toEqual(copy);
      }),
    ));
});

describe("the project", () => {
  it("is renamed, and keeps its name if the new one is invalid", () => {
    expect(renameProject(walk(), " Salt ").name).toBe("Salt");
    expect(() => renameProject(walk(), "")).toThrow(/project name/);
  });

  it("refuses a delivery that cannot be", () => {
    expect(setDelivery(walk(), 0, { packing: { paddingPx: 4 } }).deliveries[0]?.packing).toMatchObject({ paddingPx: 4, extrudePx: 1 });
    expect(setDelivery.label(walk(), 0, { packing: { shareMirrored: true } })).toBe("change the sharing of mirrored frames of atlas");
    expect(setDelivery.label(walk(), 0, { choice: { of: "clips", names: ["walk"] } })).toBe("change the contents of atlas");
    expect(() => setDelivery(walk(), 0, { name: "a/b" })).toThrow(/A file name without/);
    expect(() => setDelivery(walk(), 0, { packing: { maxPx: 4 } })).toThrow(/maxPx/);
    expect(setDelivery(walk(), 0, { filter: "nearest" })).toEqual(walk());
    for (const [key, value] of Object.entries(USUAL_DELIVERY)) {
      const parts = typeof value === "object" && !Array.isArray(value) ? Object.keys(value) : [null];
      for (const part of parts) {
        const label = setDelivery.label(walk(), 0, { [key]: part === null ? value : { [part]: null } } as never);
        expect(label, `${key} ${part}`).toMatch(/^change (the|what|how|where) /);
      }
    }
    expect(emptyProject("x").deliveries).toHaveLength(1);
  });
});
