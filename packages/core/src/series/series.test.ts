import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { findSeries, numberIn } from "./series";

const sorted = (...names: string[]) => findSeries(names, (name) => name);

describe("findSeries", () => {
  it("puts 1, 2, 10 in the order in which people count", () => {
    const { series, single } = sorted("walk_10.png", "walk_2.png", "walk_1.png");
    expect(series.map(({ name, members }) => [name, members.map(({ file }) => file)])).toEqual([
      ["walk", ["walk_1.png", "walk_2.png", "walk_10.png"]],
    ]);
    expect(single).toEqual([]);
  });

  it("separates several series of one drop, with any separator, and leaves sheets alone", () => {
    const { series, single } = sorted(
      "hero.png",
      "run-01.png",
      "run-02.png",
      "idle (1).png",
      "idle (2).png",
      "fall3.png",
      "fall4.png",
      "map.png",
    );
    expect(series.map(({ name, members }) => [name, members.length])).toEqual([
      ["fall", 2],
      ["idle", 2],
      ["run", 2],
    ]);
    expect(single).toEqual(["hero.png", "map.png"]);
  });

  it("is numbered by the number that changes, wherever it is", () => {
    expect(sorted("v2_walk_01.png", "v2_walk_02.png", "v2_walk_03.png").series[0]?.members.map(({ number }) => number)).toEqual([1, 2, 3]);
    expect(sorted("01 walk.png", "02 walk.png").series[0]?.name).toBe("walk");
  });

  it("reports missing and duplicate numbers", () => {
    const [series] = sorted("b1.png", "b2.png", "b5.png", "b02.png").series;
    expect(series?.missing).toEqual([3, 4]);
    expect(series?.doubles).toEqual(["b02.png"]);
  });

  it("names a series of bare numbers by its folder, and keeps folders apart", () =>
    expect(sorted("walk/1.png", "walk/2.png", "run/1.png", "run/2.png").series.map(({ name }) => name)).toEqual(["run", "walk"]));

  it("puts every file somewhere, once", () =>
    fc.assert(
      fc.property(fc.uniqueArray(fc.stringMatching(/^[a-c]{1,2}[_-]?\d{0,3}[a-b]?\d{0,2}\.png$/), { maxLength: 30 }), (names) => {
        const { series, single } = sorted(...names);
        const all = [...single, ...series.flatMap(({ members, doubles }) => [...members.map(({ file }) => file), ...doubles])];
        expect(all.sort()).toEqual(names.toSorted());
      }),
    ));
});

describe("numberIn", () => {
  it("gives the number of a single file in a series, whatever is padded or written with capitals", () => {
    expect(["walk_3.png", "Walk-012.png", "art/walk (7).png"].map((path) => numberIn("walk", path))).toEqual([3, 12, 7]);
    expect(numberIn("v2_walk", "v2_walk_3.png")).toBe(3);
  });

  it("gives none for other names", () =>
    expect(["walk.png", "walker_3.png", "walk_3b.png", "3.png"].map((path) => numberIn("walk", path))).toEqual([null, null, null, null]));
});
