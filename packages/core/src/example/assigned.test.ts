import { describe, expect, it } from "vitest";
import type { Atlas } from "../atlas";
import { stoppingFinding, unassignedFields } from "../check/stopping";
import { textFromUtf8 } from "../codec";
import { addClip, addDelivery, assignField, deliverLike } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { type Example, exampleNamed, type FrameRef, type Project } from "../model";
import { filesInShape, learnExample, MEANINGS_OF_FIELDS, shapeOf, toldOfExample } from ".";

/** `reachX` is a place that nothing else says; `serial` differs as well, and is no place. */
const BALES = JSON.stringify({
  bales: [
    { label: "a", left: 2, top: 2, width: 20, height: 34, reachX: 7.5, serial: 70117 },
    { label: "b", left: 24, top: 2, width: 22, height: 33, reachX: 9, serial: 4 },
    { label: "c", left: 50, top: 2, width: 19, height: 35, reachX: 4.5, serial: 33_331 },
  ],
});

const learned = () => {
  const { example, told } = learnExample(BALES, "bales.json", null);
  return { project: deliverLike(porterProject(), example, 0), told };
};
const named = (project: Project) => exampleNamed(project, "bales.json");

const atlas: Atlas = {
  ...{ format: "caravan-atlas", version: 1, clips: {}, actions: {} },
  pages: [{ image: "out.png", width: 64, height: 64, scale: 1, filter: "nearest" }],
  frames: Object.fromEntries(
    [5, 6, 7].map((origin, k) => [
      `f${k}`,
      {
        ...{ page: 0, rect: { x: k * 10, y: 0, w: 8, h: 9 }, turned: false },
        ...{ inset: { x: 0, y: 0 }, size: { w: 8, h: 9 }, origin: { x: origin, y: 9 } },
      },
    ]),
  ),
} as Atlas;
const writtenIn = (project: Project): { bales: { reachX: number; serial: number }[] } =>
  JSON.parse(textFromUtf8(filesInShape(shapeOf(named(project)), atlas, "out").files[0]?.bytes ?? new Uint8Array()));

describe("a field of an example that means nothing known", () => {
  it("is reported, and stops the delivery if it looks like geometry", () => {
    const { project, told } = learned();
    expect(told.strange).toEqual(["bales.*.reachX", "bales.*.serial"]);
    expect(told.unassigned).toEqual(["bales.*.reachX"]);
    expect(unassignedFields(project)).toHaveLength(1);
    expect(stoppingFinding(project, 0)).toMatchObject({ code: "unassigned-field", message: expect.stringContaining("bales.*.reachX") });
  });

  it("contains a person's assignment, for frames of any delivery", () => {
    const project = assignField(learned().project, "bales.json", "bales.*.reachX", "origin-x");
    expect(stoppingFinding(project, 0)).toBeNull();
    expect(writtenIn(project).bales.map(({ reachX }) => reachX)).toEqual([5, 6, 7]);
    expect(toldOfExample(named(project)).lines.find(({ path }) => path === "bales.*.reachX")).toMatchObject({
      by: "person",
      written: "origin, x",
    });
  });

  it("keeps the example's value if a person says so, or uses the mending", () => {
    const { project } = learned();
    const kept = assignField(project, "bales.json", "bales.*.reachX", "keep");
    expect(stoppingFinding(kept, 0)).toBeNull();
    const mend = stoppingFinding(project, 0)?.mend;
    expect(mend && "apply" in mend && mend.apply(project)).toEqual(kept);
    for (const { reachX } of writtenIn(kept).bales) expect([7.5, 9, 4.5]).toContain(reachX);
    expect(assignField(kept, "bales.json", "bales.*.reachX", null)).toEqual(project);
  });

  it("is checked against what was meant if assigned by a person: a wrong meaning of a rectangle's side fails the proof", () => {
    const wrong = assignField(learned().project, "bales.json", "bales.*.left", "height");
    expect(() => writtenIn(wrong)).toThrow(/Read back, frame "f/);
  });

  it("does not stop films, which have no metadata, nor other deliveries", () => {
    const project = addClip(learned().project, ["s1/c0r0" as FrameRef], "walk");
    const [delivery] = project.deliveries;
    const films = { ...project, deliveries: [{ ...delivery, kind: "films" }, ...project.deliveries] } as Project;
    expect(unassignedFields(films).map(({ delivery: at }) => at)).toEqual([1]);
    expect(stoppingFinding(films, 0)).toBeNull();
  });

  it("is not looked for in an example that cannot be used: that is an error of its own, which names the example and removes it", () => {
    const { project } = learned();
    const text = JSON.stringify({ bales: [{ label: "a", left: 2, top: 2, width: 20, height: 34 }] });
    const broken = { ...project, examples: project.examples.map((each) => ({ ...each, text })) };
    const stopping = stoppingFinding(broken, 0);
    expect(stopping).toMatchObject({ code: "unusable-example", severity: "error", message: expect.stringContaining("bales.json") });
    const mend = stopping?.mend;
    const after = mend && "apply" in mend ? mend.apply(broken) : broken;
    expect(after.examples).toEqual([]);
    expect(stoppingFinding(after, 0)).toBeNull();
  });

  it("stays with the delivery it was given to when another one gets another file of that name", () => {
    const other = learnExample(BALES.replaceAll("reachX", "depth"), "bales.json", null).example;
    const two = addDelivery(assignField(learned().project, "bales.json", "bales.*.reachX", "origin-x"), "game", null);
    const apart = deliverLike(two, other, 1);
    expect(apart.deliveries.map(({ data }) => data.example)).toEqual(["bales.json", "bales.json-2"]);
    expect(exampleNamed(apart, "bales.json")).toBe(exampleNamed(two, "bales.json"));
    expect(exampleNamed(apart, "bales.json-2").text).toContain("depth");
    // The same file serves both, and a newer one of the delivery's own takes its place, with what a person said of its fields.
    expect(deliverLike(two, learned().project.examples[0] as Example, 1).examples).toEqual(two.examples);
    const longer = learnExample(BALES.replace("7.5", "8.5"), "bales.json", null).example;
    const newer = deliverLike(two, longer, 0);
    expect(newer.examples).toHaveLength(1);
    expect(named(newer)).toEqual({ ...longer, assigned: named(two).assigned });
    expect(stoppingFinding(newer, 0)).toBeNull();
    // A field that the newer file does not have any more is no obstacle.
    expect(() => shapeOf(named(deliverLike(two, other, 0)))).not.toThrow();
  });

  it("can have every offered meaning, each under its own name", () =>
    expect(new Set(MEANINGS_OF_FIELDS.map(([means]) => means)).size).toBe(MEANINGS_OF_FIELDS.length));
});
