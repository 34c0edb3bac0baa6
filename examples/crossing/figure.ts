/** Who walks on the road: driven by the delivered behaviour where there is one, else by what fits in the delivery. */
import type { Atlas, FacingName } from "@caravan/player";
import { createBehaviour } from "@caravan/player/behaviour";
import { createParts, createPlayer, type NowWithParts } from "@caravan/player/parts";
import { type Fitting, fittingOf } from "./fitting";

export interface Figure {
  /** The button of this number goes down or up; without a behaviour the first one acts. */
  button(number: number, down: boolean): void;
  /** Turns the switch of this number over. */
  flip(number: number): void;
  /** Whether it may walk now. */
  readonly free: boolean;
  /** Advances by some ms at a speed in px per second; `what` describes what shows. */
  advance(ms: number, speed: number, facing: FacingName): NowWithParts & { readonly what: string };
}

/** Null if there is nothing to play in the delivery at all. */
export function figureOf(atlas: Atlas): Figure | null {
  const [name] = Object.keys(atlas.behaviours ?? {});
  if (name !== undefined) return byRules(atlas, name);
  const fitting = fittingOf(atlas);
  return fitting && byFitting(atlas, fitting);
}

/** The rehearsed rules decide: the game only passes inputs. */
function byRules(atlas: Atlas, name: string): Figure {
  const behaviour = createBehaviour(atlas, name);
  const inputs = Object.entries(atlas.behaviours?.[name]?.inputs ?? {});
  const named = (kind: string) => inputs.filter(([, input]) => input.kind === kind).map(([each]) => each);
  const [buttons, switches, numbers] = [named("button"), named("switch"), named("number")];
  const speedInput = numbers.find((each) => /speed/i.test(each)) ?? numbers[0];
  const partsOf = createParts(atlas);
  let shown: string | null = null;
  let sinceMs = 0;
  const on = new Set(inputs.filter(([, input]) => input.initial === true).map(([each]) => each));
  return {
    button(number, down) {
      const button = buttons[number];
      if (button !== undefined) down ? behaviour.press(button) : behaviour.release(button);
    },
    flip(number) {
      const each = switches[number];
      if (each === undefined) return;
      if (!on.delete(each)) on.add(each);
      behaviour.set(each, on.has(each));
    },
    free: true,
    advance(ms, speed, facing) {
      if (speedInput !== undefined) behaviour.set(speedInput, speed);
      behaviour.face(facing);
      const now = behaviour.advance(ms);
      sinceMs = now.rule === shown ? sinceMs + ms : 0;
      shown = now.rule;
      // What a rule has set is so from here on.
      for (const { set } of atlas.behaviours?.[name]?.rules.filter((rule) => rule.name === now.rule) ?? [])
        for (const [each, value] of Object.entries(set ?? {})) value ? on.add(each) : on.delete(each);
      // After a lead-in, later loops are shorter than the first; parts hardly depend on that.
      const parts = partsOf({ ...now, facing, ms: (now.pass + now.progress) * now.duration, sinceMs });
      return { ...now, parts, what: now.rule ?? "nothing" };
    },
  };
}

/** Without rules: it acts once on the first button, and walks or rests otherwise. */
function byFitting(atlas: Atlas, { act, move, rest }: Fitting): Figure {
  const player = createPlayer(atlas);
  let acting = false;
  let begins = false;
  return {
    button(number, down) {
      if (number === 0 && down && act !== null) begins = true;
    },
    flip() {},
    get free() {
      return !acting;
    },
    advance(ms, speed, facing) {
      if (begins && act !== null) acting = true;
      const what = acting && act !== null ? act : speed > 0 ? move : rest;
      // Asked for again it only turns.
      player.play(what, { facing, restart: begins });
      begins = false;
      const now = player.advance(ms);
      if (acting && now.ended) acting = false;
      return { ...now, what };
    },
  };
}
