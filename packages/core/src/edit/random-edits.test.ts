import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { bundleFiles, readBundle, readProjectFile, writeBundle } from "../bundle";
import { findingsOf } from "../check";
import { sha256Hex, utf8 } from "../codec";
import {
  type ActionName,
  allPictures,
  type Behaviour,
  type BehaviourName,
  CaravanError,
  type ClipName,
  type Condition,
  checkDocument,
  type Drive,
  emptyProject,
  type FrameRef,
  frameRef,
  type MarkName,
  type Part,
  type Project,
  projectToFile,
  type Rule,
  type Source,
  type SourceId,
  type StageName,
  withDistinctPaths,
} from "../model";
import { coverageOf } from "../raster";
import { proposed, stageFor } from "../stage";
import { applyChanges, type Change, differenceBetween } from "../undo";
import * as edits from ".";
import { CELL, NO_SPACE, sheetOfCells } from "./project.fixture";

const art = utf8("art");
const sha256 = sha256Hex(art);
const sheet = sheetOfCells(4, 3, [7]);
const coverage = coverageOf(sheet);
const picture = { sha256, width: sheet.width, height: sheet.height };

/** Names that have been trouble: they look like numbers or patterns, or differ in case only. */
const NAMES = ["walk", "Walk", "walk-*", "0001", "1", "con", "$&", "{n}", "😀", "x".repeat(200), "toString"];

/** What a random edit may choose from: numbers that pick among whatever is there. */
type Dice = (sides: number) => number;

type RandomEdit = (project: Project, dice: Dice) => Project;

const pick = <Each>(all: readonly Each[], dice: Dice): Each | undefined => all[dice(Math.max(1, all.length))];
const source = (project: Project, dice: Dice) => pick(project.sources, dice) as Source;
const clip = (project: Project, dice: Dice) => (pick(project.clips, dice)?.name ?? "none") as ClipName;
const action = (project: Project, dice: Dice) => (pick(project.actions, dice)?.name ?? "none") as ActionName;
const mark = (project: Project, dice: Dice) => (pick(project.marks, dice)?.name ?? "none") as MarkName;
const name = (dice: Dice) => pick(NAMES, dice) as string;
const NO_BEHAVIOUR: Behaviour = { name: "none" as BehaviourName, inputs: [], rules: [] };
const behaviour = (project: Project, dice: Dice) => pick(project.behaviours ?? [], dice) ?? NO_BEHAVIOUR;
const stageName = (project: Project, dice: Dice) => (pick(project.stages ?? [], dice)?.name ?? "none") as StageName;
const rule = (project: Project, dice: Dice, named: string): Rule => {
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
const ofPieces = (project: Project, dice: Dice): FrameRef => {
  const all = project.sources
    .filter(({ cut }) => cut?.by === "pieces")
    .flatMap((each) => each.frames.map((frame) => frameRef(each, frame)));
  return pick(all, dice) ?? ("s0/a0" as FrameRef);
};
const paletteName = (project: Project, dice: Dice) => pick(project.palettes ?? [], dice)?.name ?? "none";
const partName = (project: Project, dice: Dice) => pick(project.parts ?? [], dice)?.name ?? "none";
const layerName = (project: Project, dice: Dice) =>
  pick(
    project.sources.flatMap(({ layers = [] }) => layers),
    dice,
  )?.name ?? "none";
const partOf = (project: Project, dice: Dice): Omit<Part, "name"> => ({
  host: dice(2) === 0 ? clip(project, dice) : action(project, dice),
  guest: dice(2) === 0 ? clip(project, dice) : action(project, dice),
  at: mark(project, dice),
  ...(dice(2) === 0 ? { by: mark(project, dice) } : {}),
  time: dice(2) === 0 ? "own" : "together",
  front: dice(2) === 0,
});
const refs = (project: Project, dice: Dice): FrameRef[] => {
  const all = project.sources.flatMap((each) => each.frames.map((frame) => frameRef(each, frame)));
  return Array.from({ length: dice(5) }, () => pick(all, dice)).filter((ref) => ref !== undefined);
};
const places = (project: Project, dice: Dice): edits.DataPlaces =>
  dice(2) === 0 ? { clips: [clip(project, dice)] } : { frames: refs(project, dice) };
const steps = (dice: Dice) => Array.from({ length: 1 + dice(3) }, () => dice(6));
const grid = (dice: Dice) => ({
  by: "cell" as const,
  cell: { w: 5 + dice(6), h: 8 + dice(4) },
  margin: { x: dice(3), y: dice(3) },
  gap: NO_SPACE,
  keepEmpty: dice(2) === 0,
  ...(dice(2) === 0 ? { offset: { x: dice(5) - 2, y: dice(5) - 2 } } : {}),
});

const EDITS: Readonly<Record<string, RandomEdit>> = {
  add: (p, d) => edits.addSources(p, [{ fileName: `${name(d)}.png`, ...picture }]),
  series: (p, d) => edits.takeIn(p, [{ name: name(d), pictures: [picture, picture, picture], coverages: [coverage, coverage, coverage] }]),
  numbered: (p, d) =>
    edits.takeIn(
      p,
      [
        {
          name: name(d),
          pictures: [1, 2, 3].map((k) => ({ ...picture, number: k * (1 + d(9)) + k })),
          coverages: [coverage, coverage, coverage],
          clips: [{ ref: "one", name: name(d), steps: [{ frame: 0, duration: 1000 }], playback: "loop", times: 0 }],
        },
      ],
      [{ name: name(d), ways: 4, facings: { e: "one" }, mirror: d(2) === 0, namesClips: d(2) === 0 }],
    ),
  cut: (p, d) => edits.cutSource(p, source(p, d).id, grid(d), coverage),
  outlines: (p, d) => edits.cutSource(p, source(p, d).id, { by: "outlines", joinPx: d(4), leastPx: 1 + d(3), level: d(2) === 0 }, coverage),
  draw: (p, d) => edits.drawFrames(p, source(p, d).id, [{ x: d(20), y: d(20), w: 1 + d(12), h: 1 + d(10) }]),
  place: (p, d) => edits.placeFrames(p, new Map(refs(p, d).map((ref) => [ref, { x: d(20), y: d(20), w: 1 + d(12), h: 1 + d(10) }]))),
  equal: (p, d) => edits.makeEqual(p, refs(p, d), (["feet", "middle", "origin"] as const)[d(3)] ?? "feet"),
  refresh: (p, d) => edits.refreshSource(p, source(p, d).id, [{ ...picture, sha256: String(d(2)).repeat(64) }], [coverage]),
  refreshOn: (p, d) =>
    edits.refreshSource(p, source(p, d).id, [{ ...picture, sha256: String(d(2)).repeat(64) }], [coverage], undefined, grid(d)),
  scale: (p, d) => edits.setSourceScale(p, source(p, d).id, [1, 2, 3, 0.5, 1 / 3, 0.75][d(6)] ?? 1),
  perUnit: (p, d) => edits.setPixelsPerUnit(p, d(3) === 0 ? null : 8 * (1 + d(4))),
  renameSource: (p, d) => edits.renameSource(p, source(p, d).id, name(d)),
  layPictures: (p, d) =>
    edits.layPictures(p, new Map([[String(d(2)).repeat(64), pick(["art/a.png", "assets/b.png", "../c.png"], d) as string]])),
  removeSource: (p, d) => (p.sources.length > 1 ? edits.removeSource(p, source(p, d).id) : p),
  nameFrames: (p, d) => {
    const { id, frames } = source(p, d);
    return edits.nameFrames(
      p,
      id,
      frames.slice(0, d(5)).map(({ key }) => key),
      { text: `${name(d)}{n}{row}`, start: 0, step: 1, padding: d(4) },
    );
  },
  drop: (p, d) => edits.dropFrames(p, refs(p, d)),
  restore: (p, d) => edits.restoreFrames(p, refs(p, d)),
  clip: (p, d) => edits.addClip(p, refs(p, d), d(2) === 0 ? undefined : name(d)),
  renameClip: (p, d) => edits.renameClip(p, clip(p, d), name(d)),
  removeClip: (p, d) => edits.removeClip(p, clip(p, d)),
  duplicateClip: (p, d) => edits.duplicateClip(p, clip(p, d)),
  rules: (p, d) =>
    edits.setClipRules(p, clip(p, d), { playback: (["once", "loop", "pingpong"] as const)[d(3)] ?? "loop", loopFrom: d(5), times: d(3) }),
  paceAll: (p, d) => edits.setFpsOfClips(p, [clip(p, d), clip(p, d)], 1 + d(30)),
  rulesOfAll: (p, d) =>
    edits.setRulesOfClips(
      p,
      p.clips.map((each) => each.name),
      { playback: d(2) === 0 ? "once" : "pingpong" },
    ),
  renameAll: (p, d) =>
    edits.renameClips(
      p,
      p.clips.slice(d(3), 2 + d(4)).map((each) => each.name),
      pick(["{name}", "x{n}", "{name}$&", "{n}"], d) as string,
      d(9),
    ),
  moveAll: (p, d) => edits.moveClips(p, [clip(p, d), clip(p, d)], d(2) === 0 ? 1 : -1),
  removeTwo: (p) =>
    p.clips.length > 4
      ? edits.removeClips(
          p,
          p.clips.slice(0, 2).map((each) => each.name),
        )
      : p,
  inTurn: (p, d) => edits.setDurationsInTurn(p, clip(p, d), steps(d), [1000 * (1 + d(300)), 1000 * (1 + d(300))].slice(d(2))),
  insert: (p, d) => edits.insertSteps(p, clip(p, d), d(6), refs(p, d)),
  removeSteps: (p, d) => edits.removeSteps(p, clip(p, d), steps(d)),
  moveSteps: (p, d) => edits.moveSteps(p, clip(p, d), steps(d), d(5)),
  duplicateSteps: (p, d) => edits.duplicateSteps(p, clip(p, d), steps(d)),
  merge: (p, d) => edits.mergeEqualSteps(p, clip(p, d)),
  split: (p, d) => edits.splitClip(p, clip(p, d), steps(d)),
  join: (p, d) => edits.joinClips(p, clip(p, d), [clip(p, d)]),
  partRows: (p, d) => edits.partByRows(p, clip(p, d)),
  fps: (p, d) => edits.setClipFps(p, clip(p, d), 1 + d(60)),
  total: (p, d) => edits.setClipTotal(p, clip(p, d), 1 + d(2_000_000)),
  durations: (p, d) => edits.setStepDurations(p, clip(p, d), steps(d), 1 + d(900_000)),
  events: (p, d) => edits.setStepEvents(p, clip(p, d), steps(d), [name(d)]),
  eventValue: (p, d) => edits.setEventValue(p, clip(p, d), steps(d), name(d), [d(9), "sand", { on: null }, undefined][d(4)]),
  data: (p, d) => edits.setData(p, places(p, d), name(d), [d(9), "", true, [d(3)]][d(4)] ?? null),
  renameData: (p, d) => edits.renameData(p, places(p, d), name(d), name(d)),
  removeData: (p, d) => edits.removeData(p, places(p, d), name(d)),
  action: (p, d) => edits.addAction(p, name(d), ([1, 2, 4, 8] as const)[d(4)] ?? 1),
  renameAction: (p, d) => edits.renameAction(p, action(p, d), name(d)),
  removeAction: (p, d) => edits.removeAction(p, action(p, d)),
  petal: (p, d) => edits.setPetal(p, action(p, d), (["e", "s", "w", "n"] as const)[d(4)] ?? "s", d(5) === 0 ? null : { clip: clip(p, d) }),
  mirror: (p, d) => edits.mirrorMissing(p, action(p, d)),
  turn: (p, d) => edits.turnAction(p, action(p, d), d(2) === 0 ? 1 : -1),
  rows: (p, d) =>
    edits.clipsOfRows(p, source(p, d).id, [
      { row: d(3), name: name(d) },
      { row: d(3), name: name(d) },
    ]),
  byNames: (p) => edits.makeActionsByNames(p, [], edits.framesByNames(p)),
  facings: (p, d) => edits.rowsAsFacings(p, clip(p, d), { first: "s", turn: "clockwise" } as never),
  mark: (p, d) => edits.addMarkKind(p, d(2) === 0 ? "box" : "point", name(d)),
  renameMark: (p, d) => edits.renameMarkKind(p, mark(p, d), name(d)),
  removeMark: (p, d) => edits.removeMarkKind(p, mark(p, d)),
  useMark: (p, d) => edits.setBoxUse(p, mark(p, d), ([null, "solid", "hurt", "hit", "trigger"] as const)[d(5)] ?? null),
  box: (p, d) => {
    const [at, ...others] = refs(p, d);
    const kind = p.marks.filter(({ shape }) => shape === "box")[d(3)];
    return at && kind ? edits.addBox(p, "it", [at, ...others], kind.name, at, { x: d(9) - 3, y: d(9), w: 1 + d(6), h: 1 + d(6) }) : p;
  },
  point: (p, d) => {
    const [at, ...others] = refs(p, d);
    const kind = p.marks.filter(({ shape }) => shape === "point")[d(3)];
    return at && kind ? edits.putPoint(p, "it", [at, ...others], kind.name, at, { x: d(9) / 2, y: d(9) / 2 }) : p;
  },
  angle: (p, d) => {
    const [at, ...others] = refs(p, d);
    const kind = p.marks.filter(({ shape }) => shape === "point")[d(3)];
    return at && kind ? edits.turnPoint(p, "it", [at, ...others], kind.name, at, d(4) === 0 ? null : d(1440) / 2 - 360) : p;
  },
  fillPoint: (p, d) => edits.fillPoint(p, clip(p, d), mark(p, d)),
  acrossMarks: (p, d) => edits.copyMarksMirrored(p, mark(p, d), clip(p, d), clip(p, d)),
  copyEvents: (p, d) => edits.copyEvents(p, clip(p, d), [clip(p, d), clip(p, d)]),
  part: (p, d) => edits.attachPart(p, { name: name(d), ...partOf(p, d) }),
  setPart: (p, d) => edits.setPart(p, partName(p, d), d(2) === 0 ? partOf(p, d) : { by: undefined }),
  removeLayer: (p, d) => {
    const { id, pictures } = source(p, d);
    return edits.removeLayer(
      p,
      id,
      layerName(p, d),
      pictures.map(() => coverage),
    );
  },
  renamePart: (p, d) => edits.renamePart(p, partName(p, d), name(d)),
  movePart: (p, d) => edits.movePart(p, partName(p, d), d(2) === 0 ? 1 : -1),
  removePart: (p, d) => edits.removePart(p, partName(p, d)),
  stepPart: (p, d) =>
    edits.setStepPart(p, clip(p, d), steps(d), partName(p, d), ([null, { hidden: true }, { front: d(2) === 0 }] as const)[d(3)] ?? null),
  layer: (p, d) => {
    const { id, pictures } = source(p, d);
    const blend = (["normal", "add", "multiply"] as const)[d(3)] ?? "normal";
    const own = pictures.map(({ sha256: hash, width, height }) => ({ sha256: hash, width, height }));
    return edits.addLayer(
      p,
      id,
      { name: name(d), blend, pictures: own },
      pictures.map(() => coverage),
    );
  },
  renameLayer: (p, d) => edits.renameLayer(p, layerName(p, d), name(d)),
  blendLayer: (p, d) => edits.blendLayer(p, layerName(p, d), d(2) === 0 ? "add" : "multiply"),
  moveLayer: (p, d) => edits.moveLayer(p, source(p, d).id, layerName(p, d), d(2) === 0 ? 1 : -1),
  sourceOrigin: (p, d) => edits.setSourceOrigin(p, source(p, d).id, d(4) === 0 ? null : { x: d(20) / 2, y: d(20) / 2 }),
  origins: (p, d) => edits.placeOrigins(p, "it", new Map(refs(p, d).map((ref) => [ref, { x: d(20) / 2, y: d(20) / 2 }]))),
  nudge: (p, d) => edits.nudgeOrigins(p, "it", refs(p, d), { x: d(5) - 2, y: 0.5 }),
  deliver: (p, d) => edits.addDelivery(p, name(d), d(2) === 0 ? null : 0),
  choose: (p, d) =>
    edits.setDelivery(p, d(p.deliveries.length), {
      choice: {
        of: (["all", "clips", "actions", "frames"] as const)[d(4)] ?? "all",
        frames: refs(p, d),
        names: [clip(p, d), action(p, d)],
        pattern: d(2) === 0 ? "" : `${name(d).slice(0, 9)}*, ?a*`,
      },
      kind: (["atlas", "grid", "strips", "singles", "films"] as const)[d(5)] ?? "atlas",
      frameNames: pick(["{name}", "{clip}-{step:2}", "{source}", "{toString}$&"], d) as string,
      data: { times: d(2) === 0 },
    }),
  rehearsal: (p, d) => {
    const roles = { stand: clip(p, d), move: d(2) === 0 ? action(p, d) : clip(p, d), jump: null, fall: null, acts: [clip(p, d)] };
    const { behaviour, stage } = proposed(p, roles, name(d));
    return edits.addRehearsal(p, behaviour, stage);
  },
  renameBehaviour: (p, d) => edits.renameBehaviour(p, behaviour(p, d).name, name(d)),
  removeBehaviour: (p, d) => (d(3) === 0 ? edits.removeBehaviour(p, behaviour(p, d).name) : p),
  addInput: (p, d) => edits.addInput(p, behaviour(p, d).name, (["button", "switch", "number"] as const)[d(3)] ?? "button", name(d)),
  renameInput: (p, d) => edits.renameInput(p, behaviour(p, d).name, pick(behaviour(p, d).inputs, d)?.name ?? "none", name(d)),
  removeInput: (p, d) => edits.removeInput(p, behaviour(p, d).name, pick(behaviour(p, d).inputs, d)?.name ?? "none"),
  addRule: (p, d) => edits.addRule(p, behaviour(p, d).name, rule(p, d, name(d)), d(5)),
  setRule: (p, d) => {
    const { name: of, rules } = behaviour(p, d);
    const { name: _name, ...change } = rule(p, d, "any");
    return edits.setRule(p, of, pick(rules, d)?.name ?? "none", { ...change, cutBy: [pick(rules, d)?.name ?? "none"] });
  },
  renameRule: (p, d) => edits.renameRule(p, behaviour(p, d).name, pick(behaviour(p, d).rules, d)?.name ?? "none", name(d)),
  moveRule: (p, d) => edits.moveRule(p, behaviour(p, d).name, pick(behaviour(p, d).rules, d)?.name ?? "none", d(5)),
  duplicateRule: (p, d) => edits.duplicateRule(p, behaviour(p, d).name, pick(behaviour(p, d).rules, d)?.name ?? "none"),
  removeRule: (p, d) => edits.removeRule(p, behaviour(p, d).name, pick(behaviour(p, d).rules, d)?.name ?? "none"),
  stage: (p, d) =>
    edits.addStage(p, { ...stageFor(p, null, d(2) === 0 ? "side" : "above"), name: name(d) as StageName, behaviour: behaviour(p, d).name }),
  setStage: (p, d) =>
    edits.setStage(p, stageName(p, d), {
      body: d(2) === 0 ? null : mark(p, d),
      extras: [{ name: name(d), play: clip(p, d), facing: "w", x: d(300), y: d(200) }],
      effects: [{ name: name(d), play: action(p, d), point: mark(p, d), speed: d(90), reach: d(90) }],
      zones: [{ name: name(d), area: { x: d(90), y: d(90), w: 1 + d(90), h: 1 + d(90) }, on: "entering" }],
      hits: [{ ours: mark(p, d), theirs: mark(p, d) }],
    }),
  renameStage: (p, d) => edits.renameStage(p, stageName(p, d), name(d)),
  removeStage: (p, d) => (d(3) === 0 ? edits.removeStage(p, stageName(p, d)) : p),
  drive: (p, d) => {
    const input = pick(behaviour(p, d).inputs, d)?.name ?? "none";
    const drive: Drive = {
      name: name(d),
      behaviour: behaviour(p, d).name,
      stage: stageName(p, d),
      length: 100 + d(900),
      keys: [{ at: d(100), down: true, input }],
      track: [{ at: d(100), press: input }],
      account: [],
    };
    return edits.keepDrive(p, drive);
  },
  setDrive: (p, d) => edits.setDrive(p, pick(p.drives ?? [], d)?.name ?? "none", d(2) === 0 ? { name: name(d) } : { length: 1 + d(500) }),
  removeDrive: (p, d) => edits.removeDrive(p, pick(p.drives ?? [], d)?.name ?? "none"),
  piecesSource: (p, d) => edits.addPiecesSource(p, name(d), { w: 8 + d(30), h: 8 + d(30) }),
  pieceFrame: (p, d) => edits.addFrameOfPieces(p, ofPieces(p, d), d(2) === 0),
  canvas: (p, d) => edits.setCanvas(p, source(p, d).id, { w: d(40), h: 1 + d(40) }),
  put: (p, d) => {
    const palette = d(2) === 0 ? {} : { palette: paletteName(p, d) };
    return edits.putPieces(
      p,
      ofPieces(p, d),
      refs(p, d).map((of) => ({ of, x: d(30) - 9, y: d(30) - 9, ...palette })),
      d(2) === 0 ? 0 : null,
    );
  },
  shift: (p, d) => edits.movePieces(p, ofPieces(p, d), [d(4), d(4)], { x: d(5) - 2, y: d(5) - 2 }),
  flip: (p, d) => edits.flipPieces(p, ofPieces(p, d), [d(4)], d(2) === 0 ? "across" : "down"),
  mirrorPieces: (p, d) => edits.mirrorPieces(p, ofPieces(p, d), [d(4), d(4)]),
  group: (p, d) => edits.groupPieces(p, ofPieces(p, d), [d(4), d(4)]),
  ungroup: (p, d) => edits.ungroupPieces(p, ofPieces(p, d), [d(4)]),
  hide: (p, d) => edits.hidePieces(p, ofPieces(p, d), [d(4)], d(2) === 0),
  takeOff: (p, d) => edits.removePieces(p, ofPieces(p, d), [d(6)]),
  exchange: (p, d) => edits.exchangePieces(p, ofPieces(p, d), [d(4)], refs(p, d)[0] ?? ("s1/c0r0" as FrameRef)),
  exchangeAll: (p, d) => edits.exchangeEverywhere(p, [ofPieces(p, d)], "s1/c0r0" as FrameRef, "s1/c1r0" as FrameRef),
  moveAllOf: (p, d) => edits.moveEverywhere(p, [ofPieces(p, d)], "s1/c0r0" as FrameRef, { x: 1, y: d(3) }),
  colour: (p, d) => edits.colourPieces(p, ofPieces(p, d), [d(4)], d(3) === 0 ? null : paletteName(p, d)),
  colourAll: (p, d) => edits.colourEverywhere(p, [ofPieces(p, d)], null, paletteName(p, d)),
  restack: (p, d) => edits.restackPieces(p, ofPieces(p, d), [d(4), d(4)], (["up", "down", "top", "bottom"] as const)[d(4)] ?? "up"),
  stack: (p, d) => edits.placeInStack(p, ofPieces(p, d), [d(4)], d(5)),
  palette: (p, d) =>
    edits.addPalette(p, { name: name(d), colours: ["#000000", "#ffffff"].slice(d(2)), ...(d(2) === 0 ? {} : { of: paletteName(p, d) }) }),
  paletteColours: (p, d) => edits.setPaletteColours(p, paletteName(p, d), ["#0a0b0c", "#ffffff"].slice(d(3))),
  paletteOf: (p, d) => edits.setPaletteOf(p, paletteName(p, d), d(3) === 0 ? null : paletteName(p, d)),
  renamePalette: (p, d) => edits.renamePalette(p, paletteName(p, d), name(d)),
  sourcePalette: (p, d) => edits.setSourcePalette(p, source(p, d).id, d(3) === 0 ? null : paletteName(p, d)),
  sourceVariant: (p, d) => edits.addSourceVariant(p, source(p, d).id, paletteName(p, d)),
  removePalette: (p, d) => edits.removePalette(p, paletteName(p, d)),
  mend: (p, d) => {
    const finding = pick(findingsOf(p), d);
    return finding?.mend && "apply" in finding.mend ? finding.mend.apply(p) : p;
  },
};

/** A seeded sequence of numbers (mulberry32, T. Ettinger, public domain). */
function diceFrom(seed: number): Dice {
  let state = seed;
  return (sides) => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) % Math.max(1, sides);
  };
}

const text = (project: Project) => JSON.stringify(projectToFile(project));

describe("hundreds of random edits", () => {
  it(
    "leave documents that open, findings without errors, and an undo that restores the first one to the byte",
    () =>
      fc.assert(
        fc.property(fc.integer(), (seed) => {
          const dice = diceFrom(seed);
          const empty = edits.addSources(emptyProject("random"), [{ fileName: "porter.png", ...picture }]);
          const first = edits.cutSource(
            empty,
            "s1" as SourceId,
            { by: "cell", cell: CELL, margin: NO_SPACE, gap: NO_SPACE, keepEmpty: false },
            coverage,
          );
          let project = first;
          const undo: (readonly Change[])[] = [];
          let made = 0;
          for (let k = 0; k < 300; k++) {
            const [what, change] = pick(Object.entries(EDITS), dice) as [string, RandomEdit];
            let next = project;
            try {
              next = change(project, dice);
            } catch (error) {
              // Refused in words, and nothing has changed.
              if (!(error instanceof CaravanError)) throw new Error(`seed ${seed}, edit ${k}, ${what}: ${error}`, { cause: error });
            }
            if (next === project) continue;
            made++;
            try {
              checkDocument(next, "document");
              expect(findingsOf(next).filter(({ code }) => code === "check-failed")).toEqual([]);
            } catch (error) {
              throw new Error(`seed ${seed}, edit ${k}, ${what}: ${error}`, { cause: error });
            }
            // Stored and read, as after a reload in between.
            undo.push(JSON.parse(JSON.stringify(differenceBetween(next, project))));
            expect(text(applyChanges(project, JSON.parse(JSON.stringify(differenceBetween(project, next)))) as Project)).toBe(text(next));
            project = next;
          }
          expect(made).toBeGreaterThan(60);
          const pictures = new Map(project.sources.flatMap((each) => allPictures(each).map(({ sha256: hash }) => [hash, art] as const)));
          const [written] = bundleFiles({ project, pictures });
          // New art of one of two sources that share a file leaves two contents under one path, which a file cannot have.
          const saved = withDistinctPaths(project);
          expect(readProjectFile(written?.bytes ?? art, "saved")).toEqual(saved);
          if ([...pictures.keys()].every((each) => each === sha256))
            expect(readBundle(writeBundle({ project, pictures }), "bundle").project).toEqual(saved);
          let back = project;
          for (const changes of undo.reverse()) back = applyChanges(back, changes) as Project;
          expect(text(back)).toBe(text(first));
        }),
        { numRuns: 12, seed: 20261127 },
      ),
    120_000,
  );
});
