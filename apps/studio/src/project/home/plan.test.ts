import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { artPlan, standingOf } from "./plan";

describe("the document in the folder", () => {
  it("is ours if it is what we left there, or what we were about to write when the page was closed", () => {
    expect(standingOf("a", { text: "a" })).toBe("as known");
    expect(standingOf("b", { text: "a", writing: { text: "b" } })).toBe("as meant");
    expect(standingOf("a", { text: "a", writing: { text: "b" } })).toBe("as known");
  });

  it("is somebody else's if it is anything else, and missing if it is not there", () => {
    expect(standingOf("c", { text: "a", writing: { text: "b" } })).toBe("changed");
    expect(standingOf("", { text: "a" })).toBe("changed");
    expect(standingOf(null, { text: "a" })).toBe("gone");
  });
});

describe("the art in the folder", () => {
  const files = fc
    .dictionary(fc.constantFrom("art/a.png", "art/b.png", "c.png", "__proto__"), fc.constantFrom("1", "2", "3"))
    .map((each) => new Map(Object.entries(each)));

  it("is written if it is missing or as we left it, and never over somebody else's", () =>
    fc.assert(
      fc.property(files, files, files, (wanted, there, known) => {
        const { write, others } = artPlan(wanted, there, known);
        for (const [path, sha256] of wanted) {
          const found = there.get(path);
          expect(write.includes(path)).toBe(found !== sha256 && (found === undefined || found === known.get(path)));
          expect(others.includes(path)).toBe(found !== undefined && found !== sha256 && found !== known.get(path));
        }
        expect([...write, ...others].every((path) => wanted.has(path))).toBe(true);
      }),
    ));

  it("needs nothing once it was written", () =>
    fc.assert(
      fc.property(files, files, (wanted, known) => {
        const there = new Map([...known, ...wanted]);
        expect(artPlan(wanted, there, wanted)).toEqual({ write: [], others: [] });
      }),
    ));
});
