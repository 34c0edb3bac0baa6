import { describe, expect, it } from "vitest";
import { matchFacings } from "../facing";
import { type ClipName, type FrameRef, type Project, sourceById } from "../model";
import { clipsOfRows, dropFrames, framesByNames, makeActionsByNames, nameFrames } from ".";
import { PORTER, porterProject } from "./project.fixture";

const FROM_S = { first: "s", clockwise: true } as const;
const ref = (column: number, row: number) => `s1/c${column}r${row}` as FrameRef;
const base = porterProject();
const shown = (project: Project) => project.clips.map(({ name, steps }) => [name, steps.map(({ frame }) => frame)]);

describe("clips of rows", () => {
  it("are made in one edit, in the order of the given rows, from the kept frames of each", () => {
    const project = clipsOfRows(dropFrames(base, [ref(1, 0)]), PORTER, [
      { row: 0, name: "idle" },
      { row: 2, name: "walk" },
    ]);
    expect(shown(project)).toEqual([
      ["idle", [ref(0, 0), ref(2, 0), ref(3, 0)]],
      ["walk", [ref(0, 2), ref(1, 2), ref(2, 2), ref(3, 2)]],
    ]);
  });

  it("are all made or none: a taken, duplicate or invalid name changes nothing", () => {
    const one = clipsOfRows(base, PORTER, [{ row: 0, name: "idle" }]);
    expect(() =>
      clipsOfRows(one, PORTER, [
        { row: 1, name: "new" },
        { row: 2, name: "idle" },
      ]),
    ).toThrow(/already a clip/);
    expect(() =>
      clipsOfRows(base, PORTER, [
        { row: 1, name: "a" },
        { row: 2, name: " a " },
      ]),
    ).toThrow(/already a clip/);
    expect(() => clipsOfRows(base, PORTER, [{ row: 1, name: " " }])).toThrow();
    expect(() => clipsOfRows(base, PORTER, [{ row: 9, name: "none" }])).toThrow(/no frames/);
  });

  it("with facings in their names make the requested actions", () => {
    const names = ["walk_e", "walk_s", "walk_w"];
    const matched = matchFacings(names as ClipName[], FROM_S);
    const project = clipsOfRows(
      base,
      PORTER,
      names.map((name, row) => ({ row, name })),
      matched,
    );
    expect(project.actions).toMatchObject([{ name: "walk", ways: 4, facings: { e: { clip: "walk_e" }, s: {}, w: {} } }]);
  });
});

describe("actions by names, without clips", () => {
  const named = nameFrames(
    nameFrames(base, PORTER, ["c0r0", "c1r0"], { text: "go_left_{n}", start: 0, step: 1, padding: 2 }),
    PORTER,
    ["c0r1", "c1r1"],
    { text: "go_right_{n}", start: 0, step: 1, padding: 2 },
  );

  it("use frames whose names differ only in a number", () => {
    const frames = framesByNames(named);
    expect(frames).toEqual([
      { name: "go_left", refs: [ref(0, 0), ref(1, 0)] },
      { name: "go_right", refs: [ref(0, 1), ref(1, 1)] },
    ]);
    const matched = matchFacings(
      frames.map(({ name }) => name as ClipName),
      FROM_S,
    );
    const project = makeActionsByNames(named, matched, frames);
    expect(project.actions).toMatchObject([{ name: "go", facings: { e: { clip: "go_right" }, w: { clip: "go_left" } } }]);
    expect(framesByNames(project)).toEqual([]);
  });

  it("use sources named after a facing, and no others", () => {
    expect(framesByNames(base)).toEqual([]);
    const facing = { ...base, sources: [{ ...sourceById(base, PORTER), name: "walk-left" }] } as Project;
    expect(framesByNames(facing).map(({ name, refs }) => [name, refs.length])).toEqual([["walk-left", 12]]);
  });
});
