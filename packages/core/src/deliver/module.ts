/** Writes the atlas as a module: TypeScript with names as types, or JavaScript. */
import type { Atlas } from "../atlas";
import { utf8 } from "../codec";
import { entriesOf, orderedJson } from "../model";

/** `atlas` as a constant, with types for all its names, so that a typo does not compile. */
export function typedModule(atlas: Atlas, name: string): Uint8Array {
  return utf8(
    [
      `// Made by Caravan for "${inComment(name)}". It is written again with every delivery.`,
      ...Object.entries(namesIn(atlas)).map(([type, names]) => `export type ${type} = ${union(names)};`),
      ...behaviourTypes(atlas),
      "",
      `export const atlas = ${orderedJson(atlas)} as const;`,
      "",
    ].join("\n"),
  );
}

/** `atlas` and lists of all names, for JavaScript. */
export function plainModule(atlas: Atlas, name: string): Uint8Array {
  const { ClipName, ActionName, FrameName, EventName, BoxName, PointName, OutlineName, LayerName } = namesIn(atlas);
  const behaviours = Object.keys(atlas.behaviours ?? {});
  const lists = {
    ...{ clips: ClipName, actions: ActionName, frames: FrameName, events: EventName, boxes: BoxName, points: PointName },
    ...(OutlineName ? { outlines: OutlineName } : {}),
    ...(LayerName ? { layers: LayerName } : {}),
    ...(behaviours.length > 0 ? { behaviours } : {}),
  };
  return utf8(
    [
      `// Made by Caravan for "${inComment(name)}". It is written again with every delivery.`,
      `export const atlas = ${orderedJson(atlas)};`,
      ...Object.entries(lists).map(([list, names]) => `export const ${list} = ${JSON.stringify(names)};`),
      "",
    ].join("\n"),
  );
}

type Names = Record<"ClipName" | "ActionName" | "FrameName" | "EventName" | "BoxName" | "PointName", string[]>;
/** Names of what few atlases have. */
interface RareNames {
  readonly OutlineName?: string[];
  readonly LayerName?: string[];
}

function namesIn(atlas: Atlas): Names & RareNames {
  const events = entriesOf(atlas.clips).flatMap(([, { steps }]) => steps.flatMap((step) => step.events ?? []));
  const frames = entriesOf(atlas.frames).map(([, frame]) => frame);
  const outlines = [...new Set(frames.flatMap((frame) => Object.keys(frame.outlines ?? {})))];
  return {
    ClipName: entriesOf(atlas.clips).map(([name]) => name),
    ActionName: entriesOf(atlas.actions).map(([name]) => name),
    FrameName: entriesOf(atlas.frames).map(([name]) => name),
    EventName: [...new Set(events)],
    BoxName: [...new Set(frames.flatMap(({ boxes }) => Object.keys(boxes ?? {})))],
    PointName: [...new Set(frames.flatMap(({ points }) => Object.keys(points ?? {})))],
    ...(outlines.length > 0 ? { OutlineName: outlines } : {}),
    ...(atlas.layers ? { LayerName: atlas.layers.map(({ name }) => name) } : {}),
  };
}

/** The names of behaviours, and of the inputs and rules of each. */
function behaviourTypes({ behaviours = {} }: Atlas): string[] {
  const each = entriesOf(behaviours);
  if (each.length === 0) return [];
  const byName = (type: string, names: (behaviour: (typeof each)[number][1]) => string[]) => [
    `export type ${type} = {`,
    ...each.map(([name, behaviour]) => `  ${JSON.stringify(name)}: ${union(names(behaviour))};`),
    "};",
  ];
  return [
    `export type BehaviourName = ${union(each.map(([name]) => name))};`,
    ...byName("InputName", ({ inputs }) => Object.keys(inputs)),
    ...byName("RuleName", ({ rules }) => rules.map(({ name }) => name)),
  ];
}

function union(names: readonly string[]): string {
  return names.length === 0 ? "never" : names.map((name) => JSON.stringify(name)).join(" | ");
}

function inComment(name: string): string {
  return name.replace(/[\r\n\u2028\u2029]/gu, " ");
}
