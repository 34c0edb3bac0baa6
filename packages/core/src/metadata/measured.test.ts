import { describe, expect, it } from "vitest";
import { percentOf, verdictOf } from "./measured.fixture";

/** `npm run bench:metadata` looks at 2,000. */
const DESCRIPTIONS = 60;

describe("generated descriptions of known atlases", () => {
  it(`are read right in 97 % (rectangles and names), 92 % (extras), 90 % (clips) of ${DESCRIPTIONS}, and none is wrong without a word`, () => {
    const verdicts = Array.from({ length: DESCRIPTIONS }, (_, seed) => verdictOf(seed));
    const figures = {
      rectangles: percentOf(verdicts.map((each) => each.rectangles)),
      extras: percentOf(verdicts.map((each) => each.extras)),
      clips: percentOf(verdicts.map((each) => each.clips)),
    };
    const silent = verdicts.filter((each) => each.silent).map(({ description }) => description.seed);
    console.log(
      `Descriptions of ${DESCRIPTIONS} atlases: rectangles ${figures.rectangles} %, extras ${figures.extras} %, clips ${figures.clips} %`,
    );
    expect(figures.rectangles).toBeGreaterThanOrEqual(97);
    expect(figures.extras).toBeGreaterThanOrEqual(92);
    expect(figures.clips).toBeGreaterThanOrEqual(90);
    expect(silent).toEqual([]);
  }, 120_000);
});
