import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { entriesOf, orderedCompactJson, orderedJson, orderedRecord } from "./ordered-record";

const entries = fc.uniqueArray(fc.tuple(fc.oneof(fc.nat(99).map(String), fc.constantFrom("walk", "0001", "__proto__", "-1")), fc.nat()), {
  selector: ([name]) => name,
  maxLength: 12,
});

describe("ordered records", () => {
  it("return their entries in order, even with names that look like numbers", () =>
    fc.assert(
      fc.property(entries, (given) => {
        expect(entriesOf(orderedRecord(given))).toEqual(given);
      }),
    ));

  it("are written in that order, and read back the same", () =>
    fc.assert(
      fc.property(entries, (given) => {
        const text = orderedJson({ of: orderedRecord(given) });
        expect(JSON.parse(text)).toEqual({ of: Object.fromEntries(given) });
        expect(orderedCompactJson({ of: orderedRecord(given) })).toBe(text.replace(/\n */g, "").replaceAll('": ', '":'));
        expect([...text.matchAll(/^ {2}("(?:[^"\\]|\\.)*"): /gm)].map(([, name]) => JSON.parse(name as string))).toEqual(
          given.map(([name]) => name),
        );
      }),
    ));

  it("are otherwise written exactly like JSON", () =>
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(orderedJson(value)).toBe(JSON.stringify(value, null, 1));
        expect(orderedCompactJson(value)).toBe(JSON.stringify(value));
      }),
    ));
});
