import { describe, expect, it } from "vitest";
import { type FrameRef, frameSize, type MarkName, originOf, type Project, type Source, type SourceId, sheetOf } from "../model";
import { coverageOf, type Pixels, scaled } from "../raster";
import { porter } from "./changed-art.fixture";
import { addClip } from "./clips";
import { cutSource } from "./cutting";
import { addMarkKind } from "./mark-kinds";
import { addBox } from "./marks";
import { placeOrigins } from "./origins";
import { CELL, NO_SPACE, PORTER, porterCoverage, porterProject, sheetOfCells } from "./project.fixture";
import { isDrawnAlike, takeResizedArt, timesAsLarge } from "./resized-art";
import { withSource } from "./with-source";

const sheet = sheetOfCells(4, 3);

function asPicture(pixels: Pixels, letter: string) {
  return { sha256: letter.repeat(64), width: pixels.width, height: pixels.height };
}

/** Its first frame has an origin of its own and a box. */
function worked(cut: (project: Project) => Project): Project {
  const hurt = "hurt" as MarkName;
  const project = cut(porterProject());
  const refs = porter(project).frames.map(({ key }) => `s1/${key}` as FrameRef);
  const [first] = refs as [FrameRef];
  const clips = addMarkKind(addClip(project, refs.slice(0, 4), "walk"), "box", "hurt");
  return placeOrigins(addBox(clips, "it", [first], hurt, first, { x: 1, y: 2, w: 5, h: 6 }), "it", new Map([[first, { x: 3, y: 8.5 }]]));
}

const WAYS: readonly [string, (project: Project) => Project][] = [
  ["cut into cells", (project) => project],
  [
    "cut by counts",
    (project) =>
      cutSource(project, PORTER, { by: "count", columns: 4, rows: 3, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false }, porterCoverage()),
  ],
  [
    "cut in regions",
    (project) =>
      cutSource(
        project,
        PORTER,
        {
          by: "regions",
          regions: [
            {
              area: { x: 0, y: CELL.h, w: 32, h: 20 },
              grid: { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false },
            },
          ],
        },
        porterCoverage(),
      ),
  ],
  [
    "cut along outlines",
    (project) => cutSource(project, PORTER, { by: "outlines", joinPx: 1, leastPx: 4, level: false }, porterCoverage()),
  ],
  ["drawn by hand", (project) => withSource(project, { ...porter(project), cut: { by: "hand" } })],
];

describe.each(WAYS)("a sheet %s", (_, cut) => {
  it.each([2, 3])("that comes %i times as large keeps frames, clips, origins and marks at their size in the game, and back", (times) => {
    const before = worked(cut);
    const large = scaled(sheet, times, true);
    const art = [asPicture(large, "b")];
    expect(timesAsLarge(porter(before), art)).toBe(times);
    expect(isDrawnAlike(porter(before), times, [coverageOf(sheet)], [coverageOf(large)])).toBe(true);
    const after = takeResizedArt(before, PORTER, art, [coverageOf(large)], times);
    expect(porter(after).frames.map(({ key }) => key)).toEqual(porter(before).frames.map(({ key }) => key));
    for (const [k, frame] of porter(after).frames.entries()) {
      const old = porter(before).frames[k] as Source["frames"][number];
      const { x, y, w, h } = old.rect;
      expect(frame.rect).toEqual({ x: x * times, y: y * times, w: w * times, h: h * times });
      expect(frameSize(porter(after), frame)).toEqual(frameSize(porter(before), old));
      expect(originOf(porter(after), frame)).toEqual(originOf(porter(before), old));
      expect(frame.marks).toEqual(old.marks);
    }
    expect(after.clips).toEqual(before.clips);
    const small = [asPicture(sheet, "a")];
    expect(timesAsLarge(porter(after), small)).toBeCloseTo(1 / times, 12);
    const again = takeResizedArt(after, PORTER, small, [coverageOf(sheet)], timesAsLarge(porter(after), small) as number);
    expect(again).toEqual(before);
  });
});

describe("art of another size", () => {
  const cells = worked((project) => project);

  it("is not the same larger if its sides grew unlike, or if cells would end between pixels", () => {
    const { width, height } = sheet;
    expect(timesAsLarge(porter(cells), [{ sha256: "b".repeat(64), width: width * 2, height: height * 3 }])).toBeNull();
    expect(timesAsLarge(porter(cells), [{ sha256: "b".repeat(64), width: width * 1.25, height: height * 1.25 }])).toBeNull();
    expect(timesAsLarge(porter(cells), [asPicture(sheet, "b")])).toBeNull();
  });

  it("is not the same larger if other figures are drawn in it", () => {
    const others = scaled(sheet, 2, true);
    others.bytes.copyWithin(4 * 9, 0);
    expect(isDrawnAlike(porter(cells), 2, [coverageOf(sheet)], [coverageOf(others)])).toBe(false);
    const more = sheetOfCells(8, 6);
    expect(isDrawnAlike(porter(cells), 2, [coverageOf(sheet)], [coverageOf(more)])).toBe(false);
  });

  it("is used by variants of the same pictures too, but not by a copy under another file", () => {
    const variant = { ...porter(cells), id: "s2" as SourceId, name: "in blue" };
    const copy = { ...porter(cells), id: "s3" as SourceId, name: "copy", pictures: [{ ...sheetOf(porter(cells)), file: "art/copy.png" }] };
    const large = scaled(sheet, 2, true);
    const project = { ...cells, sources: [porter(cells), variant, copy] };
    const [first, second, third] = takeResizedArt(project, PORTER, [asPicture(large, "b")], [coverageOf(large)], 2).sources;
    expect([first?.scale, second?.scale]).toEqual([0.5, 0.5]);
    expect(second?.pictures).toEqual(first?.pictures);
    expect(second?.frames).toEqual(first?.frames);
    expect(third).toBe(copy);
  });

  it("is refused where its frames would not fit, and nothing changes", () => {
    expect(() => takeResizedArt(cells, PORTER, [asPicture(scaled(sheet, 2, true), "b")], [coverageOf(sheet)], 3)).toThrow(/do not fit/);
  });
});
