import { describe, expect, it } from "vitest";
import { understand } from "../metadata";
import type { Reading, Source, SourceId } from "../model";
import { clearPixels, coverageOf } from "../raster";
import type { TakenItem } from "./drop-contents";
import { describedBy, pictureCalled, sourcesDescribedBy, withoutLayers } from "./pairing";
import { needsReview, proposalsFor } from "./proposals";

const coverage = coverageOf(clearPixels(1, 1));
let count = 0;
const still = (path: string, width = 32, height = 40): TakenItem => ({
  path,
  art: { kind: "still", picture: { sha256: String(count++).padStart(64, "0"), width, height, coverage, ground: null } },
});
const proposed = (...items: readonly TakenItem[]) => proposalsFor(items, []);
const layersIn = (proposal: ReturnType<typeof proposed>[number] | undefined) =>
  proposal?.arrivals(proposal.usual).flatMap(({ name, layers = [] }) => [name, ...layers.map((each) => `${each.name} ${each.blend}`)]);

describe("files whose names continue with a word for a layer", () => {
  it("are layers over the picture with that name, light and shade above painted ones", () => {
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

  it("are reported and kept separate if their sizes differ", () => {
    const all = proposed(still("camp.png"), still("camp_light.png", 33));
    expect(all.map(({ name }) => name)).toEqual(["camp.png", "camp_light.png"]);
    expect(all[1]?.notes.join()).toMatch(/the name of a layer of camp, but has a different size: 33 × 40 px over 32 × 40/);
  });

  it("are separate without a picture below, in another folder, and with a meaningless word", () => {
    const names = ["light.png", "a/camp.png", "b/camp_light.png", "hero.png", "hero_walk.png", "hero_n.png"];
    expect(proposed(...names.map((name) => still(name))).map(layersIn)).toHaveLength(names.length);
  });

  it("are matched by number in a series", () => {
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

describe("layers in metadata", () => {
  const picture = clearPixels(64, 32);
  for (const x of [2, 18, 34, 50]) for (let y = 4; y < 30; y++) picture.bytes.fill(255, (y * 64 + x) * 4, (y * 64 + x + 12) * 4);
  const seen = coverageOf(picture);
  const sheet = (path: string): TakenItem => ({
    path,
    art: { kind: "still", picture: { sha256: String(count++).padStart(64, "0"), width: 64, height: 32, coverage: seen, ground: null } },
  });
  const file = (more: object) =>
    JSON.stringify({
      image: "camp.png",
      frames: [0, 16, 32, 48].map((x, k) => ({ name: `fire_${k}`, x, y: 0, w: 16, h: 32 })),
      ...more,
    });
  /** As the studio and the command line do: the file is held against every picture that it names. */
  const described = (items: readonly TakenItem[], text: string) =>
    withoutLayers(
      describedBy(
        "camp.json",
        text,
        items.map(({ path }) => path),
      ).map((path) => ({
        ...{ path: "camp.json", of: { picture: path }, text },
        understood: understand(text, { picture: path, coverage: seen }, "camp.json", []),
      })),
    );

  it("are layers of the picture whatever their names, and are described once", () => {
    const items = [sheet("camp.png"), sheet("warm.png"), sheet("cold.png")];
    const text = file({
      layers: [
        { name: "fire light", image: "warm.png", blend: "additive" },
        { name: "dusk", image: "cold.png", blend: "multiply" },
      ],
    });
    const [camp, ...others] = proposalsFor(items, described(items, text));
    expect(others).toEqual([]);
    expect(camp?.kind).toBe("described");
    expect(layersIn(camp)).toEqual(["camp.png", "dusk multiply", "fire light add"]);
    expect(camp?.notes).toEqual([]);
  });

  it("that are all in one list are layers over its first", () => {
    const items = [sheet("a_light.png"), sheet("b_body.png")];
    const text = JSON.stringify({ ...JSON.parse(file({ layers: { body: "b_body.png", light: "a_light.png" } })), image: undefined });
    const [body, ...others] = proposalsFor(items, described(items, text));
    expect(others).toEqual([]);
    expect(layersIn(body)).toEqual(["b_body.png", "light add"]);
  });

  it("are reported if they are missing, blended in other ways, or half opaque", () => {
    const items = [sheet("camp.png"), sheet("warm.png")];
    const text = file({
      layers: [
        { name: "glow", image: "warm.png", blend: "screen", opacity: 60 },
        { name: "rain", image: "rain.png" },
      ],
    });
    const [camp] = proposalsFor(items, described(items, text));
    expect(layersIn(camp)).toEqual(["camp.png", "glow normal"]);
    expect(camp?.notes).toEqual([
      "The layer glow is blended by screen, which Caravan does not support: it is imported as painted over. The layer glow has an opacity of 60 %, which Caravan does not support: it is imported opaque.",
      "Its metadata lists a layer rain in rain.png, which was not dropped with it.",
    ]);
  });
});

describe("what a file calls the picture of a source", () => {
  const picture = (file: string) => ({ file, sha256: "a".repeat(64), width: 1, height: 1 });

  it("is the source's name, or that of its art if the source was renamed", () => {
    const hero = { name: "hero", pictures: [picture("art/porter.png")] };
    expect(pictureCalled(hero, '{"image": "hero.png"}')).toBe("hero.png");
    expect(pictureCalled(hero, '{"image": "porter.png"}')).toBe("porter.png");
    expect(pictureCalled(hero, '{"image": "hero.png", "next": "porter.png"}')).toBe("hero.png");
    expect(pictureCalled(hero, "{}")).toBe("hero.png");
    expect(pictureCalled({ name: "pieces", pictures: [] }, "{}")).toBe("pieces.png");
  });
});

describe("the sources that a file is about which comes alone", () => {
  const source = (name: string, file = `art/${name}.png`, cutBy?: string): Source => ({
    ...{ id: "s1" as SourceId, name, frames: [] },
    pictures: [{ file, sha256: "a".repeat(64), width: 1, height: 1 }],
    cut: cutBy === undefined ? null : { by: "metadata", file: cutBy, reading: {} as Reading },
  });
  const about = (path: string, text: string, sources: readonly Source[], chosen: Source | null = null) =>
    sourcesDescribedBy(path, text, sources, chosen).map(({ name }) => name);

  it("are those that it cut before, all of them if it names their pictures", () => {
    const two = [source("north", "art/north.png", "map.json"), source("south", "art/south.png", "Map.json"), source("map")];
    expect(about("map.json", '"north.png" "south.png"', two)).toEqual(["north", "south"]);
    expect(about("map.json", '"south.png"', two)).toEqual(["south"]);
    expect(about("map.json", "{}", two)).toEqual(["north", "south"]);
    expect(about("map.json", "{}", two, two[1])).toEqual(["south"]);
  });

  it("are told apart by their folders, if files of several are called alike", () => {
    const two = [source("hero-data", "art/hero-data.png", "data.json"), source("Aria", "art/villain-data.png", "data.json")];
    expect(about("art/villain/data.json", "{}", two)).toEqual(["Aria"]);
    // It cut another one, and names this.
    expect(about("data.json", '"camel.png"', [...two, source("camel")])).toEqual(["camel"]);
  });

  it("is otherwise the one called like it, or like its art, or named in it, or chosen", () => {
    const all = [source("hero", "art/porter.png"), source("porter-2"), source("camel")];
    expect(about("x/HERO.json", "", all)).toEqual(["hero"]);
    expect(about("porter.json", "", all)).toEqual(["hero"]);
    expect(about("all.json", '"camel.png"', all)).toEqual(["camel"]);
    expect(about("all.json", "", all, all[1])).toEqual(["porter-2"]);
    expect(about("all.json", "", all)).toEqual([]);
  });
});
