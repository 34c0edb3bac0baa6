import { describe, expect, it } from "vitest";
import { similarNames } from "./similar-names";

describe("similarNames", () => {
  it("puts slips of the pen first, ignoring case", () => {
    expect(similarNames("wlak-e", ["idle", "walk-s", "walk-e", "fire"], 2)).toEqual(["walk-e", "walk-s"]);
    expect(similarNames("FIRE", ["first", "fire"], 1)).toEqual(["fire"]);
  });

  it("compares the beginnings of very long names", () => {
    const long = "x".repeat(100_000);
    expect(similarNames(long, ["a", `${"x".repeat(64)}y`], 1)).toEqual([`${"x".repeat(64)}y`]);
  });

  it("keeps the order of names that are equally far away, and returns no more than there are", () => {
    expect(similarNames("x", ["b", "a", "c"], 9)).toEqual(["b", "a", "c"]);
    expect(similarNames("x", [], 3)).toEqual([]);
  });
});
