import { describe, expect, it } from "vitest";
import type { NewFrame } from "../frame-identity";
import { frameRef, type Project } from "../model";
import { cutByMetadata } from "./by-metadata";
import { renameFrame } from "./frames";
import { CELL, PORTER, porterProject } from "./project.fixture";
import { BY_METADATA as cut } from "./random-choices.fixture";

/** Three poses in one column, the first at the top or, read the other way, at the bottom. */
function told(up: boolean, origin: { x: number; y: number }): NewFrame[] {
  return [0, 1, 2].map((k) => {
    const row = up ? 2 - k : k;
    return { key: `m${k}`, column: 0, row, number: k, rect: { x: 0, y: row * CELL.h, ...CELL }, empty: false, name: `pose ${k}`, origin };
  });
}

const framesOf = (project: Project) => project.sources[0]?.frames.map(({ name, rect, origin }) => [name, rect.y, origin?.y]);

describe("a metadata file that is read another way", () => {
  const [down, up] = [told(false, { x: 4, y: 9 }), told(true, { x: 4, y: 1 })];
  const first = cutByMetadata(porterProject(), PORTER, cut, down);

  it("reads names, places and origins again, and every frame keeps its key by its name", () => {
    const again = cutByMetadata(first, PORTER, cut, up, down);
    expect(framesOf(again)).toEqual([
      ["pose 0", 20, 1],
      ["pose 1", 10, 1],
      ["pose 2", 0, 1],
    ]);
    const keys = (project: Project) => project.sources[0]?.frames.map(({ name, key }) => `${name} ${key}`);
    expect(keys(again)).toEqual(keys(first));
  });

  it("leaves a name that a person gave", () => {
    const [source] = first.sources;
    const frame = source?.frames[1];
    if (!source || !frame) throw new Error("It was cut into three frames.");
    const renamed = renameFrame(first, frameRef(source, frame), "crouching");
    expect(framesOf(cutByMetadata(renamed, PORTER, cut, up, down))?.map(([name]) => name)).toContain("crouching");
  });

  it("changes nothing if it is read as before", () =>
    expect(framesOf(cutByMetadata(first, PORTER, cut, down, down))).toEqual(framesOf(first)));
});
