import { expect, it } from "vitest";
import { isFitName } from "../model";
import { readingName } from "./reading-name";

it("a reading is called after its file, whatever that is called", () => {
  expect(readingName("art/deep\\poses.json")).toBe("poses.json");
  expect(readingName(`${"x".repeat(240)}.json`)).toBe(`${"x".repeat(195)}.json`);
  expect(readingName("a\nb.json")).toBe("ab.json");
  for (const file of ["__proto__", " ", "", "\ud83d", `a.${"b".repeat(230)}`, `${"😀".repeat(120)}.xml`])
    expect(isFitName(readingName(file))).toBe(true);
  expect(readingName("__proto__")).toBe("metadata");
  expect(readingName(`${"😀".repeat(120)}.xml`)).toBe(`${"😀".repeat(98)}.xml`);
});
