import { describe, expect, it } from "vitest";
import { layered } from "../assemble";
import { crop, type Pixels } from "../raster";
import { looksLikeOpenRaster, readOpenRaster } from "./open-raster";
import { png, still } from "./png.fixture";
import { utf8, writeZip } from "./zip";

describe("a layered picture", () => {
  const stack = `<?xml version="1.0"?><image w="12" h="9"><stack>
    <layer name="lamp" src="data/lamp.png" x="3" y="1" opacity="0.5"/>
    <stack name="body"><layer name="robe" src="data/robe.png" x="0" y="0"/><layer name="legs" src="data/legs.png" x="0" y="0"/></stack>
    <layer name="sketch" src="data/lamp.png" visibility="hidden"/></stack></image>`;
  const ora = (xml = stack, merged?: Pixels) =>
    writeZip([
      { path: "mimetype", bytes: utf8("image/openraster") },
      { path: "stack.xml", bytes: utf8(xml) },
      { path: "data/lamp.png", bytes: png.encode(still(1, 6, 8)) },
      { path: "data/robe.png", bytes: png.encode(still(2)) },
      { path: "data/legs.png", bytes: png.encode(still(6)) },
      ...(merged ? [{ path: "mergedimage.png", bytes: png.encode(merged) }] : []),
    ]);

  it("returns each layer on the whole canvas from the bottom up, without hidden ones, groups as one", () => {
    const { layers, hidden, groups } = readOpenRaster(ora(), "bearer.ora", png, "flatten");
    expect({ hidden, groups }).toEqual({ hidden: 1, groups: 1 });
    expect(layers.map(({ pixels: { width, height } }) => [width, height])).toEqual([
      [12, 9],
      [12, 9],
    ]);
    expect(layers.map(({ name }) => name)).toEqual(["body", "lamp"]);
    const lamp = layers[1]?.pixels as Pixels;
    expect(lamp.bytes[((2 + 1) * 12 + 1 + 3) * 4 + 3]).toBe(128);
  });

  it("returns the layers of groups separately if asked", () =>
    expect(readOpenRaster(ora(), "bearer.ora", png, "apart").layers.map(({ name }) => name)).toEqual(["body/legs", "body/robe", "lamp"]));

  it("is compared with the merged picture in the file, as it shows", () => {
    const unlike = (xml: string, merged?: Pixels) => readOpenRaster(ora(xml, merged), "bearer.ora", png, "flatten").unlikeMerged;
    const right = layered(readOpenRaster(ora(), "bearer.ora", png, "flatten").layers);
    const screened = stack.replace('opacity="0.5"', 'opacity="0.5" composite-op="svg:screen"');
    expect([unlike(stack, right), unlike(stack), unlike(stack, still(1, 6, 8))]).toEqual([0, null, null]);
    const rounded = { ...right, bytes: right.bytes.map((value) => Math.max(0, value - 2)) };
    expect([unlike(stack, rounded), unlike(screened, right)]).toEqual([0, 0]);
    expect(unlike(stack.replace('opacity="0.5"', ""), right)).toBeGreaterThan(0);
  });

  it("is read whatever names, numbers and operations it has", () => {
    const xml = `<image w="12" h="9"><stack composite-op="constructor"><layer name="r&#246;be" src="data/robe.png" x="1.4" y="-0.4" opacity="0,5"
      composite-op="__proto__"/><stack name="shade" composite-op="svg:multiply"><layer name="legs" src="data/legs.png"/></stack></stack></image>`;
    const { layers, unlike, unread } = readOpenRaster(ora(xml), "bearer.ora", png, "apart");
    expect(layers.map(({ name, blend }) => [name, blend])).toEqual([
      ["shade/legs", "multiply"],
      ["röbe", "normal"],
    ]);
    expect(unlike).toEqual([{ name: "röbe", blended: "__proto__" }]);
    expect(unread).toEqual([{ name: "röbe", field: "opacity", text: "0,5", used: 1 }]);
    expect(crop(layers[1]?.pixels as Pixels, { x: 1, y: 0, w: 11, h: 9 })).toEqual(crop(still(2), { x: 0, y: 0, w: 11, h: 9 }));
  });

  it("is recognised by its first entry, or by its name", () => {
    const sorted = writeZip([{ path: "data/lamp.png", bytes: png.encode(still(1)) }]);
    expect([looksLikeOpenRaster(ora(), "bearer.zip"), looksLikeOpenRaster(sorted, "b.ORA"), looksLikeOpenRaster(sorted, "b.zip")]).toEqual([
      true,
      true,
      false,
    ]);
  });

  it("is refused with entities, without layers, and without a stack", () => {
    expect(() => readOpenRaster(ora('<!DOCTYPE a [<!ENTITY b "c">]><image w="1" h="1"/>'), "b.ora", png, "flatten")).toThrow(/entities/);
    expect(() => readOpenRaster(ora('<image w="4" h="4"><stack></stack></image>'), "b.ora", png, "flatten")).toThrow(/no visible layer/);
    expect(() => readOpenRaster(writeZip([{ path: "mimetype", bytes: utf8("image/openraster") }]), "b.ora", png, "flatten")).toThrow(
      /no stack\.xml/,
    );
  });
});
