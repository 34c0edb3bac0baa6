import { describe, expect, it } from "vitest";
import { sizeInWords } from "./files";
import { chordInWords, chordOf } from "./keys";
import { written } from "./number-field";

const press = (key: string, held: Partial<Record<"ctrlKey" | "metaKey" | "altKey" | "shiftKey", boolean>> = {}) =>
  chordOf({ key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held });

describe("chordOf", () => {
  it("names keys the same on every keyboard", () => {
    expect(press("c")).toBe("c");
    expect(press("C", { shiftKey: true })).toBe("Shift+c");
    expect(press("?", { shiftKey: true })).toBe("?");
    expect(press(" ")).toBe("Space");
    expect(press("z", { metaKey: true })).toBe("Mod+z");
    expect(press("Z", { ctrlKey: true, shiftKey: true })).toBe("Mod+Shift+z");
    expect(press("ArrowLeft", { altKey: true, shiftKey: true })).toBe("Alt+Shift+ArrowLeft");
  });

  it("is shown as people read it", () =>
    expect(["Mod+Shift+z", "ArrowLeft", "Space", "?"].map(chordInWords)).toEqual(["Ctrl+Shift+Z", "←", "Space", "?"]));
});

describe("numbers in words", () => {
  it("drop zeros that say nothing", () =>
    expect([written(100, 3), written(37.5, 3), written(1000 / 3, 3)]).toEqual(["100", "37.5", "333.333"]));
  it("tell sizes", () => expect([812, 24_100, 3_200_000].map(sizeInWords)).toEqual(["812 bytes", "24.1 KB", "3.2 MB"]));
});
