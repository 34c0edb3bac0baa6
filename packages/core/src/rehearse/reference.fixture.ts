/**
 * A second interpreter, written from docs/formats/behaviours.md alone and without regard to speed: it checks every millisecond whether it
 * is an instant. Shares nothing with `core/behave`; times must be whole milliseconds.
 */

import type { Rules } from "../behave";
import { nearestPresent } from "../facing";
import type { Condition, Facing, Project, Rule, Track, TrackEntry } from "../model";
import { facingsPresent } from "../model";
import { timelineOf } from "../playback";

interface Showing {
  rule: Rule;
  startedAt: number;
  clipStart: number;
  clip: string;
  mirror: boolean;
  kept: { whole: boolean; until: number } | null;
}

export interface ReferenceRow {
  at: number;
  rule: string | null;
  play: string | null;
  why: string;
}

export interface ReferenceShown {
  rule: string | null;
  clip: string | null;
  mirror: boolean;
  time: number | null;
}

export function referenceAccount(project: Project, { inputs, rules }: Rules, track: Track, until: number) {
  const rows: ReferenceRow[] = [];
  const shown: ReferenceShown[] = [];
  const on = rules.filter(({ off }) => !off);
  const isDown: Record<string, boolean> = {};
  const waiting: Record<string, number> = {};
  const wentUp: Record<string, number> = {};
  const value: Record<string, boolean | number> = {};
  for (const input of inputs) if (input.kind !== "button") value[input.name] = input.initial ?? (input.kind === "switch" ? false : 0);
  let wanted: Facing = "s";
  let showing = null as Showing | null;

  const clipFor = (play: string, facing: Facing): { clip: string; mirror: boolean } | null => {
    const action = project.actions.find(({ name }) => (name as string) === play);
    const petal = action?.facings[nearestPresent(facing, facingsPresent(action)) as Facing];
    const clip = action ? petal?.clip : play;
    const found = project.clips.find(({ name }) => name === clip);
    return found && found.steps.length > 0 ? { clip: found.name, mirror: petal?.mirror === true } : null;
  };
  const lengthOf = (clip: string) => timelineOf(project.clips.find(({ name }) => name === clip) as Project["clips"][number]).end / 1000;

  for (let now = 0; now <= until; now++) {
    const entries: TrackEntry[] = track.filter(({ at }) => at === now);
    const clipEnds = showing !== null && showing.clipStart + lengthOf(showing.clip) === now;
    const keepingOver = showing?.kept && (showing.kept.whole ? clipEnds : showing.kept.until === now);
    const timeCame =
      showing !== null &&
      on.some(({ when }) =>
        when.some(
          (each) =>
            "showing" in each &&
            each.forMs !== undefined &&
            each.showing.includes((showing as Showing).rule.name) &&
            (showing as Showing).startedAt + each.forMs === now,
        ),
      );
    if (now === 0 || entries.length > 0 || clipEnds || keepingOver || timeCame) {
      const why = now === 0 ? "start" : entries.length > 0 ? "input" : clipEnds || keepingOver ? "over" : "time";
      const wasKept = showing?.kept ?? null;
      for (const entry of entries) apply(entry, now);
      instant(now, why, wasKept !== null);
    }
    shown.push(
      showing
        ? { rule: showing.rule.name, clip: showing.clip, mirror: showing.mirror, time: now - showing.clipStart }
        : { rule: null, clip: null, mirror: false, time: null },
    );
  }
  return { rows, shown };

  function apply(entry: TrackEntry, now: number): void {
    if ("press" in entry) {
      if (!isDown[entry.press]) {
        isDown[entry.press] = true;
        waiting[entry.press] = now;
      }
    } else if ("release" in entry) {
      if (isDown[entry.release]) {
        isDown[entry.release] = false;
        wentUp[entry.release] = now;
      }
    } else if ("set" in entry) Object.assign(value, entry.set);
    else {
      wanted = entry.face;
      if (showing && showing.rule.turns !== false) Object.assign(showing, clipFor(showing.rule.play, wanted));
    }
  }

  function keptNow(now: number): boolean {
    if (!showing?.kept) return false;
    if (!showing.kept.whole) return now < showing.kept.until;
    const end = showing.clipStart + lengthOf(showing.clip);
    return end !== Number.POSITIVE_INFINITY && now < end;
  }

  function instant(now: number, why: string, wasKept: boolean): void {
    const startedHere: string[] = [];
    const tryStart = (rule: Rule, because: string): boolean => {
      const clip = clipFor(rule.play, wanted);
      if (startedHere.includes(rule.name) || !clip) return false;
      startedHere.push(rule.name);
      for (const each of rule.when) if ("is" in each && each.is === "pressed") delete waiting[each.input];
      Object.assign(value, rule.set ?? {});
      const clipStart: number = rule.phase === "carry" && showing ? showing.clipStart : now;
      const end = clipStart + lengthOf(clip.clip);
      let kept: Showing["kept"] = null;
      if (typeof rule.keep === "number" && rule.keep > 0) kept = { whole: false, until: now + rule.keep };
      if (rule.keep === "whole" && end !== Number.POSITIVE_INFINITY && end > now) kept = { whole: true, until: 0 };
      showing = { rule, startedAt: now, clipStart, ...clip, kept };
      rows.push({ at: now, rule: rule.name, play: rule.play, why: because });
      return true;
    };
    if (showing && wasKept && !keptNow(now)) {
      (showing as Showing).kept = null;
      const next = on.find(({ name }) => name === (showing as Showing).rule.then);
      if (next) tryStart(next, "then");
    }
    let again = true;
    while (again) {
      again = false;
      let goesOn = false;
      for (const rule of on) {
        if (!rule.when.every((each) => holds(each, now))) continue;
        const kept = keptNow(now);
        if (showing && rule.name === showing.rule.name) {
          const moment = rule.when.some((each) => "is" in each && (each.is === "pressed" || each.is === "released"));
          if (moment && (rule.again === true || !kept)) again = tryStart(rule, why);
          else if (!moment && !kept) goesOn = true;
        } else if (!kept || showing?.rule.cutBy?.includes(rule.name)) again = tryStart(rule, why);
        if (again || goesOn) break;
      }
      if (!again && !goesOn && !keptNow(now) && (showing || (now === 0 && rows.length === 0))) {
        showing = null;
        rows.push({ at: now, rule: null, play: null, why });
      }
    }
  }

  function holds(condition: Condition, now: number): boolean {
    if ("showing" in condition) {
      if (!showing || !condition.showing.includes(showing.rule.name)) return false;
      if (now - showing.startedAt < (condition.forMs ?? 0)) return false;
      return !condition.ended || now - showing.clipStart >= lengthOf(showing.clip);
    }
    if (!("is" in condition)) {
      const number = value[condition.input] as number;
      return number > (condition.above ?? Number.NEGATIVE_INFINITY) && number < (condition.below ?? Number.POSITIVE_INFINITY);
    }
    const input = inputs.find(({ name }) => name === condition.input);
    const buffer = input?.kind === "button" ? (input.bufferMs ?? 0) : 0;
    if (condition.is === "pressed") return waiting[condition.input] !== undefined && now - (waiting[condition.input] as number) <= buffer;
    if (condition.is === "released") return wentUp[condition.input] === now;
    if (condition.is === "down" || condition.is === "up") return (isDown[condition.input] ?? false) === (condition.is === "down");
    return value[condition.input] === condition.is;
  }
}
