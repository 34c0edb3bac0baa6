import { describe, expect, it } from "vitest";
import type { Atlas } from "../atlas";
import { textFromUtf8 } from "../codec";
import { filesInShape, learnExample, shapeOf } from ".";

type Corners = readonly (readonly [number, number])[];

/** An example of three frames whose corners are put down by `spelled`; the second has one corner more. */
function example(spelled: (corners: Corners, size: { w: number; h: number }) => unknown): string {
  const bales = [0, 1, 2].map((k) => {
    const [w, h] = [20 + k, 34];
    const corners: Corners = [[2, 3], [w, 4], ...(k === 1 ? [[w - 1, 20] as const] : []), [w - 2, h], [1, h - 1]]; // biome-ignore format: corners
    return { label: `bale_${k}`, left: 2 + k * 24, top: 2, width: w, height: h, hull: spelled(corners, { w, h }), note: "dry" };
  });
  return JSON.stringify({ bales }, null, 1);
}

const TRIANGLE = [{ x: 1, y: 2 }, { x: 9, y: 2 }, { x: 1, y: 12 }]; // biome-ignore format: corners
const SPECK = [{ x: 6, y: 8 }, { x: 8, y: 8 }, { x: 8, y: 10 }, { x: 6, y: 10 }]; // biome-ignore format: corners

const atlas = (outlines: readonly (Record<string, unknown> | null)[]): Atlas =>
  ({
    ...{ format: "caravan-atlas", version: 1, clips: {}, actions: {} },
    pages: [{ image: "out.png", width: 64, height: 64, scale: 1, filter: "nearest" }],
    frames: Object.fromEntries(
      outlines.map((each, k) => [
        k === 1 ? "bale_1" : `f${k}`,
        {
          ...{ page: 0, rect: { x: k * 12, y: 0, w: 10, h: 16 }, turned: false },
          ...{ inset: { x: 0, y: 0 }, size: { w: 10, h: 16 }, origin: { x: 5, y: 16 } },
          ...(each ? { outlines: each } : {}),
        },
      ]),
    ),
  }) as Atlas;

function written(text: string, outlines: readonly (Record<string, unknown> | null)[], file = "bales.json") {
  const learned = learnExample(text, file, null);
  const { files, notes } = filesInShape(shapeOf(learned.example), atlas(outlines), "out");
  const out = textFromUtf8(files[0]?.bytes ?? new Uint8Array());
  return { told: learned.told, notes, out };
}

const hulls = (out: string) => (JSON.parse(out).bales as { hull: unknown }[]).map(({ hull }) => hull);

describe("outlines in the shape of an example", () => {
  it.each([
    ["flat numbers", (corners: Corners) => corners.flat(), [1, 2, 9, 2, 1, 12]],
    ["pairs", (corners: Corners) => corners, [[1, 2], [9, 2], [1, 12]]], // biome-ignore format: corners
    ["points", (corners: Corners) => corners.map(([x, y]) => ({ x, y })), TRIANGLE],
    [
      "shares of the frame",
      (corners: Corners, { w, h }: { w: number; h: number }) => corners.map(([x, y]) => ({ y: y / h, x: x / w })),
      [{ y: 0.125, x: 0.1 }, { y: 0.125, x: 0.9 }, { y: 0.75, x: 0.1 }], // biome-ignore format: corners
    ],
  ])("are written as %s, as long as they need be, and read back", (_what, spelled, wanted) => {
    const { told, notes, out } = written(example(spelled), [{ solid: [TRIANGLE] }, { solid: [SPECK] }]);
    expect(told.unassigned).toEqual([]);
    expect(told.noPlace).not.toContain("outlines");
    expect(told.lines.find(({ path }) => path === "bales.*.hull")?.written).toBe("the corners of hull");
    expect(hulls(out)[0]).toEqual(wanted);
    expect(hulls(out)[1]).toHaveLength(SPECK.length * (typeof (wanted as unknown[])[0] === "number" ? 2 : 1));
    expect(notes.filter((note) => /solid|hull/.test(note))).toEqual([]);
  });

  it("are several if the example has lists of polygons, otherwise the largest, with a note", () => {
    const lists = written(
      example((corners) => [corners.flat(), [0, 0, 1, 0, 1, 1]]),
      [{ solid: [SPECK, TRIANGLE] }, null],
    );
    expect(hulls(lists.out)).toEqual([[[6, 8, 8, 8, 8, 10, 6, 10], [1, 2, 9, 2, 1, 12]], []]); // biome-ignore format: corners
    expect(lists.notes).toContain("out.json: 1 of 2 frames have no hull; they get an empty list.");
    const one = written(
      example((corners) => corners.flat()),
      [{ solid: [SPECK, TRIANGLE] }, { solid: [SPECK] }],
    );
    expect(hulls(one.out)[0]).toEqual([1, 2, 9, 2, 1, 12]);
    expect(one.notes).toContain("out.json: its shape holds one polygon of hull; if there are several, it has the largest.");
  });

  it("are matched by name if there are several kinds; a kind without a place is reported", () => {
    const { out, notes } = written(
      example((corners) => corners.flat()),
      [{ solid: [SPECK], hull: [TRIANGLE] }, { solid: [SPECK] }],
    );
    expect(hulls(out)).toEqual([[1, 2, 9, 2, 1, 12], []]);
    expect(notes).toEqual(expect.arrayContaining(["out.json: its shape cannot hold solid."]));
  });

  it("may be named like a member of every object", () => {
    const { out, notes } = written(
      example((corners) => corners.flat()),
      [{ constructor: [TRIANGLE] }, null],
    );
    expect(hulls(out)).toEqual([[1, 2, 9, 2, 1, 12], []]);
    expect(notes).toContain("out.json: 1 of 2 frames have no hull; they get an empty list.");
  });

  it("keep the spelling of the example: its blanks and its lines", () => {
    const compact = example((corners) => corners.flat()).replace(
      /\[\s+([\d,\s-]+?)\s+\]/g,
      (_all, list: string) => `[${list.split(/,\s*/).join(", ")}]`,
    );
    expect(written(compact, [{ solid: [TRIANGLE] }, { solid: [SPECK] }]).out).toContain('"hull": [1, 2, 9, 2, 1, 12]');
  });

  it("are not made of numbers that only look like them: an unnamed list of constant length stays", () => {
    const text = example((corners) => corners.flat())
      .replaceAll('"hull"', '"ramp"')
      .replace(/("width": 21,[\s\S]*?"ramp": \[[\s\S]*?),\s*20,\s*20/, "$1");
    const same = JSON.parse(text) as { bales: { ramp: number[] }[] };
    for (const bale of same.bales) bale.ramp = [1, 0, 0, 1, 3, 4];
    const { out, told } = written(JSON.stringify(same), [{ solid: [TRIANGLE] }, { solid: [SPECK] }]);
    expect((JSON.parse(out).bales as { ramp: unknown }[])[0]?.ramp).not.toEqual([1, 2, 9, 2, 1, 12]);
    expect(told.noPlace).toContain("outlines");
  });
});
