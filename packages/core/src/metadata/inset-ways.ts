/** Decides how a file measures insets, by which way fits the frames and where feet stand. */
import type { Reading } from "../model";
import type { MetadataRecord } from "./groups";
import { INSET_WAYS, insetOf } from "./insets";
import type { Pair, Sizes } from "./pairs";
import { numberAt } from "./values";

interface InsetWay {
  readonly as: NonNullable<Reading["insetAs"]>;
  /** Whether it puts any frame elsewhere than the first way does. */
  readonly unlike: boolean;
}

/**
 * Ways of measuring insets with which every trimmed rectangle lies in its frame, the likeliest first; a second one only if it is about as
 * likely. Figures of one clip stand on one line: the way with the least variation of their lower edges is likelier.
 */
export function insetWays(records: readonly MetadataRecord[], inset: Pair, whole: Pair, sizes: Sizes, up: boolean): InsetWay[] {
  const found: { as: InsetWay["as"]; tops: number[]; score: number }[] = [];
  for (const as of INSET_WAYS) {
    const tops: number[] = [];
    const heights: number[] = [];
    let held = 0;
    let asked = 0;
    for (const [k, record] of records.entries()) {
      const size = sizes[k];
      const [x, y] = [numberAt(record, inset.a), numberAt(record, inset.b)];
      const full = { w: numberAt(record, whole.a) ?? 0, h: numberAt(record, whole.b) ?? 0 };
      if (!size || x === null || y === null) continue;
      asked++;
      const at = insetOf(x, y, size, full, as);
      const given = as === "corner" || as === "negated" || as === "bottom";
      if (
        at.x >= 0 &&
        at.y >= 0 &&
        at.x + size.w <= full.w &&
        at.y + size.h <= full.h &&
        (!given || (Number.isInteger(x) && Number.isInteger(y)))
      )
        held++;
      tops.push(at.y);
      heights.push(size.h);
    }
    if (asked === 0 || held < asked * 0.99) continue;
    found.push({ as, tops, score: PRIORS[as] + (as === "bottom" && up ? 0.5 : 0) - unevenness(tops, heights) });
  }
  const [best, ...others] = found.toSorted((a, b) => b.score - a.score);
  if (!best) return [];
  const rival = others.find((each) => each.tops.some((y, k) => y !== best.tops[k]));
  const close = rival !== undefined && best.score - rival.score < 0.25;
  return [{ as: best.as, unlike: false }, ...(close ? [{ as: rival.as, unlike: true }] : [])];
}

/** How usual each way is. */
const PRIORS: Readonly<Record<InsetWay["as"], number>> = { corner: 0, negated: -0.3, bottom: -0.3, "centre-up": -0.4, centre: -0.5 };

/** How much lower edges vary within runs of frames, 0 to 1: as much as their heights. */
function unevenness(tops: readonly number[], heights: readonly number[]): number {
  let varied = 0;
  let usual = 0;
  for (let k = 1; k < tops.length; k++) {
    const [top, before, h, last] = [tops[k], tops[k - 1], heights[k], heights[k - 1]] as [number, number, number, number];
    varied += Math.abs(top + h - before - last);
    usual += Math.abs(h - last) + 1;
  }
  // Of a few frames nothing can be said.
  return usual === 0 ? 0 : Math.min(1, varied / usual) * Math.min(1, tops.length / 8);
}
