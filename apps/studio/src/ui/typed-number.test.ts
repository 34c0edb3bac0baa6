import { describe, expect, it } from "vitest";
import { twoMeanings, typedNumber, typedNumbers } from "./typed-number";

describe("typed numbers", () => {
  it("have a point or a comma before their decimals", () => {
    expect(["12", " 33.5 ", "33,5", "-2", "0,125"].map(typedNumber)).toEqual([12, 33.5, 33.5, -2, 0.125]);
    expect(["３２", "１２．５", "\u22124"].map(typedNumber)).toEqual([32, 12.5, -4]);
    expect(["", "a", "1,000,000"].map(typedNumber)).toEqual([Number.NaN, Number.NaN, Number.NaN]);
  });

  it("may have two meanings, if the comma could part thousands", () => {
    expect(twoMeanings("1,000")).toEqual({ small: 1, large: 1000 });
    expect(twoMeanings("-12,500")).toEqual({ small: -12.5, large: -12500 });
    expect(["1000", "1.000", "33.333", "33,5", "0,125", "1,0000"].map(twoMeanings)).toEqual([null, null, null, null, null, null]);
  });

  it("come in lists", () => {
    for (const list of ["150 150 400", "150,150,400", "150, 150, 400", "150;150;400", "150 / 150 / 400", " 150  150, 400 ,"])
      expect(typedNumbers(list), list).toEqual([150, 150, 400]);
    expect(typedNumbers("33.3 33.3")).toEqual([33.3, 33.3]);
    expect(typedNumbers("fast slow")).toEqual([]);
    expect(typedNumbers("")).toEqual([]);
  });

  it("are not guessed if commas may part them or their decimals", () => {
    expect(typedNumbers("33,3 33,3")).toBeNull();
    expect(typedNumbers("33,3; 33,3")).toBeNull();
  });
});
