/** Selects which drift of the drawing around its origin is charted, and finds the steps that jump. */
import { jumpsOf, type Standing } from "@caravan/core/marks";
import type { Clip } from "@caravan/core/model";

/** What is charted, each as a number that grows upward or to the right. */
export const DRIFTS = [
  {
    key: "feet",
    word: "feet over the ground",
    subject: "Feet",
    of: ({ feet }: Standing) => -feet.y,
    stroke: "var(--lapis)",
    dash: "none",
    ways: ["higher", "lower"],
    mend: "Level the feet",
  },
  {
    key: "middle",
    word: "middle, to the right",
    subject: "Middle",
    of: ({ middle }: Standing) => middle.x,
    stroke: "var(--brick)",
    dash: "5 3",
    ways: ["further right", "further left"],
    mend: "Bring it in line",
  },
] as const;

/** Every step that jumps in either way, in order. */
export function jumpsIn(standings: readonly (Standing | null | undefined)[], { playback, times }: Clip) {
  const loops = playback === "loop" && times !== 1;
  return DRIFTS.flatMap((drift) =>
    jumpsOf(
      standings.map((standing) => (standing ? drift.of(standing) : null)),
      loops,
    ).map((jump) => ({ ...jump, drift })),
  ).sort((a, b) => a.step - b.step);
}
