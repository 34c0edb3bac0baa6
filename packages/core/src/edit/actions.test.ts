import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { matchFacings } from "../facing";
import {
  type ActionName,
  actionNamed,
  type ClipName,
  clipNamed,
  clipsOfAction,
  FACINGS_OF,
  type Facing,
  type FrameRef,
  framesOfClips,
  originOf,
  type Ways,
} from "../model";
import {
  actionOfRows,
  addAction,
  addClip,
  addsFacings,
  forgetOrigins,
  joinClips,
  makeActions,
  mirroredRows,
  mirrorMissing,
  nudgeOrigins,
  placeOrigins,
  removeClip,
  renameAction,
  renameClip,
  rowsAsFacings,
  rowsOfSource,
  setPetal,
  setSourceOrigin,
  setWays,
} from ".";
import { PORTER, porterProject } from "./project.fixture";

const ref = (column: number, row: number) => `s1/c${column}r${row}` as FrameRef;
const clip = (name: string) => name as ClipName;
const GO = "go" as ActionName;
const base = ["walk_e", "walk_s", "walk_n"].reduce(
  (project, name, row) => addClip(project, [ref(0, row), ref(1, row), ref(2, row)], name),
  porterProject(),
);
const facings = (project: typeof base, name: string = GO) => actionNamed(project, name).facings;

describe("an action", () => {
  const four = [
    ["e", "walk_e"],
    ["s", "walk_s"],
    ["n", "walk_n"],
  ].reduce((project, [facing, name]) => setPetal(project, GO, facing as Facing, { clip: clip(name as string) }), addAction(base, "go", 4));

  it("holds a clip, a mirror or nothing for each facing of its rose", () => {
    const mirrored = mirrorMissing(four, GO);
    expect(facings(mirrored)).toEqual({
      e: { clip: "walk_e" },
      s: { clip: "walk_s" },
      w: { clip: "walk_e", mirror: true },
      n: { clip: "walk_n" },
    });
    expect(mirrorMissing(mirrored, GO)).toBe(mirrored);
    expect(facings(setPetal(mirrored, GO, "w", null))).toEqual(facings(four));
    expect(() => setPetal(four, GO, "se", { clip: clip("walk_e") })).toThrow(/4 facings, and se is not one of them/);
    expect(() => setPetal(four, GO, "w", { clip: clip("gone") })).toThrow(/no such clip/);
  });

  it("follows its clips when they are renamed, joined or removed", () => {
    expect(facings(renameClip(four, clip("walk_e"), "stroll")).e).toEqual({ clip: "stroll" });
    expect(facings(removeClip(four, clip("walk_s")))).not.toHaveProperty("s");
    expect(Object.keys(facings(joinClips(four, clip("walk_e"), [clip("walk_n")])))).toEqual(["e", "s"]);
  });

  it("keeps the facings that another rose has too, and always in the rose's own order", () =>
    fc.assert(
      fc.property(fc.shuffledSubarray([...FACINGS_OF[8]]), fc.constantFrom<Ways>(1, 2, 4, 8), (some, ways) => {
        const eight = some.reduce((project, facing) => setPetal(project, GO, facing, { clip: clip("walk_e") }), addAction(base, "go", 8));
        expect(Object.keys(facings(eight))).toEqual(FACINGS_OF[8].filter((each) => some.includes(each)));
        expect(Object.keys(facings(setWays(eight, GO, ways)))).toEqual(FACINGS_OF[ways].filter((each) => some.includes(each)));
      }),
    ));

  it("is made by names, and an existing one only gets what it lacks", () => {
    const names = base.clips.map(({ name }) => name);
    const made = makeActions(base, matchFacings(names, { first: "e", clockwise: true }));
    expect(actionNamed(made, "walk")).toEqual({
      name: "walk",
      ways: 4,
      facings: { e: { clip: "walk_e" }, s: { clip: "walk_s" }, n: { clip: "walk_n" } },
    });
    const matched = matchFacings(names, { first: "e", clockwise: true });
    expect(matched.map((each) => [addsFacings(base, each), addsFacings(made, each)])).toEqual(matched.map(() => [true, false]));
    expect(matched.some((each) => addsFacings(setPetal(made, "walk" as ActionName, "n", null), each))).toBe(true);
    const own = setPetal(made, "walk" as ActionName, "n", { clip: clip("walk_s"), mirror: true });
    expect(facings(makeActions(own, matchFacings(names, { first: "e", clockwise: true })), "walk").n).toEqual({
      clip: "walk_s",
      mirror: true,
    });
  });

  it("is made of the rows of a clip, from a facing on, round either way", () => {
    const rows = [0, 1].flatMap((row) => [0, 1, 2].map((column) => ref(column, row)));
    const whole = addClip(porterProject(), rows, "stroll");
    const parted = rowsAsFacings(whole, clip("stroll"), { first: "w", clockwise: false });
    expect(parted.clips.map(({ name, steps }) => [name, steps.length])).toEqual([
      ["stroll-w", 3],
      ["stroll-e", 3],
    ]);
    expect(actionNamed(parted, "stroll")).toEqual({
      name: "stroll",
      ways: 2,
      facings: { e: { clip: "stroll-e" }, w: { clip: "stroll-w" } },
    });
    expect(() => rowsAsFacings(base, clip("walk_e"), { first: "s", clockwise: true })).toThrow(/not 2, 4 or 8 of equal length/);
  });

  it("is made of the rows of a sheet, each a clip, and missing facings mirrored", () => {
    const [source] = porterProject().sources;
    expect(rowsOfSource(source as never)).toEqual([0, 1, 2]);
    const order = mirroredRows(4, 3);
    const made = actionOfRows(
      porterProject(),
      PORTER,
      "step",
      4,
      order.map((facing, row) => ({ row, facing })),
      true,
    );
    expect(facings(made, "step")).toEqual({
      e: { clip: "step-e" },
      s: { clip: "step-s" },
      w: { clip: "step-e", mirror: true },
      n: { clip: "step-n" },
    });
    expect(clipNamed(made, "step-n").steps.map(({ frame }) => frame)).toEqual([0, 1, 2, 3].map((column) => ref(column, 2)));
    expect(() => addAction(made, "step", 4)).toThrow(/already an action/);
    expect(renameAction(made, "step" as ActionName, " step ")).toBe(made);
  });
});

describe("origins", () => {
  const refs = framesOfClips(base.clips.slice(0, 1));
  const origins = (project: typeof base) => (project.sources[0]?.frames ?? []).map((frame) => originOf(project.sources[0] as never, frame));

  it("of a clip are those of its frames; others stay", () => {
    const placed = placeOrigins(base, "walk_e", new Map(refs.map((each, k) => [each, { x: k, y: 7.5 }])));
    expect(origins(placed).slice(0, 4)).toEqual([
      { x: 0, y: 7.5 },
      { x: 1, y: 7.5 },
      { x: 2, y: 7.5 },
      { x: 4, y: 10 },
    ]);
    expect(forgetOrigins(placed, "walk_e", refs)).toEqual(base);
    expect(forgetOrigins(base, "walk_e", refs)).toBe(base);
    expect(() => placeOrigins(base, "x", new Map([[ref(0, 0), { x: 0.25, y: 0 }]]))).toThrow(/whole or half pixels/);
  });

  it("move together, each from its place, and back again", () =>
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -40, max: 40 }), (x, y) => {
        const by = { x: x / 2, y: y / 2 };
        const stood = setSourceOrigin(base, PORTER, { x: 2.5, y: 9 });
        const moved = nudgeOrigins(stood, "walk_e", refs, by);
        expect(origins(moved)[0]).toEqual({ x: 2.5 + by.x, y: 9 + by.y });
        expect(origins(moved)[3]).toEqual({ x: 2.5, y: 9 });
        expect(origins(nudgeOrigins(moved, "walk_e", refs, { x: -by.x, y: -by.y }))).toEqual(origins(stood));
      }),
    ));

  it("of an action are those of all its clips, each frame once", () => {
    const action = mirrorMissing(setPetal(addAction(base, "go", 2), GO, "e", { clip: clip("walk_e") }), GO);
    expect(framesOfClips(clipsOfAction(action, actionNamed(action, "go")))).toHaveLength(3);
  });
});
