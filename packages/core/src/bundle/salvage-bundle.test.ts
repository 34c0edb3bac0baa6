import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { sha256Hex, utf8, writeZip } from "../codec";
import { addClip, addSources } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { BY_METADATA } from "../edit/random-choices.fixture";
import type { FrameRef, Project } from "../model";
import { readBundle, writeBundle, writeProjectFile } from "./bundle";
import { salvagedBundle } from "./salvage-bundle";

const [porter, camel] = ["a picture, of which only the hash is looked at", "another one"].map(utf8) as [Uint8Array, Uint8Array];
const [first, second] = [porter, camel].map(sha256Hex) as [string, string];
const base = addClip(porterProject(), ["s1/c0r0" as FrameRef], "walk");
const told = '{"cells": []}';
const cut = { ...BY_METADATA, sha256: sha256Hex(utf8(told)) };
const project: Project = addSources(
  {
    ...base,
    sources: base.sources.map((source) => ({ ...source, cut, pictures: source.pictures.map((each) => ({ ...each, sha256: first })) })),
  },
  [{ fileName: "camel.png", sha256: second, width: 8, height: 8 }],
);
const whole = writeBundle({
  project,
  pictures: new Map([
    [first, porter],
    [second, camel],
  ]),
  texts: new Map([[cut.sha256, told]]),
});
const everything = readBundle(whole, "x").pictures;
const document = () => JSON.parse(new TextDecoder().decode(writeProjectFile(project)));

describe("what is left of a *.caravan file", () => {
  it("of a whole one is all of it", () => {
    const read = readBundle(whole, "x");
    expect(read.texts.size).toBe(1);
    expect(salvagedBundle(whole, "x")).toEqual({ ...read, lost: [] });
  });

  it("of one that lost only its end is all of it, too", () => {
    const left = salvagedBundle(whole.subarray(0, whole.length - 30), "x");
    expect(left).toMatchObject({ project, lost: [] });
    expect(left?.pictures.size).toBe(2);
  });

  it("of one cut off in a picture is the document, with the pictures before", () => {
    const at = whole.findIndex((_, k) => new TextDecoder().decode(whole.subarray(k, k + 11)) === "another one");
    const left = salvagedBundle(whole.subarray(0, at + 4), "x");
    expect(left?.project).toEqual(project);
    expect([...(left?.pictures.keys() ?? [])]).toEqual([first]);
    expect(left?.lost).toEqual(["the art of 1 picture"]);
  });

  it("of one with a bad field and a changed picture is the rest", () => {
    const damaged = document();
    damaged.clips[0].steps[0].ms = "soon";
    const bytes = writeZip([
      { path: "caravan.json", bytes: utf8(JSON.stringify(damaged)) },
      { path: "art/porter.png", bytes: porter },
      { path: "art/camel.png", bytes: utf8("painted over") },
    ]);
    expect(() => readBundle(bytes, "x")).toThrow(/ms does not fit/);
    const left = salvagedBundle(bytes, "x");
    expect(left?.lost).toEqual(['clip "walk"', "the art of 1 picture"]);
    expect(left?.project.sources).toEqual(project.sources);
    expect([...(left?.pictures.values() ?? [])]).toEqual([porter]);
  });

  it("is nothing if there is no document, or one of a newer version", () => {
    expect(salvagedBundle(utf8("hello there"), "x")).toBeNull();
    expect(salvagedBundle(new Uint8Array(0), "x")).toBeNull();
    expect(salvagedBundle(whole.subarray(0, 60), "x")).toBeNull();
    const newer = utf8(JSON.stringify({ ...document(), version: 9999 }));
    expect(salvagedBundle(writeZip([{ path: "caravan.json", bytes: newer }]), "x")).toBeNull();
  });

  it("is never another project or picture, wherever it is cut off or a byte is changed", () => {
    fc.assert(
      fc.property(fc.nat(whole.length - 1), fc.nat(255), fc.boolean(), (at, value, isCut) => {
        const damaged = isCut ? whole.slice(0, at) : whole.slice();
        if (!isCut) damaged[at] = value;
        const left = salvagedBundle(damaged, "x");
        if (!left) return;
        for (const [sha256, bytes] of left.pictures) expect(sha256Hex(bytes)).toBe(sha256);
        for (const [sha256, text] of left.texts) expect(sha256Hex(utf8(text))).toBe(sha256);
        // Without a word it is all there and as it was.
        if (left.lost.length === 0) expect(left.pictures).toEqual(everything);
        if (left.lost.length === 0) expect(left.project).toEqual(project);
        expect(() => writeProjectFile(left.project)).not.toThrow();
      }),
      { numRuns: 400 },
    );
  });
});
