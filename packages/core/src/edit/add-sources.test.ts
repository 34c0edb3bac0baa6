import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Action, type ActionName, allPictures, type ClipName, emptyProject, type Facing, type Micros } from "../model";
import { clearPixels, coverageOf } from "../raster";
import { type Arrival, actionToBe, takeIn } from "./add-sources";

/** Names that get in each other's way: alike but for case, numbers, folders, those that systems reserve. */
const NAME = fc.constantFrom(
  "walk.png",
  "Walk.png",
  "walk-2.png",
  "walk-2-2.png",
  "con.png",
  "con",
  "__proto__.png",
  "hero/walk.png",
  "art",
);
const coverage = coverageOf(clearPixels(4, 4));

const ARRIVAL: fc.Arbitrary<Arrival> = fc
  .record({
    name: NAME,
    count: fc.integer({ min: 1, max: 3 }),
    clips: fc.array(NAME, { maxLength: 3 }),
    first: fc.integer({ min: 0, max: 9 }),
  })
  .map(({ name, count, clips, first }) => ({
    name,
    pictures: Array.from({ length: count }, (_, k) => ({ sha256: String((first + k) % 10).repeat(64), width: 4, height: 4 })),
    coverages: Array.from({ length: count }, () => coverage),
    clips: clips.map((each) => ({
      name: each,
      steps: [{ frame: 0, duration: 100_000 as Micros }],
      playback: "loop" as const,
      times: 0,
    })),
  }));

describe("takeIn", () => {
  it("gives a drop the same names, paths and ids as if its files had come one after the other, each once", () =>
    fc.assert(
      fc.property(fc.array(ARRIVAL, { maxLength: 12 }), (arrivals) => {
        const together = takeIn(emptyProject("Drop"), arrivals);
        expect(together).toEqual(arrivals.reduce((project, arrival) => takeIn(project, [arrival]), emptyProject("Drop")));
        const distinct = (all: readonly string[]) => expect(new Set(all).size).toBe(all.length);
        distinct(together.sources.map(({ id }) => id));
        distinct(together.sources.map(({ name }) => name));
        distinct(together.clips.map(({ name }) => name));
        distinct(together.sources.flatMap((source) => allPictures(source).map(({ file }) => file.toLowerCase())));
      }),
      { numRuns: 100 },
    ));
});

describe("an arriving action", () => {
  const facings = { e: { clip: "walk-e" }, w: { clip: "walk-e", mirror: true } } as unknown as Action["facings"];
  const walk = { name: "walk" as ActionName, ways: 4, facings } as Action;
  /** `clips` are the names of those that are there, by facing; null for new ones. */
  const being = (given: string, clips: Partial<Record<Facing, string | null>>) =>
    actionToBe([walk], given, new Map(Object.entries(clips).map(([facing, clip]) => [facing as Facing, (clip ?? undefined) as ClipName])));

  it("joins the one of its name if that lacks all its facings, or only mirrors them", () => {
    expect(being("walk", { s: null, w: null })).toEqual({ name: "walk", joined: walk, isOwn: false });
  });

  it("becomes one of its own, of a free name, if a facing is drawn there already", () => {
    expect(being("walk", { s: null, e: null })).toEqual({ name: "walk-2", joined: null, isOwn: false });
    expect(being("run", { e: null })).toEqual({ name: "run", joined: null, isOwn: false });
  });

  it("joins the one that has one of its clips, whatever that is called now", () => {
    expect(being("march", { e: "walk-e", n: null })).toEqual({ name: "walk", joined: walk, isOwn: true });
  });
});
