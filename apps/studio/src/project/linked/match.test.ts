import type { Reading, Source, SourceId } from "@caravan/core/model";
import { clearPixels, coverageOf } from "@caravan/core/raster";
import { describe, expect, it } from "vitest";
import { drawnBeside, matchFiles, metadataOf } from "./match";
import { hasArtOf } from "./one-file";
import { missingFrom, renamedFiles, withNameOf } from "./renamed";
import { alternatives, withOthersBeside } from "./unclear";

const NOTHING = coverageOf(clearPixels(1, 1));
const picture = (file: string, letter = "a", number?: number) => ({
  ...{ file, sha256: letter.repeat(64), width: 1, height: 1 },
  ...(number === undefined ? {} : { number }),
});
const source = (id: string, ...files: string[]): Source => ({
  ...{ id: id as SourceId, name: id, cut: null, frames: [] },
  pictures: files.map((file) => picture(file)) as Source["pictures"],
});
/** A series of stills as they are imported: in a folder of their own, by their numbers. */
const series = (name: string, ...numbers: number[]): Source => ({
  ...source(name, "one.png"),
  pictures: numbers.map((number) => picture(`art/${name}/${number}.png`, "a", number)) as Source["pictures"],
});
const layeredSource = (name: string): Source => ({
  ...source(name, `art/${name}.png`),
  layers: [{ name: "light", blend: "add", pictures: [picture(`art/${name} light.png`)] }] as unknown as Source["layers"] & object,
});
const matched = (sources: Source[], ...paths: string[]) =>
  Object.fromEntries([...matchFiles(sources, paths).matches].map(([id, match]) => [id, match.from === "one" ? match.path : match.paths]));

describe("matchFiles", () => {
  it("finds pictures by their file names, wherever in the folder and however they are capitalised", () =>
    expect(matched([source("s1", "porter.png"), source("s2", "gone.png")], "people/Porter.PNG", "camel.png")).toEqual({
      s1: ["people/Porter.PNG"],
    }));

  it("finds pictures whose names have letters and accents apart on one system and joined on another", () => {
    const [joined, apart] = ["h\u00e9ros.png", "he\u0301ros.png"];
    expect(matched([source("s1", joined)], `art/${apart}`)).toEqual({ s1: [`art/${apart}`] });
    expect(matched([source("s1", apart)], joined)).toEqual({ s1: [joined] });
  });

  it("keeps the place of a series' pictures that the folder does not have", () =>
    expect(matched([source("s1", "b1.png", "b2.png", "b3.png")], "b3.png", "b1.png")).toEqual({ s1: ["b1.png", null, "b3.png"] }));

  it("distinguishes files with the same name by their folders, and matches none if these do not decide", () => {
    expect(matched([source("s1", "porter/walk.png")], "camel/walk.png", "art/porter/walk.png")).toEqual({ s1: ["art/porter/walk.png"] });
    expect(matched([source("s1", "walk.png")], "camel/walk.png", "porter/walk.png")).toEqual({});
    expect(matched([source("s1", "walk.png")], "walk.png", "old/walk.png")).toEqual({ s1: ["walk.png"] });
  });

  it("finds stills by the name of their series and their numbers, also one that is alone", () => {
    const walk = series("walk", 1, 2, 10);
    expect(matched([walk], "people/walk_2.png", "people/walk_10.png", "people/Walk_1.png", "people/walk_s_1.png")).toEqual({
      walk: ["people/Walk_1.png", "people/walk_2.png", "people/walk_10.png"],
    });
    expect(matched([walk], "walk_10.png")).toEqual({ walk: [null, null, "walk_10.png"] });
    for (const files of [
      ["walk_1.png", "walk_2.png", "walk_1.webp", "walk_2.webp"],
      ["walk_2.webp", "walk_1.webp", "walk_2.png", "walk_1.png"],
    ])
      expect(matched([walk], ...files)).toEqual({ walk: ["walk_1.png", "walk_2.png", null] });
    expect(matched([walk], "walk_1.webp", "walk_2.webp")).toEqual({ walk: ["walk_1.webp", "walk_2.webp", null] });
    expect(matched([walk], "people/walk/1.png", "people/walk/2.png")).toEqual({ walk: ["people/walk/1.png", "people/walk/2.png", null] });
  });

  it("takes no still of another folder for one whose name is only a number", () => {
    expect(matched([series("walk", 0, 1)], "idle/0.png", "idle/1.png")).toEqual({});
    expect(matched([source("s1", "art/walk/0.png", "art/walk/1.png")], "idle/0.png")).toEqual({});
    expect(matched([source("s1", "art/walk/0.png", "art/walk/1.png")], "0.png", "1.png")).toEqual({ s1: ["0.png", "1.png"] });
  });

  it("finds files that were called by their folders when all were imported", () =>
    expect(
      matched(
        [source("s1", "art/hero-walk.png"), source("s2", "art/villain-walk.png"), series("hero-run", 1, 2), series("villain-run", 1, 2)],
        ...["hero", "villain"].flatMap((who) => [`${who}/walk.png`, `${who}/run_1.png`, `${who}/run_2.png`]),
      ),
    ).toEqual({
      ...{ s1: ["hero/walk.png"], s2: ["villain/walk.png"] },
      ...{ "hero-run": ["hero/run_1.png", "hero/run_2.png"], "villain-run": ["villain/run_1.png", "villain/run_2.png"] },
    }));

  it("finds the one file from which all pictures of a source come: an animation, a layered file, another format", () => {
    expect(matched([source("s1", "art/spark/0.png", "art/spark/1.png")], "fx/Spark.gif", "fx/spark.png")).toEqual({ s1: "fx/Spark.gif" });
    expect(matched([source("s1", "art/spark/0.png", "art/spark/1.png")], "fx/spark.png")).toEqual({ s1: "fx/spark.png" });
    expect(matched([source("s1", "art/porter.png")], "porter.webp")).toEqual({ s1: "porter.webp" });
    expect(matched([source("s1", "art/porter.png")], "porter.webp", "porter.jpg")).toEqual({});
    expect(matched([source("s1", "art/porter.png")], "porter.webp", "porter.png")).toEqual({ s1: ["porter.png"] });
    expect(matched([source("s1", "art/spark_2/0.png", "art/spark_2/1.png")], "spark_1.gif", "spark_2.gif")).toEqual({ s1: "spark_2.gif" });
  });

  it("finds numbered files that are sources of their own, as two sheets or two animations are", () => {
    const sheets = [source("s1", "art/tiles1.png"), source("s2", "art/tiles2.png")];
    expect(matched(sheets, "art/tiles1.webp", "art/tiles2.webp")).toEqual({ s1: "art/tiles1.webp", s2: "art/tiles2.webp" });
    const sparks = [source("s1", "art/spark1/0.png", "art/spark1/1.png"), source("s2", "art/spark2/0.png", "art/spark2/1.png")];
    expect(matched(sparks, "fx/spark1.webp", "fx/spark2.webp", "fx/spark3.webp")).toEqual({ s1: "fx/spark1.webp", s2: "fx/spark2.webp" });
    expect(matched(sparks, "fx/spark1.png", "fx/spark2.png")).toEqual({ s1: "fx/spark1.png", s2: "fx/spark2.png" });
    // The stills of a series are not also its neighbour's file.
    expect(matched([series("spark", 1, 2), ...sparks], "spark1.webp", "spark2.webp")).toEqual({ spark: ["spark1.webp", "spark2.webp"] });
  });

  it("prefers a layered file to what was exported from it, unless its layers are files, too", () => {
    expect(matched([layeredSource("camp")], "camp.ora", "camp.png")).toEqual({ camp: "camp.ora" });
    expect(matched([layeredSource("camp")], "camp.ora", "camp.png", "camp light.png")).toEqual({ camp: ["camp.png", "camp light.png"] });
    expect(matched([source("camp", "art/camp.png")], "camp.ora", "camp.png")).toEqual({ camp: ["camp.png"] });
  });
});

describe("files that fit a source equally well", () => {
  const unclear = (sources: Source[], chosen: Record<string, string[]>, ...paths: string[]) =>
    Object.fromEntries(matchFiles(sources, paths, "", chosen).unclear);
  const porter = source("s1", "art/porter.png");
  const walk = source("walk", "walk/1.png", "walk/2.png");
  const twice = ["a/walk/1.png", "a/walk/2.png", "b/walk/1.png", "b/walk/2.png"];

  it("are unclear, and none of them is used until one is chosen", () => {
    expect(unclear([porter], {}, "porter.webp", "porter.jpg")).toEqual({ s1: ["porter.jpg", "porter.webp"] });
    expect(unclear([porter], {}, "a/porter.png", "b/porter.png", "porter.webp")).toEqual({});
    expect(unclear([porter], { "art/porter": ["porter.jpg"] }, "porter.webp", "porter.jpg")).toEqual({});
    const { matches } = matchFiles([porter], ["porter.webp", "porter.jpg"], "", { "art/porter": ["porter.jpg"] });
    expect(matches.get(porter.id)).toEqual({ from: "one", path: "porter.jpg" });
  });

  it("are unclear again once the chosen one is gone, but not if the person said that none of them is it", () => {
    expect(unclear([porter], { "art/porter": ["porter.jpg"] }, "porter.webp", "porter.avif")).toEqual({
      s1: ["porter.avif", "porter.webp"],
    });
    expect(unclear([porter], { "art/porter": [] }, "porter.webp", "porter.avif")).toEqual({});
  });

  it("are chosen for all stills of a folder with one of them", () => {
    const { walk: alike = [] } = unclear([walk], {}, ...twice);
    expect(alternatives(alike)).toEqual(["a/walk/1.png", "b/walk/1.png"]);
    expect(alternatives(["hero/walk.webp", "hero-walk.jpg"])).toEqual(["hero/walk.webp", "hero-walk.jpg"]);
    const chosen = { walk: withOthersBeside("b/walk/1.png", alike) };
    expect(matchFiles([walk], twice, "", chosen).matches.get(walk.id)).toEqual({ from: "each", paths: ["b/walk/1.png", "b/walk/2.png"] });
  });
});

describe("a file that fits, as others do", () => {
  const still = (letter: string) => ({ ...picture("", letter), coverage: NOTHING, ground: null });
  const animation = (...letters: string[]) => ({
    ...{ kind: "animation" as const, plays: 0, broken: [] },
    pictures: letters.map((letter) => ({ ...still(letter), ms: 100 })),
  });

  it("has the art of a source only with the very same pictures, and as many", () => {
    const [one, two] = [source("s1", "art/porter.png"), source("s2", "art/a/0.png", "art/a/1.png")];
    expect(hasArtOf(one, { kind: "still", picture: still("a") }, "porter.webp")).toBe(true);
    expect(hasArtOf(one, { kind: "still", picture: still("b") }, "porter.webp")).toBe(false);
    expect(hasArtOf(one, animation("a", "a"), "porter.gif")).toBe(false);
    expect(hasArtOf(two, animation("a", "a"), "a.gif")).toBe(true);
    expect(hasArtOf(two, animation("a", "b"), "a.gif")).toBe(false);
  });
});

describe("metadataOf", () => {
  const file = "poses.json";
  const described: Source = { ...source("s1", "art/porter.png"), cut: { by: "metadata", file, reading: {} as Reading } };

  it("is the file that cut the source, of several the one beside its art", () => {
    expect(metadataOf(described, [`people/${file.toUpperCase()}`], ["people/porter.png"])).toBe(`people/${file.toUpperCase()}`);
    expect(metadataOf(described, [`a/${file}`, `b/${file}`], ["b/porter.png"])).toBe(`b/${file}`);
    expect(metadataOf(described, [`a/${file}`, `b/${file}`], ["c/porter.png"])).toBeNull();
  });

  it("is none for a source that no file cuts, or of another name", () => {
    expect(metadataOf(source("s1", "art/porter.png"), [file], ["porter.png"])).toBeNull();
    expect(metadataOf(described, ["other.json"], ["porter.png"])).toBeNull();
  });
});

describe("drawnBeside", () => {
  it("is what a source's art is drawn in, and nothing else", () => {
    const sources = [source("s1", "art/porter.png"), source("s2", "art/bearer-legs.png")];
    const files = ["porter.ora", "porter.png", "camel.ora", "old/porter.webp", "bearer.ora", "bearer.gif", "bear.ora"];
    expect([...drawnBeside(sources, files)].sort()).toEqual(["bearer.ora", "old/porter.webp", "porter.ora"]);
  });
});

describe("files that were renamed", () => {
  const found = (path: string, letter: string) => ({ path, sha256: letter.repeat(64) });
  const renamed = (missing: ReturnType<typeof picture>[], ...files: ReturnType<typeof found>[]) => [...renamedFiles(missing, files)];

  it("are those of which no file has the name, and one has the content", () => {
    const sources = [source("s1", "art/hero.png", "art/b.png"), source("s2", "art/spark/0.png", "art/spark/1.png")];
    const missing = missingFrom(sources, matchFiles(sources, ["x/B.PNG", "player.png", "spark.gif"]).matches);
    expect(missing.map(({ file }) => file)).toEqual(["art/hero.png"]);
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
