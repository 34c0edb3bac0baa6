import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cutOfSuggestion, suggestGrids } from "../cut";
import { takeIn } from "../edit";
import { emptyProject, FACINGS, FACINGS_OF, type Facing } from "../model";
import { clearPixels, coverageOf } from "../raster";
import type { TakenItem } from "./drop-contents";
import { proposedActions } from "./facings";
import type { Choices, Proposal } from "./proposal";
import { needsReview, proposalsFor } from "./proposals";
import type { SeenGrid } from "./sheet";

const FROM_S = { first: "s", clockwise: true } as const;

/** A sheet with a block in each cell, each by a pixel wider than the one before. */
function blocks(columns: number, rows: number) {
  const sheet = clearPixels(columns * 16, rows * 16);
  for (let k = 0; k < columns * rows; k++)
    for (let y = 4; y < 14; y++)
      for (let x = 3; x < 8 + (k % 5); x++)
        sheet.bytes.set([k, 9, 9, 255], ((Math.floor(k / columns) * 16 + y) * sheet.width + (k % columns) * 16 + x) * 4);
  return coverageOf(sheet);
}

let hashes = 0;
function still(path: string, coverage = blocks(1, 1)): TakenItem {
  const sha256 = (hashes++).toString(16).padStart(64, "0");
  return { path, art: { kind: "still", picture: { sha256, width: coverage.width, height: coverage.height, coverage, ground: null } } };
}

function grids(items: readonly TakenItem[]): Map<string, SeenGrid> {
  return new Map(
    items.flatMap(({ path, art }) => {
      const coverage = art.kind === "still" ? art.picture.coverage : null;
      const [suggestion] = coverage ? suggestGrids(coverage) : [];
      return coverage && suggestion ? [[path, { suggestion, coverage }] as const] : [];
    }),
  );
}

const usual = ({ usual: own }: Proposal) => own;
const actionsOf = (items: readonly TakenItem[], choicesOf: (proposal: Proposal) => Choices = usual) => {
  const proposals = proposalsFor(items, [], { grids: grids(items) });
  return { proposals, actions: proposedActions(proposals, choicesOf, FROM_S) };
};
const madeOf = (items: readonly TakenItem[], choicesOf: (proposal: Proposal) => Choices = usual) => {
  const { proposals, actions } = actionsOf(items, choicesOf);
  return takeIn(
    emptyProject("made"),
    proposals.flatMap((each) => each.arrivals(choicesOf(each))),
    actions.filter((each) => each.usual).map(({ action }) => action),
  );
};
const series = (names: readonly string[], count = 3) =>
  names.flatMap((name) => Array.from({ length: count }, (_, k) => still(`${name}${k}.png`)));

describe("numbered stills named by facing", () => {
  it("are one action, with missing facings mirrored from the opposite side", () => {
    const project = madeOf(series(["walk_s_", "walk_se_", "walk_e_", "walk_ne_", "walk_n_"]));
    expect(project.actions).toEqual([
      {
        name: "walk",
        ways: 8,
        facings: {
          e: { clip: "walk_e" },
          se: { clip: "walk_se" },
          s: { clip: "walk_s" },
          sw: { clip: "walk_se", mirror: true },
          w: { clip: "walk_e", mirror: true },
          nw: { clip: "walk_ne", mirror: true },
          n: { clip: "walk_n" },
          ne: { clip: "walk_ne" },
        },
      },
    ]);
    expect(project.clips.map(({ name, steps }) => [name, steps.length])).toEqual(
      ["walk_e", "walk_n", "walk_ne", "walk_s", "walk_se"].map((name) => [name, 3]),
    );
  });

  it("are distinguished with any separator, and one letter never matches two", () => {
    for (const names of [
      ["walk-left-0", "walk-right-0", "walk-up-0", "walk-down-0"],
      ["walkLeft", "walkRight", "walkUp", "walkDown"],
      ["W walk ", "E walk ", "N walk ", "S walk "],
    ]) {
      const [action] = madeOf(series(names)).actions;
      expect(action?.ways).toBe(4);
      expect(Object.values(action?.facings ?? {}).filter(({ mirror }) => mirror)).toEqual([]);
    }
  });

  it("may be in a folder per facing, or in a folder per figure", () => {
    const byFacing = madeOf(series(["porter/walk/s/", "porter/walk/e/", "porter/walk/n/", "porter/walk/w/"]));
    expect(byFacing.actions.map(({ name, ways }) => [name, ways])).toEqual([["walk", 4]]);
    const byFigure = madeOf(series(["porter/walk_s_", "porter/walk_e_", "guard/walk_s_", "guard/walk_e_"]));
    expect(byFigure.actions.map(({ name }) => name).sort()).toEqual(["guard-walk", "porter-walk"]);
    for (const { name, facings } of byFigure.actions)
      for (const { clip } of Object.values(facings)) expect(clip.startsWith(name.split("-")[0] as string)).toBe(true);
  });

  it("keep their numbers, as names, in the order people count", () => {
    const [source] = madeOf([18, 9, 10].map((k) => still(`flag${k}.png`))).sources;
    expect(source?.frames.map(({ number }) => number)).toEqual([9, 10, 18]);
    expect(source?.pictures.map(({ file, number }) => [file, number])).toEqual([
      ["art/flag/09.png", 9],
      ["art/flag/10.png", 10],
      ["art/flag/18.png", 18],
    ]);
  });

  it("make no action of two clips that differ in a number alone, unless it is wanted", () => {
    const { actions } = actionsOf(series(["strike1_", "strike2_"]));
    expect(actions.every((each) => !each.usual)).toBe(true);
    expect(madeOf(series(["strike1_", "strike2_"])).actions).toEqual([]);
  });

  it("with any set of facings, every facing of the rose plays a clip of the drop, and its own clips face as named", () =>
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...FACINGS), { minLength: 2 }), (facings) => {
        const project = madeOf(
          series(
            facings.map((facing) => `go_${facing}_`),
            2,
          ),
        );
        const [action] = project.actions;
        const names = new Set(project.clips.map(({ name }) => name));
        expect(project.actions).toHaveLength(1);
        for (const facing of facings) expect(action?.facings[facing]).toEqual({ clip: `go_${facing}` });
        for (const { clip } of Object.values(action?.facings ?? {})) expect(names.has(clip)).toBe(true);
      }),
      { numRuns: 40 },
    ));
});

describe("sheets", () => {
  it("named by facing are cut at once, each a clip", () => {
    const strips = ["s", "e", "n"].map((facing) => still(`walk_${facing}.png`, blocks(4, 1)));
    const project = madeOf(strips);
    expect(project.actions.map(({ name, ways }) => [name, ways])).toEqual([["walk", 4]]);
    expect(project.clips.map(({ steps }) => steps.length)).toEqual([4, 4, 4]);
    expect(needsReview(proposalsFor(strips, []))).toBe(true);
  });

  it("of one figure each are used whole", () => {
    const project = madeOf(["left", "right"].map((facing) => still(`look-${facing}.png`)));
    expect(project.actions[0]).toMatchObject({ name: "look", ways: 2 });
    expect(project.sources.map(({ frames }) => frames.length)).toEqual([1, 1]);
  });

  it("without facings in their names are left to be cut", () => {
    const { proposals, actions } = actionsOf([still("camel.png", blocks(4, 2)), still("well.png", blocks(3, 1))]);
    expect(proposals.map((each) => each.usual.cut)).toEqual(["later", "later"]);
    expect(actions).toEqual([]);
  });

  it("give the rows as facings of one action, named after it, from the given first facing", () => {
    const sheet = still("porter.png", blocks(4, 8));
    const choices = (proposal: Proposal): Choices => ({ ...proposal.usual, cut: "facings" });
    const project = madeOf([sheet], choices);
    expect(project.clips.map(({ name }) => name)).toEqual(["s", "sw", "w", "nw", "n", "ne", "e", "se"].map((facing) => `porter-${facing}`));
    for (const facing of FACINGS_OF[8]) expect(project.actions[0]?.facings[facing]?.clip).toBe(`porter-${facing}`);
  });

  it("give a clip for each row, which are all its cells in order", () => {
    const coverage = blocks(4, 3);
    const project = madeOf([still("porter.png", coverage)], (proposal) => ({ ...proposal.usual, cut: "rows" }));
    const [source] = project.sources;
    expect(source?.cut).toEqual(cutOfSuggestion(suggestGrids(coverage)[0] as never));
    expect(project.clips.flatMap(({ steps }) => steps.map(({ frame }) => frame))).toEqual(
      source?.frames.map(({ key }) => `${source.id}/${key}`),
    );
  });
});

describe("an action that is there already", () => {
  const first = () => madeOf(series(["walk_s_", "walk_n_"]));
  const add = (names: readonly string[]) => {
    const { proposals, actions } = actionsOf(series(names));
    return takeIn(
      first(),
      proposals.flatMap((each) => each.arrivals(each.usual)),
      actions.map(({ action }) => action),
    );
  };

  it("gains the facings that it lacks", () => {
    const facings = Object.keys(add(["walk_e_", "walk_w_"]).actions.find(({ name }) => name === "walk")?.facings ?? {}) as Facing[];
    expect(facings).toEqual(["e", "s", "w", "n"]);
  });

  it("keeps what it has if a facing repeats: that is another action", () => {
    const project = add(["walk_s_", "walk_e_"]);
    expect(project.actions.map(({ name }) => name)).toEqual(["walk", "walk-2"]);
    expect(project.actions[0]?.facings.s).toEqual({ clip: "walk_s" });
  });

  it("takes a drawn facing in place of the mirror that stood in for it", () => {
    const mirrored = madeOf(series(["walk_s_", "walk_e_"]));
    expect(mirrored.actions[0]?.facings.w).toEqual({ clip: "walk_e", mirror: true });
    const { proposals, actions } = actionsOf(series(["walk_w_", "walk_n_"]));
    const drawn = takeIn(
      mirrored,
      proposals.flatMap((each) => each.arrivals(each.usual)),
      actions.map(({ action }) => action),
    );
    expect(drawn.actions.map(({ name }) => name)).toEqual(["walk"]);
    expect(drawn.actions[0]?.facings).toEqual({
      e: { clip: "walk_e" },
      s: { clip: "walk_s" },
      w: { clip: "walk_w" },
      n: { clip: "walk_n" },
    });
  });
});

describe("clips that follow a file", () => {
  const proposed = (added: readonly string[]) => {
    const [proposal] = proposalsFor([still("porter.png")], []) as [Proposal];
    const all = ["walk-e", "walk-s", "walk-w", "idle-e", "idle-s"].map((name) => ({
      ...{ name, ref: name, steps: [], shows: [], times: 0 },
      playback: "loop" as const,
    }));
    const again = { ...proposal, kind: "described" as const, following: { all, added: new Set(added) }, clips: () => all };
    return proposedActions([again], () => ({ ...proposal.usual, clips: true, replaces: true }), FROM_S);
  };

  it("make an action only if some of it is new, together with those that are there", () => {
    expect(proposed([])).toEqual([]);
    const [walk, ...others] = proposed(["walk-w"]);
    expect(others).toEqual([]);
    expect(walk?.action.facings).toEqual({ e: "walk-e", s: "walk-s", w: "walk-w" });
  });
});
