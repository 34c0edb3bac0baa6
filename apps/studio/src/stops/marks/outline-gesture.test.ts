import type { Outline } from "@caravan/core/model";
import { describe, expect, it } from "vitest";
import { cornerBeside, gripAt, outlineAround, withCornerAt, withoutCorner } from "./outline-gesture";

const block: Outline = outlineAround({ x: 2, y: 3, w: 8, h: 6 });
const other: Outline = outlineAround({ x: 20, y: 20, w: 4, h: 4 });

describe("corners in hand", () => {
  it("are taken before edges, and nothing is taken beyond reach", () => {
    expect(gripAt([block, other], { x: 9.4, y: 3.2 }, 1)).toEqual({ kind: "corner", outline: 0, corner: 1 });
    expect(gripAt([block, other], { x: 6, y: 9.3 }, 1)).toEqual({ kind: "edge", outline: 0, corner: 2 });
    expect(gripAt([block, other], { x: 20, y: 22 }, 1)).toEqual({ kind: "edge", outline: 1, corner: 3 });
    expect(gripAt([block, other], { x: 6, y: 6 }, 1)).toBeNull();
    expect(gripAt([], { x: 0, y: 0 }, 100)).toBeNull();
  });

  it("move to whole pixels, are drawn out of edges, and go", () => {
    const moved = withCornerAt([block, other], { kind: "corner", outline: 0, corner: 2 }, { x: 11.6, y: 9.4 });
    expect(moved.outlines[0]?.[2]).toEqual({ x: 12, y: 9 });
    expect(moved.outlines[1]).toBe(other);
    const drawn = withCornerAt([block], { kind: "edge", outline: 0, corner: 3 }, { x: 0, y: 6 });
    expect(drawn).toEqual({ outlines: [[...block, { x: 0, y: 6 }]], at: { outline: 0, corner: 4 } });
    expect(withoutCorner(drawn.outlines, drawn.at)).toEqual([block]);
    expect(withoutCorner([block.slice(0, 3), other], { outline: 0, corner: 1 })).toEqual([other]);
  });

  it("are stepped through in order, over all outlines, wrapping around", () => {
    expect(cornerBeside([block, other], null, 1)).toEqual({ outline: 0, corner: 0 });
    expect(cornerBeside([block, other], { outline: 0, corner: 3 }, 1)).toEqual({ outline: 1, corner: 0 });
    expect(cornerBeside([block, other], { outline: 0, corner: 0 }, -1)).toEqual({ outline: 1, corner: 3 });
    expect(cornerBeside([], { outline: 0, corner: 0 }, 1)).toBeNull();
  });
});
