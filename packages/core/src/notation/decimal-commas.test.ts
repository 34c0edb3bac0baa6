import { describe, expect, it } from "vitest";
import { parseAs } from "./notations";

const table = (text: string) => parseAs("table", text, "a.csv").tree;

describe("tables with commas before the decimals", () => {
  it("are known by whole numbers in the same column", () =>
    expect(table("name;x;wait\nrun_0;0;83,3\nrun_1;32;100")).toEqual([
      { name: "run_0", x: 0, wait: 83.3 },
      { name: "run_1", x: 32, wait: 100 },
    ]));

  it("are known by a digit that no number begins with, or by a column's name; one column speaks for all", () => {
    expect(table("name;part\na;0,05\nb;0,5")).toEqual([
      { name: "a", part: 0.05 },
      { name: "b", part: 0.5 },
    ]);
    expect(table("name\tpivot_x\tshare\na\t0,5\t1,5\nb\t-0,25\t2,5")).toEqual([
      { name: "a", pivot_x: 0.5, share: 1.5 },
      { name: "b", pivot_x: -0.25, share: 2.5 },
    ]);
  });

  it("are not lists of numbers that may have one member, nor pairs", () => {
    expect(table("name;frames;size\nwalk;0,1;32,40\nidle;3;32")).toEqual([
      { name: "walk", frames: [0, 1], size: [32, 40] },
      { name: "idle", frames: 3, size: 32 },
    ]);
  });

  it("are not those with pairs of numbers, nor tables whose columns commas part", () => {
    expect(table("name;pos\na;32,40\nb;64,5")).toEqual([
      { name: "a", pos: [32, 40] },
      { name: "b", pos: [64, 5] },
    ]);
    expect(table("name;x;pos\na;0;32,40,8\nb;1;64,5,8")).toEqual([
      { name: "a", x: 0, pos: [32, 40, 8] },
      { name: "b", x: 1, pos: [64, 5, 8] },
    ]);
    expect(table('name,x\na,"0,5"\nb,"1,5"')).toEqual([
      { name: "a", x: [0, 5] },
      { name: "b", x: [1, 5] },
    ]);
  });
});

describe("elements with commas before the decimals", () => {
  const tree = (attributes: readonly string[]) =>
    parseAs("xml", `<sheet>${attributes.map((each) => `<frame ${each}/>`).join("")}</sheet>`, "a.xml").tree;

  it("are known by what their attributes are called, or by whole numbers among them", () => {
    expect(tree(['pivotX="0,5" part="1,5"', 'pivotX="0,25" part="2"'])).toEqual({
      sheet: {
        frame: [
          { pivotX: 0.5, part: 1.5 },
          { pivotX: 0.25, part: 2 },
        ],
      },
    });
    expect(tree(['pos="32,40"', 'pos="64,40"'])).toEqual({ sheet: { frame: [{ pos: [32, 40] }, { pos: [64, 40] }] } });
  });
});
