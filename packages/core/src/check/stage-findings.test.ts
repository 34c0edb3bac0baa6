import { describe, expect, it } from "vitest";
import { addClip, addRehearsal } from "../edit";
import { porterProject } from "../edit/project.fixture";
import { keptRefs, type Project, type Source } from "../model";
import { clearPixels, coverageOf } from "../raster";
import { feetOf, proposed, type Walk, walkingClip, walkKey } from "../stage";
import { NOTHING_SEEN } from "./art-findings";
import { findingsOf } from "./findings";
import { mended } from "./mend";

function walking(): Project {
  const project = porterProject();
  const withWalk = addClip(project, keptRefs(project.sources[0] as Source).slice(0, 4), "walk");
  const { behaviour, stage } = proposed(withWalk, { stand: null, move: "walk", jump: null, fall: null, acts: [] }, "hero");
  return addRehearsal(withWalk, behaviour, { ...stage, movement: { ...stage.movement, speed: 50 } });
}

/** A foot that goes back by so many px a step of 100 ms for four steps, and is in the air in the fifth. */
function stepping(by: number): Walk["feet"] {
  return feetOf(
    [0, 1, 2, 3, 4].map((step) => {
      const pixels = clearPixels(40, 20);
      for (let y = 0; y < 12; y++) for (let x = 14; x < 26; x++) pixels.bytes[(y * 40 + x) * 4 + 3] = 255;
      for (let y = 12; y < (step === 4 ? 14 : 18); y++)
        for (let x = 0; x < 3; x++) pixels.bytes[(y * 40 + 24 - step * by + x) * 4 + 3] = 255;
      return { coverage: coverageOf(pixels), origin: { x: 20, y: 18 }, duration: 100_000 };
    }),
  );
}

const seen = (project: Project, worst: number) => {
  const [stage] = project.stages ?? [];
  const clip = stage && walkingClip(project, stage);
  if (!clip) throw new Error("Nothing walks.");
  return { ...NOTHING_SEEN, walks: new Map([[walkKey(project, clip), { feet: stepping(3), steady: { speed: 30, worst } }]]) };
};
const sliding = (project: Project, worst = 0) => findingsOf(project, seen(project, worst)).filter(({ code }) => code === "feet-slide");

describe("feet that slide", () => {
  it("are found with the speed at which they would not, and mended by it", () => {
    const project = walking();
    const [found] = sliding(project);
    expect(found?.message).toBe("Planted feet of walk slide by up to 2 px a step at 50 px/s; at 30 px/s by 0 px.");
    const after = mended(project, found as NonNullable<typeof found>) as Project;
    expect(after.stages?.[0]?.movement.speed).toBe(30);
    expect(sliding(after)).toEqual([]);
  });

  it("are not reported if not analysed, or not recognised reliably", () => {
    const project = walking();
    expect(findingsOf(project).filter(({ code }) => code === "feet-slide")).toEqual([]);
    expect(sliding(project, 3)).toEqual([]);
  });

  it("are analysed again if a frame, its origin or its duration changes", () => {
    const project = walking();
    const slower = {
      ...project,
      clips: project.clips.map((clip) => ({ ...clip, steps: clip.steps.map((step) => ({ ...step, duration: 90_000 })) })),
    };
    expect(findingsOf(slower, seen(project, 0)).filter(({ code }) => code === "feet-slide")).toEqual([]);
  });
});
