import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { repeatedKey } from "./repeated-key";

describe("a name that occurs twice in one object", () => {
  it("is found with both lines and the way to it", () => {
    expect(repeatedKey('{\n "a": { "b": 1 },\n "rules": [ {}, { "hero": 1,\n "hero": 2 } ]\n}')).toEqual({
      key: "hero",
      path: ["rules", 1],
      lines: [3, 4],
    });
  });

  it("is the same name in any spelling, even if the runtime has a member of that name", () => {
    expect(repeatedKey('{"hero":1,"h\\u0065ro":2}')?.key).toBe("hero");
    expect(repeatedKey('{"__proto__":1,"__proto__":2}')?.key).toBe("__proto__");
    expect(repeatedKey('{"constructor":1,"toString":2}')).toBeNull();
  });

  it("differs from the same name in another object", () => {
    expect(repeatedKey('{"a":{"a":{"a":1}},"b":[{"a":1},{"a":1}]}')).toBeNull();
  });

  it("is in nothing that the runtime writes", () => {
    fc.assert(fc.property(fc.jsonValue(), (value) => repeatedKey(JSON.stringify(value)) === null));
  });
});
