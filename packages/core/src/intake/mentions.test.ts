import { describe, expect, it } from "vitest";
import { mentionsIn } from "./mentions";

describe("a text mentions a file", () => {
  it("by its name, alone or in a path, in any capitals", () => {
    for (const text of ['{"image": "hero.png"}', "images/HERO.png", "res://art\\Hero.png", "url(hero.png)", "hero.png\nsize: 64,64"])
      expect(mentionsIn(text)("hero.png"), text).toBe(true);
  });

  it("but not by a longer name that ends like it", () => {
    for (const text of ["superhero.png", "super_hero.png", "super-hero.png", "2hero.png", "überhero.png"])
      expect(mentionsIn(text)("hero.png"), text).toBe(false);
    expect(mentionsIn("superhero.png and hero.png")("hero.png")).toBe(true);
  });

  it("with accents joined or apart, escaped or not", () => {
    const [joined, apart] = ["h\u00e9ros.png", "he\u0301ros.png"];
    for (const text of [joined, apart, "h\\u00e9ros.png", "he\\u0301ros.png", "h&#233;ros.png", "h&#xe9;ros.png"])
      for (const name of [joined, apart]) expect(mentionsIn(`{"image": "${text}"}`)(name), `${text} ${name}`).toBe(true);
    expect(mentionsIn("heros.png")(joined)).toBe(false);
    expect(mentionsIn("&#9999999;")("x")).toBe(false);
  });
});
