import { describe, expect, it } from "vitest";
import { sizeFacts } from "./size-facts";

const rect = { x: 0, y: 0, w: 31, h: 40 };
const at = (...scales: number[]) => ({ densities: scales.map((scale) => ({ scale, suffix: "" })) });

describe("sizeFacts", () => {
  it("gives a size once if sheet, game and delivery agree", () => {
    expect(sizeFacts({}, { rect }, [at(1)])).toEqual([["size", "31 × 40"]]);
  });

  it("gives the stored size of a turned or padded frame, and each delivered scale, rounded as written", () => {
    expect(sizeFacts({}, { rect, turned: true }, [at(1, 2), at(2, 0.5)])).toEqual([
      ["size", "40 × 31"],
      ["on the sheet", "31 × 40"],
      ["delivered at ×0.5", "20 × 16"],
      ["delivered at ×2", "80 × 62"],
    ]);
  });
});
