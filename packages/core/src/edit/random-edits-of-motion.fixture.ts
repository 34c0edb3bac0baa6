/** Random edits of clips, actions, parts, data, deliveries, behaviours, stages and drives, and random mendings. */
import { findingsOf } from "../check";
import type { Drive, StageName } from "../model";
import { proposed, stageFor } from "../stage";
import * as edits from ".";
import {
  action,
  behaviour,
  clip,
  example,
  mark,
  name,
  paletteName,
  partName,
  partOf,
  pick,
  places,
  type RandomEdit,
  refs,
  rule,
  source,
  stageName,
  steps,
} from "./random-choices.fixture";

export const EDITS_OF_MOTION: Readonly<Record<string, RandomEdit>> = {
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
  copyEvents: (p, d) => edits.copyEvents(p, clip(p, d), [clip(p, d), clip(p, d)]),
  part: (p, d) => edits.attachPart(p, { name: name(d), ...partOf(p, d) }),
  setPart: (p, d) => edits.setPart(p, partName(p, d), d(2) === 0 ? partOf(p, d) : { by: undefined }),
  renamePart: (p, d) => edits.renamePart(p, partName(p, d), name(d)),
  movePart: (p, d) => edits.movePart(p, partName(p, d), d(2) === 0 ? 1 : -1),
  removePart: (p, d) => edits.removePart(p, partName(p, d)),
  stepPart: (p, d) =>
    edits.setStepPart(p, clip(p, d), steps(d), partName(p, d), ([null, { hidden: true }, { front: d(2) === 0 }] as const)[d(3)] ?? null),
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
  mend: (p, d) => {
    const finding = pick(findingsOf(p), d);
    return finding?.mend && "apply" in finding.mend ? finding.mend.apply(p) : p;
  },
  renameProject: (p, d) => edits.renameProject(p, name(d)),
  addToSteps: (p, d) => edits.addToSteps(p, clip(p, d), steps(d), d(200_000) - 100_000),
  scaleSteps: (p, d) => edits.scaleSteps(p, clip(p, d), steps(d), [0.5, 2, 3, 0.001][d(4)] ?? 1),
  spreadOverSteps: (p, d) => edits.spreadOverSteps(p, clip(p, d), steps(d), d(900_000)),
  holdUntil: (p, d) => edits.holdUntil(p, clip(p, d), d(5), d(900_000)),
  moveBorder: (p, d) => edits.moveBorder(p, clip(p, d), d(5), d(400_000) - 200_000),
  evenOut: (p, d) => edits.evenOut(p, clip(p, d)),
  reverseSteps: (p, d) => edits.reverseSteps(p, clip(p, d)),
  reverseSomeSteps: (p, d) => edits.reverseSomeSteps(p, clip(p, d), steps(d)),
  pasteSteps: (p, d) => edits.pasteSteps(p, clip(p, d), d(6), (pick(p.clips, d)?.steps ?? []).slice(d(3))),
  addVariants: (p, d) => edits.addVariants(p, [clip(p, d), clip(p, d)], paletteName(p, d)),
  actionOfRows: (p, d) =>
    edits.actionOfRows(
      p,
      source(p, d).id,
      name(d),
      4,
      [
        { row: d(3), facing: "s" },
        { row: d(3), facing: "e" },
      ],
      d(2) === 0,
    ),
  setWays: (p, d) => edits.setWays(p, action(p, d), ([1, 2, 4, 8] as const)[d(4)] ?? 4),
  removeDelivery: (p, d) => (p.deliveries.length > 1 || d(9) === 0 ? edits.removeDelivery(p, d(3)) : p),
  setInput: (p, d) => {
    const { name: of, inputs } = behaviour(p, d);
    const input = pick(inputs, d);
    if (!input) return p;
    return edits.setInput(p, of, input.kind === "number" ? { ...input, initial: d(9) - 4 } : input);
  },
  deliverLike: (p, d) => edits.deliverLike(p, example(d), d(3)),
  assignField: (p, d) =>
    edits.assignField(p, pick(p.examples, d)?.name ?? "none", pick(["a.b", "$key", "__proto__"], d) as string, d(3) === 0 ? null : "keep"),
  forgetExample: (p, d) => edits.forgetExample(p, pick(p.examples, d)?.name ?? "none"),
};
