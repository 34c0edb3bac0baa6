import type { Source, SourceId } from "@caravan/core/model";
import { describe, expect, it } from "vitest";
import { matchFiles, missingFrom, renamedFiles, withNameOf } from "./match";

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

describe("files that were renamed", () => {
  const picture = (file: string, letter: string) =>
    ({ file, sha256: letter.repeat(64), width: 1, height: 1 }) as Source["pictures"][number];
  const found = (path: string, letter: string) => ({ path, sha256: letter.repeat(64) });
  const renamed = (missing: ReturnType<typeof picture>[], ...files: ReturnType<typeof found>[]) => [...renamedFiles(missing, files)];

  it("are those of which no file has the name, and one has the content", () => {
    expect(missingFrom([source("s1", "art/hero.png", "art/b.png")], ["x/B.PNG", "player.png"]).map(({ file }) => file)).toEqual([
      "art/hero.png",
    ]);
    expect(renamed([picture("art/hero.png", "a")], found("people/player.png", "a"), found("other.png", "b"))).toEqual([
      ["art/hero.png", "people/player.png"],
    ]);
    expect(withNameOf("art/hero.png", "people/player.png")).toBe("art/player.png");
    expect(withNameOf("hero.png", "player.png")).toBe("player.png");
  });

  it("are paired in their order if several are alike, and not at all if their number differs", () => {
    const two = [picture("run_2.png", "a"), picture("run_10.png", "a")];
    expect(renamed(two, found("go_10.png", "a"), found("go_2.png", "a"))).toEqual([
      ["run_2.png", "go_2.png"],
      ["run_10.png", "go_10.png"],
    ]);
    expect(renamed(two, found("go_2.png", "a"))).toEqual([]);
    expect(renamed([picture("run.png", "a")], found("a.png", "a"), found("b.png", "a"))).toEqual([]);
  });
});
