import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type ActionName, actionNamed, FACINGS_OF, type FrameRef, type Ways } from "../model";
import { addAction, addClip, mirrorMissing, setPetal, turnAction } from ".";
import { porterProject } from "./project.fixture";

const GO = "go" as ActionName;
const REF = ["s1/c0r0"] as FrameRef[];

function rose(ways: Ways, nameOf: (facing: string) => string, facings: readonly string[] = FACINGS_OF[ways]) {
  let project = addAction(porterProject(), GO, ways);
  for (const facing of facings) {
    const name = nameOf(facing);
    project = setPetal(addClip(project, REF, name), GO, facing as never, { clip: name as never });
  }
  return project;
}

describe("turning a rose", () => {
  it("gives every clip the next facing, its name with it", () => {
    const turned = turnAction(
      rose(4, (facing) => `walk_${facing}`),
      GO,
      1,
    );
    // What looked east looks south now, and is called so.
    expect(turned.clips.map(({ name }) => name)).toEqual(["walk_s", "walk_w", "walk_n", "walk_e"]);
    for (const facing of FACINGS_OF[4]) expect(actionNamed(turned, GO).facings[facing]).toEqual({ clip: `walk_${facing}` });
  });

  it("keeps the spelling of the facing, and names without one", () => {
    const words = { e: "walkRight", s: "walkDown", w: "walkLeft", n: "walkUp" } as Record<string, string>;
    const spelled = turnAction(
      rose(4, (facing) => words[facing] as string),
      GO,
      1,
    );
    expect(spelled.clips.map(({ name }) => name)).toEqual(["walkDown", "walkLeft", "walkUp", "walkRight"]);
    const plain = turnAction(
      rose(2, (facing) => (facing === "e" ? "one" : "two")),
      GO,
      1,
    );
    expect(actionNamed(plain, GO).facings).toEqual({ e: { clip: "two" }, w: { clip: "one" } });
  });

  it("mirrors mirrored facings again", () => {
    const mirrored = mirrorMissing(
      rose(4, (facing) => `walk_${facing}`, ["e", "s", "n"]),
      GO,
    );
    const { facings } = actionNamed(turnAction(mirrored, GO, 1), GO);
    expect(facings).toEqual({ e: { clip: "walk_e" }, s: { clip: "walk_s" }, w: { clip: "walk_w" } });
  });

  it("refuses a name that another clip has, and changes nothing then", () => {
    const project = addClip(
      rose(4, (facing) => `walk_${facing}`, ["e"]),
      REF,
      "walk_s",
    );
    expect(() => turnAction(project, GO, 1)).toThrow(/two clips would have this name/);
  });

  it("there and back, or all the way round, is as before", () =>
    fc.assert(
      fc.property(
        fc.constantFrom<Ways>(2, 4, 8),
        fc.constantFrom<1 | -1>(1, -1),
        fc.subarray([0, 1, 2, 3, 4, 5, 6, 7], { minLength: 1 }),
        (ways, by, places) => {
          const facings = FACINGS_OF[ways].filter((_, k) => places.includes(k));
          if (facings.length === 0) return;
          const project = rose(ways, (facing) => `walk-${facing}`, facings);
          expect(turnAction(turnAction(project, GO, by), GO, (by * -1) as 1 | -1)).toEqual(project);
          let round = project;
          for (let k = 0; k < ways; k++) round = turnAction(round, GO, by);
          expect(round).toEqual(project);
        },
      ),
    ));
});
