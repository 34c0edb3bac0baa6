import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { parseMetadata } from ".";
import { constantsAsPairs, pairsAsRecord, withFlatRecords } from "./flat";

const BALES = [
  { name: "BALE", x: 2, y: 4, w: 20, h: 30 },
  { name: "TENT_SMALL", x: 24, y: 4, w: 18, h: 31 },
];
const records = Object.fromEntries(BALES.map(({ name, ...rest }) => [name, rest]));

describe("records that were written flat", () => {
  it("are records if names contain record and field, with any separator", () => {
    for (const nameOf of [
      (stem: string, field: string) => `${stem}_${field}`,
      (stem: string, field: string) => `${stem}.${field}`,
      (stem: string, field: string) => `${stem}-${field}`,
    ])
      expect(
        withFlatRecords(
          Object.fromEntries(
            BALES.flatMap(({ name, ...rest }) => Object.entries(rest).map(([field, value]) => [nameOf(name, field), value])),
          ),
        ),
      ).toEqual(records);
  });

  it("stay as they are if names do not split so, or are too few", () => {
    for (const tree of [
      { a_x: 1, a_y: 2, b_x: 3, b_y: 4, c_x: 5, c_y: 6, d_x: 7, d_y: 8 },
      { left: 1, top: 2, width: 3, height: 4 },
      { walk_0: 1, walk_1: 2, walk_2: 3, walk_3: 4, run_0: 1, run_1: 2, run_2: 3, run_3: 4 },
      [
        { label: "a", x: 1 },
        { label: "b", x: 2 },
      ],
    ])
      expect(withFlatRecords(tree as never)).toBe(tree);
  });

  it("lose no value, whatever the names", () =>
    fc.assert(
      fc.property(fc.dictionary(fc.stringMatching(/^[a-c]{1,2}[_.]?[xywh]?$/), fc.integer(), { maxKeys: 40 }), (flat) => {
        const values = (tree: unknown): number[] =>
          typeof tree === "object" && tree !== null ? Object.values(tree).flatMap(values) : [tree as number];
        expect(values(withFlatRecords(flat)).sort()).toEqual(values(flat).sort());
      }),
    ));

  it("are found in lines of constants of many languages", () => {
    const written = (line: (name: string, value: number) => string) =>
      BALES.flatMap(({ name, ...rest }) => Object.entries(rest).map(([field, value]) => line(`${name}_${field}`, value))).join("\n");
    for (const text of [
      `// bales.png\n${written((name, value) => `#define ${name} ${value}`)}`,
      written((name, value) => `const int ${name} = ${value};`),
      written((name, value) => `public static final float ${name} = ${value}f; // px`),
      `${written((name, value) => `let ${name} = ${value}`)}\n`,
    ])
      expect(parseMetadata(text, "t")).toEqual({ container: "sections", tree: records });
    expect(constantsAsPairs("x = 1\ny = 2\nz = 3")).toBeNull();
  });
});

describe("pairs of a name and a value", () => {
  it("are the fields of their parent record", () => {
    const bale = ({ name, ...rest }: (typeof BALES)[number]) =>
      `<bale>${Object.entries({ label: name, ...rest })
        .map(([key, value]) => `<p n="${key}" v="${value}"/>`)
        .join("")}</bale>`;
    expect(parseMetadata(`<all>${BALES.map(bale).join("")}</all>`, "t").tree).toEqual({
      all: { bale: BALES.map(({ name, ...rest }) => ({ label: name, ...rest })) },
    });
  });

  it("are none if names repeat, end in numbers like frames, or are beside others", () => {
    const steps = ["walk_0", "walk_1", "walk_2", "walk_3"].map((frame) => ({ frame, ms: 90 }));
    expect(pairsAsRecord(steps)).toBeNull();
    expect(pairsAsRecord([..."abca"].map((n) => ({ n, v: 1 })))).toBeNull();
    expect(pairsAsRecord([..."abcd"].map((n) => ({ n, v: 1, w: 2 })))).toBeNull();
  });
});
