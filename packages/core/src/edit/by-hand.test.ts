import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawnPixels } from "../art";
import { drawnSize, type FrameRef, findFrame, frameRef, keptRefs, type Project, type Source } from "../model";
import { type Coverage, clearPixels, coverageOf, looksSame } from "../raster";
import { takeIn } from "./add-sources";
import { drawFrames, makeEqual, placeFrames, removeFrames } from "./by-hand";
import { addClip } from "./clips";
import { cutSource, refreshSource, setClearing } from "./cutting";
import { dropFrames, renameFrame } from "./frames";
import { CELL, NO_SPACE, PORTER, porterCoverage, porterProject, sheetOfCells } from "./project.fixture";
import { moveFrames, nameFrames, orderFrames } from "./tray";

const source = (project: Project) => project.sources[0] as Source;
const ref = (key: string) => `s1/${key}` as FrameRef;
const cells = { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false } as const;
const outlines = { by: "outlines", joinPx: 0, leastPx: 1, level: false } as const;

describe("rectangles by hand", () => {
  it("are drawn, moved and resized within the picture, and keep their keys", () => {
    const drawn = drawFrames(porterProject(), PORTER, [{ x: 1, y: 2, w: 5, h: 6 }]);
    const added = source(drawn).frames.at(-1);
    expect(added).toMatchObject({ key: "h0", number: 12, rect: { x: 1, y: 2, w: 5, h: 6 } });
    const moved = placeFrames(drawn, new Map([[ref("h0"), { x: 3, y: 2, w: 5, h: 6 }]]));
    expect(findFrame(moved, ref("h0"))?.frame.rect.x).toBe(3);
    expect(placeFrames(moved, new Map([[ref("h0"), { x: 3, y: 2, w: 5, h: 6 }]]))).toBe(moved);
    expect(() => placeFrames(drawn, new Map([[ref("h0"), { x: 30, y: 2, w: 5, h: 6 }]]))).toThrow(/does not lie on its 32 × 30 px picture/);
    expect(source(removeFrames(moved, [ref("h0")])).frames).toHaveLength(12);
  });

  it("get equal sizes with feet on one line, and none of their pixels change", () => {
    const picture = sheetOfCells(4, 3);
    const sizes = fc.array(
      fc.record({ x: fc.nat(20), y: fc.nat(18), w: fc.integer({ min: 1, max: 11 }), h: fc.integer({ min: 1, max: 11 }) }),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(sizes, fc.constantFrom("feet", "middle", "origin"), (rects, meeting) => {
        const drawn = drawFrames(porterProject(), PORTER, rects);
        const refs = keptRefs(source(drawn)).slice(12);
        const equal = makeEqual(drawn, refs, meeting as "feet");
        const frames = source(equal).frames.slice(12);
        expect(new Set(frames.map((frame) => JSON.stringify(drawnSize(frame)))).size).toBe(1);
        for (const [k, frame] of frames.entries()) {
          const { x, y } = frame.inset ?? { x: 0, y: 0 };
          const { w, h } = frame.rect;
          const whole = drawnPixels(picture, frame);
          const inner = clearPixels(w, h);
          for (let row = 0; row < h; row++)
            inner.bytes.set(whole.bytes.subarray(((y + row) * whole.width + x) * 4, ((y + row) * whole.width + x + w) * 4), row * w * 4);
          expect(looksSame(inner, drawnPixels(picture, { rect: rects[k] as (typeof rects)[number] }))).toBe(true);
          if (meeting === "feet") expect(y + h).toBe(drawnSize(frame).h);
        }
      }),
    );
  });
});

describe("changing from one way of cutting to another", () => {
  it("keeps names, clips and keys of frames that stay the same rectangle", () => {
    // Cells whose rectangles are the islands themselves: 5 × 7 px drawn, 3 px apart.
    const tight = { by: "cell", cell: { w: 5, h: 7 }, margin: { x: 1, y: 2 }, gap: { x: 3, y: 3 }, keepEmpty: false } as const;
    const named = renameFrame(cutSource(porterProject(), PORTER, tight, porterCoverage()), ref("c1r0"), "nod");
    const withClip = addClip(named, [ref("c1r0"), ref("c2r1")], "walk");
    const outlined = cutSource(withClip, PORTER, outlines, porterCoverage());
    expect(outlined.clips).toEqual(withClip.clips);
    expect(findFrame(outlined, ref("c1r0"))?.frame.name).toBe("nod");
    const back = cutSource(outlined, PORTER, tight, porterCoverage());
    expect(source(back).frames.map(({ key, rect }) => [key, rect])).toEqual(source(named).frames.map(({ key, rect }) => [key, rect]));
  });

  it("keeps keys unique and every rectangle found, in any sequence", () =>
    fc.assert(
      fc.property(fc.array(fc.constantFrom("cells", "outlines", "hand"), { minLength: 1, maxLength: 6 }), (ways) => {
        let project = porterProject();
        for (const way of ways)
          project =
            way === "hand"
              ? drawFrames(project, PORTER, [{ x: 0, y: 0, w: 8, h: 10 }])
              : cutSource(project, PORTER, way === "cells" ? cells : outlines, porterCoverage());
        const keys = source(project).frames.map(({ key }) => key);
        expect(new Set(keys).size).toBe(keys.length);
        expect(keys.length).toBeGreaterThanOrEqual(12);
      }),
    ));

  it("an island that grew a little is the same frame", () => {
    const before = cutSource(porterProject(), PORTER, outlines, porterCoverage());
    const dropped = dropFrames(before, [frameRef(source(before), source(before).frames[0] as Source["frames"][number])]);
    const changed = sheetOfCells(4, 3);
    changed.bytes.set([9, 9, 9, 255], (1 * changed.width + 2) * 4);
    const after = cutSource(dropped, PORTER, outlines, coverageOf(changed));
    expect(source(after).frames[0]).toMatchObject({ dropped: true, rect: { h: 8 } });
  });
});

describe("the contents of a drop", () => {
  const picture = (sha: string) => ({ sha256: sha.repeat(64), width: 8, height: 10 });
  const clear: Coverage = coverageOf(clearPixels(8, 10));

  it("as several pictures is one series, each a frame, with the clip of an animation", () => {
    const project = takeIn(porterProject(), [
      {
        name: "well",
        pictures: [picture("1"), picture("2"), picture("3")],
        coverages: [porterCoverage(), porterCoverage(), clear],
        clips: [{ name: "well", playback: "loop", times: 3, steps: [0, 1, 2].map((frame) => ({ frame, duration: 70_000 })) }],
      },
    ]);
    const series = project.sources[1] as Source;
    expect(series.pictures.map(({ file }) => file)).toEqual(["art/well/0.png", "art/well/1.png", "art/well/2.png"]);
    expect(series.frames.map(({ key, picture: on, empty }) => [key, on, empty])).toEqual([
      ["p0", undefined, undefined],
      ["p1", 1, undefined],
      ["p2", 2, true],
    ]);
    expect(project.clips[0]).toMatchObject({ name: "well", times: 3, steps: [{ frame: "s2/p0" }, { frame: "s2/p1" }, { frame: "s2/p2" }] });
  });

  it("grows when its art does, and the frames that stay keep their clips", () => {
    const two = takeIn(porterProject(), [{ name: "well", pictures: [picture("1"), picture("2")] }]);
    const id = (two.sources[1] as Source).id;
    const three = refreshSource(two, id, [picture("1"), picture("9"), picture("4")], []);
    expect(three.sources[1]?.pictures.map(({ file }) => file)).toEqual(["art/well/0.png", "art/well/1.png", "art/well/0-2.png"]);
    expect(three.sources[1]?.frames.map(({ key }) => key)).toEqual(["p0", "p1", "p2"]);
  });

  it("that was counted keeps its cells when a row is added, and its counts when only the size changed", () => {
    const counted = cutSource(
      porterProject(),
      PORTER,
      { by: "count", columns: 4, rows: 3, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false },
      porterCoverage(),
    );
    const taller = sheetOfCells(4, 4);
    const size = (width: number, height: number) => [{ sha256: "7".repeat(64), width, height }];
    const grown = refreshSource(counted, PORTER, size(taller.width, taller.height), [coverageOf(taller)]);
    expect(source(grown).cut).toMatchObject({ by: "cell", cell: CELL });
    expect(source(grown).frames).toHaveLength(16);
    const double = refreshSource(counted, PORTER, size(33, 31), [coverageOf(clearPixels(33, 31))]);
    expect(source(double).cut).toMatchObject({ by: "count", columns: 4, rows: 3 });
  });

  it("whose rest is spread keeps its shares of the sheet when a row is added", () => {
    const five = { by: "count" as const, columns: 5, rows: 3, spread: true as const, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: true };
    const counted = cutSource(porterProject(), PORTER, five, porterCoverage());
    const taller = sheetOfCells(4, 4);
    const at = (width: number, height: number) => [{ sha256: "7".repeat(64), width, height }];
    const grown = refreshSource(counted, PORTER, at(taller.width, taller.height), [coverageOf(taller)]);
    expect(source(grown).cut).toEqual({ ...five, rows: 4 });
    expect(
      source(grown)
        .frames.slice(0, 15)
        .map(({ rect }) => rect),
    ).toEqual(source(counted).frames.map(({ rect }) => rect));
    const wider = refreshSource(counted, PORTER, at(36, 30), [coverageOf(clearPixels(36, 30))]);
    expect(source(wider).cut).toEqual(five);
  });

  it("is cleared by recipe and cut again, and the background returns when restored", () => {
    const clearing = { colours: ["#ffffff"], tolerance: 0, from: "edges", fringe: false } as const;
    const cleared = setClearing(porterProject(), PORTER, { ...clearing, colours: ["#ffffff"] }, [porterCoverage()]);
    expect(source(cleared).clearing).toEqual(clearing);
    expect(setClearing(cleared, PORTER, null, [porterCoverage()])).toEqual(porterProject());
  });
});

describe("the tray", () => {
  it("is sorted, reversed and reordered, and says nothing when nothing changes", () => {
    const project = porterProject();
    const turned = orderFrames(project, PORTER, "reverse");
    expect(source(turned).frames[0]?.key).toBe("c3r2");
    expect(orderFrames(turned, PORTER, "position")).toEqual(project);
    expect(orderFrames(project, PORTER, "name")).toBe(project);
    expect(
      source(moveFrames(project, PORTER, ["c3r0"], 0))
        .frames.slice(0, 2)
        .map(({ key }) => key),
    ).toEqual(["c3r0", "c0r0"]);
  });

  it("is named by a pattern, all or none", () => {
    const pattern = { text: "{source}-{row}-{n}", start: 1, step: 2, padding: 2 };
    const named = nameFrames(porterProject(), PORTER, ["c0r0", "c1r0"], pattern);
    expect(
      source(named)
        .frames.slice(0, 2)
        .map(({ name }) => name),
    ).toEqual(["porter-00-01", "porter-00-03"]);
    expect(() => nameFrames(porterProject(), PORTER, ["c0r0", "c1r0"], { ...pattern, text: "same" })).toThrow(
      /Two frames would have this name/,
    );
  });
});
