import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readProjectFile } from "../bundle";
import { inspectPng } from "./png-structure";
import { refuseStandIn } from "./stand-in";
import { utf8 } from "./zip";

const OID = "4d7a214614ab2935c943f9e0ff69d22eadbb8f32b1258daaa5e2ca24d17e2393";
const pointer = `version https://example.com/spec/v1\noid sha256:${OID}\nsize 12345\n`;
const SIGNATURE = "\x89PNG\r\n\x1a\n\0\0\0\rIHDR";
const bytesOf = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));
const refused = (bytes: Uint8Array) => () => inspectPng(bytes, "hero.png");

describe("files in the place of others", () => {
  it("says that a pointer is not the picture, however its lines end", () => {
    const said = "hero.png: This is only a pointer: version control keeps the file itself, of 12345 bytes, elsewhere. Fetch";
    expect(refused(utf8(pointer))).toThrow(said);
    expect(refused(utf8(pointer.replaceAll("\n", "\r\n")))).toThrow(said);
    expect(refused(utf8(pointer.replace("oid", "ext-0-fold sha256:00\noid")))).toThrow(said);
  });

  it("says it of a project too", () => {
    expect(() => readProjectFile(utf8(pointer), "caravan.json")).toThrow(/^caravan.json: This is only a pointer/);
    expect(() => readProjectFile(new Uint8Array(9), "caravan.json")).toThrow(/^caravan.json: All of its 9 bytes are zero/);
  });

  it("lets every file with contents of its own pass", () => {
    const almost = [
      pointer.replace("size 12345", "width 12"),
      pointer.replace("oid", "id"),
      `${pointer}and more\n`,
      `note\n${pointer}`,
      "",
    ];
    for (const text of almost) expect(() => refuseStandIn(utf8(text), "a")).not.toThrow();
    fc.assert(
      fc.property(
        fc.uint8Array({ minLength: 0, maxLength: 40 }).filter((bytes) => bytes.length === 0 || bytes.some((byte) => byte > 0)),
        (bytes) => {
          refuseStandIn(bytes, "a");
        },
      ),
    );
  });

  it("says that zeros are lost contents", () => {
    expect(refused(new Uint8Array(4096))).toThrow("hero.png: All of its 4096 bytes are zero: its contents are lost");
  });
});

describe("PNG files that were taken for text", () => {
  it.each([
    ["line ends as on other systems", SIGNATURE.replaceAll("\r\n", "\n"), "The line ends"],
    ["line ends doubled", SIGNATURE.replaceAll("\n", "\r\n"), "The line ends"],
    ["returns only", SIGNATURE.replaceAll("\r\n", "\r").replaceAll("\n", "\r"), "The line ends"],
    ["letters that are none replaced", SIGNATURE.replace("\x89", "\xef\xbf\xbd"), "saved as text"],
    ["letters widened", SIGNATURE.replace("\x89", "\xc2\x89"), "saved as text"],
    ["seven bits", SIGNATURE.replace("\x89", "\x09"), "lost the highest bit"],
  ])("says what happened: %s", (_, text, said) => {
    expect(refused(bytesOf(text))).toThrow(said);
    expect(refused(bytesOf(text))).toThrow("Take the file anew, as a binary one.");
  });
});

describe("files of other kinds", () => {
  it.each([
    ["\xff\xd8\xff\xe0", "This is a JPEG picture, not a PNG. Save it as PNG first."],
    ["RIFF\0\0\0\0WEBPVP8 ", "This is a WebP picture, not a PNG. Save it as PNG first."],
    ["\0\0\0\x20ftypheic", "This is a HEIF picture, not a PNG. Save it as PNG first."],
    ["II*\0", "This is a TIFF picture, not a PNG. Save it as PNG first."],
    ["PK\x03\x04", "This is a ZIP archive, not a PNG. Choose a PNG file."],
    ["\n<!DOCTYPE html>\n<html>", "This is a web page, not a picture. Download the picture itself"],
    ["<HTML><body>404", "This is a web page, not a picture. Download the picture itself"],
    ["RIFF\0\0\0\0WAVEfmt ", "This is not a PNG picture. Choose a PNG file."],
  ])("are named: %j", (begins, said) => {
    expect(refused(bytesOf(begins))).toThrow(`hero.png: ${said}`);
  });
});
