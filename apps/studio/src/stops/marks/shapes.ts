/** Words and tags for each shape of marks. */

import type { BoxUse, MarkShape } from "@caravan/core/model";
import { t } from "../../ui/words";

interface ShapeWords {
  readonly several: string;
  /** What the first kind of it is called until a person says otherwise. */
  readonly firstName: string;
  /** The form of its tag in lists. */
  readonly tag: string;
}

export const SHAPES: Readonly<Record<MarkShape, ShapeWords>> = {
  box: { several: "boxes", firstName: "body", tag: "rounded-xs" },
  point: { several: "points", firstName: "hand", tag: "rounded-full" },
  outline: { several: "outlines", firstName: "shape", tag: "rounded-tl-box rounded-br-box" },
};

/** What boxes and outlines are for, in a few words. */
export const USES: Readonly<Record<BoxUse, string>> = {
  solid: t("solid: stops at walls and ground"),
  hurt: t("hurt: takes blows"),
  hit: t("hit: deals blows"),
  trigger: t("trigger: starts something"),
};
