import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readableJson } from "./damaged-text";

const items = fc.array(fc.record({ id: fc.string(), list: fc.array(fc.string({ unit: "binary" })), count: fc.integer() }), {
  minLength: 1,
});

describe("JSON up to its damage", () => {
  it("is all of an undamaged text", () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(readableJson(JSON.stringify(value))).toEqual({ value: JSON.parse(JSON.stringify(value)), isWhole: true });
      }),
    );
  });

  it("has every item before the place where the text is cut off, and nothing else", () => {
    fc.assert(
      fc.property(items, fc.nat(), (list, place) => {
        const text = JSON.stringify(list);
        const end = place % text.length;
        const read = readableJson(text.slice(0, end));
        const whole = list.filter((_, k) => JSON.stringify(list.slice(0, k + 1)).length - 1 <= end);
        if (read === null) return void expect(whole).toEqual([]);
        expect(read.isWhole).toBe(false);
        expect((read.value as unknown[]).slice(0, whole.length)).toEqual(whole);
        // At most one follows, which has only whole fields.
        const [part, ...more] = (read.value as object[]).slice(whole.length);
        expect(more).toEqual([]);
        if (part) expect(list[whole.length]).toMatchObject(part);
      }),
      { numRuns: 300 },
    );
  });

  it("ends before a place that was overwritten", () => {
    const list = Array.from({ length: 300 }, (_, k) => ({ id: `s${k}`, size: [k, k] }));
    const text = JSON.stringify(list);
    const at = text.indexOf('{"id":"s150"');
    expect(readableJson(`${text.slice(0, at)}\0\0\0\0${text.slice(at + 4)}`)).toEqual({ value: list.slice(0, 150), isWhole: false });
  });

  it("is nothing of a text without one list or record that ends", () => {
    for (const text of ["", "{", '{"name": "a', "<<<<<<< ours", "nul"]) expect(readableJson(text)).toBeNull();
  });
});
