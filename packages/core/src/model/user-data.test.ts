import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type DataValue, isDataValue, textOfValue, UserData, valueFromText } from "./user-data";

const values = fc.jsonValue({ maxDepth: 4 }).filter((value) => isDataValue(value)) as fc.Arbitrary<DataValue>;

describe("a value of data", () => {
  it("is typed as text, as JSON, or not at all for a tag", () => {
    expect(valueFromText("sand", "data")).toBe("sand");
    expect(valueFromText(" 3.5 ", "data")).toBe(3.5);
    expect(valueFromText("", "data")).toBe(true);
    expect(valueFromText('"0001"', "data")).toBe("0001");
    expect(valueFromText('{"loud": [1, null]}', "data")).toEqual({ loud: [1, null] });
    expect(valueFromText("{not JSON", "data")).toBe("{not JSON");
  });

  it("is read back from its displayed form", () => {
    fc.assert(
      fc.property(values, (value) => {
        expect(valueFromText(textOfValue(value), "data")).toEqual(value);
      }),
    );
    for (const text of ["", " ", "true", "0001", "1", "null", '"', " sand "]) expect(valueFromText(textOfValue(text), "data")).toBe(text);
  });

  it("is the same after it was written to a file and read again", () => {
    fc.assert(
      fc.property(values, (value) => {
        const data = [{ name: "a", value }];
        expect(UserData.parse(JSON.parse(JSON.stringify(data)))).toEqual(data);
      }),
    );
  });

  it("is refused if JSON, or a language that reads it, would lose a part", () => {
    const deep = JSON.parse("[".repeat(40) + "]".repeat(40));
    for (const value of [
      Number.NaN,
      Number.POSITIVE_INFINITY,
      undefined,
      -0,
      deep,
      JSON.parse('{"a": {"__proto__": 1}}'),
      "x".repeat(10_001),
    ])
      expect(isDataValue(value)).toBe(false);
    expect(() => valueFromText('{"__proto__": 1}', "data")).toThrow(/not allowed.*Type text, a number/s);
    expect(() => valueFromText("1e999", "data")).toThrow(/not allowed/);
    expect(UserData.safeParse([{ name: "__proto__", value: 1 }]).success).toBe(false);
  });
});
