/** The words that a person uses for the meaning of a metadata field. Does not depend on the readers. */
import type { FrameField, Reading } from "./reading";

/** What a field may be said to mean, and which of ours that is. */
export const MEANINGS = {
  x: "x",
  y: "y",
  w: "w",
  h: "h",
  left: "x",
  top: "y",
  right: "right",
  bottom: "bottom",
  u0: "x",
  v0: "y",
  u1: "right",
  v1: "bottom",
  column: "column",
  row: "row",
  index: "index",
  name: "name",
  "source-w": "fullW",
  "source-h": "fullH",
  "inset-x": "insetX",
  "inset-y": "insetY",
  turned: "turned",
  "origin-x": "originX",
  "origin-y": "originY",
  ms: "time",
  seconds: "time",
  ticks: "time",
  none: null,
} as const satisfies Record<string, FrameField | null>;
export type Meaning = keyof typeof MEANINGS;

export function isMeaning(word: string): word is Meaning {
  return Object.hasOwn(MEANINGS, word);
}

/** The corrections that reproduce a reading, as far as they can express it: `x=left` for each field. */
export function correctionsOf({ fields, rectAs, timeAs }: Reading): string[] {
  const shared: Partial<Record<FrameField, Meaning>> = { x: "u0", y: "v0", right: "u1", bottom: "v1" };
  return (Object.entries(fields) as [FrameField, string][]).flatMap(([field, path]) => {
    if (field === "time") return timeAs === "fps" ? [] : [`${path}=${timeAs}`];
    const meaning = (rectAs === "share" && shared[field]) || (Object.keys(MEANINGS) as Meaning[]).find((each) => MEANINGS[each] === field);
    return meaning ? [`${path}=${meaning}`] : [];
  });
}
