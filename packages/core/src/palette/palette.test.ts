import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { clearPixels, hexOf, type Rgb, rgbOf } from "../raster";
import {
  colourDistance,
  coloursIn,
  coloursInReadingOrder,
  coloursInText,
  matchedByBrightness,
  nearlyEqual,
  oklabOf,
  oklchOf,
  ramps,
  recoloured,
  recolouringOf,
  rgbOfOklch,
  touchingIn,
} from ".";

const channel = fc.nat(255);
const rgb = fc.tuple(channel, channel, channel) as fc.Arbitrary<Rgb>;
const dots = (...colours: readonly (readonly number[])[]) => {
  const made = clearPixels(colours.length, 1);
  for (const [k, colour] of colours.entries()) made.bytes.set(colour, k * 4);
  return made;
};

describe("palettes that turn colours into others", () => {
  const palettes = [
    { name: "robe", colours: ["#010203", "#0a0b0c", "#010203"] },
    { name: "guard", of: "robe", colours: ["#ff0000", "#00ff00", "#0000ff"] },
    { name: "short", of: "robe", colours: ["#ffffff"] },
    { name: "lost", of: "gone", colours: ["#ffffff"] },
    { name: "itself", of: "itself", colours: ["#ffffff"] },
  ];

  it("map by position, equal colours by the first, keep alpha and change nothing else", () => {
    const art = dots([1, 2, 3, 255], [10, 11, 12, 99], [1, 2, 4, 255], [1, 2, 3, 0]);
    const recolouring = recolouringOf(palettes, "guard");
    expect([...recoloured(art, recolouring ?? []).bytes]).toEqual([255, 0, 0, 255, 0, 255, 0, 99, 1, 2, 4, 255, 1, 2, 3, 0]);
  });

  it("change what both lists have, and nothing if one of them is missing", () => {
    expect(recolouringOf(palettes, "short")).toEqual([[0x010203, 0xffffff]]);
    for (const name of ["robe", "lost", "itself", "who", undefined]) expect(recolouringOf(palettes, name)).toBeNull();
  });
});

describe("colours as eyes distinguish them", () => {
  it("are restored from lightness, chroma and hue", () =>
    fc.assert(fc.property(rgb, (colour) => rgbOfOklch(oklchOf(colour)).every((each, k) => Math.abs(each - (colour[k] as number)) <= 1))));

  it("are known: white, black and the red of the source", () => {
    expect(oklabOf([255, 255, 255]).l).toBeCloseTo(1, 3);
    expect(oklabOf([0, 0, 0]).l).toBe(0);
    const red = oklabOf([255, 0, 0]);
    expect([red.l, red.a, red.b].map((each) => Number(each.toFixed(3)))).toEqual([0.628, 0.225, 0.126]);
  });

  it("that nearly agree are found, and those that differ are not", () => {
    expect(
      nearlyEqual([
        [120, 60, 30],
        [121, 60, 31],
        [200, 10, 10],
        [120, 60, 30],
      ]),
    ).toEqual([
      [
        [120, 60, 30],
        [121, 60, 31],
      ],
      [
        [121, 60, 31],
        [120, 60, 30],
      ],
    ]);
    expect(colourDistance([0, 0, 0], [255, 255, 255])).toBeGreaterThan(0.9);
  });

  it("form ramps from dark to light, each once", () =>
    fc.assert(
      fc.property(fc.uniqueArray(rgb, { maxLength: 40, selector: hexOf }), (colours) => {
        const all = ramps(colours);
        expect(all.flat().map(hexOf).sort()).toEqual(colours.map(hexOf).sort());
        for (const ramp of all)
          for (let k = 1; k < ramp.length; k++) expect(oklchOf(ramp[k] as Rgb).l).toBeGreaterThanOrEqual(oklchOf(ramp[k - 1] as Rgb).l);
      }),
    ));
});

describe("ramps of a picture", () => {
  /** Two cloths whose tones lie between each other's, drawn as stripes from dark to light. */
  const wool: Rgb[] = [
    [60, 40, 40],
    [110, 78, 70],
    [165, 125, 105],
  ];
  const felt: Rgb[] = [
    [84, 52, 60],
    [138, 96, 96],
    [190, 150, 132],
  ];
  const striped = () => {
    const pixels = clearPixels(3, 7);
    for (const [row, ramp] of [
      [0, wool],
      [4, felt],
    ] as const)
      for (let y = 0; y < 3; y++) for (let x = 0; x < 3; x++) pixels.bytes.set([...(ramp[x] as Rgb), 255], ((row + y) * 3 + x) * 4);
    return pixels;
  };

  it("are separated by adjacency where colours alone would mix them", () => {
    const touching = touchingIn(striped());
    expect(touching(wool[0] as Rgb, wool[1] as Rgb)).toBe(1);
    expect(touching(wool[0] as Rgb, felt[0] as Rgb)).toBe(0);
    expect(ramps([...wool, ...felt], touching).map((ramp) => ramp.map(hexOf))).toEqual(
      expect.arrayContaining([wool.map(hexOf), felt.map(hexOf)]),
    );
    expect(ramps([...wool, ...felt])).not.toEqual(ramps([...wool, ...felt], touching));
  });

  it("are none of a palette's picture, whose colours are read in their order, each once", () => {
    expect(coloursInReadingOrder(striped())).toEqual([...wool, ...felt].map(hexOf));
    const many = clearPixels(300, 1);
    for (let k = 0; k < 300; k++) many.bytes.set([k % 256, k >> 8, 0, 255], k * 4);
    expect(coloursInReadingOrder(many)).toBeNull();
    expect(coloursInReadingOrder(clearPixels(4, 4))).toEqual([]);
  });
});

describe("imported palettes", () => {
  it("are the drawn colours, most used first, without transparent ones", () => {
    expect(coloursIn([dots([1, 1, 1, 255], [2, 2, 2, 9], [2, 2, 2, 255], [7, 7, 7, 0])])).toEqual([
      { colour: "#020202", pixels: 2 },
      { colour: "#010101", pixels: 1 },
    ]);
    const many = clearPixels(300, 1);
    for (let k = 0; k < 300; k++) many.bytes.set([k % 256, k >> 8, 0, 255], k * 4);
    expect(coloursIn([many])).toBeNull();
  });

  it("are read from any text that names them", () => {
    expect(coloursInText('robe: #3B2F2A, "8a5a3c"; 0xD9A066FF #abc and word deadline 123')).toEqual([
      "#3b2f2a",
      "#8a5a3c",
      "#d9a066",
      "#aabbcc",
    ]);
    expect(coloursInText("nothing")).toEqual([]);
  });

  it("are matched dark to dark and light to light", () => {
    expect(matchedByBrightness(["#ffffff", "#000000", "#808080"], ["#10a010", "#002000", "#b0ffb0"])).toEqual([
      "#b0ffb0",
      "#002000",
      "#10a010",
    ]);
    expect(matchedByBrightness(["#000000"], [])).toEqual(["#000000"]);
    expect(rgbOf("#0a0b0c")).toEqual([10, 11, 12]);
  });
});
