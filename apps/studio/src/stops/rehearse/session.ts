/**
 * The running rehearsal, driven by keys or by a saved drive, and the moment of it that is shown.
 *
 * It is recorded from its first step, so any moment can be shown by replaying from the last saved second before it. It belongs to no
 * document: when the project changes, the same keys are played again in the new version.
 */

import type { Drive, Going, KeyMoment, Micros, Project, Stage } from "@caravan/core/model";
import { msFromMicros } from "@caravan/core/model";
import {
  emptyLog,
  type Log,
  type Rehearsal,
  rehearsalAtStart,
  rehearsed,
  rehearsedUntil,
  type Setting,
  STEPS_A_SECOND,
  settingOf,
  timeOfStep,
} from "@caravan/core/stage";
import { create } from "zustand";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";

/** What works a rehearsal: a way to go, a button, or where to look. */
export type Control = { readonly go: Going } | { readonly input: string };

export interface Session {
  /** Its project: another one may have a stage of the same name. */
  readonly project: string | null;
  readonly setting: Setting | null;
  /** Its latest state. */
  readonly end: Rehearsal | null;
  readonly keys: readonly KeyMoment[];
  readonly log: Log;
  /** Its states at the start and after each second. */
  readonly kept: readonly Rehearsal[];
  readonly running: boolean;
  /** Speed of time: 1 to 1/20. */
  readonly speed: number;
  readonly recording: boolean;
  /** The drive that is played instead of keys. */
  readonly drive: Drive | null;
  /** A moment to show instead of the end: a clicked one, and one under the pointer. */
  readonly stay: Micros | null;
  readonly pointed: Micros | null;
}

const NOTHING: Session = {
  project: null,
  setting: null,
  end: null,
  keys: [],
  log: emptyLog(),
  kept: [],
  running: false,
  speed: 1,
  recording: false,
  drive: null,
  stay: null,
  pointed: null,
};

export const useSession = create<Session>(() => NOTHING);

/** A rehearsal ends here: nobody drives longer at once, and all of it stays in memory. */
const LONGEST: Micros = 600_000_000;
/** After a longer stall the rehearsal continues from where it was, like a game. */
const STALL: Micros = 100_000;

/** Real time that has passed and that no step has used yet. */
let unused = 0;
/** Key and facing changes since the last step; they get the next step's time. */
let pending: KeyMoment[] = [];

export function endTime({ end }: Pick<Session, "end">): Micros {
  return end && end.steps > 0 ? timeOfStep(end.steps - 1) : 0;
}

/** The time on the stage. */
export function shownTime(session: Session): Micros {
  return session.pointed ?? session.stay ?? endTime(session);
}

/**
 * Rehearses on a stage of the current project: earlier keys are replayed in it; on another stage, or in another project, it restarts. A
 * playing drive is the project's own: edits and undo apply to it; if it is removed, its keys stay as driven.
 */
export function setScene(id: string | null, project: Project, stage: Stage | null): void {
  if (!stage) {
    useSession.setState(NOTHING);
    return;
  }
  const { project: before, setting, end, speed } = useSession.getState();
  const next = setting?.stage === stage && sameContent(setting.project, project) ? setting : settingOf(project, stage);
  if (!next || !setting || !end || before !== id || setting.stage.name !== stage.name) {
    useSession.setState({ ...NOTHING, project: id, speed, setting: next, running: movesAtOnce() });
    restart();
    return;
  }
  const { drive, keys } = useSession.getState();
  const now = drive && (project.drives?.find(({ name }) => name === drive.name) ?? null);
  if (next === setting && now === drive) return;
  const driven = drive && !now ? drive.keys : keys;
  // A drive that was cut off ends where it ends now.
  const steps = now ? Math.min(end.steps, stepsAt(now.length * 1000) + 1) : end.steps;
  useSession.setState({ setting: next, drive: now, keys: driven, stay: null, ...replayed(next, now?.keys ?? driven, steps) });
}

function sameContent(a: Project, b: Project): boolean {
  return a.clips === b.clips && a.actions === b.actions && a.sources === b.sources && a.behaviours === b.behaviours && a.marks === b.marks;
}

const movesAtOnce = (): boolean => !matchMedia("(prefers-reduced-motion: reduce)").matches;

type Played = Pick<Session, "end" | "log" | "kept">;

/** This many steps from the start with these keys. */
function replayed(setting: Setting, keys: readonly KeyMoment[], steps: number): Played {
  const log = emptyLog();
  const kept: Rehearsal[] = [];
  let end = rehearsalAtStart(setting);
  while (end.steps < steps) {
    const until = Math.min(steps, end.steps + STEPS_A_SECOND);
    kept.push(end);
    end = rehearsedUntil(setting, end, keys, timeOfStep(until - 1), log);
  }
  return { end, log, kept };
}

/** From the start again: driven by keys, or by a drive that was kept. */
export function restart(drive: Drive | null = null): void {
  const { setting } = useSession.getState();
  if (!setting) return;
  unused = 0;
  pending = [];
  const log = emptyLog();
  const start = rehearsalAtStart(setting);
  const end = rehearsedUntil(setting, start, drive?.keys ?? [], 0, log);
  useSession.setState({ log, kept: [start], keys: [], stay: null, pointed: null, drive, end });
}

/** A key of the stage goes down or up. Driving starts a paused rehearsal, and takes over from a playing drive. */
export function control(what: Control, down: boolean): void {
  if (!useSession.getState().setting) return;
  if (down) takeOver();
  pending.push({ ...what, at: 0, down });
}

/** The figure looks there, from the next step on. */
export function lookThere(face: Extract<KeyMoment, { face: unknown }>["face"]): void {
  takeOver();
  // Only the last counts of what a pointer says between two steps.
  pending = [...pending.filter((each) => !("face" in each)), { at: 0, face }];
}

function takeOver(): void {
  const { drive, running, end, stay } = useSession.getState();
  if (drive) {
    // What the drive has done so far is now what was driven, and what it held is let go.
    const until = msFromMicros(endTime({ end }));
    useSession.setState({ drive: null, keys: drive.keys.filter(({ at }) => at <= until) });
    if (stay === null) letGoOfAll();
  }
  if (!running) goOn();
}

/** Pauses, or continues from the shown moment: anything after it is driven again. */
export function togglePause(): void {
  if (useSession.getState().running) useSession.setState({ running: false });
  else goOn();
}

function goOn(): void {
  const session = useSession.getState();
  if (!session.setting || !session.end) return;
  const { stay } = session;
  if (stay === null) {
    useSession.setState({ running: true });
    return;
  }
  const { setting, drive, keys } = session;
  const steps = stepsAt(stay) + 1;
  useSession.setState({
    ...replayed(setting, drive?.keys ?? keys, steps),
    ...(drive ? {} : { keys: keys.filter(({ at }) => at <= msFromMicros(stay)) }),
    stay: null,
    pointed: null,
    running: true,
  });
  if (!drive) letGoOfAll();
}

/** Held keys go up with the next step: their key-up happened in a time that is not replayed. */
function letGoOfAll(): void {
  const { end, setting } = useSession.getState();
  const buttons = setting?.program.inputs.filter(({ name, kind }) => kind === "button" && end?.run.now.values.get(name) === true) ?? [];
  pending = [
    ...[...(end?.goings ?? [])].map((go): KeyMoment => ({ at: 0, go, down: false })),
    ...buttons.map(({ name: input }): KeyMoment => ({ at: 0, input, down: false })),
    ...pending,
  ];
}

/** The step of the world shown at a time. */
function stepsAt(at: Micros): number {
  return Math.max(0, Math.floor((at * STEPS_A_SECOND) / 1_000_000 + 1e-6));
}

/** One picture of a display of 60 a second on, or back by replaying. */
export function stepPicture(direction: 1 | -1): void {
  const session = useSession.getState();
  if (!session.setting || !session.end) return;
  useSession.setState({ running: false, pointed: null });
  const picture = STEPS_A_SECOND / 60;
  const wanted = stepsAt(shownTime(session)) + direction * picture;
  if (direction === 1 && wanted >= session.end.steps) {
    useSession.setState({ stay: null });
    takeSteps(wanted - session.end.steps + 1);
  } else useSession.setState({ stay: timeOfStep(Math.max(0, wanted)) });
}

/** Looks at a moment, and stays there. */
export function stayAt(at: Micros): void {
  const session = useSession.getState();
  useSession.setState({ stay: Math.max(0, Math.min(at, endTime(session))), pointed: null, running: false });
}

/** Lets real time pass. */
export function pass(micros: Micros): void {
  const session = useSession.getState();
  if (!session.running || session.stay !== null || !session.end) return;
  unused += Math.min(STALL, micros) * session.speed;
  const steps = Math.floor((unused * STEPS_A_SECOND) / 1_000_000);
  unused -= (steps * 1_000_000) / STEPS_A_SECOND;
  if (steps > 0) takeSteps(steps);
}

function takeSteps(count: number): void {
  const { setting, end: from, keys: before, log, kept: keptBefore, drive } = useSession.getState();
  if (!setting || !from) return;
  let end = from;
  let keys = before;
  let kept = keptBefore;
  let running = useSession.getState().running;
  for (let k = 0; k < count; k++) {
    if (drive && endTime({ end }) >= drive.length * 1000) {
      running = false;
      break;
    }
    if (endTime({ end }) >= LONGEST) {
      running = false;
      say({ tone: "plain", text: t("The rehearsal paused after 10 minutes. Restart it to go on.") });
      break;
    }
    if (end.steps % STEPS_A_SECOND === 0) kept = [...kept, end];
    if (drive) {
      end = rehearsedUntil(setting, end, drive.keys, timeOfStep(end.steps), log);
      continue;
    }
    const at = msFromMicros(timeOfStep(end.steps));
    const now = pending.map((each): KeyMoment => ({ ...each, at }));
    pending = [];
    if (now.length > 0) keys = [...keys, ...now];
    end = rehearsed(setting, end, now, log);
  }
  // The log grows in place; a new object notifies its viewers.
  useSession.setState({ end, keys, kept, running, log: { ...log } });
}

/** The rehearsal at a time: replayed from the last full second before it. */
export function rehearsalAt(session: Session, at: Micros): Rehearsal | null {
  const { setting, end, kept, keys, drive } = session;
  if (!setting || !end) return null;
  const steps = stepsAt(at) + 1;
  if (steps >= end.steps) return end;
  const from = kept.findLast((each) => each.steps < steps) ?? rehearsalAtStart(setting);
  return rehearsedUntil(setting, from, drive?.keys ?? keys, timeOfStep(steps - 1), emptyLog());
}

/** Plays a drive that was kept, from its start. */
export function playDrive(drive: Drive): void {
  if (!useSession.getState().setting) return;
  restart(drive);
  useSession.setState({ recording: false, running: true });
}

/** Plays a drive to its end at once, and looks at it. */
export function runDrive(drive: Drive): void {
  playDrive(drive);
  useSession.setState({ running: false });
  takeSteps(stepsAt(drive.length * 1000));
}

/** Begins to record: from the start, with nothing held. */
export function record(): void {
  restart();
  useSession.setState({ recording: true, running: true });
}

/** What has been driven, to be kept under a name; null where nothing has. */
export function driven(name: string): Drive | null {
  const session = useSession.getState();
  const { setting, end, keys, log } = session;
  if (!setting || !end) return null;
  return {
    name,
    behaviour: setting.stage.behaviour,
    stage: setting.stage.name,
    length: msFromMicros(endTime(session)),
    keys: [...keys],
    track: log.track,
    account: rowsOf(session).map((row) => ({ ...row, at: msFromMicros(row.at) })),
  };
}

export function countOfRows({ log, end }: Pick<Session, "log" | "end">): number {
  return log.rows.length + (end?.run.rows.length ?? 0);
}

/** The account so far, what started at the last step included. */
export function rowsOf({ log, end }: Pick<Session, "log" | "end">): Log["rows"] {
  return end ? [...log.rows, ...end.run.rows] : log.rows;
}
