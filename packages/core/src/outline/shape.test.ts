import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Mask } from "./mask";
import { flattenedMask, grownMask, steadyMask } from "./shape";

function drawn(...rows: string[]): Mask {
  const width = Math.max(...rows.map((row) => row.length));
  return {
    width,
    height: rows.length,
    bytes: Uint8Array.from(rows.flatMap((row) => [...row.padEnd(width)].map((each) => (each === "#" ? 1 : 0)))),
  };
}

const rowsOf = ({ width, height, bytes }: Mask) =>
  Array.from({ length: height }, (_, y) =>
    Array.from({ length: width }, (_, x) => (bytes[y * width + x] === 1 ? "#" : " "))
      .join("")
      .trimEnd(),
  );

const NOWHERE = { x: 0, y: 0 };

describe("combining several masks", () => {
  const one = { mask: drawn("## ", "## "), at: { x: 0, y: 2 } };
  const two = { mask: drawn(" ##", " ##"), at: { x: 0, y: 2 } };
  const three = { mask: drawn("###"), at: { x: 1, y: 0 } };

  it("aligns them by place, not by corner", () => {
    expect(rowsOf(steadyMask([one, two], "union").mask).slice(0, 2)).toEqual(["###", "###"]);
    expect(rowsOf(steadyMask([one, two], "shared").mask).slice(0, 2)).toEqual([" #", " #"]);
    expect(rowsOf(steadyMask([one, two], "median").mask).slice(0, 2)).toEqual(["###", "###"]);
    const all = steadyMask([one, two, three], "median");
    expect([rowsOf(all.mask), all.at]).toEqual([["  #", "  #", ""], { x: 1, y: 2 }]);
    expect(rowsOf(steadyMask([one, two, three], "union").mask)).toEqual([" ###", " ###", "###"]);
    expect(rowsOf(steadyMask([one], "median").mask).slice(0, 2)).toEqual(["##", "##"]);
    expect(steadyMask([], "union").mask.bytes.includes(1)).toBe(false);
  });
});

describe("a grown mask", () => {
  it("has square corners, and restores a block after growing and shrinking", () => {
    const block = { mask: drawn("", " ##", " ##", ""), at: NOWHERE };
    const grown = grownMask(block, 1);
    expect([rowsOf(grown.mask), grown.at]).toEqual([["", " ####", " ####", " ####", " ####", ""], { x: 1, y: 1 }]);
    expect(rowsOf(grownMask(grown, -1).mask)).toEqual(["", "", "  ##", "  ##", "", ""]);
    expect(grownMask(block, -1).mask.bytes.includes(1)).toBe(false);
    expect(grownMask(block, 0)).toEqual(block);
  });

  it("has every pixel that is near enough to a covered one, and no other", () =>
    fc.assert(
      fc.property(fc.array(fc.boolean(), { minLength: 30, maxLength: 30 }), fc.integer({ min: 1, max: 4 }), (cells, px) => {
        const mask = { width: 6, height: 5, bytes: Uint8Array.from(cells, Number) };
        const { mask: grown, at } = grownMask({ mask, at: NOWHERE }, px);
        for (let y = 0; y < grown.height; y++)
          for (let x = 0; x < grown.width; x++) {
            const near = cells.some(
              (each, k) => each && Math.abs((k % 6) + at.x - x) <= px && Math.abs(Math.floor(k / 6) + at.y - y) <= px,
            );
            expect(grown.bytes[y * grown.width + x]).toBe(near ? 1 : 0);
          }
      }),
    ));
});

describe("a straight bottom", () => {
  it("is on the ground as wide as the feet; anything below is cut off", () => {
    const legs = drawn(" ## ", " ## ", " ## ", " ## ", " ## ", " ## ", "#  #", "#   ");
    expect(flattenedMask({ mask: legs, at: { x: 2, y: 8 } })).toMatchObject({ bottom: 8 });
    expect(rowsOf(flattenedMask({ mask: legs, at: { x: 2, y: 9 } }).mask).slice(6)).toEqual(["#  #", "#", "#"]);
    expect(rowsOf(flattenedMask({ mask: legs, at: { x: 2, y: 7 } }).mask).slice(6)).toEqual(["#  #", ""]);
  });

  it("in the air is at the lowest pixel, and of an empty mask nowhere", () => {
    expect(flattenedMask({ mask: drawn("##", "##"), at: { x: 0, y: 9 } })).toMatchObject({ bottom: 2 });
    expect(flattenedMask({ mask: drawn("  ", "  "), at: { x: 0, y: 2 } })).toMatchObject({ bottom: null });
  });
});
