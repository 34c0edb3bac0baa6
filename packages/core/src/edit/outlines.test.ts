import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { kindFindings, outlineFindings } from "../check";
import { outlinesOf } from "../marks";
import {
  type ActionName,
  type Clip,
  type ClipName,
  emptyProject,
  type FrameRef,
  findFrame,
  type MarkName,
  type Outline,
  type Project,
  projectFromFile,
  projectToFile,
  type SourceId,
  type Trace,
} from "../model";
import { isSimple } from "../outline";
import { clearPixels, coverageOf, type Pixels } from "../raster";
import { addAction, addClip, addSources, cutSource, mirrorMissing, removeClip, renameAction, renameClip, setPetal } from ".";
import { addMarkKind, removeMarkKind, renameMarkKind, setBoxUse } from "./mark-kinds";
import { copyMarks } from "./marks";
import { placeOrigins } from "./origins";
import { setOutlines, setTrace, steadyOutline } from "./outlines";

const SOLID = "solid" as MarkName;
const WALK = "walk" as ClipName;
const ref = (column: number) => `s1/c${column}r0` as FrameRef;
const refs = [0, 1, 2, 3].map(ref);

/** Four cells of 16 × 16 px, in each a block of 8 × 10 px that stands on y 14; the third one stands 2 px lower. */
function sheet(): Pixels {
  const made = clearPixels(64, 16);
  for (let cell = 0; cell < 4; cell++)
    for (let y = 4; y < 14; y++)
      for (let x = 4; x < 12; x++) made.bytes.set([80, 60, 40, 255], ((y + (cell === 2 ? 2 : 0)) * 64 + cell * 16 + x) * 4);
  return made;
}

const pixels = sheet();
const SHA = "a".repeat(64);

function walking(): Project {
  let project = addSources(emptyProject("test"), [{ fileName: "porter.png", sha256: SHA, width: 64, height: 16 }]);
  const cut = { by: "cell", cell: { w: 16, h: 16 }, margin: { x: 0, y: 0 }, gap: { x: 0, y: 0 }, keepEmpty: false } as const;
  project = cutSource(project, "s1" as SourceId, cut, coverageOf(pixels));
  project = addMarkKind(addClip(project, refs, "walk"), "outline", "solid");
  return placeOrigins(project, "walk", new Map(refs.map((each) => [each, { x: 8, y: 14 }])));
}

const found = (project: Project) => outlinesOf(project, refs, artFrom(new Map([[SHA, pixels]]), project));
const outline = (project: Project, of: FrameRef) => found(project).get(of)?.[SOLID]?.polygons;
const block = (top: number, bottom: number): Outline => [
  { x: 4, y: top },
  { x: 12, y: top },
  { x: 12, y: bottom },
  { x: 4, y: bottom },
];
const traceOf = ({ marks: [kind] }: Project) => (kind?.shape === "outline" ? kind.trace : undefined);
const clipOf = ({ clips: [clip] }: Project) => clip as Clip;

describe("outlines", () => {
  it("are traced from the current drawing, and saved only as a recipe", () => {
    const project = walking();
    expect(outline(project, ref(0))).toEqual([block(4, 14)]);
    expect(outline(project, ref(2))).toEqual([block(6, 16)]);
    expect(traceOf(project)).toEqual({ alpha: 1, withinPx: 1, corners: 24, convex: false });
    expect(JSON.stringify(projectToFile(project))).not.toContain("outlines");
    expect(projectFromFile(JSON.parse(JSON.stringify(projectToFile(project))), "again")).toEqual(project);
  });

  it("of a person's own stay on their frame, on others at the same place from the origin, until they are traced again", () => {
    const own = [{ x: 4, y: 4 }, { x: 9, y: 4 }, { x: 4, y: 12 }]; // biome-ignore format: corners
    let project = setOutlines(walking(), "walk", [ref(0), ref(1)], SOLID, ref(0), [own]);
    project = placeOrigins(project, "one", new Map([[ref(3), { x: 10, y: 13 }]]));
    project = setOutlines(project, "walk", [ref(3)], SOLID, ref(0), [own]);
    expect(outline(project, ref(0))).toEqual([own]);
    expect(outline(project, ref(1))).toEqual([own]);
    expect(outline(project, ref(2))).toEqual([block(6, 16)]);
    expect(outline(project, ref(3))).toEqual([own.map(({ x, y }) => ({ x: x + 2, y: y - 1 }))]);
    project = setOutlines(project, "walk", refs, SOLID, ref(0), null);
    expect(outline(project, ref(0))).toEqual([block(4, 14)]);
    // None at all is told from none of its own.
    project = setOutlines(project, "walk", [ref(0)], SOLID, ref(0), []);
    expect(outline(project, ref(0))).toBeUndefined();
    expect(projectFromFile(JSON.parse(JSON.stringify(projectToFile(project))), "again")).toEqual(project);
    // What one frame has of its own can be given to others.
    expect(outline(copyMarks(project, "walk", [ref(1)], SOLID, ref(0)), ref(1))).toBeUndefined();
  });

  it("are turned clockwise, and never cross themselves", () => {
    const turned = [{ x: 0, y: 9 }, { x: 9, y: 9 }, { x: 9, y: 0 }, { x: 5, y: 0 }, { x: 0, y: 0 }]; // biome-ignore format: corners
    const project = setOutlines(walking(), "walk", [ref(0)], SOLID, ref(0), [turned]);
    expect(outline(project, ref(0))).toEqual([turned.toReversed()]);
    const crossing = [{ x: 0, y: 0 }, { x: 9, y: 9 }, { x: 9, y: 0 }, { x: 0, y: 9 }]; // biome-ignore format: corners
    expect(() => setOutlines(project, "walk", [ref(0)], SOLID, ref(0), [crossing])).toThrow(/cross or touch itself/);
    expect(() => setOutlines(project, "walk", [ref(0)], SOLID, ref(0), [[{ x: 0, y: 0 }, { x: 1.5, y: 0 }, { x: 0, y: 9 }]])).toThrow(/whole pixels/); // biome-ignore format: corners
    expect(() => setOutlines(project, "walk", [ref(0)], SOLID, ref(0), [crossing.slice(0, 2)])).toThrow();
    expect(() => setOutlines(project, "walk", [ref(0)], "hand" as MarkName, ref(0), [])).toThrow();
    expect(() => setTrace(project, SOLID, { corners: 2 })).toThrow(/bounds/);
    expect(() => setTrace(project, SOLID, { withinPx: Number.NaN })).toThrow(/bounds/);
  });

  it("that dip on a step are found, and mended by one outline for all or by a straight bottom", () => {
    const project = walking();
    const [dip] = outlineFindings(project, clipOf(project), found(project));
    expect(dip).toMatchObject({ code: "outline-dips", place: { stop: "marks", clip: "walk", mark: "solid", steps: [2] } });
    expect(dip?.message).toBe(
      "On one step the lower edge of solid lies 2 px lower than on the others: the character may drop and climb as it moves.",
    );
    for (const mend of [dip?.mend, ...(dip?.otherMends ?? [])]) {
      const mended = mend && "apply" in mend ? mend.apply(project) : project;
      expect(outlineFindings(mended, clipOf(mended), found(mended))).toEqual([]);
    }
    const steady = steadyOutline(project, SOLID, "walk", "median");
    for (const each of refs) expect(outline(steady, each)).toEqual([block(4, 14)]);
    expect(outline(steadyOutline(project, SOLID, "walk", "union"), ref(2))).toEqual([block(4, 16)]);
    expect(outline(steadyOutline(project, SOLID, "walk", "shared"), ref(0))).toEqual([block(6, 14)]);
    expect(traceOf(steadyOutline(steady, SOLID, "walk", null))).toEqual(traceOf(project));
    expect(outline(setTrace(project, SOLID, { flat: true }), ref(2))).toEqual([block(6, 14)]);
    expect(() => steadyOutline(project, SOLID, "run", "median")).toThrow(/no such clip/);
    // The clip goes, and what was said of it is told until it is taken back.
    const gone = removeClip(steady, WALK);
    const [told] = kindFindings(gone, found(gone));
    expect(told?.message).toMatch(/^Its frames of walk should share one outline/);
    const forgotten = told?.mend && "apply" in told.mend ? told.mend.apply(gone) : gone;
    expect([kindFindings(forgotten, found(forgotten)), outline(forgotten, ref(2))]).toEqual([[], [block(6, 16)]]);
  });

  it("are steadied over an action too, and follow clips and actions under new names", () => {
    let project = setPetal(addAction(walking(), "going", 2), "going" as ActionName, "e", { clip: WALK });
    project = mirrorMissing(project, "going" as ActionName);
    project = steadyOutline(steadyOutline(project, SOLID, "going", "union"), SOLID, "walk", "shared");
    expect(outline(project, ref(0))).toEqual([block(4, 16)]);
    project = renameClip(renameAction(project, "going" as ActionName, "moving"), WALK, "trot");
    expect(traceOf(project)?.steady?.map(({ of }) => of)).toEqual(["moving", "trot"]);
    expect(outline(project, ref(0))).toEqual([block(4, 16)]);
    project = renameMarkKind(project, SOLID, "hull");
    expect(found(project).get(ref(0))).toHaveProperty("hull");
    expect(removeMarkKind(project, "hull" as MarkName).marks).toEqual([]);
    expect(setBoxUse(project, "hull" as MarkName, "solid").marks[0]).toMatchObject({ use: "solid" });
  });

  it("grow and shrink, and report corners beyond the limit", () => {
    const project = walking();
    const at = (change: Partial<Trace>) => outline(setTrace(project, SOLID, { withinPx: 0, ...change }), ref(0));
    expect(at({ growPx: -1 })).toEqual([block(5, 13).map(({ x, y }) => ({ x: x === 4 ? 5 : 11, y }))]);
    const grown = at({ growPx: 2 })?.[0] as Outline;
    expect(isSimple(grown)).toBe(true);
    expect([Math.min(...grown.map(({ x }) => x)), Math.max(...grown.map(({ y }) => y))]).toEqual([2, 16]);
    expect(at({ growPx: -9 })).toBeUndefined();
    const few = setTrace(project, SOLID, { corners: 3 });
    const [finding] = kindFindings(few, found(few));
    expect(finding?.message).toBe("On 4 frames it has up to 1 corner more than 3, to stay within 1 px; first on porter/0.");
    const mend = finding?.otherMends?.[0];
    const mended = mend && "apply" in mend ? mend.apply(few) : few;
    expect(kindFindings(mended, found(mended))).toEqual([]);
    expect(setTrace(project, SOLID, null).marks[0]).not.toHaveProperty("trace");
  });

  it("that cross themselves in a file open, are reported, and can be traced again", () => {
    const project = walking();
    const { source, frame } = findFrame(project, ref(1)) as NonNullable<ReturnType<typeof findFrame>>;
    const crossing = [{ x: 0, y: 0 }, { x: 9, y: 9 }, { x: 9, y: 0 }, { x: 0, y: 9 }]; // biome-ignore format: corners
    const frames = source.frames.map((each) => (each === frame ? { ...each, marks: { outlines: { [SOLID]: [crossing] } } } : each));
    const odd = projectFromFile(JSON.parse(JSON.stringify(projectToFile({ ...project, sources: [{ ...source, frames }] }))), "by hand");
    const [finding] = kindFindings(odd, found(odd));
    expect(finding).toMatchObject({ code: "outline-crosses", where: "porter/1" });
    const mended = finding?.mend && "apply" in finding.mend ? finding.mend.apply(odd) : odd;
    expect(outline(mended, ref(1))).toEqual([block(4, 14)]);
  });
});
