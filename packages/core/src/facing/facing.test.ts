import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FACINGS, FACINGS_OF, type Facing, type Ways } from "../model";
import {
  angleOf,
  angleOfFacing,
  DEAD_BAND,
  facingOfName,
  facingToward,
  matchFacings,
  mirrorOf,
  nearestPresent,
  turnBetween,
  turnedBy,
} from ".";

const ways = fc.constantFrom<Ways>(1, 2, 4, 8);
const angles = fc.double({ min: 0, max: 359.999, noNaN: true });
const facings = fc.constantFrom<Facing>(...FACINGS);

describe("directions on the screen", () => {
  it("grow clockwise from east, since y grows down", () => {
    expect([angleOf(1, 0), angleOf(0, 1), angleOf(-1, 0), angleOf(0, -1), angleOf(0, 0)]).toEqual([0, 90, 180, 270, null]);
    for (const [k, facing] of FACINGS.entries()) expect(angleOfFacing(facing)).toBe(k * 45);
  });

  it("without a current facing, no facing of the rose is nearer than the one chosen", () =>
    fc.assert(
      fc.property(angles, ways, (angle, count) => {
        const chosen = facingToward(angle, count, null);
        for (const each of FACINGS_OF[count])
          expect(turnBetween(angle, angleOfFacing(chosen))).toBeLessThanOrEqual(turnBetween(angle, angleOfFacing(each)) + 1e-9);
      }),
    ));

  it("a direction that trembles about the edge of two sectors changes the facing at most once", () =>
    fc.assert(
      fc.property(
        fc.constantFrom<Ways>(2, 4, 8),
        fc.integer({ min: 0, max: 7 }),
        fc.array(fc.double({ min: -DEAD_BAND / 2, max: DEAD_BAND / 2, noNaN: true }), { minLength: 2, maxLength: 60 }),
        (count, sector, trembles) => {
          const edge = (sector + 0.5) * (360 / count);
          let current: Facing | null = null;
          let changes = 0;
          for (const tremble of trembles) {
            const next = facingToward((edge + tremble + 360) % 360, count, current);
            if (current !== null && next !== current) changes++;
            current = next;
          }
          expect(changes).toBe(0);
        },
      ),
    ));

  it("going slowly all round visits every facing of the rose once, in order", () => {
    for (const count of [2, 4, 8] as const) {
      const seen: Facing[] = [];
      let current: Facing | null = null;
      for (let angle = 0; angle < 360; angle++) {
        current = facingToward(angle, count, current);
        if (seen.at(-1) !== current) seen.push(current);
      }
      expect(seen.slice(0, count)).toEqual([...FACINGS_OF[count]]);
    }
  });

  it("mirroring twice gives the facing back, and leaves those that look at the viewer or away", () =>
    fc.assert(
      fc.property(facings, (facing) => {
        expect(mirrorOf(mirrorOf(facing))).toBe(facing);
        expect(mirrorOf("s")).toBe("s");
        expect(mirrorOf("n")).toBe("n");
        expect(mirrorOf("se")).toBe("sw");
      }),
    ));

  it("turning moves around the rose, also from a facing that it lacks", () => {
    expect(turnedBy("n", 4, 1)).toBe("e");
    expect(turnedBy("e", 4, -1)).toBe("n");
    expect(turnedBy("se", 4, 1)).toBe("w");
    expect(turnedBy("s", 1, 1)).toBe("s");
  });

  it("a missing facing falls back to the least turn, of two equal ones to the one nearer the viewer", () => {
    expect(nearestPresent("se", ["e", "s"])).toBe("s");
    expect(nearestPresent("ne", ["e", "n"])).toBe("e");
    expect(nearestPresent("n", ["e", "w"])).toBe("e");
    expect(nearestPresent("w", ["w", "s"])).toBe("w");
    expect(nearestPresent("w", [])).toBeNull();
  });
});

const FROM_EAST = { first: "e", clockwise: true } as const;

describe("facings in names", () => {
  it.each([
    ["walk_s", "walk", "s"],
    ["walk_se", "walk", "se"],
    ["walk-NE", "walk", "ne"],
    ["walkLeft", "walk", "w"],
    ["walkNW", "walk", "nw"],
    ["up_idle", "idle", "n"],
    ["walk north east", "walk", "ne"],
    ["walk_down_left", "walk", "sw"],
    ["camp/look.front", "camp/look", "s"],
    ["run_south-west", "run", "sw"],
  ])("%s is %s looking %s", (name, stem, facing) => expect(facingOfName(name)).toEqual({ stem, facing, number: null }));

  it.each(["walks", "less", "needle", "s", "news", "pass"])("%s holds no facing", (name) =>
    expect(facingOfName(name)).toEqual({ stem: name, facing: null, number: null }),
  );

  it("s never matches se, whatever precedes it", () =>
    fc.assert(
      fc.property(fc.stringMatching(/^[a-z]{2,8}$/), facings, fc.constantFrom("_", "-", " ", "."), (stem, facing, mark) => {
        fc.pre(
          facingOfName(`${stem}0`).stem === stem &&
            !["up", "down", "left", "right", "north", "south", "se", "sw", "ne", "nw"].includes(stem),
        );
        expect(facingOfName(`${stem}${mark}${facing}`).facing).toBe(facing);
      }),
    ));

  it("groups one movement's facings, on the smallest rose with all of them", () => {
    const matched = matchFacings(["walk_e", "walk_se", "idle_left", "idle_right", "jump", "walk_s", "wave_s"], FROM_EAST);
    expect(matched).toEqual([
      { stem: "idle", ways: 2, facings: { e: "idle_right", w: "idle_left" }, byNumber: false },
      { stem: "walk", ways: 8, facings: { e: "walk_e", s: "walk_s", se: "walk_se" }, byNumber: false },
    ]);
  });

  it("reads numbers as facings if there are two, four or eight in a row, from the given facing and direction", () => {
    const four = ["turn0", "turn1", "turn2", "turn3", "hop1", "hop2", "hop3"];
    expect(matchFacings(four, { first: "s", clockwise: true })).toEqual([
      { stem: "turn", ways: 4, facings: { s: "turn0", w: "turn1", n: "turn2", e: "turn3" }, byNumber: true },
    ]);
    expect(matchFacings(four, { first: "s", clockwise: false })[0]?.facings).toEqual({ s: "turn0", e: "turn1", n: "turn2", w: "turn3" });
  });
});
