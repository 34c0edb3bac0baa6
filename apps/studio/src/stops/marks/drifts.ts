/** Selects which drift of the drawing around its origin is charted, and finds the steps that jump. */

import { jumpsOf, type Standing } from "@caravan/core/marks";
import type { Clip } from "@caravan/core/model";
import { t } from "../../ui/words";

/** A charted quantity, growing upward or to the right. */
export const DRIFTS = [
  {
    key: "feet",
    word: t("feet over the ground"),
    subject: t("Feet"),
    of: ({ feet }: Standing) => -feet.y,
    stroke: "var(--lapis)",
    dash: "none",
    ways: [t("higher"), t("lower")],
    mend: t("Level the feet"),
  },
  {
    key: "middle",
    word: t("middle, to the right"),
    subject: t("Middle"),
    of: ({ middle }: Standing) => middle.x,
    stroke: "var(--brick)",
    dash: "5 3",
    ways: [t("further right"), t("further left")],
    mend: t("Align it"),
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
