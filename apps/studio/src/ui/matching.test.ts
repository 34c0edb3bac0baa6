import { describe, expect, it } from "vitest";
import { matching } from "./matching";

const found = (typed: string, ...names: string[]) => matching(names, typed, (name) => name);

describe("matching", () => {
  it("finds names with every word that was typed, in any order and case, those first that begin with it", () => {
    expect(found("Walk", "old-walk-e", "idle", "walk-e", "walk-n")).toEqual(["walk-e", "walk-n", "old-walk-e"]);
    expect(found("e walk", "walk-n", "walk-e", "idle-e")).toEqual(["walk-e"]);
  });

  it("takes what is typed as it is, and finds all if nothing is", () => {
    expect(found("*", "walk-*", "walk")).toEqual(["walk-*"]);
    expect(found("  ", "b", "a")).toEqual(["b", "a"]);
  });

  it("may search in more words than the name", () =>
    expect(
      matching(
        ["rest", "walk"],
        "clip",
        (name) => name,
        (name) => `${name} ${name === "rest" ? "clip" : "action"}`,
      ),
    ).toEqual(["rest"]));
});
