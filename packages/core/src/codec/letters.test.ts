import { describe, expect, it } from "vitest";
import { lettersOf } from "./letters";

/** Writes text in an old encoding, by its own table read backwards. */
function writerOf(encoding: string): (text: string) => Uint8Array {
  const decoder = new TextDecoder(encoding, { fatal: true });
  const bytesOf = new Map<string, number[]>();
  const learn = (bytes: number[]) => {
    try {
      const letter = decoder.decode(Uint8Array.from(bytes), { stream: true }) + decoder.decode();
      if (Array.from(letter).length === 1 && !bytesOf.has(letter)) bytesOf.set(letter, bytes);
    } catch {
      // Not every pair is a letter.
    }
  };
  for (let byte = 0; byte < 256; byte++) learn([byte]);
  // The older and commoner places first.
  if (encoding !== "ibm866" && !encoding.startsWith("windows"))
    for (const lowest of [0xa1, 0x40])
      for (let lead = 0x81; lead < 0xff; lead++) for (let trail = lowest; trail < 0xff; trail++) learn([lead, trail]);
  return (text) =>
    Uint8Array.from(
      Array.from(text).flatMap((letter) => {
        const bytes = bytesOf.get(letter);
        if (!bytes) throw new Error(`${letter} is not in ${encoding}.`);
        return bytes;
      }),
    );
}

const WESTERN = { encoding: "windows-1252", words: "Western European" };
const wordsFor = (names: readonly string[], encoding: string, cyrillic = "ibm866") =>
  lettersOf(names.map(writerOf(encoding)), WESTERN, cyrillic).words;

describe("lettersOf", () => {
  it.each([
    [
      "Japanese",
      "shift_jis",
      [["歩く_01.png", "走る_01.png"], ["主人公/攻撃.png"], ["スライム(跳ねる).png"], ["素材集/敵キャラ/待機ー赤.png"]],
    ],
    ["simplified Chinese", "gbk", [["行走_01.png", "攻击_01.png"], ["素材/主角/待机.png"], ["史莱姆（跳跃）.png", "箭.png"]]],
    ["Korean", "euc-kr", [["걷기_01.png", "달리기_01.png"], ["주인공/공격.png"]]],
    ["traditional Chinese", "big5", [["行走_01.png", "攻擊_01.png"], ["素材/主角/待機.png"]]],
    ["Cyrillic", "ibm866", [["герой_бежит.png", "Удар.png"], ["Слизь/прыжок_01.png"]]],
  ])("knows %s by what its letters would be", (words, encoding, archives) => {
    for (const names of archives) expect(wordsFor(names, encoding), names.join()).toBe(words);
  });

  it("knows Cyrillic texts", () => expect(wordsFor(["имя;x;y\nгерой идёт;0;0"], "windows-1251", "windows-1251")).toBe("Cyrillic"));

  it("leaves accented letters to Western Europe, where they stand alone", () => {
    for (const name of [
      "héros.png",
      "Größe/Knödel.png",
      "naïve façade_01.png",
      "Ångström, señor",
      "ça et là",
      "œuvre…",
      "ÄÖÜ_probe",
      "crÉÈme",
    ])
      expect(wordsFor([name], "windows-1252"), name).toBe("Western European");
  });

  it("leaves few letters that may be anything to Western Europe", () => {
    for (let lead = 128; lead < 256; lead++)
      for (const trail of [0x61, 0x81, 0xa0, 0xe9])
        expect(lettersOf([Uint8Array.of(0x61, lead, trail, 0x62)], WESTERN, "ibm866").words, `${lead} ${trail}`).toBe("Western European");
    expect(lettersOf([Uint8Array.of(0x61, 0x62)], WESTERN, "ibm866")).toBe(WESTERN);
    expect(lettersOf([], WESTERN, "ibm866")).toBe(WESTERN);
  });
});
