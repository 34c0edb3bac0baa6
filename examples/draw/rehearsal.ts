/** What the porter needs to be rehearsed: himself with a lamp, sparks, and the rules and the stage by which he comes to it. */
import {
  addAction,
  addClip,
  addRehearsal,
  addStage,
  keepDrive,
  mirrorMissing,
  setClipRules,
  setClipTotal,
  setPetal,
  setStepDurations,
  setStepEvents,
} from "@caravan/core/edit";
import {
  type ActionName,
  type Behaviour,
  type ClipName,
  FACINGS_OF,
  type FrameRef,
  type KeyMoment,
  type MarkName,
  msFromMicros,
  type Project,
  type Rule,
  type Source,
  type Stage,
  type StageName,
  type Ways,
} from "@caravan/core/model";
import type { Pixels } from "@caravan/core/raster";
import { emptyLog, rehearsalAtStart, rehearsedUntil, settingOf, stageFor } from "@caravan/core/stage";
import { sheetOf } from "./canvas";
import { drawPorter, FACINGS, idling, PORTER_GROUND, PORTER_SIZE, walking } from "./porter";
import { SPARKS_FROM, SPARKS_SIZE, sparks } from "./props";

const WALK_FRAMES = 8;
const IDLE_FRAMES = 4;
const SPARKS = 6;

interface Sheet {
  readonly name: string;
  readonly pixels: Pixels;
  readonly cell: { w: number; h: number };
  readonly ground: number;
  readonly light?: number;
}

export function rehearsedSheets(): Sheet[] {
  const each = (count: number, draw: (k: number) => Pixels) => Array.from({ length: count }, (_, k) => draw(k));
  const walk = FACINGS.flatMap((facing) => each(WALK_FRAMES, (k) => drawPorter(facing, walking(k / WALK_FRAMES, true))));
  const idle = FACINGS.flatMap((facing) => each(IDLE_FRAMES, (k) => drawPorter(facing, idling(k / IDLE_FRAMES, true))));
  const flying = each(SPARKS, (k) => sparks(k, SPARKS));
  return [
    { name: "porter-lamp-walk", pixels: sheetOf(walk, WALK_FRAMES), cell: PORTER_SIZE, ground: PORTER_GROUND + 1, light: 1 },
    { name: "porter-lamp-idle", pixels: sheetOf(idle, IDLE_FRAMES), cell: PORTER_SIZE, ground: PORTER_GROUND + 1, light: 1 },
    { name: "sparks", pixels: sheetOf(flying, SPARKS), cell: SPARKS_SIZE, ground: SPARKS_FROM.y },
  ];
}

const MOVES = { input: "speed", above: 4 };

const RULES: Rule[] = [
  {
    name: "set down",
    when: [
      { input: "act", is: "pressed" },
      { input: "lamp", is: true },
    ],
    play: "stop",
    keep: 300,
    set: { lamp: false },
    turns: false,
  },
  { name: "walk with the lamp", when: [MOVES, { input: "lamp", is: true }], play: "lamp-walk", phase: "carry" },
  { name: "walk", when: [MOVES], play: "walk", phase: "carry" },
  { name: "halt", when: [{ showing: ["walk"] }], play: "stop", keep: "whole", cutBy: ["walk"] },
  { name: "stand with the lamp", when: [{ input: "lamp", is: true }], play: "lamp-idle" },
  {
    name: "glance",
    when: [{ showing: ["stand"], forMs: 4000 }],
    play: "glance",
    keep: "whole",
    cutBy: ["walk"],
    turns: false,
  },
  { name: "stand", when: [], play: "idle" },
];

/** The demo with the porter's second outfit, his behaviour, the camp on which it is rehearsed, and a drive that shows all of it. */
export function withRehearsal(start: Project): Project {
  let project = withClips(start);
  const behaviour = {
    name: "porter",
    inputs: [
      { name: "act", kind: "button", bufferMs: 120 },
      { name: "lamp", kind: "switch" },
      { name: "speed", kind: "number" },
    ],
    rules: RULES,
  } as Behaviour;
  project = addRehearsal(project, behaviour, camp(project));
  const stage = project.stages?.[0] as Stage;
  project = addStage(project, ridge(project, stage));
  return withDrive(project, stage, "to the lamp and back", LAMP_AND_BACK, 20_000);
}

function withClips(start: Project): Project {
  let project = start;
  const refOf = (source: string, column: number, row: number) =>
    `${(project.sources.find(({ name }) => name === source) as Source).id}/c${column}r${row}` as FrameRef;
  const named = (name: string) => name as ClipName;
  const clip = (name: string, source: string, row: number, count: number, total: number) => {
    const refs = Array.from({ length: count }, (_, column) => refOf(source, column, row));
    project = setClipTotal(addClip(project, refs, name), named(name), total);
  };
  for (const [row, facing] of FACINGS.entries()) {
    clip(`lamp-walk-${facing}`, "porter-lamp-walk", row, WALK_FRAMES, 800_000);
    project = setStepEvents(project, named(`lamp-walk-${facing}`), [2, 6], ["footfall"]);
  }
  for (const [row, facing] of FACINGS.entries())
    if (["s", "e", "n"].includes(facing)) clip(`lamp-idle-${facing}`, "porter-lamp-idle", row, IDLE_FRAMES, 1_200_000);
  // He comes to rest over one more step.
  for (const [row, facing] of FACINGS.entries()) {
    project = addClip(project, [refOf("porter-walk", 2, row), refOf("porter-idle", 0, row)], `stop-${facing}`);
    project = setStepDurations(project, named(`stop-${facing}`), [0, 1], 120_000);
    project = setClipRules(project, named(`stop-${facing}`), { playback: "once" });
  }
  clip("sparks", "sparks", 0, SPARKS, 480_000);
  project = setClipRules(project, named("sparks"), { playback: "once", after: "hide" });
  const rose = (name: string, ways: Ways) =>
    FACINGS_OF[ways].reduce(
      (next, facing) => {
        const petal = named(`${name}-${facing}`);
        return next.clips.some((each) => each.name === petal) ? setPetal(next, name as ActionName, facing, { clip: petal }) : next;
      },
      addAction(project, name, ways),
    );
  project = rose("lamp-walk", 8);
  project = mirrorMissing(rose("lamp-idle", 4), "lamp-idle" as ActionName);
  return rose("stop", 8);
}

const NAME = "camp" as StageName;

/** Seen from above: a fire that spits sparks, and beside it the lamp that he takes. */
function camp(project: Project): Stage {
  const empty = stageFor(project, "walk", "above");
  return {
    ...empty,
    name: NAME,
    start: { x: 120, y: 190, facing: "e" },
    movement: { ...empty.movement, speed: 30, start: 240, stop: 300 },
    body: "body" as MarkName,
    feeds: { speed: "speed" },
    keys: [...empty.keys, { code: "Space", input: "act" }],
    zones: [{ name: "near the lamp", area: { x: 214, y: 150, w: 56, h: 44 }, input: "lamp", on: "entering", effect: "sparks" }],
    effects: [{ name: "sparks", event: "crackle", play: "sparks", point: "smoke" as MarkName, speed: 0, reach: 0 }],
    extras: [{ name: "fire", play: "fire", facing: "s", x: 242, y: 176 }],
  };
}

/** Seen from the side, with something to jump on. */
function ridge(project: Project, like: Stage): Stage {
  const empty = stageFor(project, "walk", "side");
  return {
    ...empty,
    name: "ridge" as StageName,
    behaviour: like.behaviour,
    movement: { ...empty.movement, speed: 30, start: 240, stop: 300, jump: 40 },
    body: like.body,
    feeds: like.feeds,
    keys: like.keys,
    start: { x: 90, y: 150, facing: "e" },
    platforms: [
      { x: 210, y: 124, w: 70, h: 12 },
      { x: 330, y: 104, w: 60, h: 12 },
    ],
    zones: [{ name: "the lamp", area: { x: 440, y: 100, w: 40, h: 50 }, input: "lamp", on: "entering" }],
    extras: [{ name: "fire", play: "fire", facing: "s", x: 520, y: 150 }],
    effects: like.effects,
  };
}

/** East and a little down, back up to the fire, where he takes the lamp; then west with it, where he sets it down and is left alone. */
const LAMP_AND_BACK: readonly (readonly [at: number, until: number, go: "left" | "right" | "up" | "down"])[] = [
  [600, 2400, "right"],
  [1500, 2400, "down"],
  [3000, 4300, "up"],
  [3600, 6200, "right"],
  [7000, 9600, "left"],
  [8400, 9600, "down"],
  [11_400, 12_200, "right"],
];

function withDrive(project: Project, stage: Stage, name: string, held: typeof LAMP_AND_BACK, length: number): Project {
  const setting = settingOf(project, stage);
  if (!setting) throw new Error("The demo's stage has no behaviour.");
  const keys: KeyMoment[] = [
    ...held.flatMap(([at, until, go]): KeyMoment[] => [
      { at, go, down: true },
      { at: until, go, down: false },
    ]),
    { at: 10_400, input: "act", down: true },
    { at: 10_520, input: "act", down: false },
  ].sort((a, b) => a.at - b.at);
  const log = emptyLog();
  const end = rehearsedUntil(setting, rehearsalAtStart(setting), keys, length * 1000, log);
  const account = [...log.rows, ...end.run.rows].map((row) => ({ ...row, at: msFromMicros(row.at) }));
  return keepDrive(project, { name, behaviour: stage.behaviour, stage: stage.name, length, keys, track: log.track, account });
}
