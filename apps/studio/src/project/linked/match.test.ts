import type { Source, SourceId } from "@caravan/core/model";
import { describe, expect, it } from "vitest";
import { matchFiles } from "./match";

const source = (id: string, ...files: string[]): Source => ({
  id: id as SourceId,
  name: id,
  pictures: files.map((file) => ({ file, sha256: "a".repeat(64), width: 1, height: 1 })) as Source["pictures"],
  cut: null,
  frames: [],
});
const matched = (sources: Source[], ...paths: string[]) => Object.fromEntries(matchFiles(sources, paths));

describe("matchFiles", () => {
  it("finds pictures by their file names, wherever in the folder and however they are capitalised", () =>
    expect(matched([source("s1", "porter.png"), source("s2", "gone.png")], "people/Porter.PNG", "camel.png")).toEqual({
      s1: ["people/Porter.PNG"],
    }));

  it("keeps the place of a series' pictures that the folder does not have", () =>
    expect(matched([source("s1", "b1.png", "b2.png", "b3.png")], "b3.png", "b1.png")).toEqual({ s1: ["b1.png", null, "b3.png"] }));

  it("distinguishes files with the same name by their folders, and matches none if these do not decide", () => {
    expect(matched([source("s1", "porter/walk.png")], "camel/walk.png", "art/porter/walk.png")).toEqual({ s1: ["art/porter/walk.png"] });
    expect(matched([source("s1", "walk.png")], "camel/walk.png", "porter/walk.png")).toEqual({});
    expect(matched([source("s1", "walk.png")], "walk.png", "old/walk.png")).toEqual({});
  });
});
