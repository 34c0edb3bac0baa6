import { describe, expect, it } from "vitest";
import { onlyCameAlong } from "./came-along";

const PICTURES = ["pack/hero.png", "pack/town/well.png"];

describe("files that only came along with art", () => {
  it("are texts for people, even if they name pictures", () => {
    const text = "Thanks! hero.png has 12 frames.";
    for (const name of ["readme.txt", "README", "Read me.txt", "LICENSE", "licence.txt", "license-art.txt", "notes.md", "credits.html"])
      expect(onlyCameAlong(`pack/${name}`, text, PICTURES), name).toBe(true);
  });

  it("are a program's code and files of other kinds", () => {
    expect(onlyCameAlong("game/main.ts", "export const speed = 4;", PICTURES)).toBe(true);
    expect(onlyCameAlong("game/step.wav", null, PICTURES)).toBe(true);
    expect(onlyCameAlong("game/font.ttf", null, PICTURES)).toBe(true);
  });

  it("are neither pictures nor data, nor texts called like a picture or naming one", () => {
    expect(onlyCameAlong("pack/broken.png", null, PICTURES)).toBe(false);
    expect(onlyCameAlong("pack/frames.txt", "run 0 0 32 40\nrun 32 0 32 40\n", PICTURES)).toBe(false);
    expect(onlyCameAlong("pack/frames.json", "{}", PICTURES)).toBe(false);
    expect(onlyCameAlong("elsewhere/HERO.lua", "return {}", PICTURES)).toBe(false);
    expect(onlyCameAlong("pack/hero.txt", "0 0 32 40", PICTURES)).toBe(false);
    expect(onlyCameAlong("pack/sheet.lua", 'return { image = "well.png" }', PICTURES)).toBe(false);
  });

  it("are never all that there is", () => {
    expect(onlyCameAlong("readme.txt", "Hello", [])).toBe(false);
    expect(onlyCameAlong("step.wav", null, [])).toBe(false);
  });
});
