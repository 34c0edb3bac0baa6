import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { matches } from "./wildcard";

describe("matches", () => {
  it("treats every character but * and ? literally, dashes and brackets too", () => {
    expect(matches("walk-*", "walk-e")).toBe(true);
    expect(matches("walk-*", "walk_e")).toBe(false);
    for (const name of ["a-b", "a.b", "[a-z]", "^$", "(", "\\", "a|b", "/", "😀"]) expect(matches(name, name)).toBe(true);
    expect(matches("a.b", "axb")).toBe(false);
  });

  it("lets ? stand for one character, even one of two halves", () => {
    expect(matches("walk?", "walk1")).toBe(true);
    expect(matches("walk?", "walk")).toBe(false);
    expect(matches("?", "😀")).toBe(true);
  });

  it("answers at once where a search would take minutes", () => {
    // Backtracking over all stars would outlive the test's time limit by far.
    expect(matches(`${"*a".repeat(60)}b`, "a".repeat(200))).toBe(false);
  });

  it("agrees with a plain recursive matcher", () => {
    const slow = (pattern: string, name: string): boolean => {
      if (pattern === "") return name === "";
      if (pattern[0] === "*") return slow(pattern.slice(1), name) || (name !== "" && slow(pattern, name.slice(1)));
      return name !== "" && (pattern[0] === "?" || pattern[0] === name[0]) && slow(pattern.slice(1), name.slice(1));
    };
    const text = (characters: string[], maxLength: number) =>
      fc.array(fc.constantFrom(...characters), { maxLength }).map((all) => all.join(""));
    fc.assert(
      fc.property(text(["a", "b", "*", "?", "-"], 8), text(["a", "b", "-"], 8), (pattern, name) => {
        // No pattern at all matches nothing.
        fc.pre(pattern !== "");
        expect(matches(pattern, name)).toBe(slow(pattern, name));
      }),
      { numRuns: 2000 },
    );
  });
});
