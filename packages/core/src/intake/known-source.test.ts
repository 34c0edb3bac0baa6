import { describe, expect, it } from "vitest";
import { takeIn } from "../edit";
import { emptyProject, type Source, type SourceId } from "../model";
import { clearPixels, coverageOf } from "../raster";
import type { TakenItem, TakenPicture } from "./drop-contents";
import type { Proposal } from "./proposal";
import { needsReview, proposalsFor } from "./proposals";

const picture = (sha: string): TakenPicture => ({
  ...{ sha256: sha.repeat(64).slice(0, 64), width: 16, height: 16, ground: null },
  coverage: coverageOf(clearPixels(16, 16)),
});
const still = (path: string): TakenItem => ({ path, art: { kind: "still", picture: picture("c") } });

describe("a file with the name of a source", () => {
  const source = (name: string, hashes: readonly string[]): Source => ({
    ...{ id: "s7" as SourceId, name, cut: null, frames: [] },
    pictures: hashes.map((sha256, k) => ({ file: `art/${k}.png`, sha256, width: 16, height: 16 })),
  });
  const art = still("Porter.PNG");
  const sha256 = art.art.kind === "still" ? art.art.picture.sha256 : "";

  it("is offered as its new art, and makes no source then", () => {
    const [proposal] = proposalsFor([art], [], { sources: [source("porter", ["f".repeat(64)])] });
    expect(proposal).toMatchObject({ known: { source: "s7", name: "porter" }, usual: { replaces: true } });
    expect(needsReview([proposal as Proposal])).toBe(true);
  });

  it("is known by the name of its art's file if the source was renamed, unless another source is called so", () => {
    const renamed: Source = {
      ...source("hero", ["f".repeat(64)]),
      pictures: [{ ...source("", ["f".repeat(64)]).pictures[0], file: "art/porter.png" }] as never,
    };
    expect(proposalsFor([art], [], { sources: [renamed] })).toMatchObject([{ known: { name: "hero" }, usual: { replaces: true } }]);
    const other = { ...source("porter", ["e".repeat(64)]), id: "s8" as SourceId };
    expect(proposalsFor([art], [], { sources: [renamed, other] })).toMatchObject([{ known: { name: "porter" } }]);
    const series = {
      ...source("go", []),
      pictures: [1, 2].map((number) => ({ file: `art/walk/${number}.png`, sha256: "a".repeat(64), width: 16, height: 16, number })),
    };
    expect(proposalsFor([still("walk_2.png")], [], { sources: [series] })).toMatchObject([
      { known: { name: "go" }, notes: ["Picture 2 of go has this name."] },
    ]);
  });

  it("is left out if its art is unchanged", () => {
    const [proposal] = proposalsFor([art], [], { sources: [source("porter", [sha256])] });
    expect(proposal?.usual.include).toBe(false);
    expect(proposal?.notes).toEqual(["porter already has this art."]);
  });

  describe("in a numbered series", () => {
    const series: Source = {
      ...source("walk", []),
      pictures: [1, 2, 4].map((number) => ({
        file: `art/${number}.png`,
        sha256: String(number).repeat(64),
        width: 16,
        height: 16,
        number,
      })),
    };
    const proposed = (name: string) => proposalsFor([still(name)], [], { sources: [series] })[0] as Proposal;
    const numberOf = (proposal: Proposal, replaces = true) => proposal.arrivals({ ...proposal.usual, replaces })[0]?.pictures[0];

    it("is offered as new art of the still with its number, or as one that it lacks", () => {
      const second = proposed("walk_02.png");
      expect(second).toMatchObject({
        known: { source: "s7", name: "walk" },
        usual: { replaces: true },
        notes: ["Picture 2 of walk has this name."],
      });
      expect([numberOf(second)?.number, numberOf(second, false)?.number]).toEqual([2, undefined]);
      expect(needsReview([second])).toBe(true);
      expect(proposed("walk_3.png").notes).toEqual(["By its name it is picture 3 of walk, which has none."]);
    });

    it("is another source where only the name is similar, and first if the size is another", () => {
      expect(proposed("walker_2.png").known).toBeUndefined();
      const larger: Source = { ...series, pictures: series.pictures.map((each) => ({ ...each, width: 64 })) };
      const [proposal] = proposalsFor([still("walk_2.png")], [], { sources: [larger] });
      expect(proposal).toMatchObject({ known: { name: "walk" }, usual: { replaces: false } });
    });

    it("is left out if it is the same", () => {
      const there = still("walk_2.png");
      const own = there.art.kind === "still" ? there.art.picture.sha256 : "";
      const same: Source = { ...series, pictures: series.pictures.map((each) => (each.number === 2 ? { ...each, sha256: own } : each)) };
      expect(proposalsFor([there], [], { sources: [same] })[0]?.usual.include).toBe(false);
    });
  });

  it("is a separate source if one is a sheet and the other a series", () => {
    const [proposal] = proposalsFor([art], [], { sources: [source("porter", ["e".repeat(64), "f".repeat(64)])] });
    expect(proposal?.known).toBeUndefined();
  });

  describe("that is an animation with other times", () => {
    const animation = (...times: number[]): TakenItem => ({
      path: "spark.gif",
      art: { kind: "animation", plays: 0, broken: [], pictures: times.map((ms, k) => ({ ...picture(String(k)), ms })) },
    });
    const [first] = proposalsFor([animation(100, 200)], []);
    const { sources, clips } = takeIn(emptyProject("sparks"), first?.arrivals(first.usual) ?? []);
    const proposed = (times: number[], known: readonly Source[]) => proposalsFor([animation(...times)], [], { sources: known, clips })[0];

    it("is offered as new times, also without new art", () => {
      expect(sources[0]?.pictures.map(({ duration }) => duration)).toEqual([100_000, 200_000]);
      expect(proposed([100, 200], sources)).toMatchObject({ notes: ["spark already has this art."], usual: { include: false } });
      expect(proposed([100, 150], sources)).toMatchObject({ notes: [], usual: { include: true, replaces: true }, known: { isSame: true } });
      expect(proposed([90, 200, 100], sources)).toMatchObject({ notes: [], usual: { replaces: true }, known: { isSame: false } });
    });

    it("has a note if nothing says what its file said before", () => {
      const untimed = sources.map((each) => ({ ...each, pictures: each.pictures.map(({ duration: _unknown, ...rest }) => rest) }));
      const said = "Its times differ from those of the clip spark, which stay. To have the file's, import it as a new source.";
      expect(proposed([100, 200], untimed)?.notes).toEqual(["spark already has this art."]);
      expect(proposed([100, 150], untimed)).toMatchObject({ notes: [said, "spark already has this art."], usual: { include: false } });
      expect(proposed([100, 200, 100], untimed)?.notes).toEqual([]);
      expect(proposed([90, 200, 100], untimed)?.notes).toEqual([said]);
    });
  });
});
