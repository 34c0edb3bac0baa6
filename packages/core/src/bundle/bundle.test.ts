import { describe, expect, it } from "vitest";
import { readZip, sha256Hex, utf8, writeZip } from "../codec";
import { addClip } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { BY_METADATA } from "../edit/random-choices.fixture";
import type { BehaviourName, FrameRef, Source } from "../model";
import { readBundle, writeBundle, writeProjectFile } from "./bundle";

const picture = utf8("not looked into here, only hashed");
const sha256 = sha256Hex(picture);
const base = addClip(porterProject(), ["s1/c0r0" as FrameRef], "walk");
const project = {
  ...base,
  sources: base.sources.map((source) => ({ ...source, pictures: source.pictures.map((each) => ({ ...each, sha256 })) })),
};
const bundle = { project, pictures: new Map([[sha256, picture]]) };
const zipped = (document: Uint8Array, art: Uint8Array = picture) =>
  writeZip([
    { path: "caravan.json", bytes: document },
    { path: "art/porter.png", bytes: art },
  ]);

describe("a *.caravan file", () => {
  it("gives the same project and pictures back, and the same bytes each time", () => {
    const bytes = writeBundle(bundle);
    expect(writeBundle(bundle)).toEqual(bytes);
    const read = readBundle(bytes, "x.caravan");
    expect(read.project).toEqual(project);
    expect([...read.pictures]).toEqual([[sha256, picture]]);
  });

  describe("with the metadata that cut its sources", () => {
    const text = '{"cells": []}';
    const told = { ...BY_METADATA, sha256: sha256Hex(utf8(text)) };
    const [source, ...others] = project.sources as [Source, ...Source[]];
    const cut = { ...project, sources: [{ ...source, cut: told }, ...others] };
    const texts = new Map([[told.sha256, text]]);

    it("gives that back, of sources whose text is known", () => {
      const bytes = writeBundle({ ...bundle, project: cut, texts });
      expect(readZip(bytes, "x").map(({ path }) => path)).toEqual(["caravan.json", "art/porter.png", `metadata/${told.sha256}.json`]);
      expect([...readBundle(bytes, "x").texts]).toEqual([...texts]);
      expect(readBundle(writeBundle({ ...bundle, project: cut }), "x").texts.size).toBe(0);
    });

    it("leaves out what is not the text that cut it", () => {
      const files = readZip(writeBundle({ ...bundle, project: cut, texts }), "x");
      const changed = files.map((file) => (file.path.startsWith("metadata/") ? { ...file, bytes: utf8("{}") } : file));
      const read = readBundle(writeZip(changed), "x");
      expect(read.project).toEqual(cut);
      expect(read.texts.size).toBe(0);
      expect(readZip(writeBundle({ ...bundle, texts: new Map([["f".repeat(64), text]]) }), "x")).toHaveLength(2);
    });
  });

  it("is refused with the reason when damaged", () => {
    const good = writeBundle(bundle);
    const newer = utf8(JSON.stringify({ ...JSON.parse(new TextDecoder().decode(writeProjectFile(project))), version: 99 }));
    const cases: [string, Uint8Array, RegExp][] = [
      ["empty", new Uint8Array(0), /empty \(0 bytes\)/],
      ["no archive", utf8("hello there"), /not a \*\.caravan file/],
      ["cut off", good.subarray(0, good.length - 30), /damaged or cut off/],
      ["no document", writeZip([{ path: "a.txt", bytes: utf8("a") }]), /no caravan\.json in this archive/],
      ["no JSON", zipped(utf8('{"format": "cara')), /not JSON/],
      ["another format", zipped(utf8('{"format": "other"}')), /not a Caravan project/],
      ["newer", zipped(newer), /newer Caravan/],
      ["another picture", zipped(writeProjectFile(project), utf8("changed")), /art\/porter\.png has changed since.*hash differs/],
      ["no picture", writeZip([{ path: "caravan.json", bytes: writeProjectFile(project) }]), /art\/porter\.png is missing/],
    ];
    for (const [name, bytes, reason] of cases) expect(() => readBundle(bytes, "x.caravan"), name).toThrow(reason);
  });

  it("opens also if it was unpacked and its folder packed again", () => {
    const inFolder = [
      { path: "hero/caravan.json", bytes: writeProjectFile(project) },
      { path: "hero/art/porter.png", bytes: picture },
      { path: "__MACOSX/caravan.json", bytes: utf8("left by a system") },
    ];
    expect(readBundle(writeZip(inFolder), "x.caravan")).toEqual(readBundle(writeBundle(bundle), "x.caravan"));
    const two = [...inFolder, { path: "other/caravan.json", bytes: writeProjectFile(project) }];
    expect(() => readBundle(writeZip(two), "x.caravan")).toThrow(/no caravan\.json in this archive/);
  });

  it("is refused with the line where an edit by hand or an unfinished merge left no JSON", () => {
    const lines = new TextDecoder().decode(writeProjectFile(project)).split("\n");
    const withLines = (at: number, ...added: string[]) => zipped(utf8([...lines.slice(0, at), ...added, ...lines.slice(at)].join("\n")));
    const read = (bytes: Uint8Array) => () => readBundle(bytes, "x.caravan");
    expect(read(withLines(4, "<<<<<<< ours", "=======", ">>>>>>> theirs"))).toThrow(
      /half merged: line 5 is the mark of a conflict, <<<<<<<.*caravan merge/,
    );
    expect(read(withLines(4, "  oops"))).toThrow(/It is not JSON: \w+ in line 5, column 3\./);
    expect(read(withLines(lines.length, "}"))).toThrow(/It is not JSON: \w+ in line \d+, column 1\./);
    expect(read(zipped(utf8(lines.slice(0, -3).join("\n"))))).toThrow(/It is not JSON: it ends too early\./);
    expect(read(zipped(utf8("")))).toThrow(/It is not JSON: it ends too early\./);
  });

  it("is refused if an edit by hand left two things with one name, with both lines", () => {
    const hero = { inputs: {}, rules: [] };
    const written = new TextDecoder().decode(
      writeProjectFile({ ...project, behaviours: [{ name: "hero" as BehaviourName, inputs: [], rules: [] }] }),
    );
    const at = written.indexOf('"hero": {');
    const doubled = `${written.slice(0, at)}"hero": ${JSON.stringify(hero)},\n${written.slice(at)}`;
    expect(Object.keys(JSON.parse(doubled).behaviours)).toEqual(["hero"]);
    expect(() => readBundle(zipped(utf8(doubled)), "x.caravan")).toThrow(
      /line \d+: "hero" stands twice in behaviours: here and in line \d+/,
    );
  });

  it("is not written without all its pictures", () =>
    expect(() => writeBundle({ project, pictures: new Map() })).toThrow(/art\/porter\.png/));

  it("unpacks only what its document names, and no document that would fill the memory", () => {
    const junk = new Uint8Array(3_000_000);
    const stuffed = writeZip([
      { path: "caravan.json", bytes: writeProjectFile(project) },
      { path: "art/porter.png", bytes: picture },
      { path: "junk.bin", bytes: junk },
    ]);
    expect([...readBundle(stuffed, "x.caravan").pictures.keys()]).toEqual([sha256]);
    const huge = writeZip([{ path: "caravan.json", bytes: writeProjectFile(project) }]);
    // The unpacked size that the directory claims: byte 24 of its entry.
    const view = new DataView(huge.buffer, huge.byteOffset, huge.length);
    for (let at = 0; at < huge.length - 4; at++) if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, 300 << 20, true);
    expect(() => readBundle(huge, "x.caravan")).toThrow(/caravan\.json is larger than 256 MB/);
  });

  it("is not written larger than it could be read again", () => {
    const large = new Uint8Array(1_001 * 1_048_576);
    expect(() => writeBundle({ project, pictures: new Map([[sha256, large]]) })).toThrow(/It has 1002 MB.*Keep it in a folder instead/);
  });

  it("is never written in an unreadable form: duplicate paths become distinct, an invalid document is refused", () => {
    const [source] = project.sources;
    if (!source) throw new Error("The fixture has a source.");
    const other = utf8("another picture");
    const twin = {
      ...source,
      id: "s2" as never,
      name: "Porter",
      pictures: [{ ...(source.pictures[0] as never as object), file: "art/PORTER.png", sha256: sha256Hex(other) }],
    };
    const both = { ...project, sources: [source, twin as never] };
    const read = readBundle(writeBundle({ project: both, pictures: new Map([...bundle.pictures, [sha256Hex(other), other]]) }), "x");
    expect(read.pictures.size).toBe(2);
    expect(() => writeBundle({ ...bundle, project: { ...project, name: "" } })).toThrow(/The field name does not fit/);
  });
});
