import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { artFrom } from "../art";
import { stoppingFinding } from "../check";
import { png } from "../codec/png.fixture";
import { addSources, cutSource } from "../edit";
import { CELL, NO_SPACE } from "../edit/project.fixture";
import { coverage, diceFrom, edited, picture, sha256, sheet } from "../edit/random-choices.fixture";
import { EDITS_OF_ART } from "../edit/random-edits-of-art.fixture";
import { EDITS_OF_MOTION } from "../edit/random-edits-of-motion.fixture";
import { type Delivery, emptyProject, type Project, type SourceId } from "../model";
import { deliver } from "./project";

/** These bring other art, which is not at hand here, or many more clips than can be delivered in a test. */
const LEFT_OUT = new Set([
  "refresh",
  "refreshOn",
  "refreshByMetadata",
  "resized",
  "someStills",
  "freezeMirror",
  "clipsAsTold",
  "animationAgain",
]);
const EDITS = Object.entries({ ...EDITS_OF_ART, ...EDITS_OF_MOTION })
  .filter(([what]) => !LEFT_OUT.has(what))
  .map(([, edit]) => edit);
const KINDS = ["atlas", "grid", "strips", "singles", "films"] as const;

function grown(seed: number): Project {
  const dice = diceFrom(seed);
  const grid = { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false } as const;
  const first = cutSource(addSources(emptyProject("random"), [{ fileName: "porter.png", ...picture }]), "s1" as SourceId, grid, coverage);
  return edited(first, EDITS, dice, 160);
}

/** What stops a delivery is mended as it offers, one after the other. */
function withMendings(project: Project, index: number): Project {
  let next = project;
  for (let k = 0; k < 60; k++) {
    const mend = stoppingFinding(next, index)?.mend;
    if (!mend || !("apply" in mend)) return next;
    next = mend.apply(next);
  }
  return next;
}

describe("projects of random edits", () => {
  it("are delivered in every kind, pixels proved, or stopped by a finding that says why beforehand", () => {
    let delivered = 0;
    fc.assert(
      fc.property(fc.integer(), (seed) => {
        const project = grown(seed);
        for (const [index, { data }] of project.deliveries.entries())
          for (const kind of KINDS) {
            const change = { kind, data: { ...data, frames: true, times: true, contact: true, module: "typed" } } as const;
            const asked = {
              ...project,
              deliveries: project.deliveries.map((each, k): Delivery => (k === index ? { ...each, ...change } : each)),
            };
            const mended = withMendings(asked, index);
            if (stoppingFinding(mended, index)) continue;
            const art = artFrom(new Map([[sha256, sheet]]), mended);
            expect(deliver(mended, mended.deliveries[index] as Delivery, art, png).files.length).toBeGreaterThan(0);
            delivered++;
          }
      }),
      { numRuns: 5, seed: 20_261_129 },
    );
    expect(delivered).toBeGreaterThan(20);
  }, 120_000);
});
