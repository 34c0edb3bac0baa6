import { describe, expect, it } from "vitest";
import { USUAL_PACKING } from "../model";
import { packPages } from "./pages";
import { packPagesOnce } from "./remembered";

const items = (count: number, w = 3) => Array.from({ length: count }, (_, k) => ({ w: w + (k % 5), h: 4 + ((k * 7) % 9) }));

describe("packPagesOnce", () => {
  it("returns what the search returns, and the same again without searching", () => {
    const first = packPagesOnce(items(40), USUAL_PACKING, null);
    expect(first).toEqual(packPages(items(40), USUAL_PACKING, null));
    let told = 0;
    expect(packPagesOnce(items(40), USUAL_PACKING, null, () => told++)).toBe(first);
    expect(told).toBe(1);
  });

  it("searches again for other sizes, settings and groups", () => {
    const first = packPagesOnce(items(40), USUAL_PACKING, null);
    expect(packPagesOnce(items(40, 4), USUAL_PACKING, null)).not.toBe(first);
    expect(packPagesOnce(items(40), { ...USUAL_PACKING, paddingPx: 5 }, null)).not.toBe(first);
    expect(packPagesOnce(items(40), USUAL_PACKING, Array(40).fill(0))).not.toBe(first);
  });

  it("forgets what has not been requested for a while", () => {
    const first = packPagesOnce(items(41), USUAL_PACKING, null);
    for (let k = 0; k < 8; k++) packPagesOnce(items(10 + k), USUAL_PACKING, null);
    const again = packPagesOnce(items(41), USUAL_PACKING, null);
    expect(again).not.toBe(first);
    expect(again).toEqual(first);
  });
});
