import { expect, it } from "vitest";
import { looksLikeIndex, namesInOrder } from "./key-order";

it("gives names in the order of the text, also those that look like numbers", () => {
  const text = '{ "b": { "x": 1, "10": 2, "9": 3, "__proto__": 4 }, "list": [{ "2": {}, "1": {} }], "n": 5 }';
  expect(Object.keys(JSON.parse(text).b)).toEqual(["9", "10", "x", "__proto__"]);
  expect(namesInOrder(text, [["b"], ["list", 0], ["n"], ["gone", "deep"]])).toEqual([["x", "10", "9", "__proto__"], ["2", "1"], [], []]);
});

it("knows the names that the runtime moves", () =>
  expect(["0", "7", "10", "07", "", "-1", "1.5", "1e3"].filter(looksLikeIndex)).toEqual(["0", "7", "10"]));
