import { describe, expect, it } from "vitest";
import { similarNames } from "./similar-names";

describe("similarNames", () => {
  it("puts slips of the pen first, ignoring case", () => {
    expect(similarNames("wlak-e", ["idle", "walk-s", "walk-e", "fire"], 2)).toEqual(["walk-e", "walk-s"]);
    expect(similarNames("FIRE", ["first", "fire"], 1)).toEqual(["fire"]);
  });

  it("keeps the order of names that are equally far away, and returns no more than there are", () => {
    expect(similarNames("x", ["b", "a", "c"], 9)).toEqual(["b", "a", "c"]);
    expect(similarNames("x", [], 3)).toEqual([]);
  });
});
