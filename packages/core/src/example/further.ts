/** Identifies values of frame records that no reading knows: one means whatever it equals in every record. */
import { lastPart, says, sideOf } from "../metadata";
import type { Leaf } from "../notation";
import type { FrameFacts, Scope, Sheet } from "./facts";
import type { Repeats } from "./loops";
import type { OutlineList } from "./outline-lists";
import type { Place } from "./place";
import { FURTHER, type Quantity, saysSame, TRIMMED } from "./quantities";
import type { Add, Slot } from "./shape";

/** Values of frames' records that no reading knows. Returns the paths of those that differ and equal nothing, but for those that are kept. */
export function addFurther(
  pattern: string,
  places: ReadonlyMap<Place, FrameFacts>,
  repeats: ReadonlyMap<string, Repeats>,
  slots: ReadonlyMap<string, Slot>,
  add: Add,
  kept: ReadonlySet<string>,
  outlines: ReadonlyMap<string, OutlineList>,
): { path: string; geometry: boolean }[] {
  const values = new Map<string, { value: Leaf; scope: Scope }[]>();
  const sheet: Sheet = { pages: [], frames: [...places.values()], clips: [] };
  for (const [place, frame] of places) {
    const visit = (each: Place, path: string) => {
      if (outlines.has(path)) return;
      if (each.value && !slots.has(path)) {
        const list = values.get(path) ?? [];
        values.set(path, list);
        list.push({ value: each.value.means, scope: { sheet, page: frame.page, frame } });
      }
      for (const [key, child] of each.children) if (!repeats.has(`${path}.*`)) visit(child, `${path}.${key}`);
    };
    visit(place, pattern);
  }
  const strange: { path: string; geometry: boolean }[] = [];
  for (const [path, list] of values) {
    if (kept.has(path)) continue;
    const differs = list.some(({ value }) => value !== list[0]?.value);
    const equals = (quantity: Quantity) => list.every(({ value, scope }) => saysSame(quantity, value, scope));
    // If all records have the same number, only the field's name shows whether it is this quantity or equal by chance.
    const side = typeof list[0]?.value === "number" ? (sideOf(path)?.side ?? null) : null;
    if (differs || side !== null) {
      const found = FURTHER.find((each) => (differs || each.extent === side) && equals(each));
      if (found) add(path, found, "values");
      else if (differs && equals(TRIMMED)) add(path, TRIMMED, "values");
      else if (differs) strange.push({ path, geometry: list.every(({ value }) => typeof value === "number") && looksGeometric(path) });
    } else if (says(lastPart(path), ["trimmed", "trim*", "cropped"]) && equals(TRIMMED)) add(path, TRIMMED, "values");
  }
  return strange;
}

/** What a person says of a field that means nothing: it stays as the example has it. */
export const KEEP = "keep";

const GEOMETRY = [
  "offset*",
  "origin*",
  "pivot*",
  "anchor*",
  "inset*",
  "trim*",
  "margin*",
  "pad*",
  "size*",
  "box*",
  "rect*",
  "bound*",
  "hit*",
  "point*",
];

/** Whether a number may be a position or a size: by its name or its parent's, or because it is in a list of numbers. */
function looksGeometric(path: string): boolean {
  const parts = path.split(".").filter((part) => part !== "*");
  return sideOf(path) !== null || /^\d+$/.test(parts.at(-1) ?? "") || parts.slice(-2).some((part) => says(part, GEOMETRY));
}
