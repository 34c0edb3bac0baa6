/** Groups the frames that should share a page. */
import type { AtlasAction, AtlasClip } from "../atlas";
import type { Packing } from "../model";

/**
 * For each frame the number of its group, -1 for none: clips that show a common frame are one group, and with `actions` so are the
 * clips of an action. Null if nothing need be together.
 */
export function groupsOf(
  together: Packing["together"],
  names: readonly string[],
  clips: readonly (readonly [string, AtlasClip])[],
  actions: readonly (readonly [string, AtlasAction])[],
): number[] | null {
  if (together === "nothing") return null;
  const leader = new Map<string, string>();
  const lead = (key: string): string => {
    let found = key;
    for (let over = leader.get(found); over !== undefined; over = leader.get(found)) found = over;
    return found;
  };
  const join = (a: string, b: string) => {
    const [first, second] = [lead(a), lead(b)];
    if (first !== second) leader.set(second, first);
  };
  for (const [name, { steps }] of clips) for (const { frame } of steps) join(`clip ${name}`, `frame ${frame}`);
  if (together === "actions")
    for (const [name, { facings }] of actions) for (const { clip } of Object.values(facings)) join(`action ${name}`, `clip ${clip}`);
  const numbers = new Map<string, number>();
  const shown = new Set(clips.flatMap(([, { steps }]) => steps.map(({ frame }) => frame)));
  return names.map((name) => {
    if (!shown.has(name)) return -1;
    const key = lead(`frame ${name}`);
    const number = numbers.get(key) ?? numbers.size;
    numbers.set(key, number);
    return number;
  });
}
