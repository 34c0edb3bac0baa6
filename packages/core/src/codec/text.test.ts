import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readText, seemsText } from "./text";
import { utf8 } from "./zip";

const wide = (text: string, little: boolean, mark = true) => {
  const units = [...(mark ? [0xfeff] : []), ...text.split("").map((unit) => unit.charCodeAt(0))];
  return Uint8Array.from(units.flatMap((unit) => (little ? [unit & 255, unit >> 8] : [unit >> 8, unit & 255])));
};
const narrow = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));

describe("readText", () => {
  it("reads UTF-8 exactly, and UTF-16 in both orders", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", minLength: 1 }), (text) =>
        [utf8(text), wide(text, true), wide(text, false)].every((bytes) => readText(bytes).text === text && seemsText(bytes)),
      ),
    );
  });

  it("knows UTF-16 without its mark by ASCII", () => {
    const text = '{"frames": [{"name": "héros_0", "x": 0}]}';
    for (const little of [true, false]) {
      expect(readText(wide(text, little, false))).toEqual({ text, guessed: null });
      expect(seemsText(wide(text, little, false))).toBe(true);
    }
  });

  it("takes other bytes for what they are likely to be, mostly Windows-1252, and says that it guessed", () => {
    expect(readText(narrow("name,x\nh\xe9ros,0"))).toEqual({ text: "name,x\nhéros,0", guessed: "Western European" });
    expect(readText(narrow("\x9cuvre\x85")).text).toBe("œuvre…");
    expect(readText(Uint8Array.of(0x95, 0xe0, 0x82, 0xad, 0x5f, 0x30))).toEqual({ text: "歩く_0", guessed: "Japanese" });
    expect(readText(narrow("plain"))).toEqual({ text: "plain", guessed: null });
  });
});

describe("seemsText", () => {
  it("is true of text in any letters, and false of pictures, sounds and programs", () => {
    expect(seemsText(narrow("h\xe9ros"))).toBe(true);
    expect(seemsText(utf8("шаг\r\n\tx"))).toBe(true);
    expect(seemsText(narrow("RIFF\0\0\0\0WAVE"))).toBe(false);
    expect(seemsText(narrow("\x89PNG\r\n\x1a\n\0\0\0\rIHDR"))).toBe(false);
    expect(seemsText(Uint8Array.from({ length: 600 }, (_, k) => (k * 37) % 256))).toBe(false);
    // Ones and zeros of 16 bits, as a sound or a height map has them.
    expect(seemsText(Uint8Array.from({ length: 600 }, (_, k) => (k % 2 ? 0 : 1)))).toBe(false);
  });
});
