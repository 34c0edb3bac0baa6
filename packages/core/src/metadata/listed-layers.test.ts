import { describe, expect, it } from "vitest";
import { layersIn } from "./listed-layers";

const brief = (tree: Parameters<typeof layersIn>[0], picture = "camp.png") => {
  const { layers, place } = layersIn(tree, picture);
  return { layers: layers.map(({ name, image, blend }) => [name, image, blend]), place };
};

describe("layers in a file", () => {
  it("are found in a list of records, with the file's own words for blending", () => {
    const tree = {
      image: "art/camp.png",
      frames: [{ name: "fire_0", x: 0, y: 0, w: 16, h: 16 }],
      layers: [
        { name: "glow", file: "art/camp_2.png", blendMode: "Linear Dodge", opacity: 0.5 },
        { name: "soot", file: "camp_3.png", blendMode: "hard-light" },
      ],
    };
    expect(layersIn(tree, "camp.png")).toEqual({
      place: null,
      layers: [
        { name: "glow", image: "camp_2.png", blend: "add", blendSaid: "Linear Dodge", opacity: 0.5 },
        { name: "soot", image: "camp_3.png", blend: null, blendSaid: "hard-light", opacity: 1 },
      ],
    });
  });

  it.each([
    ["texts under names", { layers: { body: "camp.png", light: "camp_light.png" } }],
    ["a list of texts", { meta: { layers: ["camp.png", "camp_light.png"] } }],
    ["records under names", { passes: { body: { src: "camp.png" }, light: { src: "camp_light.png" } } }],
  ])("are found as %s, the picture's own place among them", (_what, tree) => {
    expect(brief(tree).place).toBe(0);
    expect(brief(tree).layers.map(([, image]) => image)).toEqual(["camp_light.png"]);
    expect(brief(tree, "camp_light.png").place).toBe(1);
  });

  it("are found beside the picture's name, by words for light and shade", () => {
    const tree = { sheets: [{ image: "tent.png" }, { image: "camp.png", light: "camp_l.png", shadow: "camp_s.png", count: 3 }] };
    expect(brief(tree).layers).toEqual([
      ["light", "camp_l.png", null],
      ["shadow", "camp_s.png", null],
    ]);
    expect(brief(tree, "tent.png").layers).toEqual([]);
    expect(brief(tree, "camp_s.png")).toMatchObject({ place: 1 });
  });

  it.each([
    ["frames that are called like pictures", { frames: { "fire_0.png": { x: 0 }, "light.png": { x: 16 } }, image: "camp.png" }],
    ["pictures of buttons under and over the pointer", { normal: "button.png", over: "button_over.png" }],
    ["layers without pictures of their own", { image: "camp.png", layers: [{ name: "body", opacity: 255 }, { name: "light" }] }],
    ["names from the prototype", JSON.parse('{"layers": {"__proto__": 3, "constructor": null}}')],
    ["nothing", null],
  ])("are none in %s", (_what, tree) => {
    expect(brief(tree)).toEqual({ layers: [], place: null });
  });
});
