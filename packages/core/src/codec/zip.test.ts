import CRC32 from "crc-32";
import fc from "fast-check";
import { zipSync } from "fflate";
import { describe, expect, it } from "vitest";
import { sha256Hex } from "./hash";
import { lettersOfNames, readZip, textFromUtf8, utf8, writeZip } from "./zip";

describe("ZIP", () => {
  it("gives files back in order, the same bytes each time", () =>
    fc.assert(
      fc.property(fc.uniqueArray(fc.stringMatching(/^[a-z]{1,6}(\/[a-z]{1,4})?\.(png|json)$/), { maxLength: 6 }), (paths) => {
        const files = paths.map((path) => ({ path, bytes: utf8(path.repeat(40)) }));
        const zip = writeZip(files);
        expect(writeZip(files)).toEqual(zip);
        expect(readZip(zip, "x.zip")).toEqual(files);
      }),
      { numRuns: 50 },
    ));

  it("refuses truncated, empty and escaping archives", () => {
    const zip = writeZip([{ path: "a.json", bytes: utf8("hello") }]);
    expect(() => readZip(zip.subarray(0, zip.length - 10), "a.zip")).toThrow(/a\.zip: The archive is damaged/);
    expect(() => readZip(new Uint8Array(0), "a.zip")).toThrow(/empty/);
    for (const path of ["../a", "/a", "a/../../b", "C:x", "..\\a", "a\\..\\..\\b", "\\a"])
      expect(() => readZip(zipSync({ [path]: utf8("x") }), "a.zip"), path).toThrow(/outside itself/);
  });

  it("reads names that do not say that they are UTF-8 as what they are", () => {
    /** A ZIP of one file whose name is these bytes, without the flag. */
    const zipCalled = (name: Uint8Array) => {
      const zip = zipSync({ ["x".repeat(name.length)]: utf8("hello") });
      const view = new DataView(zip.buffer);
      for (let at = 0; at < zip.length - 4; at++) {
        if (view.getUint32(at, true) === 0x04034b50) zip.set(name, at + 30);
        if (view.getUint32(at, true) === 0x02014b50) zip.set(name, at + 46);
      }
      return zip;
    };
    const called = (name: Uint8Array) => readZip(zipCalled(name), "a.zip").map(({ path }) => path);
    expect(called(utf8("art/h\u00e9ros.png"))).toEqual(["art/h\u00e9ros.png"]);
    expect(called(utf8("art/he\u0301ros.png"))).toEqual(["art/he\u0301ros.png"]);
    // Code page 437, as by many older programs.
    expect(called(Uint8Array.of(0x68, 0x82, 0x72, 0x6f, 0x73))).toEqual(["h\u00e9ros"]);
    expect(called(utf8("plain.png"))).toEqual(["plain.png"]);
    // Shift JIS, as systems in Japan wrote it: a guess that is said to be one.
    const walks = Uint8Array.of(0x95, 0xe0, 0x82, 0xad, 0x2e, 0x70, 0x6e, 0x67);
    expect(called(walks)).toEqual(["\u6b69\u304f.png"]);
    expect([walks, Uint8Array.of(0x68, 0x82), utf8("h\u00e9"), utf8("plain")].map((name) => lettersOfNames(zipCalled(name)))).toEqual([
      "Japanese",
      "Western European",
      null,
      null,
    ]);
    // One that says so is not read twice.
    expect(readZip(zipSync({ "\u00c3\u00a9.png": utf8("x") }), "a.zip").map(({ path }) => path)).toEqual(["\u00c3\u00a9.png"]);
  });

  it("believes the second name of a file that was written for its first", () => {
    const first = Uint8Array.of(0x95, 0xe0);
    const second = utf8("walk-\u6b69.png");
    const extra = (crc: number) => {
      const field = new Uint8Array(5 + second.length);
      field[0] = 1;
      new DataView(field.buffer).setUint32(1, crc, true);
      field.set(second, 5);
      return field;
    };
    const zipWith = (crc: number) => {
      const zip = zipSync({ ab: [utf8("hello"), { extra: { 28789: extra(crc) } }] });
      const view = new DataView(zip.buffer);
      for (let at = 0; at < zip.length - 4; at++) {
        if (view.getUint32(at, true) === 0x04034b50) zip.set(first, at + 30);
        if (view.getUint32(at, true) === 0x02014b50) zip.set(first, at + 46);
      }
      return zip;
    };
    const right = CRC32.buf(first);
    expect(readZip(zipWith(right), "a.zip").map(({ path }) => path)).toEqual(["walk-\u6b69.png"]);
    expect(lettersOfNames(zipWith(right))).toBeNull();
    // Renamed since by a program that knows no second names.
    expect(readZip(zipWith(right + 1), "a.zip").map(({ path }) => path)).toEqual(["\u00f2\u03b1"]);
  });

  it("takes backslashes for what parts folders", () =>
    expect(readZip(zipSync({ "art\\people\\hero.png": utf8("x"), "art\\": new Uint8Array() }), "a.zip").map(({ path }) => path)).toEqual([
      "art/people/hero.png",
    ]));

  it("refuses an archive that would unpack beyond all measure", () => {
    const bomb = zipSync({ a: new Uint8Array(1000) });
    const view = new DataView(bomb.buffer);
    // The size that the directory claims: byte 24 of its entry.
    for (let at = 0; at < bomb.length - 4; at++) if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, 0x7fffffff, true);
    expect(() => readZip(bomb, "bomb.zip")).toThrow(/more than 1000 MB\. Pack fewer/);
  });

  it("takes ten thousand files, and refuses more than any project has without calling them damaged", () => {
    const files = (count: number) => Object.fromEntries(Array.from({ length: count }, (_, k) => [`${k}.png`, new Uint8Array()]));
    expect(readZip(zipSync(files(10_000), { level: 0 }), "run.zip")).toHaveLength(10_000);
    expect(() => readZip(zipSync(files(50_001), { level: 0 }), "all.zip")).toThrow(/more than 50000 files\. Pack fewer of its files/);
  });

  it("keeps text as UTF-8 both ways", () => expect(textFromUtf8(utf8("sól · 塩"))).toBe("sól · 塩"));
});

describe("sha256Hex", () => {
  it("agrees with the published example", () =>
    expect(sha256Hex(utf8("abc"))).toBe("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad"));
});
