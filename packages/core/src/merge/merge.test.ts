import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  addAction,
  addBox,
  addClip,
  addMarkKind,
  addPalette,
  addSources,
  cutSource,
  dropFrames,
  moveSteps,
  placeOrigins,
  putPoint,
  removeClip,
  removeMarkKind,
  removeSource,
  removeSteps,
  renameAction,
  renameBehaviour,
  renameClip,
  renameMarkKind,
  renamePalette,
  setBoxUse,
  setClipRules,
  setData,
  setDelivery,
  setPaletteColours,
  setPetal,
  setRule,
  setSourcePalette,
  setStepDurations,
  setStepEvents,
  setWays,
} from "../edit";
import { porterProject, sheetOfCells } from "../edit/project.fixture";
import type { ActionName, BehaviourName, ClipName, FrameRef, MarkName, Project, SourceId } from "../model";
import { coverageOf } from "../raster";
import { mergeProjects } from "./merge";

const ref = (column: number, row: number) => `s1/c${column}r${row}` as FrameRef;
const clip = (name: string) => name as ClipName;
const GO = "go" as ActionName;
const row = (of: number) => [0, 1, 2, 3].map((k) => ref(k, of));

/** Three clips, an action of two of them, a box kind and a point kind. */
function begun(): Project {
  let project = porterProject();
  for (const [k, name] of ["idle", "walk", "strike"].entries()) project = addClip(project, row(k), name);
  project = setPetal(addAction(project, "go", 2), "go" as ActionName, "e", { clip: clip("walk") });
  project = addMarkKind(addMarkKind(project, "box", "body"), "point", "hand");
  return addBox(project, "idle", row(0), "body" as MarkName, ref(0, 0), { x: 1, y: 1, w: 4, h: 6 });
}

const base = begun();
const clean = (ours: Project, theirs: Project): Project => {
  const { project, conflicts } = mergeProjects(base, ours, theirs);
  expect(conflicts).toEqual([]);
  return project;
};

/** Edits of things that have nothing to do with each other. */
const EDITS: readonly ((project: Project) => Project)[] = [
  (p) => setStepDurations(p, clip("idle"), [0, 1], 250_000),
  (p) => setClipRules(p, clip("walk"), { playback: "pingpong" }),
  (p) => renameClip(p, clip("strike"), "blow"),
  (p) => putPoint(p, "idle", [ref(1, 0)], "hand" as MarkName, ref(1, 0), { x: 3, y: 4 }),
  (p) => placeOrigins(p, "walk", new Map([[ref(2, 1), { x: 2, y: 9 }]])),
  (p) => addClip(p, [ref(3, 2), ref(0, 0)], "turn"),
  (p) => setDelivery(p, 0, { filter: "linear" }),
  (p) => setDelivery(p, 0, { data: { contact: true } }),
  (p) => setStepEvents(p, clip("walk"), [2], ["footfall"]),
  (p) => renameMarkKind(p, "body" as MarkName, "torso"),
  (p) => setPetal(p, "go" as ActionName, "w", { clip: clip("walk"), mirror: true }),
  (p) => addMarkKind(p, "outline", "edge"),
  (p) => setData(p, { clips: [clip("walk")] }, "cost", 3),
  (p) => setData(p, { frames: [ref(1, 0)] }, "heavy", true),
];

describe("merging", () => {
  it("of edits of different things gives both, whichever side made which", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom("ours", "theirs", "nobody"), { minLength: EDITS.length, maxLength: EDITS.length }), (whose) => {
        const made = (side: string) => EDITS.reduce((project, edit, k) => (whose[k] === side ? edit(project) : project), base);
        const all = EDITS.reduce((project, edit, k) => (whose[k] === "nobody" ? project : edit(project)), base);
        const project = clean(made("ours"), made("theirs"));
        // New things of both sides may stand in either order.
        const sorted = ({ clips, marks, ...rest }: Project) => ({
          ...rest,
          clips: clips.toSorted((a, b) => (a.name < b.name ? -1 : 1)),
          marks: marks.toSorted((a, b) => (a.name < b.name ? -1 : 1)),
        });
        expect(sorted(project)).toEqual(sorted(all));
      }),
      { numRuns: 200 },
    );
  });

  it("with an unchanged side gives the other one", () => {
    for (const edit of EDITS) {
      expect(clean(edit(base), base)).toEqual(edit(base));
      expect(clean(base, edit(base))).toEqual(edit(base));
      expect(clean(edit(base), edit(base))).toEqual(edit(base));
    }
  });

  it("of steps of one clip is by position", () => {
    const ours = setStepDurations(base, clip("walk"), [0], 50_000);
    const theirs = setStepEvents(base, clip("walk"), [3], ["land"]);
    expect(clean(ours, theirs).clips[1]?.steps.map(({ duration, events }) => [duration, events])).toEqual([
      [50_000, undefined],
      [100_000, undefined],
      [100_000, undefined],
      [100_000, ["land"]],
    ]);
  });

  it("applies renames of one side to new references of the other", () => {
    const ours = renameClip(base, clip("idle"), "rest");
    const theirs = setPetal(addAction(base, "stay", 2), "stay" as ActionName, "e", { clip: clip("idle") });
    expect(clean(ours, theirs).actions.at(-1)?.facings).toEqual({ e: { clip: "rest" } });
    expect(clean(theirs, ours).actions.at(-1)?.facings).toEqual({ e: { clip: "rest" } });
  });

  it("knows an action that was renamed together with its clip, and a kind of marks whose letter followed its name", () => {
    const ours = renameAction(renameClip(base, clip("walk"), "stride"), "go" as ActionName, "move");
    const theirs = setPetal(base, "go" as ActionName, "w", { clip: clip("walk"), mirror: true });
    for (const project of [clean(ours, theirs), clean(theirs, ours)])
      expect(project.actions).toMatchObject([{ name: "move", facings: { e: { clip: "stride" }, w: { clip: "stride", mirror: true } } }]);

    const torso = setBoxUse(renameMarkKind(base, "body" as MarkName, "torso"), "torso" as MarkName, "hurt");
    const more = addBox(base, "walk", row(1), "body" as MarkName, ref(0, 1), { x: 2, y: 2, w: 3, h: 3 });
    for (const project of [clean(torso, more), clean(more, torso)]) {
      expect(project.marks).toMatchObject([{ name: "torso", letter: "T", use: "hurt" }, { name: "hand" }]);
      const named = project.sources.flatMap(({ frames }) => frames.flatMap(({ marks }) => Object.keys(marks?.boxes ?? {})));
      expect(named).toEqual(Array.from({ length: 8 }, () => "torso"));
    }
  });

  it("knows a clip whose frames changed along with its name, unless two could be it", () => {
    const shorter = removeSteps(renameClip(base, clip("walk"), "stride"), clip("stride"), [3]);
    const theirs = setClipRules(setPetal(base, "go" as ActionName, "w", { clip: clip("walk") }), clip("walk"), { playback: "pingpong" });
    for (const project of [clean(shorter, theirs), clean(theirs, shorter)]) {
      expect(project.clips.map(({ name }) => name)).toEqual(["idle", "stride", "strike"]);
      expect(project.clips[1]).toMatchObject({ playback: "pingpong", steps: [0, 1, 2].map((k) => ({ frame: ref(k, 1) })) });
      expect(project.actions).toMatchObject([{ facings: { e: { clip: "stride" }, w: { clip: "stride" } } }]);
    }
    const parted = addClip(shorter, row(1).slice(1), "amble");
    const { project, conflicts } = mergeProjects(base, parted, theirs);
    expect(project.clips.map(({ name }) => name).toSorted()).toEqual(["amble", "idle", "stride", "strike", "walk"]);
    expect(conflicts.map(({ where }) => where)).toEqual(["clips, walk"]);
  });

  it("knows actions, palettes and behaviours that were changed along with their names", () => {
    const colours = ["#111111", "#222222", "#333333", "#444444"];
    const rules = ["rest", "go", "hit"].map((name) => ({ name, when: [], play: clip("idle") }));
    let more: Project = addPalette(base, { name: "dusk", colours });
    more = { ...more, behaviours: [{ name: "porter" as BehaviourName, inputs: [], rules }] };
    for (const facing of ["n", "s"] as const) more = setPetal(setWays(more, GO, 4), GO, facing, { clip: clip("walk") });

    let ours = setPaletteColours(renamePalette(more, "dusk", "evening"), "evening", [...colours.slice(0, 3), "#999999"]);
    ours = setRule(renameBehaviour(ours, "porter" as BehaviourName, "walker"), "walker" as BehaviourName, "hit", { play: clip("strike") });
    ours = setPetal(renameAction(ours, GO, "move"), "move" as ActionName, "s", { clip: clip("idle") });
    let theirs = setSourcePalette(more, "s1" as SourceId, "dusk");
    theirs = setRule(theirs, "porter" as BehaviourName, "rest", { play: GO as string as ClipName });
    theirs = setPetal(theirs, GO, "w", { clip: clip("walk"), mirror: true });

    for (const [one, other] of [
      [ours, theirs],
      [theirs, ours],
    ] as const) {
      const { project, conflicts } = mergeProjects(more, one, other);
      expect(conflicts).toEqual([]);
      expect(project.palettes).toEqual([{ name: "evening", colours: [...colours.slice(0, 3), "#999999"] }]);
      expect(project.sources[0]?.palette).toBe("evening");
      expect(project.behaviours).toMatchObject([{ name: "walker", rules: [{ play: "move" }, { play: "idle" }, { play: "strike" }] }]);
      expect(project.actions).toMatchObject([
        { name: "move", facings: { e: { clip: "walk" }, n: { clip: "walk" }, s: { clip: "idle" }, w: { clip: "walk", mirror: true } } },
      ]);
    }
  });

  it("does not take a new kind of marks for a removed one that looks like it", () => {
    const ours = addMarkKind(removeMarkKind(base, "body" as MarkName), "box", "reach");
    const theirs = addBox(base, "walk", row(1), "body" as MarkName, ref(0, 1), { x: 2, y: 2, w: 3, h: 3 });
    const { project, conflicts } = mergeProjects(base, ours, theirs);
    expect(project.marks.map(({ name }) => name).toSorted()).toEqual(["body", "hand", "reach"]);
    expect(conflicts.map(({ where }) => where)).toEqual(["marks, body"]);
  });

  it("keeps two sources apart that got the same id", () => {
    const sheet = sheetOfCells(2, 1);
    const withSource = (name: string, letter: string, frames: number) => {
      const added = addSources(base, [{ fileName: `${name}.png`, sha256: letter.repeat(64), width: 16, height: 10 }]);
      const none = { x: 0, y: 0 };
      const cut = cutSource(
        added,
        "s2" as SourceId,
        { by: "cell", cell: { w: 8, h: 10 }, margin: none, gap: none, keepEmpty: false },
        coverageOf(sheet),
      );
      return addClip(
        cut,
        Array.from({ length: frames }, (_, k) => `s2/c${k}r0` as FrameRef),
        name,
      );
    };
    const project = clean(withSource("camel", "c", 1), withSource("well", "d", 2));
    expect(project.sources.map(({ id, name }) => [id, name])).toEqual([
      ["s1", base.sources[0]?.name],
      ["s2", "camel"],
      ["s3", "well"],
    ]);
    expect(project.clips.find(({ name }) => name === "well")?.steps.map(({ frame }) => frame)).toEqual(["s3/c0r0", "s3/c1r0"]);
    expect(project.clips.find(({ name }) => name === "camel")?.steps.map(({ frame }) => frame)).toEqual(["s2/c0r0"]);
  });
});

describe("conflicts for a person", () => {
  const two = (() => {
    const added = addSources(base, [{ fileName: "well.png", sha256: "d".repeat(64), width: 16, height: 10 }]);
    const none = { x: 0, y: 0 };
    return cutSource(
      added,
      "s2" as SourceId,
      { by: "cell", cell: { w: 8, h: 10 }, margin: none, gap: none, keepEmpty: false },
      coverageOf(sheetOfCells(2, 1)),
    );
  })();
  const conflicts = (ours: Project, theirs: Project) => mergeProjects(base, ours, theirs);

  it("are reported with their place, and ours is kept", () => {
    const { project, conflicts: found } = conflicts(
      setClipRules(base, clip("walk"), { playback: "once" }),
      setClipRules(base, clip("walk"), { playback: "pingpong" }),
    );
    expect(found.map(({ where }) => where)).toEqual(["clips, walk, playback"]);
    expect(project.clips[1]?.playback).toBe("once");
  });

  it("never lose work: what one removed and the other changed is kept", () => {
    const changed = setStepDurations(base, clip("strike"), [1], 40_000);
    for (const [ours, theirs] of [
      [removeClip(base, clip("strike")), changed],
      [changed, removeClip(base, clip("strike"))],
    ] as const) {
      const { project, conflicts: found } = conflicts(ours, theirs);
      expect(found).toHaveLength(1);
      expect(found[0]?.where).toBe("clips, strike");
      expect(project.clips.find(({ name }) => name === "strike")?.steps[1]?.duration).toBe(40_000);
    }
  });

  it("is a step that both changed, a name that both gave otherwise, and an order that both made", () => {
    const steps = conflicts(setStepDurations(base, clip("walk"), [0], 1000), setStepDurations(base, clip("walk"), [0], 2000));
    expect(steps.conflicts.map(({ where }) => where)).toEqual(["clips, walk, steps"]);
    const names = conflicts(renameClip(base, clip("walk"), "stroll"), renameClip(base, clip("walk"), "stride"));
    expect(names.conflicts).toEqual([{ where: "clips, walk", message: "We renamed it stroll and they stride; ours is kept." }]);
    expect(names.project.clips.map(({ name }) => name)).toEqual(["idle", "stroll", "strike"]);
    expect(names.project.actions[0]?.facings).toEqual({ e: { clip: "stroll" } });
    const moved = conflicts(moveSteps(base, clip("walk"), [0], 4), moveSteps(base, clip("walk"), [3], 0));
    expect(moved.project.clips[1]?.steps).toHaveLength(4);
  });

  it("restore what one side removed and the other's work needs, and report it", () => {
    const without = removeClip(base, clip("strike"));
    const using = setPetal(base, "go" as ActionName, "w", { clip: clip("strike") });
    for (const [ours, theirs] of [
      [without, using],
      [using, without],
    ] as const) {
      const { project, conflicts } = mergeProjects(base, ours, theirs);
      expect(project.clips.find(({ name }) => name === "strike")).toEqual(base.clips.find(({ name }) => name === "strike"));
      expect(project.actions[0]?.facings.w?.clip).toBe("strike");
      expect(conflicts).toEqual([
        { where: "clips, strike", message: expect.stringContaining("the action go of the other needs it; it is kept") },
      ]);
    }
    // A source, for a clip that the other side has made of its frames; what lost its steps with the source stays as it was left there.
    const noArt = removeSource(two, "s2" as SourceId);
    const more = addClip(two, ["s2/c0r0" as FrameRef], "drink");
    for (const [ours, theirs] of [
      [noArt, more],
      [more, noArt],
    ] as const) {
      const { project, conflicts } = mergeProjects(two, ours, theirs);
      expect(project.sources.map(({ name }) => name)).toEqual(["porter", "well"]);
      expect(project.clips.find(({ name }) => name === "drink")?.steps).toMatchObject([{ frame: "s2/c0r0" }]);
      expect(conflicts).toEqual([
        { where: "sources, well", message: expect.stringContaining("the clip drink of the other needs it; it is kept") },
      ]);
    }
    const noKind = removeMarkKind(base, "hand" as MarkName);
    const marked = putPoint(base, "idle", [ref(1, 0)], "hand" as MarkName, ref(1, 0), { x: 3, y: 4 });
    const { project, conflicts } = mergeProjects(base, noKind, marked);
    expect(project.marks.map(({ name }) => name)).toContain("hand");
    expect(conflicts).toMatchObject([{ where: "marks, hand" }]);
  });

  it("are what is right on each side and wrong together", () => {
    const dropped = dropFrames(base, [ref(3, 2)]);
    const shown = addClip(base, [ref(3, 2)], "turn");
    for (const [ours, theirs] of [
      [dropFrames(removeClip(base, clip("strike")), [ref(3, 2)]), shown],
      [shown, dropFrames(removeClip(base, clip("strike")), [ref(3, 2)])],
    ] as const)
      expect(mergeProjects(base, ours, theirs).conflicts).toEqual([
        { where: 'clip "turn"', message: expect.stringMatching(/^Each side is right alone, but not together: 1 step \(0\) shows a frame/) },
      ]);
    // What one side has left so is known there.
    expect(mergeProjects(base, dropped, base).conflicts).toEqual([]);

    const rest = { name: "rest", when: [], play: "idle" as ClipName };
    const behaving = { ...base, behaviours: [{ name: "porter" as BehaviourName, inputs: [], rules: [rest] }] };
    const { conflicts } = mergeProjects(base, behaving, removeClip(base, clip("idle")));
    expect(conflicts).toEqual([expect.objectContaining({ message: expect.stringContaining('no action or clip "idle" with steps') })]);
  });
});
