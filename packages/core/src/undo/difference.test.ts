import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { applyChanges, differenceBetween } from "./difference";

const values = fc.letrec((tie) => ({
  value: fc.oneof(
    { maxDepth: 3 },
    fc.constantFrom(0, 1, "a", null, true),
    fc.array(tie("value"), { maxLength: 5 }),
    fc.dictionary(fc.constantFrom("a", "b", "c", "__proto__"), tie("value"), { maxKeys: 3 }),
  ),
})).value;

describe("differenceBetween", () => {
  it("leads from any document to any other and back", () =>
    fc.assert(
      fc.property(values, values, (before, after) => {
        const copy = structuredClone(before);
        expect(applyChanges(before, differenceBetween(before, after))).toEqual(after);
        expect(applyChanges(after, differenceBetween(after, before))).toEqual(before);
        expect(JSON.stringify(applyChanges(before, differenceBetween(before, after)))).toBe(JSON.stringify(after));
        expect(before).toEqual(copy);
      }),
      { numRuns: 1000 },
    ));

  it("says nothing about parts that are the same object", () => {
    const shared = { big: Array.from({ length: 1000 }, (_, k) => ({ k })) };
    expect(differenceBetween({ shared, name: "a" }, { shared, name: "b" })).toEqual([{ at: ["name"], set: "b" }]);
  });

  it("describes one removed item of a long list as one small change", () => {
    const list = Array.from({ length: 1000 }, (_, k) => ({ k }));
    expect(differenceBetween({ list }, { list: list.filter((_, k) => k !== 500) })).toEqual([
      { at: ["list"], splice: { from: 500, remove: 1, insert: [] } },
    ]);
  });

  it("describes a long list that changed throughout as one run", () => {
    const before = Array.from({ length: 1000 }, (_, k) => ({ k }));
    const after = before.map(({ k }) => ({ k: k + 1 }));
    const changes = differenceBetween({ before }, { before: after });
    expect(changes).toEqual([{ at: ["before"], splice: { from: 0, remove: 1000, insert: after } }]);
    expect(applyChanges({ before }, changes)).toEqual({ before: after });
  });

  it("survives being stored as JSON", () => {
    const before = { clips: [{ name: "walk", steps: [1, 2, 3] }], origin: { x: 1 } };
    const after = { clips: [{ name: "walk", steps: [1, 3] }] };
    expect(applyChanges(before, JSON.parse(JSON.stringify(differenceBetween(before, after))))).toEqual(after);
  });
});
