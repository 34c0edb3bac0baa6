import { describe, expect, it } from "vitest";
import type { NewFrame } from "../frame-identity";
import { type Frame, type FrameRef, findFrame, frameRef, type Project, type Source } from "../model";
import { cutByMetadata } from "./by-metadata";
import { addClip } from "./clips";
import { dropFrames, renameFrame } from "./frames";
import { placeOrigins } from "./origins";
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

  it("keeps a renamed frame under its key, wherever the file has it now, for the clips that show it", () => {
    const [source] = first.sources as [Source];
    const bottom = frameRef(source, source.frames[2] as Frame);
    const renamed = renameFrame(addClip(first, [bottom], "crouch"), bottom, "crouching");
    const again = cutByMetadata(renamed, PORTER, cut, up, down);
    // What the file calls "pose 2" is at the top, read this way.
    expect(framesOf(again)).toEqual([
      ["pose 0", 20, 1],
      ["pose 1", 10, 1],
      ["crouching", 0, 1],
    ]);
    expect(findFrame(again, bottom)?.frame.name).toBe("crouching");
    expect(again.clips).toEqual(renamed.clips);
  });

  it("changes nothing if it is read as before", () =>
    expect(framesOf(cutByMetadata(first, PORTER, cut, down, down))).toEqual(framesOf(first)));

  it("and back is as it was, with what was decided about frames that the other reading did not find", () => {
    const other = { ...cut, reading: { ...cut.reading, originUp: true } };
    const [source] = first.sources;
    const [top, middle, bottom] = (source as Source).frames.map((frame) => frameRef(source as Source, frame)) as [
      FrameRef,
      FrameRef,
      FrameRef,
    ];
    let decided = renameFrame(first, middle, "crouching");
    decided = placeOrigins(decided, "it", new Map([[bottom, { x: 3, y: 7.5 }]]));
    decided = dropFrames(decided, [top]);
    const before = decided.sources[0] as Source;
    // Read the other way, two of three records are not on the picture.
    const away = cutByMetadata(decided, PORTER, other, up.slice(2), down);
    expect((away.sources[0] as Source).frames).toHaveLength(1);
    const back = cutByMetadata(away, PORTER, cut, down, up.slice(2), { lost: [], before, isDecided: () => false });
    expect(back.sources[0]).toEqual(before);
    expect(back.readings).toEqual([cut.reading]);
    // What the file says now is another matter.
    const moved = down.map((frame) => ({ ...frame, rect: { ...frame.rect, x: 8 } }));
    const anew = cutByMetadata(away, PORTER, cut, moved, up.slice(2), { lost: [], before, isDecided: () => false });
    expect((anew.sources[0] as Source).frames.map(({ rect }) => rect.x)).toEqual([8, 8, 8]);
  });
});
