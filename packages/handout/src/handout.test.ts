import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Atlas } from "@caravan/player";
import { describe, expect, it } from "vitest";
import { handoutParts } from "../../../scripts/handout-parts";
import { reachOf } from "./draw";
import { choicesIn, playingOf } from "./playing";
import { fittingZoom } from "./stage";

const step = (frame: string, ms = 100) => ({ frame, ms });
const frame = (x: number) => ({
  page: 0,
  rect: { x, y: 0, w: 8, h: 8 },
  turned: false,
  inset: { x: 0, y: 0 },
  size: { w: 8, h: 10 },
  origin: { x: 3, y: 9 },
});

const atlas: Atlas = {
  format: "caravan-atlas",
  version: 1,
  pages: [{ image: "p.png", width: 32, height: 8, scale: 1, filter: "nearest" }],
  frames: { a: frame(0), b: frame(8), c: frame(16), d: frame(24) },
  clips: {
    walk: { steps: [step("a"), step("b")] },
    east: { steps: [step("c")] },
    blow: { steps: [step("d")], playback: "once" },
  },
  actions: { walk: { facings: { e: { clip: "east" }, w: { clip: "east", mirror: true } } }, empty: { facings: {} } },
  behaviours: {
    porter: {
      inputs: { go: { kind: "switch" } },
      rules: [
        { name: "goes", when: [{ input: "go", is: true }], play: "walk", set: { go: true } },
        { name: "waits", when: [], play: "blow" },
      ],
    },
  },
};

describe("the contents of a page", () => {
  it("is every action that has a clip, every clip and every behaviour", () => {
    expect(choicesIn(atlas).map(({ kind, name }) => `${kind} ${name}`)).toEqual([
      "action walk",
      "clip walk",
      "clip east",
      "clip blow",
      "behaviour porter",
    ]);
  });

  it("plays a clip, even if an action has the same name, and the action in its facings", () => {
    const clip = playingOf(atlas, { kind: "clip", name: "walk" });
    expect([clip.advance(0, "s").frame, clip.advance(100, "s").frame]).toEqual(["a", "b"]);
    expect([...clip.frames]).toEqual(["a", "b"]);
    const action = playingOf(atlas, { kind: "action", name: "walk" });
    expect(action.facings).toEqual(["e", "w"]);
    expect([action.advance(0, "e").mirror, action.advance(0, "w").mirror]).toEqual([false, true]);
  });

  it("repeats a one-shot after a pause", () => {
    const blow = playingOf(atlas, { kind: "clip", name: "blow" });
    blow.advance(0, "s");
    expect(blow.advance(150, "s").ended).toBe(true);
    expect(blow.advance(700, "s").ended).toBe(true);
    expect(blow.advance(10, "s").ended).toBe(false);
  });

  it("drives a behaviour by its inputs", () => {
    const porter = playingOf(atlas, { kind: "behaviour", name: "porter" });
    expect(porter.advance(10, "e").rule).toBe("waits");
    porter.set("go", true);
    expect(porter.advance(10, "w")).toMatchObject({ rule: "goes", clip: "east", mirror: true, set: { go: true } });
    expect(porter.advance(10, "w").set).toBeNull();
    porter.restart("e");
    expect(porter.advance(10, "e").rule).toBe("waits");
  });

  it("is seen whole, as large as fits by whole numbers", () => {
    const reach = reachOf(atlas, ["a", "b"]);
    expect(reach).toEqual({ side: 5, above: 9, below: 1 });
    expect(fittingZoom(reach, 116, 216)).toBe(10);
    expect(fittingZoom(reach, 5, 5)).toBe(1);
  });

  it("is in the core as it is here", async () => {
    const written = readFileSync(join(import.meta.dirname, "../../core/src/deliver/handout-parts.ts"), "utf8");
    expect(written === (await handoutParts()), "Run `npm run handout`.").toBe(true);
  });
});
