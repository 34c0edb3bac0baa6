import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { framesAndClips } from "../intake";
import { understand } from "../metadata";
import { type Cut, checkDocument, type MarkName, type Project, sourceById } from "../model";
import { addBox, addMarkKind, cutByMetadata, removeMarkKind, setSourceScale } from ".";
import { PORTER, porterCoverage, porterProject } from "./project.fixture";

const bales = (gripX: number, more: object = {}) =>
  JSON.stringify({
    bales: [0, 1, 2].map((k) => ({
      ...{ label: `bale_${k}`, left: k * 8, top: 0, width: 8, height: 10 },
      bumper: { left: 1, top: 2 + (k % 2), width: 5, height: 6 },
      grip: { x: gripX + k, y: 4 },
      ...more,
    })),
  });

function told(text: string) {
  const understood = understand(text, { picture: "porter.png", coverage: porterCoverage() }, "bales.json", []);
  const cut: Extract<Cut, { by: "metadata" }> = { by: "metadata", file: "bales.json", reading: understood.reading };
  return { cut, frames: framesAndClips(understood, "bales.json").told };
}
const read = (project: Project, text: string, before: string | null = null) => {
  const { cut, frames } = told(text);
  return cutByMetadata(project, PORTER, cut, frames, before === null ? null : told(before).frames);
};
const marksOf = (project: Project) => sourceById(project, PORTER).frames.map(({ marks }) => marks);
const kinds = ({ marks }: Project) => marks.map(({ name, shape }) => [name, shape]);

describe("boxes and points of a metadata file", () => {
  const project = read(porterProject(), bales(2));

  it("become marks of the project, each name a kind with its own letter and line", () => {
    expect(kinds(project)).toEqual(
      expect.arrayContaining([
        ["bumper", "box"],
        ["grip", "point"],
      ]),
    );
    expect(new Set(project.marks.map(({ letter }) => letter)).size).toBe(project.marks.length);
    expect(marksOf(project)).toEqual(
      [0, 1, 2].map((k) => ({ boxes: { bumper: [{ x: 1, y: 2 + (k % 2), w: 5, h: 6 }] }, points: { grip: { x: 2 + k, y: 4 } } })),
    );
    expect(() => checkDocument(project, "p")).not.toThrow();
  });

  it("are in project pixels if the art has a scale", () => {
    const doubled = read(setSourceScale(porterProject(), PORTER, 2), bales(2));
    expect(marksOf(doubled)[1]).toEqual({ boxes: { bumper: [{ x: 2, y: 6, w: 10, h: 12 }] }, points: { grip: { x: 6, y: 8 } } });
  });

  it("are read again from the next file, except those that a person changed", () => {
    const ref = `${PORTER}/${sourceById(project, PORTER).frames[0]?.key}` as never;
    const changed = addBox(project, "it", [ref], "bumper" as MarkName, ref, { x: 0, y: 0, w: 2, h: 2 });
    const again = read(changed, bales(1), bales(2));
    expect(marksOf(again)[0]).toEqual(marksOf(changed)[0]);
    expect(marksOf(again)[1]?.points).toEqual({ grip: { x: 2, y: 4 } });
  });

  it("join a kind of their name, or get their own name if that has another shape", () => {
    const has = addMarkKind(addMarkKind(porterProject(), "box", "bumper"), "box", "grip");
    const joined = read(has, bales(2));
    expect(kinds(joined)).toEqual([
      ["bumper", "box"],
      ["grip", "box"],
      ["grip point", "point"],
    ]);
    expect(() => checkDocument(removeMarkKind(joined, "grip" as MarkName), "p")).not.toThrow();
  });

  it("never make a project that does not open, whatever their names", () =>
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.constantFrom("__proto__", "constructor", "con", "0001", "a/b", "😀", "\ud83d")), (name) => {
        const { cut, frames } = told(bales(2));
        const renamed = frames.map((frame) => ({ ...frame, marks: { points: Object.fromEntries([[name, { x: 1, y: 1 }]]) } }));
        expect(() => checkDocument(cutByMetadata(porterProject(), PORTER, cut, renamed as never), "p")).not.toThrow();
      }),
    ));
});
