/** What random edits choose from: whatever the project has, and names that have been trouble. */
import { sha256Hex, utf8 } from "../codec";
import type { NewFrame } from "../frame-identity";
import {
  type ActionName,
  type Behaviour,
  type BehaviourName,
  CaravanError,
  type Clearing,
  type ClipName,
  type Condition,
  type Example,
  type FrameRef,
  frameRef,
  type GridCut,
  type MarkName,
  type Part,
  type Project,
  type Reading,
  type Rule,
  type Source,
  type StageName,
} from "../model";
import { coverageOf } from "../raster";
import type * as edits from ".";
import { NO_SPACE, sheetOfCells } from "./project.fixture";

export const art = utf8("art");
export const sha256 = sha256Hex(art);
export const sheet = sheetOfCells(4, 3, [7]);
export const coverage = coverageOf(sheet);
/** A picture of one cell. */
export const cellCoverage = coverageOf(sheetOfCells(1, 1));
export const picture = { sha256, width: sheet.width, height: sheet.height };

/** Names that have been trouble: they look like numbers or patterns, or differ in case only. */
const NAMES = ["walk", "Walk", "walk-*", "0001", "1", "con", "$&", "{n}", "😀", "x".repeat(200), "toString", "__proto__"];

/** What a random edit may choose from: numbers that pick among whatever is there. */
export type Dice = (sides: number) => number;

/** An edit of the project with random arguments, some of which do not fit. */
export type RandomEdit = (project: Project, dice: Dice) => Project;

export const pick = <Each>(all: readonly Each[], dice: Dice): Each | undefined => all[dice(Math.max(1, all.length))];
export const source = (project: Project, dice: Dice) => pick(project.sources, dice) as Source;
export const clip = (project: Project, dice: Dice) => (pick(project.clips, dice)?.name ?? "none") as ClipName;
export const action = (project: Project, dice: Dice) => (pick(project.actions, dice)?.name ?? "none") as ActionName;
export const mark = (project: Project, dice: Dice) => (pick(project.marks, dice)?.name ?? "none") as MarkName;
export const name = (dice: Dice) => pick(NAMES, dice) as string;
const NO_BEHAVIOUR: Behaviour = { name: "none" as BehaviourName, inputs: [], rules: [] };
export const behaviour = (project: Project, dice: Dice) => pick(project.behaviours ?? [], dice) ?? NO_BEHAVIOUR;
export const stageName = (project: Project, dice: Dice) => (pick(project.stages ?? [], dice)?.name ?? "none") as StageName;
export const rule = (project: Project, dice: Dice, named: string): Rule => {
  const { inputs, rules } = behaviour(project, dice);
  const input = pick(inputs, dice)?.name ?? "none";
  const when = pick<Condition[]>(
    [
      [],
      [{ input, is: "pressed" }],
      [{ input, is: true }],
      [{ input, above: dice(9) }],
      [{ showing: [pick(rules, dice)?.name ?? "none"] }],
    ],
    dice,
  ) as Condition[];
  const keep = pick(["while", "whole", 120] as const, dice);
  return { name: named, when, play: dice(2) === 0 ? clip(project, dice) : action(project, dice), ...(keep ? { keep } : {}) };
};
export const ofPieces = (project: Project, dice: Dice): FrameRef => {
  const all = project.sources
    .filter(({ cut }) => cut?.by === "pieces")
    .flatMap((each) => each.frames.map((frame) => frameRef(each, frame)));
  return pick(all, dice) ?? ("s0/a0" as FrameRef);
};
export const paletteName = (project: Project, dice: Dice) => pick(project.palettes ?? [], dice)?.name ?? "none";
export const partName = (project: Project, dice: Dice) => pick(project.parts ?? [], dice)?.name ?? "none";
export const layerName = (project: Project, dice: Dice) =>
  pick(
    project.sources.flatMap(({ layers = [] }) => layers),
    dice,
  )?.name ?? "none";
export const partOf = (project: Project, dice: Dice): Omit<Part, "name"> => ({
  host: dice(2) === 0 ? clip(project, dice) : action(project, dice),
  guest: dice(2) === 0 ? clip(project, dice) : action(project, dice),
  at: mark(project, dice),
  ...(dice(2) === 0 ? { by: mark(project, dice) } : {}),
  time: dice(2) === 0 ? "own" : "together",
  front: dice(2) === 0,
});
export const refs = (project: Project, dice: Dice): FrameRef[] => {
  const all = project.sources.flatMap((each) => each.frames.map((frame) => frameRef(each, frame)));
  return Array.from({ length: dice(5) }, () => pick(all, dice)).filter((ref) => ref !== undefined);
};
export const places = (project: Project, dice: Dice): edits.DataPlaces =>
  dice(2) === 0 ? { clips: [clip(project, dice)] } : { frames: refs(project, dice) };
export const steps = (dice: Dice) => Array.from({ length: 1 + dice(3) }, () => dice(6));
export const grid = (dice: Dice): GridCut => {
  const spaces = { margin: { x: dice(3), y: dice(3) }, gap: NO_SPACE, keepEmpty: dice(2) === 0 };
  if (dice(3) === 0) return { by: "count", columns: 2 + dice(4), rows: 1 + dice(3), ...(dice(3) === 0 ? {} : { spread: true }), ...spaces };
  return {
    by: "cell",
    cell: { w: 5 + dice(6), h: 8 + dice(4) },
    ...spaces,
    ...(dice(2) === 0 ? { offset: { x: dice(5) - 2, y: dice(5) - 2 } } : {}),
  };
};

/** The key, place and name of frames as a metadata file has them. */
export const told = (dice: Dice): NewFrame[] =>
  Array.from({ length: 1 + dice(6) }, (_, k) => ({
    key: `m${k}`,
    column: k,
    row: 0,
    number: k,
    rect: { x: dice(4), y: dice(5), w: 1 + dice(4), h: 1 + dice(5) },
    empty: false,
    name: `${name(dice)} ${k}`,
    ...(dice(2) === 0 ? { origin: { x: dice(8), y: dice(8) } } : {}),
    ...(dice(3) === 0 ? { marks: { boxes: { [name(dice).slice(0, 20)]: [{ x: 0, y: 0, w: 1 + dice(3), h: 1 }] } } } : {}),
  }));
/** A file that describes the source as it is, with its clips, some of them otherwise, and one more. */
export const toldOf = (project: Project, { id, frames }: Source, dice: Dice): edits.ToldOfSource => {
  const places = new Map(frames.map((frame, k) => [frameRef({ id }, frame), k]));
  const odd = (duration: number) => (dice(4) === 0 ? 1 + dice(500_000) : duration);
  const own = project.clips.flatMap((clip) => {
    const steps = clip.steps.flatMap(({ frame, duration, events }) => {
      const at = places.get(frame);
      return at === undefined || dice(8) === 0 ? [] : [{ frame: at, duration: odd(duration), ...(events ? { events } : {}) }];
    });
    return steps.length === 0 ? [] : [{ name: dice(6) === 0 ? name(dice) : clip.name, steps, playback: clip.playback, times: dice(3) }];
  });
  const more = { name: name(dice), steps: [{ frame: dice(8), duration: 1 + dice(1_000_000) }], playback: "once" as const, times: 1 };
  const told = frames.map(({ key, number, rect, picture, name, turned, size, inset }, column) => ({
    ...{ key, column, row: 0, number, rect, empty: false },
    ...(name === undefined ? {} : { name }),
    ...(picture === undefined ? {} : { picture }),
    ...(turned ? { turned } : {}),
    ...(size && inset ? { size, inset } : {}),
  }));
  return { frames: told, clips: dice(3) === 0 ? own : [...own, more] };
};
const READING: Reading = {
  name: "poses.json",
  container: "json",
  frames: "*",
  fields: {},
  turnedAs: "upright",
  originAs: "pixels",
  originUp: false,
  timeAs: "ms",
  clips: null,
};
export const BY_METADATA = { by: "metadata", file: "poses.json", reading: READING } as const;
export const example = (dice: Dice): Example => ({ name: name(dice), file: "poses.json", text: "[]", reading: READING });
export const clearing = (dice: Dice): Clearing | null =>
  dice(3) === 0 ? null : { colours: ["#ff00ff"], tolerance: dice(9), from: dice(2) === 0 ? "edges" : "everywhere", fringe: dice(2) === 0 };
export const keysOf = ({ frames }: Source, dice: Dice): string[] => frames.slice(dice(4), 4 + dice(5)).map(({ key }) => key);
/** A map from frames to something of each. */
export const each = <Value>(all: readonly FrameRef[], value: () => Value): Map<FrameRef, Value> =>
  new Map(all.map((ref) => [ref, value()]));

/** The project after `count` random edits; those that are refused in words leave it as it is. */
export function edited(project: Project, choices: readonly RandomEdit[], dice: Dice, count: number): Project {
  let next = project;
  for (let k = 0; k < count; k++)
    try {
      next = (pick(choices, dice) as RandomEdit)(next, dice);
    } catch (error) {
      if (!(error instanceof CaravanError)) throw error;
    }
  return next;
}

/** A seeded sequence of numbers (mulberry32, T. Ettinger, public domain). */
export function diceFrom(seed: number): Dice {
  let state = seed;
  return (sides) => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) % Math.max(1, sides);
  };
}
