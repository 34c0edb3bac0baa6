import { describe, expect, it } from "vitest";
import { clearPixels, coverageOf } from "../raster";
import { needsReview, proposalsFor } from "./proposals";
import type { TakenItem } from "./taken";

const coverage = coverageOf(clearPixels(1, 1));
let count = 0;
const still = (path: string, width = 32, height = 40): TakenItem => ({
  path,
  art: { kind: "still", picture: { sha256: String(count++).padStart(64, "0"), width, height, coverage, ground: null } },
});
const proposed = (...items: readonly TakenItem[]) => proposalsFor(items, []);
const layersIn = (proposal: ReturnType<typeof proposed>[number] | undefined) =>
  proposal?.arrivals(proposal.usual).flatMap(({ name, layers = [] }) => [name, ...layers.map((each) => `${each.name} ${each.blend}`)]);

describe("files whose names go on with a word for a layer", () => {
  it("lie over the picture of the name, light and shade above what is painted", () => {
    const [camp, ...others] = proposed(still("camp.png"), still("camp_light.png"), still("camp-hair.png"), still("camp shadow.png"));
    expect(others).toEqual([]);
    expect(layersIn(camp)).toEqual(["camp.png", "hair normal", "shadow multiply", "light add"]);
    expect(needsReview([camp as never])).toBe(true);
  });

  it("are sources of their own if that is chosen", () => {
    const [camp] = proposed(still("camp.png"), still("camp_light.png"));
    expect(camp?.arrivals({ ...camp.usual, layers: false }).map(({ name, layers }) => [name, layers])).toEqual([
      ["camp.png", undefined],
      ["camp_light.png", undefined],
    ]);
  });

  it("are told and left apart where they are not as large", () => {
    const all = proposed(still("camp.png"), still("camp_light.png", 33));
    expect(all.map(({ name }) => name)).toEqual(["camp.png", "camp_light.png"]);
    expect(all[1]?.notes.join()).toMatch(/called as a layer of camp, but is not as large: 33 × 40 px over 32 × 40/);
  });

  it("are left alone without a picture to lie over, in another folder, and where the word tells nothing", () => {
    const names = ["light.png", "a/camp.png", "b/camp_light.png", "hero.png", "hero_walk.png", "hero_n.png"];
    expect(proposed(...names.map((name) => still(name))).map(layersIn)).toHaveLength(names.length);
  });

  it("are taken by number in a series", () => {
    const numbered = (stem: string, end = "") => [0, 1, 2].map((k) => still(`${stem}${k}${end}.png`));
    for (const over of [numbered("run_light_"), numbered("run_", "_light")]) {
      const [run, ...others] = proposed(...numbered("run_"), ...over);
      expect(others).toEqual([]);
      expect(layersIn(run)).toEqual(["run", "light add"]);
      expect(run?.arrivals(run.usual)[0]?.layers?.[0]?.pictures).toHaveLength(3);
    }
    const [, short] = proposed(...numbered("run_"), ...numbered("run_light_").slice(1));
    expect(short?.notes.join()).toMatch(/has 3 of its pictures; it has 2/);
  });
});
