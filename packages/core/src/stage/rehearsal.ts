/**
 * Runs a rehearsal: held keys -> a moving figure -> inputs -> rules -> what shows, in steps of 1/240 s.
 *
 * Deterministic: the same project, stage and keys give the same rehearsal on any display. A rehearsal is never changed in place, so any
 * moment of it can be kept and continued. Cost: some microseconds per step, and that of its zones, effects and boxes.
 */
import { type Current, entriesUntil, type Given, type Row, type Run, runFromStart, runGiven, runUntil } from "../behave";
import type { Effect, Facing, FramePoint, Going, KeyMoment, Micros, Stage, TrackEntry } from "../model";
import { type Body, bodyMeets, bodyOf } from "./body";
import { effectAt, extraAt, type Playing, spitting, startOf } from "./effects";
import { frameOfState, pointOf, type Standing, shapesOf } from "./figure";
import { type Moving, STEPS_A_SECOND, stepped } from "./movement";
import type { Setting } from "./setting";
import { shapesMeet } from "./shapes";

/** An event of a clip's step, when it came. */
export interface Heard {
  readonly at: Micros;
  readonly name: string;
}

export interface Rehearsal {
  /** The number of steps of the world taken. */
  readonly steps: number;
  readonly moving: Moving;
  readonly run: Run;
  readonly goings: ReadonlySet<Going>;
  readonly playing: readonly Playing[];
  /** Zones in which the figure is, and those that have worked already, by name. */
  readonly inside: ReadonlySet<string>;
  readonly worked: ReadonlySet<string>;
  /** Pairs of boxes that touch now, by place in the stage's list. */
  readonly touching: ReadonlySet<number>;
  /** The last values given to the inputs that the movement feeds. */
  readonly fed: Readonly<Record<string, boolean | number>>;
  readonly facing: Facing;
  /** Buttons that a zone or a hit pressed at the step before, and that go up now. */
  readonly toRelease: readonly string[];
}

/** What happened in some steps, in order. */
export interface Log {
  readonly rows: Row[];
  readonly track: TrackEntry[];
  readonly events: Heard[];
}

export const emptyLog = (): Log => ({ rows: [], track: [], events: [] });

/** The time of a step of the world. */
export function timeOfStep(step: number): Micros {
  return Math.round((step * 1_000_000) / STEPS_A_SECOND);
}

/** Before the first step. */
export function rehearsalAtStart({ stage, program }: Setting): Rehearsal {
  const { x, y, facing } = stage.start;
  return {
    steps: 0,
    moving: { x, y, vx: 0, vy: 0, facing, grounded: true },
    run: runFromStart(program),
    goings: new Set(),
    playing: [],
    inside: new Set(),
    worked: new Set(),
    touching: new Set(),
    fed: {},
    facing: "s",
    toRelease: [],
  };
}

const NOTHING_HELD = new Set<Going>();

/** Advances by one step. `keys` are the changes at it. Events are added to the log. */
export function rehearsed(setting: Setting, before: Rehearsal, keys: readonly KeyMoment[], log: Log): Rehearsal {
  const { project, stage, program } = setting;
  const at = timeOfStep(before.steps);
  const given: Given[] = before.toRelease.map((release) => ({ release }));
  // Steps without key changes share the list of held keys.
  const held = keys.length === 0 ? NOTHING_HELD : new Set(before.goings);
  const goings = keys.length === 0 ? before.goings : held;
  let jumps = false;
  let looks: Facing | null = null;
  for (const key of keys) {
    if ("face" in key) looks = key.face;
    else if ("input" in key) given.push(key.down ? { press: key.input } : { release: key.input });
    else if (key.down) {
      jumps ||= key.go === "up" && !held.has("up");
      held.add(key.go);
    } else held.delete(key.go);
  }
  const was = frameOfState(setting.clips, before.run.now);
  const body = bodyOf(project, was?.frame ?? null, was?.mirror ?? false, stage.body);
  const from = before.steps === 0 ? settledAt(stage, before.moving, body) : before.moving;
  const gone = stepped(stage, from, { goings, jumps }, body);
  const moving = looks === null ? gone : { ...gone, facing: looks };
  const fed = feeding(stage, moving);
  const news: Record<string, boolean | number> = {};
  let isNews = false;
  for (const name in fed)
    if (fed[name] !== before.fed[name]) {
      news[name] = fed[name] as boolean | number;
      isNews = true;
    }
  if (isNews) given.push({ set: news });
  const { facing } = moving;
  if (facing !== before.facing) given.push({ face: facing });

  const toRelease: string[] = [];
  const zones = throughZones(setting, before, body, moving, given, toRelease);
  const figure = was && { ...was, x: moving.x, y: moving.y };
  const touching = hitsOf(setting, at, figure, before.playing);
  for (const place of touching) {
    const input = stage.hits[place]?.input;
    if (!before.touching.has(place) && input !== undefined) press(input, given, toRelease);
  }
  for (const each of given) log.track.push({ at: at / 1000, ...each });

  const born: Playing[] = zones.effects.flatMap(({ effect, at: place }) => startOf(setting, effect, place, facing, at) ?? []);
  const hear = (current: Current, until: Micros) => {
    const clip = setting.loud.has(current.cast.clip) ? setting.clips.get(current.cast.clip) : undefined;
    if (!clip) return;
    for (const entry of entriesUntil(current, until, before.run.now)) {
      const step = clip.steps[entry.step];
      for (const name of step?.events ?? []) {
        log.events.push({ at: current.from + entry.at, name });
        const standing = { frame: step?.frame as Standing["frame"], mirror: current.cast.mirror, x: moving.x, y: moving.y };
        for (const effect of stage.effects)
          if (effect.event === name) {
            const made = startOf(setting, effect, pointOf(project, standing, effect.point), facing, current.from + entry.at);
            if (made) born.push(made);
          }
      }
    }
  };
  born.push(...spitting(setting, before.steps === 0 ? -1 : timeOfStep(before.steps - 1), at));
  const onPast = (past: Run) => {
    log.rows.push(...past.rows);
    for (const each of past.left) hear(each, past.now.at - 1);
  };
  let run = before.steps === 0 ? before.run : runUntil(program, before.run, at, onPast);
  run = runGiven(program, run, given);
  for (const each of run.left) hear(each, at - 1);
  if (run.now.current) hear(run.now.current, at);
  return {
    steps: before.steps + 1,
    moving,
    run,
    goings,
    playing:
      before.playing.length === 0 && born.length === 0 ? before.playing : [...before.playing.filter(({ gone }) => gone > at), ...born],
    inside: zones.inside,
    worked: zones.worked,
    touching,
    fed,
    facing,
    toRelease,
  };
}

/** On the ground where it starts, wherever its boxes begin. */
function settledAt(stage: Stage, moving: Moving, { area }: Body): Moving {
  const low = area.y + area.h;
  return stage.view === "side" && moving.y + low > stage.ground ? { ...moving, y: stage.ground - low } : moving;
}

function feeding({ feeds }: Stage, { vx, vy, grounded }: Moving): Record<string, boolean | number> {
  const whole = (value: number) => Math.round(value) + 0;
  const fed: Record<string, boolean | number> = {};
  if (feeds.speed !== undefined) fed[feeds.speed] = whole(Math.hypot(vx, grounded ? vy : 0));
  if (feeds.rise !== undefined) fed[feeds.rise] = grounded ? 0 : whole(-vy);
  if (feeds.air !== undefined) fed[feeds.air] = !grounded;
  return fed;
}

function press(input: string, given: Given[], toRelease: string[]): void {
  given.push({ press: input });
  toRelease.push(input);
}

/** Zones entered and left: what they set and press, and the effects they start. */
function throughZones(
  { stage, program }: Setting,
  before: Rehearsal,
  body: Body,
  at: FramePoint,
  given: Given[],
  toRelease: string[],
): { inside: ReadonlySet<string>; worked: ReadonlySet<string>; effects: { effect: Effect; at: FramePoint }[] } {
  const inside = new Set<string>();
  const worked = new Set(before.worked);
  const effects: { effect: Effect; at: FramePoint }[] = [];
  for (const zone of stage.zones) {
    const isIn = bodyMeets(body, at, zone.area);
    if (isIn) inside.add(zone.name);
    const was = before.inside.has(zone.name);
    if (isIn === was || (zone.once && worked.has(zone.name))) continue;
    const works = zone.on === "inside" || (zone.on === "entering") === isIn;
    if (!works) continue;
    const kind = program.inputs.find(({ name }) => name === zone.input)?.kind;
    if (zone.input !== undefined && kind === "switch")
      given.push({ set: { [zone.input]: zone.on === "inside" ? isIn : (zone.to ?? true) } });
    if (zone.input !== undefined && kind === "button" && (isIn || zone.on === "leaving")) press(zone.input, given, toRelease);
    const effect = zone.on === "inside" && !isIn ? undefined : stage.effects.find(({ name }) => name === zone.effect);
    if (effect) effects.push({ effect, at: { x: zone.area.x + zone.area.w / 2, y: zone.area.y + zone.area.h } });
    if (zone.on !== "inside" || !isIn) worked.add(zone.name);
  }
  return { inside, worked, effects };
}

const NO_HITS: ReadonlySet<number> = new Set();

function hitsOf(setting: Setting, at: Micros, figure: Standing | null, playing: readonly Playing[]): ReadonlySet<number> {
  const { project, stage } = setting;
  if (stage.hits.length === 0) return NO_HITS;
  const touching = new Set<number>();
  const ours = [...(figure ? [figure] : []), ...playing.flatMap((each) => effectAt(setting, each, at) ?? [])];
  const theirs = stage.extras.flatMap((each) => extraAt(setting, each, at) ?? []);
  for (const [place, pair] of stage.hits.entries()) {
    const targets = theirs.flatMap((each) => shapesOf(project, each, pair.theirs));
    const meets = ours.some((each) =>
      shapesOf(project, each, pair.ours).some((shape) => targets.some((target) => shapesMeet(shape, target))),
    );
    if (meets) touching.add(place);
  }
  return touching;
}

/** Steps from the current state until a time, with the keys of a drive in order of time. */
export function rehearsedUntil(setting: Setting, from: Rehearsal, keys: readonly KeyMoment[], until: Micros, log: Log): Rehearsal {
  let rehearsal = from;
  // What came after the last step belongs to the next one.
  const last = from.steps === 0 ? -1 : timeOfStep(from.steps - 1);
  let next = keys.findIndex(({ at }) => Math.round(at * 1000) > last);
  if (next < 0) next = keys.length;
  while (timeOfStep(rehearsal.steps) <= until) {
    const now = timeOfStep(rehearsal.steps);
    const first = next;
    while (next < keys.length && Math.round((keys[next] as KeyMoment).at * 1000) <= now) next++;
    rehearsal = rehearsed(setting, rehearsal, keys.slice(first, next), log);
  }
  return rehearsal;
}
