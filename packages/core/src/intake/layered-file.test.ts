import { describe, expect, it } from "vitest";
import { takeIn } from "../edit";
import { type Blend, emptyProject } from "../model";
import { clearPixels, coverageOf } from "../raster";
import type { TakenArt, TakenItem, TakenPicture } from "./drop-contents";
import { type Choices, USUAL_CHOICES } from "./proposal";
import { proposalsFor } from "./proposals";

const picture = (sha: string): TakenPicture => ({
  ...{ sha256: sha.repeat(64).slice(0, 64), width: 32, height: 40, ground: null },
  coverage: coverageOf(clearPixels(1, 1)),
});
const only = (item: TakenItem) => {
  const [proposal, ...others] = proposalsFor([item], []);
  if (!proposal || others.length > 0) throw new Error("Expected one proposal.");
  return proposal;
};

describe("layers", () => {
  const layer = (name: string, blend: Blend = "normal") => ({ ...picture(name), name, blend });
  const art: TakenArt = {
    kind: "layers",
    layers: [layer("body"), layer("lamp", "add")],
    apart: { layers: [layer("legs"), layer("coat"), layer("lamp")], unlikeMerged: null },
    hidden: 2,
    groups: 1,
    unlike: [{ name: "lamp", blended: "svg:screen" }],
    damaged: [{ name: "shade", why: "Its picture is missing." }],
    unread: [{ name: "lamp", field: "opacity", text: "0,5", used: 1 }],
    unlikeMerged: 3,
  };
  const layered = only({ path: "bearer.ora", art });

  it("are one source with its layers, with their blend modes", () => {
    const [arrival, ...others] = layered.arrivals(layered.usual);
    expect(others).toEqual([]);
    expect(arrival?.name).toBe("bearer");
    expect(arrival?.layers?.map(({ name, blend }) => [name, blend])).toEqual([["lamp", "add"]]);
    expect(layered.arrivals({ ...layered.usual, apart: true })[0]?.layers?.map(({ name }) => name)).toEqual(["coat", "lamp"]);
  });

  it("are separate sources if chosen, groups as one or apart", () => {
    const names = (apart: boolean) => layered.arrivals({ ...USUAL_CHOICES, layers: false, apart }).map(({ name }) => name);
    expect(names(false)).toEqual(["bearer-body.png", "bearer-lamp.png"]);
    expect(names(true)).toEqual(["bearer-legs.png", "bearer-coat.png", "bearer-lamp.png"]);
    expect(layered.parting).toEqual({ whole: "1 group as one", apart: "3 layers apart" });
  });

  it("report hidden, unsupported and damaged ones, and numbers that cannot be read", () =>
    expect(layered.notes).toEqual([
      "2 hidden layers left out.",
      "The layer lamp is blended by svg:screen, which Caravan does not support: it is imported as painted over.",
      "The layer shade is damaged and left out. Its picture is missing.",
      'The layer lamp has the opacity "0,5", which is no number: 1 is used instead.',
    ]));

  it("report that they look different from the file's merged picture, where nothing else says why", () => {
    const notes = (unlikeMerged: number | null) =>
      only({ path: "bearer.ora", art: { ...art, hidden: 0, unlike: [], damaged: [], unread: [], unlikeMerged } }).notes;
    expect(notes(3)[0]).toMatch(/^Composed of its layers, 3 pixels look different from the merged picture/);
    expect(notes(0)).toEqual([]);
    expect(notes(null)).toEqual([]);
  });

  it("are taken apart if only so they look as the file's merged picture, and say so", () => {
    const parted = (unlikeApart: number | null) => {
      const apart = { layers: [layer("legs"), layer("coat"), layer("lamp")], unlikeMerged: unlikeApart };
      return only({ path: "bearer.ora", art: { ...art, hidden: 0, unlike: [], damaged: [], unread: [], apart } });
    };
    expect(parted(0)).toMatchObject({
      usual: { apart: true, layers: true },
      notes: ["Its groups are taken apart: as one layer each, 3 pixels would look different from the merged picture in the file."],
    });
    expect(parted(1).notes).toEqual([expect.stringMatching(/^Its groups are taken apart/), expect.stringMatching(/, 1 pixel look/)]);
    for (const worse of [3, 9, null])
      expect(parted(worse)).toMatchObject({ usual: { apart: false }, notes: [expect.stringMatching(/^Composed/)] });
  });

  it("of a file with one group in all are its layers if it is taken apart, and else one source called like it", () => {
    const grouped = only({ path: "bearer.ora", art: { ...art, layers: [layer("figure")], unlikeMerged: 0 } });
    expect(grouped.layering).toBeDefined();
    expect(grouped.arrivals(grouped.usual)).toMatchObject([{ name: "bearer" }]);
    const [apart, ...others] = grouped.arrivals({ ...grouped.usual, apart: true, layers: true });
    expect([others, apart?.layers?.map(({ name }) => name)]).toEqual([[], ["coat", "lamp"]]);
  });
});

describe("a layered file that is there already", () => {
  const drawn = (name: string, sha = name) => ({ ...picture(sha), name, blend: "normal" as const });
  const file = (look: string): TakenItem => ({
    path: "bearer.ora",
    art: {
      kind: "layers",
      layers: [drawn("figure", `f${look}`), drawn("lamp", "l")],
      apart: { layers: [drawn("figure/legs", "a"), drawn("figure/coat", `c${look}`), drawn("lamp", "l")], unlikeMerged: 0 },
      ...{ hidden: 0, groups: 1, unlike: [], damaged: [], unread: [], unlikeMerged: 0 },
    },
  });
  const imported = (choices: Partial<Choices>) => {
    const proposal = only(file("1"));
    return takeIn(emptyProject("bearers"), proposal.arrivals({ ...proposal.usual, ...choices })).sources;
  };

  it("is new art in the way in which it was imported: with its groups as one, or taken apart", () => {
    for (const apart of [false, true]) {
      const sources = imported({ apart });
      const [again, ...others] = proposalsFor([file("2")], [], { sources });
      expect(others).toEqual([]);
      expect(again).toMatchObject({ known: { name: "bearer" }, usual: { apart, layers: true, replaces: true } });
      expect(proposalsFor([file("1")], [], { sources })).toMatchObject([{ usual: { include: false } }]);
    }
  });

  it("is new art of each layer's source, if it was imported as one source per layer", () => {
    for (const apart of [false, true]) {
      const sources = imported({ layers: false, apart });
      const again = proposalsFor([file("2")], [], { sources });
      expect(again.map(({ known, usual }) => [known?.name, usual.include && usual.replaces])).toEqual(
        apart
          ? [
              [undefined, false],
              ["bearer-figure-coat", true],
              [undefined, false],
            ]
          : [
              ["bearer-figure", true],
              [undefined, false],
            ],
      );
      expect(new Set(again.map(({ id }) => id)).size).toBe(again.length);
    }
  });
});
