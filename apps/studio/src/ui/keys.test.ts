import { describe, expect, it } from "vitest";
import { sizeInWords } from "./files";
import { chordInWords, chordOf, placeChordOf } from "./keys";
import { written } from "./number-field";

type Held = Partial<Record<"ctrlKey" | "metaKey" | "altKey" | "shiftKey", boolean>>;
const event = (key: string, code: string, held: Held = {}) => ({
  key,
  code,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  shiftKey: false,
  ...held,
});
const press = (key: string, held: Held = {}, mac = false) => chordOf(event(key, "", held), mac);

describe("chordOf", () => {
  it("names keys the same on every keyboard", () => {
    expect(press("c")).toBe("c");
    expect(press("C", { shiftKey: true })).toBe("Shift+c");
    expect(press("?", { shiftKey: true })).toBe("?");
    expect(press(" ")).toBe("Space");
    expect(press("z", { metaKey: true }, true)).toBe("Mod+z");
    expect(press("z", { ctrlKey: true }, true)).toBe("z");
    expect(press("z", { metaKey: true })).toBe("z");
    expect(press("Z", { ctrlKey: true, shiftKey: true })).toBe("Mod+Shift+z");
    expect(press("ArrowLeft", { altKey: true, shiftKey: true })).toBe("Alt+Shift+ArrowLeft");
  });

  it("treats the key for a third character as no chord", () => {
    const bracket = { ...event("[", "Digit8", { ctrlKey: true, altKey: true }), getModifierState: (key: string) => key === "AltGraph" };
    expect(chordOf(bracket, false)).toBe("[");
  });

  it("uses the physical key if its sign is made another way", () => {
    expect(placeChordOf(event("ü", "BracketLeft"), false)).toBe("[");
    expect(placeChordOf(event("&", "Digit1"), false)).toBe("1");
    expect(placeChordOf(event("1", "Digit1", { shiftKey: true }), false)).toBeNull();
    expect(placeChordOf(event(";", "Comma", { shiftKey: true }), false)).toBe("<");
    expect(placeChordOf(event("¬", "KeyL", { altKey: true }), true)).toBe("Alt+l");
    expect(placeChordOf(event("q", "KeyA"), false)).toBeNull();
    // Where letters lie elsewhere, a letter does not do what the sign in its place would.
    expect(placeChordOf(event("z", "Slash"), false)).toBeNull();
  });

  it("uses the physical key for letters of other scripts, so that undo is where it always is", () => {
    expect(placeChordOf(event("я", "KeyZ", { ctrlKey: true }), false)).toBe("Mod+z");
    expect(placeChordOf(event("Я", "KeyZ", { ctrlKey: true, shiftKey: true }), false)).toBe("Mod+Shift+z");
    expect(placeChordOf(event("ψ", "KeyC"), false)).toBe("c");
    expect(placeChordOf(event("ב", "KeyC"), false)).toBe("c");
    expect(placeChordOf(event("ㅊ", "KeyC"), false)).toBe("c");
    expect(placeChordOf(event("لا", "KeyB"), false)).toBe("b");
    // Signs that lie where a letter is mean themselves.
    expect(placeChordOf(event(",", "KeyM"), false)).toBeNull();
    expect(placeChordOf(event("Dead", "KeyE"), false)).toBeNull();
    expect(placeChordOf(event("Process", "KeyC"), false)).toBeNull();
  });

  it("is shown as people read it", () =>
    expect(["Mod+Shift+z", "ArrowLeft", "Space", "?"].map(chordInWords)).toEqual(["Ctrl+Shift+Z", "←", "Space", "?"]));
});

describe("numbers in words", () => {
  it("drop zeros that say nothing", () =>
    expect([written(100, 3), written(37.5, 3), written(1000 / 3, 3)]).toEqual(["100", "37.5", "333.333"]));
  it("give sizes", () => expect([812, 24_100, 3_200_000].map(sizeInWords)).toEqual(["812 bytes", "24.1 KB", "3.2 MB"]));
});
