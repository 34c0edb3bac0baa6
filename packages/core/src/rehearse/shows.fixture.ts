/** Clips and an action for tests of behaviours: looping ones, ending ones, one of a unique length, and one with facings. */
import type { Action, Clip, FrameRef, Project, Step } from "../model";
import { emptyProject, PLAIN_LOOP } from "../model";

const clip = (name: string, ms: readonly number[], rules: Partial<Clip> = {}): Clip =>
  ({
    name,
    ...PLAIN_LOOP,
    ...rules,
    steps: ms.map((each, k): Step => ({ frame: `s1/${name}${k}` as FrameRef, duration: each * 1000 })),
  }) as Clip;

export function showsForTests(): Project {
  return {
    ...emptyProject("shows"),
    clips: [
      clip("idle", [200, 200]),
      clip("walk-e", [100, 100, 100, 100]),
      clip("walk-s", [100, 100, 100, 100]),
      clip("strike-e", [60, 60, 80], { playback: "once" }),
      clip("strike-s", [60, 60, 120], { playback: "once", after: "first" }),
      clip("spin-e", [50, 50]),
      clip("spin-s", [70], { playback: "once", after: "hide" }),
      clip("hurt", [40], { playback: "loop", times: 2 }),
      clip("nothing", []),
    ],
    actions: [
      { name: "walk", ways: 4, facings: { e: { clip: "walk-e" }, w: { clip: "walk-e", mirror: true }, s: { clip: "walk-s" } } },
      { name: "strike", ways: 4, facings: { e: { clip: "strike-e" }, w: { clip: "strike-e", mirror: true }, s: { clip: "strike-s" } } },
      { name: "spin", ways: 2, facings: { e: { clip: "spin-e" }, w: { clip: "spin-s" } } },
    ] as Action[],
  };
}
