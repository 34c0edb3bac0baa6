import { describe, expect, it } from "vitest";
import { clearPixels, samePixels } from "../raster";
import { fittingText, letter, letteringWidth } from "./lettering";

function written(text: string, scale = 1): string[] {
  const page = clearPixels(letteringWidth(text, scale), 9 * scale);
  letter(page, text, 0, 0, [1, 2, 3], scale);
  return Array.from({ length: page.height }, (_, y) =>
    Array.from({ length: page.width }, (_, x) => (page.bytes[(y * page.width + x) * 4 + 3] === 255 ? "#" : ".")).join(""),
  );
}

describe("lettering", () => {
  it("writes letters side by side, tails below the line", () =>
    expect(written("Ag")).toEqual([
      ".###........",
      "#...#.......",
      "#...#..####.",
      "#####.#...#.",
      "#...#.#...#.",
      "#...#.#...#.",
      "#...#..####.",
      "..........#.",
      ".......###..",
    ]));

  it("has a letter for everything on a keyboard", () => {
    const keys = Array.from({ length: 94 }, (_, k) => String.fromCharCode(33 + k));
    const shapes = new Set(keys.map((key) => written(key).join()));
    expect(shapes.size).toBe(94);
    expect(shapes.has(written("駱").join())).toBe(false);
  });

  it("writes accented letters plainly and unknown ones as a box", () => {
    expect(written("é")).toEqual(written("e"));
    expect(written("駱")[0]).toBe("#####.");
  });

  it("repeats whole pixels at larger scales", () => expect(written("A", 3)[4]).toBe("###.........###..."));

  it("shortens text without room", () => {
    expect(fittingText("caravan", 42)).toBe("caravan");
    expect(fittingText("caravan", 41)).toBe("carav…");
    expect(fittingText("caravan", 0)).toBe("…");
  });

  it("crops text to the picture", () => {
    const page = clearPixels(4, 4);
    letter(page, "M", -40, -40, [1, 2, 3]);
    letter(page, "M", 90, 90, [1, 2, 3]);
    expect(samePixels(page, clearPixels(4, 4))).toBe(true);
  });
});
