import { describe, expect, it } from "vitest";
import { sha256Hex, utf8 } from "../codec";
import { takeIn } from "../edit";
import type { Understood } from "../metadata";
import {
  type Clip,
  type ClipName,
  emptyProject,
  type FrameRef,
  LONGEST_STEP,
  PLAIN_LOOP,
  type Source,
  type SourceId,
  USUAL_STEP,
} from "../model";
import { type Coverage, clearPixels, coverageOf, type Ground } from "../raster";
import type { TakenArt, TakenItem, TakenPicture } from "./drop-contents";
import { framesAndClips } from "./frames-and-clips";
import { USUAL_CHOICES } from "./proposal";
import { needsReview, proposalsFor } from "./proposals";

const coverage: Coverage = coverageOf(clearPixels(1, 1));
const white: Ground = { kind: "plain", clearing: { colours: ["#ffffff"], tolerance: 0, from: "edges", fringe: false } };
const picture = (sha: string, width = 32, height = 40, ground: Ground | null = null): TakenPicture => ({
  sha256: sha.repeat(64).slice(0, 64),
  width,
  height,
  coverage,
  ground,
});
const still = (path: string, taken = picture(path.charAt(0))): TakenItem => ({ path, art: { kind: "still", picture: taken } });
const only = (items: readonly TakenItem[]) => {
  const [proposal, ...others] = proposalsFor(items, []);
  if (!proposal || others.length > 0) throw new Error(`Expected one proposal, got ${others.length + (proposal ? 1 : 0)}.`);
  return proposal;
};

function sourceOf(name: string): Source {
  const { sha256, width, height } = picture("c");
  const pictures: Source["pictures"] = [{ file: `art/${name}.png`, sha256, width, height }];
  return { id: "s1" as SourceId, name, pictures, cut: null, frames: [] };
}

describe("a series", () => {
  const stills = [3, 1, 2, 5].map((number) => still(`walk_${number}.png`));

  it("is imported in the order of its numbers, and reports missing ones", () => {
    const series = only(stills);
    expect(series).toMatchObject({ kind: "series", name: "walk", what: "A series of 4 pictures, 1 to 5, each 32 × 40 px" });
    expect(series.notes).toEqual(["Number 4 is missing."]);
    const [arrival] = series.arrivals(USUAL_CHOICES);
    expect(arrival).toMatchObject({ name: "walk", coverages: [coverage, coverage, coverage, coverage] });
    expect(arrival?.pictures).toHaveLength(4);
  });

  it("can be imported as separate sheets", () =>
    expect(
      only(stills)
        .arrivals({ ...USUAL_CHOICES, apart: true })
        .map(({ name }) => name),
    ).toEqual(["walk_1.png", "walk_2.png", "walk_3.png", "walk_5.png"]));

  it("reports pictures of another size", () => {
    const odd = only([...stills, still("walk_4.png", picture("x", 10, 10))]);
    expect(odd.what).toContain("most 32 × 40 px");
    expect(odd.notes).toEqual(["Different size: walk_4.png (10 × 10)."]);
  });

  it("is cleared only if all of it has a ground", () => {
    const on = [1, 2, 3].map((number) => still(`fire${number}.png`, picture("f", 8, 8, white)));
    expect(only(on).arrivals(USUAL_CHOICES)[0]?.clearing).toEqual(white.clearing);
    expect(only(on).arrivals({ ...USUAL_CHOICES, clear: false })[0]?.clearing).toBeUndefined();
    expect(only([...on, still("fire4.png")]).ground).toBeNull();
  });
});

describe("an animation", () => {
  const art: TakenArt = {
    kind: "animation",
    pictures: [100, 37.5, 60].map((ms, k) => ({ ...picture(String(k)), ms })),
    plays: 1,
    broken: [{ index: 2, why: "It ends too early." }],
  };

  it("brings a clip with its own times, playing as often as the file says", () => {
    const animation = only([{ path: "art/torch.gif", art }]);
    expect(animation.what).toBe("An animation of 3 pictures, 32 × 40 px, 197.5 ms a loop");
    expect(animation.notes).toEqual(["Picture 2 is broken and left out. It ends too early."]);
    expect(animation.clips(USUAL_CHOICES)).toMatchObject([
      { name: "torch", playback: "once", steps: [{ frame: 0, duration: 100_000 }, { duration: 37_500 }, { duration: 60_000 }] },
    ]);
    expect(animation.arrivals({ ...USUAL_CHOICES, clips: false })[0]?.clips).toEqual([]);
  });

  it("that shows a picture for longer than a step can last shows it for an hour, and says so", () => {
    const hours = { ...art, pictures: art.pictures.map((each, k) => (k === 1 ? { ...each, ms: 65_535_000 } : each)) };
    const slow = only([{ path: "slow.png", art: hours }]);
    expect(slow.notes).toContain("Steps of more than an hour are taken as an hour long.");
    expect(slow.clips(USUAL_CHOICES)[0]?.steps.map(({ duration }) => duration)).toEqual([100_000, LONGEST_STEP, 60_000]);
  });

  it("that loops more often than a clip can count loops for ever", () => {
    const often = only([{ path: "often.png", art: { ...art, plays: 4_294_967_295 } }]);
    const { clips } = takeIn(emptyProject("often"), often.arrivals(USUAL_CHOICES));
    expect(clips).toMatchObject([{ playback: "loop", times: 0 }]);
  });

  it("of one picture is used whole, because nothing else would cut it", () => {
    const [arrival] = only([{ path: "still.gif", art: { ...art, pictures: art.pictures.slice(0, 1), broken: [] } }]).arrivals(
      USUAL_CHOICES,
    );
    expect(arrival?.cut).toMatchObject({ by: "count", columns: 1, rows: 1 });
  });
});

describe("a sheet with metadata", () => {
  const understood = {
    reading: { name: "parts", frames: "parts.*" },
    frames: [
      { name: "walk_1.png", index: 0, rect: { x: 0, y: 0, w: 10, h: 12 }, turned: false, inset: { x: 2, y: 4 }, size: { w: 16, h: 16 } },
      { name: "walk_2.png", index: 1, rect: { x: 10, y: 0, w: 12, h: 10 }, turned: true, inset: { x: 0, y: 0 }, size: { w: 10, h: 12 } },
      { name: "jar", index: 2, rect: { x: 22, y: 0, w: 5, h: 5 }, turned: false, inset: { x: 0, y: 0 }, size: { w: 5, h: 5 } },
    ],
    clips: [
      {
        name: "walk",
        facing: "south",
        playback: "loop",
        times: 0,
        steps: [
          { frame: "walk_1.png", ms: 80 },
          { frame: "walk_2.png", ms: null },
          { frame: "gone", ms: 5 },
        ],
      },
    ],
    unplaced: [{ where: "parts.3", why: "It lies outside the picture." }],
    grade: { grade: "sure", reasons: [], unused: [] },
    told: { layers: [], place: null },
    paths: [],
  } as unknown as Understood;
  const [proposal] = proposalsFor([still("camp.png")], [{ path: "camp.json", of: { picture: "camp.png" }, understood, text: "{}" }]);

  it("is one proposal with its picture, and lists what does not fit", () => {
    expect(proposal).toMatchObject({ kind: "described", what: "A sheet with 3 frames and 1 clip, as camp.json says" });
    expect(proposal?.notes).toEqual(["1 record does not fit and is left out."]);
    expect(proposal?.unplaced).toHaveLength(1);
  });

  it("says what is uncertain about its reading", () => {
    const grade = { grade: "doubtful", reasons: ["y may be counted up: the picture fits as well"], unused: [] } as const;
    const [doubtful] = proposalsFor(
      [still("camp.png")],
      [{ path: "camp.json", of: { picture: "camp.png" }, understood: { ...understood, grade }, text: "{}" }],
    );
    expect(doubtful?.notes[0]).toMatch(/^Not sure: y may be counted up: the picture fits as well\./);
  });

  it("for a sheet that is there offers the clips that it lacks; of those it had, the removed ones, but unticked", () => {
    const camp = sourceOf("camp");
    const again = (clips: readonly Clip[], before: boolean) => {
      const { told: frames, clips: were } = framesAndClips(understood, "camp.json");
      const of = { source: camp.id, name: camp.name, before: before ? { frames, clips: were } : null };
      return proposalsFor([], [{ path: "art/camp.json", of, understood, text: "{}" }], { sources: [camp], clips })[0];
    };
    const offered = (made: ReturnType<typeof again>) => [made?.usual.clips, ...(made?.clips(USUAL_CHOICES).map(({ name }) => name) ?? [])];
    const first = again([], false);
    expect(first).toMatchObject({ kind: "recut", what: "Cut into 3 frames with 1 clip, as camp.json says", shows: camp.pictures });
    expect(first?.recut?.cut).toMatchObject({ file: "camp.json", sha256: sha256Hex(utf8("{}")) });
    expect(offered(first)).toEqual([true, "walk-south"]);
    expect(offered(again([], true))).toEqual([false, "walk-south"]);
    const step = { frame: "s1/i0" as FrameRef, duration: 100_000 };
    const own: Clip = { ...PLAIN_LOOP, name: "walk-south" as ClipName, steps: [step] };
    expect(offered(again([own], true))).toEqual([false]);
    // One of another sheet that is called alike is not it.
    expect(offered(again([{ ...own, steps: [{ ...step, frame: "s2/i0" as FrameRef }] }], false))).toEqual([true, "walk-south"]);
  });

  it("keeps untrimmed sizes, turns, names without endings, and rows by their names", () => {
    const [arrival] = proposal?.arrivals(USUAL_CHOICES) ?? [];
    expect(arrival?.told?.map(({ name, row, turned, size }) => [name, row, turned ?? false, size ?? null])).toEqual([
      ["walk_1", 0, false, { w: 16, h: 16 }],
      ["walk_2", 0, true, null],
      ["jar", 1, false, null],
    ]);
  });

  it("takes a step that lasts longer than a step can as the longest, and says so; one that rounds to nothing as the usual time", () => {
    const steps = [4_000_000, 0.0001, 3_600_000].map((ms) => ({ frame: "walk_1.png", ms, place: 0 }));
    const odd = { ...understood, clips: understood.clips.map((each) => ({ ...each, steps })) };
    const [long] = proposalsFor([still("camp.png")], [{ path: "camp.json", of: { picture: "camp.png" }, understood: odd, text: "{}" }]);
    expect(long?.notes).toContain("Steps of more than an hour are taken as an hour long, in walk.");
    expect(long?.clips(USUAL_CHOICES)[0]?.steps.map(({ duration }) => duration)).toEqual([LONGEST_STEP, USUAL_STEP, LONGEST_STEP]);
    expect(proposal?.notes).not.toContainEqual(expect.stringContaining("hour"));
  });

  it("has clips named by their facing, without steps that are no frames, 100 ms by default", () =>
    expect(proposal?.arrivals(USUAL_CHOICES)[0]?.clips).toMatchObject([
      {
        name: "walk-south",
        steps: [
          { frame: 0, duration: 80_000 },
          { frame: 1, duration: 100_000 },
        ],
      },
    ]));
});

describe("a drop of many things", () => {
  it("is reviewed unless it is plain sheets", () => {
    expect(needsReview(proposalsFor([still("a.png"), still("camel.png")], []))).toBe(false);
    expect(needsReview(proposalsFor([still("a1.png"), still("a2.png"), still("a3.png")], []))).toBe(true);
  });

  it("makes exactly one proposal per file", () => {
    const items = [still("walk1.png"), still("walk2.png"), still("walk3.png"), still("camel.png"), still("tent/camel.png")];
    const pictures = proposalsFor(items, []).flatMap((proposal) => proposal.arrivals(USUAL_CHOICES).flatMap((arrival) => arrival.pictures));
    expect(pictures).toHaveLength(items.length);
  });
});
