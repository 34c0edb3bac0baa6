import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { nameFindings } from "../check/action-findings";
import type { ActionName, ClipName, FrameRef, Piece, Project, SourceId } from "../model";
import { addAction, mirrorMissing, setPetal } from "./actions";
import { addSources } from "./add-sources";
import { addClip, renameClip } from "./clips";
import { setDelivery } from "./deliveries";
import { addPalette, renamePalette } from "./palettes";
import {
  addFrameOfPieces,
  addPiecesSource,
  colourPieces,
  exchangeEverywhere,
  flipPieces,
  groupPieces,
  mergePieces,
  mirrorPieces,
  movePieces,
  placeInStack,
  putPieces,
  restackPieces,
  setCanvas,
  ungroupPieces,
  withGroups,
} from "./pieces";
import { porterProject } from "./project.fixture";
import { freeSourceId } from "./source-id";
import { removeSource } from "./sources";
import { placesRestacked } from "./stacking";
import { addVariants, clipsAlike, clipsToDress } from "./variants";

const part = (column: number) => `s1/c${column}r0` as FrameRef;
const first = "s2/a0" as FrameRef;
const bare = () => addPiecesSource(porterProject(), "bearer", { w: 32, h: 24 });
const piecesOn = (project: Project, key = "a0"): readonly Piece[] =>
  project.sources[1]?.frames.find((frame) => frame.key === key)?.pieces ?? [];
const columns = (project: Project, key?: string) => piecesOn(project, key).map(({ of }) => Number(of.slice(4, 5)));
const stacked = () =>
  putPieces(
    bare(),
    first,
    [0, 1, 2, 3].map((k) => ({ of: part(k), x: 0, y: 0 })),
    null,
  );

describe("assembled frames", () => {
  it("take pieces on top or at a place in the stack, but no assembled frames", () => {
    expect(columns(putPieces(stacked(), first, [{ of: part(0), x: 1, y: 1 }], 1))).toEqual([0, 0, 1, 2, 3]);
    expect(() => putPieces(stacked(), first, [{ of: first, x: 0, y: 0 }], null)).toThrow(/put together itself/);
    expect(() => putPieces(stacked(), first, [{ of: "s9/c0r0" as FrameRef, x: 0, y: 0 }], null)).toThrow(/no such frame/);
    expect(() => putPieces(stacked(), part(0), [{ of: part(1), x: 0, y: 0 }], null)).toThrow(/not put together/);
  });

  it("restack one step or all the way, several as one, and never lose a piece", () => {
    expect(columns(restackPieces(stacked(), first, [2], "down"))).toEqual([0, 2, 1, 3]);
    expect(columns(restackPieces(stacked(), first, [1, 2], "up"))).toEqual([0, 3, 1, 2]);
    expect(columns(restackPieces(stacked(), first, [2, 3], "up"))).toEqual([0, 1, 2, 3]);
    expect(columns(restackPieces(stacked(), first, [0, 2], "top"))).toEqual([1, 3, 0, 2]);
    expect(columns(placeInStack(stacked(), first, [3], 1))).toEqual([0, 3, 1, 2]);
    fc.assert(
      fc.property(fc.subarray([0, 1, 2, 3]), fc.constantFrom("up", "down", "top", "bottom"), (places, to) => {
        const after = columns(restackPieces(stacked(), first, places, to as "up"));
        expect([...after].sort()).toEqual([0, 1, 2, 3]);
        expect(placesRestacked(4, places, to as "up").map((place) => after[place])).toEqual(places);
      }),
    );
  });

  it("flipped or mirrored twice are restored, and pieces moved there move back", () =>
    fc.assert(
      fc.property(fc.subarray([0, 1, 2, 3]), fc.constantFrom("across", "down"), fc.integer(), (places, way, x) => {
        const project = movePieces(stacked(), first, [1], { x: 5, y: -3 });
        const twice = (change: (project: Project) => Project) => piecesOn(change(change(project)));
        expect(twice((each) => flipPieces(each, first, places, way as "across"))).toEqual(piecesOn(project));
        expect(twice((each) => mirrorPieces(each, first, places))).toEqual(piecesOn(project));
        const by = x % 1000;
        const there = movePieces(project, first, places, { x: by, y: 1 });
        expect(piecesOn(movePieces(there, first, places, { x: -by, y: -1 }))).toEqual(piecesOn(project));
      }),
    ));

  it("are copied after the previous one, changed together, and keep what is outside a smaller canvas", () => {
    const two = addFrameOfPieces(stacked(), first, true);
    expect(two.sources[1]?.frames.map(({ key, number }) => [key, number])).toEqual([
      ["a0", 0],
      ["a1", 1],
    ]);
    const other = exchangeEverywhere(two, [first, "s2/a1" as FrameRef], part(0), part(3));
    expect([columns(other), columns(other, "a1")]).toEqual([
      [3, 1, 2, 3],
      [3, 1, 2, 3],
    ]);
    const small = setCanvas(movePieces(two, first, [0], { x: 30, y: 0 }), "s2" as SourceId, { w: 4, h: 4 });
    expect(piecesOn(small)[0]?.x).toBe(30);
    expect(() => setCanvas(two, "s2" as SourceId, { w: 5000, h: 4 })).toThrow(/1 to 4096 px/);
    expect(() => addPiecesSource(porterProject(), "x", { w: 0, h: 4 })).toThrow(/1 to 4096 px/);
  });
});

describe("ids of sources", () => {
  it("are never those that a piece still names", () => {
    const far = putPieces(bare(), first, [{ of: part(0), x: 0, y: 0 }], null);
    const named = {
      ...far,
      sources: far.sources.map((source) => ({
        ...source,
        frames: source.frames.map((frame) => (frame.pieces ? { ...frame, pieces: [{ of: "s7/c0r0" as FrameRef, x: 0, y: 0 }] } : frame)),
      })),
    };
    expect(freeSourceId(named)).toBe("s8");
  });

  it("are never those that a delivery, a clip or a stage still names, so that a new sheet is not taken for a removed one", () => {
    const two = addSources(porterProject(), [{ fileName: "well.png", sha256: "d".repeat(64), width: 16, height: 10 }]);
    const chosen = setDelivery(two, 0, { choice: { of: "frames", names: [], pattern: "", frames: ["s2/c0r0" as FrameRef] } });
    const again = addSources(removeSource(chosen, "s2" as SourceId), [
      { fileName: "oasis.png", sha256: "e".repeat(64), width: 16, height: 10 },
    ]);
    expect(again.sources.map(({ id }) => id)).toEqual(["s1", "s3"]);
  });
});

describe("a piece used for another that is nearly the same", () => {
  it("is placed like the other, flipped as told, and nothing else changes", () => {
    let project = flipPieces(stacked(), first, [0], "across");
    const [from, to] = [piecesOn(project)[0]?.of, piecesOn(project)[1]?.of] as [FrameRef, FrameRef];
    project = mergePieces(project, [first], from, to, "both");
    expect(piecesOn(project)[0]).toMatchObject({ of: to, flip: "down" });
    expect(piecesOn(mergePieces(project, [first], to, from, "down"))[0]).toEqual({ ...piecesOn(stacked())[0], of: from });
    expect(piecesOn(project).slice(1)).toEqual(piecesOn(stacked()).slice(1));
    expect(() => mergePieces(project, [first], to, "s9/c0r0" as FrameRef)).toThrow(/no such frame/);
  });
});

describe("groups of pieces", () => {
  it("are selected whole, and remove a piece from its former group", () => {
    let project = groupPieces(stacked(), first, [0, 2]);
    expect(withGroups(piecesOn(project), [2])).toEqual([0, 2]);
    expect(withGroups(piecesOn(project), [1])).toEqual([1]);
    project = groupPieces(project, first, [2, 3]);
    expect(piecesOn(project).map(({ group }) => group ?? null)).toEqual([1, null, 2, 2]);
    expect(piecesOn(ungroupPieces(project, first, [2, 3])).map(({ group }) => group ?? null)).toEqual([1, null, null, null]);
    expect(() => groupPieces(project, first, [1, 1])).toThrow(/group needs at least two/);
  });

  it("stay apart from those that are there when they are pasted", () => {
    const project = groupPieces(stacked(), first, [0, 1]);
    const copied = piecesOn(project).slice(0, 2);
    expect(piecesOn(putPieces(project, first, copied, null)).map(({ group }) => group ?? null)).toEqual([1, 1, null, null, 2, 2]);
    const next = addFrameOfPieces(project, first, false);
    expect(piecesOn(putPieces(next, "s2/a1" as FrameRef, copied, null), "a1").map(({ group }) => group)).toEqual([1, 1]);
  });
});

describe("variants in other colours", () => {
  const dressed = () => {
    let project = addFrameOfPieces(stacked(), first, true);
    project = addPalette(project, { name: "robe", colours: ["#111111"] });
    project = addPalette(project, { name: "guard", of: "robe", colours: ["#222222"] });
    project = addPalette(project, { name: "elder", of: "robe", colours: ["#333333"] });
    return addClip(colourPieces(project, first, [3], "elder"), [first, "s2/a1" as FrameRef], "walk");
  };

  it("are frames and clips named after the palette; pieces in other colours stay", () => {
    const project = addVariants(dressed(), ["walk" as ClipName], "guard");
    expect(project.clips.map(({ name }) => name)).toEqual(["walk", "walk-guard"]);
    expect(project.clips[1]?.steps.map(({ frame }) => frame)).toEqual(["s2/a2", "s2/a3"]);
    expect(piecesOn(project, "a2").map(({ palette }) => palette)).toEqual(["guard", "guard", "guard", "elder"]);
    expect(piecesOn(project).map(({ palette }) => palette ?? null)).toEqual([null, null, null, "elder"]);
    expect(clipsToDress(project, "guard")).toEqual(["walk"]);
    expect(clipsToDress(project, "robe")).toEqual([]);
    expect(() => addVariants(project, ["walk" as ClipName], "robe")).toThrow(/replaces no other palette/);
  });

  it("are distinguished from other clips by what they show, whatever their names", () => {
    let project = addVariants(dressed(), ["walk" as ClipName], "guard");
    project = renameClip(project, "walk-guard" as ClipName, "the watch");
    const [walk] = project.clips as [Project["clips"][number]];
    expect(clipsAlike(project, walk)).toEqual(["walk", "the watch"]);
    const [twin] = (project.clips[1] as typeof walk).steps;
    expect(clipsAlike(movePieces(project, twin?.frame as FrameRef, [0], { x: 1, y: 0 }), walk)).toEqual(["walk"]);
  });

  it("are actions too if every clip of an action is recoloured, mirrored where it is", () => {
    let project = setPetal(addAction(dressed(), "going", 4), "going" as ActionName, "e", { clip: "walk" as ClipName });
    project = addVariants(mirrorMissing(project, "going" as ActionName), ["walk" as ClipName], "guard");
    expect(project.actions.map(({ name }) => name)).toEqual(["going", "going-guard"]);
    expect(project.actions[1]).toMatchObject({ ways: 4, facings: { e: { clip: "walk-guard" }, w: { clip: "walk-guard", mirror: true } } });
    expect(nameFindings(project)).toEqual([]);
    project = addClip(project, [first], "stand");
    project = setPetal(project, "going" as ActionName, "s", { clip: "stand" as ClipName });
    expect(addVariants(project, ["walk" as ClipName], "elder").actions).toHaveLength(2);
  });

  it("follow a palette under its new name", () => {
    const project = renamePalette(addVariants(dressed(), ["walk" as ClipName], "guard"), "guard", "watch");
    expect(piecesOn(project, "a2").map(({ palette }) => palette)).toEqual(["watch", "watch", "watch", "elder"]);
    expect(renamePalette(project, "robe", "cloth").palettes?.map(({ of }) => of ?? null)).toEqual([null, "cloth", "cloth"]);
  });
});
