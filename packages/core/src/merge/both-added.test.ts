import { describe, expect, it } from "vitest";
import { addAction, addBox, addClip, addMarkKind, addPalette, putPoint, setPetal } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { type ActionName, type ClipName, checkDocument, type FrameRef, type MarkName, type Project, USUAL_DELIVERY } from "../model";
import { mergeProjects } from "./merge";

const base = porterProject();
const ref = (column: number, row = 0) => `s1/c${column}r${row}` as FrameRef;
const named = (list: readonly { readonly name: string }[] = []) => list.map(({ name }) => name);
const strike = (refs: FrameRef[]) =>
  setPetal(addAction(addClip(base, refs, "attack"), "strike", 4), "strike" as ActionName, "e", { clip: "attack" as ClipName });

function together(ours: Project, theirs: Project) {
  const merged = mergeProjects(base, ours, theirs);
  checkDocument(merged.project, "merged");
  return merged;
}

describe("what both sides have added under one name", () => {
  it("is kept twice if it is not the same, with all references", () => {
    const { project, conflicts } = together(strike([ref(0), ref(1)]), strike([ref(2)]));
    expect(project.clips.map(({ name, steps }) => [name, steps.map(({ frame }) => frame)])).toEqual([
      ["attack", [ref(0), ref(1)]],
      ["attack-2", [ref(2)]],
    ]);
    expect(project.actions.map(({ name, facings }) => [name, facings.e?.clip])).toEqual([
      ["strike", "attack"],
      ["strike-2", "attack-2"],
    ]);
    expect(conflicts).toEqual([
      { where: "clips, attack", message: "Both sides have added one of this name; theirs is called attack-2 now." },
      { where: "actions, strike", message: "Both sides have added one of this name; theirs is called strike-2 now." },
    ]);
  });

  it("is one if it is the same, or if each side filled in a part of it", () => {
    const same = strike([ref(0)]);
    expect(mergeProjects(base, same, structuredClone(same))).toEqual({ project: same, conflicts: [] });
    const walk = (facing: "e" | "w", clip: string, at: FrameRef) =>
      setPetal(addAction(addClip(base, [at], clip), "walk", 4), "walk" as ActionName, facing, { clip: clip as ClipName });
    const { project, conflicts } = together(walk("e", "walk-e", ref(0)), walk("w", "walk-w", ref(1)));
    expect(project.actions).toMatchObject([{ name: "walk", facings: { e: { clip: "walk-e" }, w: { clip: "walk-w" } } }]);
    expect(conflicts).toEqual([]);
  });

  it("is two kinds of marks if they have two shapes, and one if only their letters differ", () => {
    const HAND = "hand" as MarkName;
    const point = putPoint(addMarkKind(base, "point", "hand"), "it", [ref(0)], HAND, ref(0), { x: 1, y: 1 });
    const box = addBox(addMarkKind(base, "box", "hand"), "it", [ref(0)], HAND, ref(0), { x: 1, y: 1, w: 2, h: 2 });
    const { project } = together(point, box);
    expect(project.marks.map(({ name, shape }) => [name, shape])).toEqual([
      ["hand", "point"],
      ["hand-2", "box"],
    ]);
    expect(project.sources[0]?.frames[0]?.marks).toEqual({
      points: { hand: { x: 1, y: 1 } },
      boxes: { "hand-2": [{ x: 1, y: 1, w: 2, h: 2 }] },
    });
    const letter = { ...point, marks: point.marks.map((mark) => ({ ...mark, letter: "Q" })) };
    expect(named(together(point, letter).project.marks)).toEqual(["hand"]);
  });

  it("covers palettes and deliveries", () => {
    const [red, dark] = [addPalette(base, { name: "red", colours: ["#ff0000"] }), addPalette(base, { name: "red", colours: ["#400000"] })];
    expect(named(together(red, dark).project.palettes)).toEqual(["red", "red-2"]);
    const delivery = (kind: "atlas" | "strips"): Project => ({
      ...base,
      deliveries: [...base.deliveries, { ...USUAL_DELIVERY, name: "web", kind }],
    });
    expect(together(delivery("atlas"), delivery("strips")).project.deliveries.map(({ name, kind }) => `${name} ${kind}`)).toEqual([
      "atlas atlas",
      "web atlas",
      "web-2 strips",
    ]);
  });
});
