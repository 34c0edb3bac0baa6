import { describe, expect, it } from "vitest";
import { leafOf, leafOfQuoted, notationsOf, parseAs, parseMetadata } from ".";

const tree = (text: string) => parseMetadata(text, "t").tree;
const all = (text: string) => [...notationsOf(text, "t")].map(({ container }) => container);

describe("a value from text", () => {
  it.each([
    ["12", 12],
    ["-3.5", -3.5],
    ["0001", "0001"],
    ["yes", true],
    ["{{1,2},{3,4}}", [1, 2, 3, 4]],
    ["Rect( 0, 0, 16, 16 )", [0, 0, 16, 16]],
    ["2px 4px", [2, 4]],
    ["20x34+2+2", [20, 34, 2, 2]],
    ["x0 2", "x0 2"],
    ["walk-2024", "walk-2024"],
  ])("%s", (text, meant) => expect(leafOf(text)).toEqual(meant));
  it("in quotes stays as written, except numbers", () => expect([leafOfQuoted("no"), leafOfQuoted("7")]).toEqual(["no", 7]));
});

describe("text becomes one tree", () => {
  it("JSON with comments, trailing commas and repeated names", () =>
    expect(tree('// by hand\n{"frame": {"x": 1,}, "frame": {"x": 2}, "n": 3}')).toEqual({ frame: [{ x: 1 }, { x: 2 }], n: 3 }));
  it("names such as __proto__ are names", () =>
    expect(Object.keys(tree('{"__proto__": {"x": 1}, "a": 2}') as object)).toEqual(["__proto__", "a"]));
  it("XML lists of keys and values, lists and records in them", () =>
    expect(
      tree(
        "<p><dict><key>a</key><array><integer>1</integer><integer>2</integer></array><key>b</key><dict><key>c</key><true/></dict></dict></p>",
      ),
    ).toEqual({
      p: { dict: { a: [1, 2], b: { c: true } } },
    }));
  it("XML with two children, which are a width and a height and no pair", () =>
    expect(tree("<s><w>4</w><h>5</h></s>")).toEqual({ s: { w: 4, h: 5 } }));
  it("YAML, nested, with numbers and text as written", () =>
    expect(tree("frames:\n  walk_0:\n    rect: [1, 2]\n    id: 0001\n    'no': \"yes\"\n")).toEqual({
      frames: { walk_0: { rect: [1, 2], id: "0001", no: "yes" } },
    }));
  it("TOML with lists of tables", () =>
    expect(tree("[[f]]\nx = 1\n[[f]]\nx = 2\n[f.size]\nw = 3\n")).toEqual({ f: [{ x: 1 }, { x: 2, size: { w: 3 } }] }));
  it("sections with a repeated key, which is a list in each of them", () =>
    expect(tree("[walk]\nframe=1,2,3\nframe=4,5,6\n[rest]\nframe=7,8,9\n")).toEqual({
      walk: {
        frame: [
          [1, 2, 3],
          [4, 5, 6],
        ],
      },
      rest: { frame: [[7, 8, 9]] },
    }));
  it("sections that repeat, and heads with fields of their own", () =>
    expect(tree('[part id="a"]\nat = Rect(1, 2)\n[part id="b"]\nat = Rect(3, 4)\n')).toEqual({
      part: [
        { id: "a", at: [1, 2] },
        { id: "b", at: [3, 4] },
      ],
    }));
  it("tables separated by bars, with a rule under the header", () =>
    expect(parseAs("table", "| a | x |\n|---|---|\n| b | 1 |\n| c | 2 |", "t").tree).toMatchObject([
      { a: "b", x: 1 },
      { a: "c", x: 2 },
    ]));
  it("tables separated by spaces", () =>
    expect(parseAs("columns", "name  x  y  w\na  1  2  3\nb  4  5  6", "t").tree).toEqual([
      { name: "a", x: 1, y: 2, w: 3 },
      { name: "b", x: 4, y: 5, w: 6 },
    ]));
  it("style sheets, tables of languages, calls, nested parentheses", () => {
    expect(parseAs("code", ".walk { background: url(a.png) -2px 0; width: 4px }", "t").tree).toEqual({
      walk: { background: ["a.png", -2, 0], width: 4 },
    });
    expect(parseAs("code", 'return { a = { x = 1 }, ["b c"] = { x = 2 } }', "t").tree).toEqual([{ a: { x: 1 }, "b c": { x: 2 } }]);
    expect(parseAs("code", 'add("a", 1, 2);\nadd("b", 3, 4);', "t").tree).toEqual({
      add: [
        ["a", 1, 2],
        ["b", 3, 4],
      ],
    });
    expect(parseAs("code", '(s (name "a") (at 1 2))', "t").tree).toEqual([{ s: { name: "a", at: [1, 2] } }]);
    expect(parseAs("code", "{ { 1, 2 }, // a\n { 3, 4 }, // b\n}", "t").tree).toEqual([
      [
        { "0": 1, "1": 2, note: "a" },
        { "0": 3, "1": 4, note: "b" },
      ],
    ]);
  });
  it("lines that repeat a pattern, and facts beside them", () =>
    expect(parseAs("lines", "width 32\nsprite a at 1 2\nsprite b at 3 4", "t").tree).toMatchObject({
      width: 32,
      "line 0": [
        { sprite: "a", at: [1, 2] },
        { sprite: "b", at: [3, 4] },
      ],
    }));
});

describe("texts that describe nothing", () => {
  it("JSON that stops in the middle is damaged, not half a file", () =>
    expect(() => all('{"frames": [{"x": 1}, {"x": 2}')).toThrow(/t: It begins as JSON but is damaged: .*line 1/));
  const hostile: [string, string][] = [
    ["nested deep", "[".repeat(200_000)],
    ["nested deep in brackets", `x = ${"{".repeat(100_000)}`],
    ["a line of 50 MB", "a".repeat(50_000_000)],
    ["numbers without end", "1,".repeat(10_000_000)],
    ["brackets without end", "{}".repeat(1_000_000)],
    ["quotes without end", '"'.repeat(3_000_000)],
    ["equals signs without end", "=".repeat(2_000_000)],
  ];
  it.each(hostile)("%s is refused with an error that names the file, and never hangs", (_what, text) => {
    let said = "";
    try {
      for (const { tree: found } of notationsOf(text, "t")) expect(typeof found).toBe("object");
    } catch (error) {
      said = String(error);
    }
    expect(said === "" || said.includes("t: ")).toBe(true);
  });
});
