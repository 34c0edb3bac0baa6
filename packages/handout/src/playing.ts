/** What is selected for playing, as one thing that time moves: a clip, an action in its facings, or a behaviour under control. */
import type { Atlas, AtlasClip, FacingName, Now } from "@caravan/player";
import { createBehaviour } from "@caravan/player/behaviour";
import { createParts, createPlayer, type PlacedPart } from "@caravan/player/parts";

export const FACINGS: readonly FacingName[] = ["e", "se", "s", "sw", "w", "nw", "n", "ne"];

export type Kind = "action" | "clip" | "behaviour";

export interface Choice {
  readonly kind: Kind;
  readonly name: string;
}

/** Actions first: they are what a game plays. */
export function choicesIn({ actions = {}, clips, behaviours = {} }: Atlas): Choice[] {
  const all = (kind: Kind, names: readonly string[]) => names.map((name): Choice => ({ kind, name }));
  const playable = (name: string) => Object.keys(actions[name]?.facings ?? {}).length > 0;
  return [
    ...all("action", Object.keys(actions).filter(playable)),
    ...all(
      "clip",
      Object.keys(clips).filter((name) => clipNamed(clips, name)?.steps.length),
    ),
    ...all("behaviour", Object.keys(behaviours)),
  ];
}

function clipNamed(clips: Atlas["clips"], name: string): AtlasClip | undefined {
  return Object.hasOwn(clips, name) ? clips[name] : undefined;
}

export interface Shown extends Now {
  readonly parts: readonly PlacedPart[];
  /** The rule that shows, of a behaviour. */
  readonly rule: string | null;
  /** What a rule that has just begun has set of the switches; null where nothing was. */
  readonly set: Readonly<Record<string, boolean | undefined>> | null;
}

export interface Playing {
  readonly choice: Choice;
  /** The facings that an action has; all eight for a behaviour, none for a clip. */
  readonly facings: readonly FacingName[];
  /** Every frame that it can show. */
  readonly frames: ReadonlySet<string>;
  advance(ms: number, facing: FacingName): Shown;
  restart(facing: FacingName): void;
  /** Gives a behaviour its inputs; clips and actions have none. */
  press(input: string, down: boolean): void;
  set(input: string, value: boolean | number): void;
}

/** How long the end of what plays once is seen before it plays again. */
const REST = 700; // ms

/** Throws what the player throws. */
export function playingOf(atlas: Atlas, choice: Choice): Playing {
  return choice.kind === "behaviour" ? driven(atlas, choice) : played(atlas, choice);
}

function driven(atlas: Atlas, choice: Choice): Playing {
  const { name } = choice;
  const partsOf = createParts(atlas);
  let behaviour = createBehaviour(atlas, name);
  let rule: string | null = null;
  let sinceMs = 0;
  return {
    choice,
    facings: FACINGS,
    frames: framesOf(atlas, Object.keys(atlas.clips)),
    advance(ms, facing) {
      behaviour.face(facing);
      const now = behaviour.advance(ms);
      const begins = now.rule !== rule;
      sinceMs = begins ? 0 : sinceMs + ms;
      rule = now.rule;
      const { set = null } = (begins && atlas.behaviours?.[name]?.rules.find((each) => each.name === rule)) || {};
      return { ...now, parts: partsOf({ ...now, facing, ms: (now.pass + now.progress) * now.duration, sinceMs }), set };
    },
    restart() {
      behaviour = createBehaviour(atlas, name);
    },
    press: (input, down) => (down ? behaviour.press(input) : behaviour.release(input)),
    set: (input, value) => behaviour.set(input, value),
  };
}

function played(atlas: Atlas, choice: Choice): Playing {
  const { name, kind } = choice;
  const { [name]: action, ...others } = atlas.actions ?? {};
  // A player finds an action before the clip that is called the same.
  const player = createPlayer(kind === "clip" && action ? { ...atlas, actions: others } : atlas);
  const petals = kind === "action" ? (action?.facings ?? {}) : {};
  let looks: FacingName | null = null;
  let resting = 0;
  const start = (facing: FacingName, restart: boolean) => {
    player.play(name, { facing, restart });
    looks = facing;
    resting = 0;
  };
  return {
    choice,
    facings: FACINGS.filter((facing) => petals[facing]),
    frames: framesOf(atlas, kind === "clip" ? [name] : Object.values(petals).map((petal) => petal?.clip ?? "")),
    advance(ms, facing) {
      if (facing !== looks) start(facing, false);
      if (resting >= REST) start(facing, true);
      const now = player.advance(ms);
      if (now.ended) resting += ms;
      return { ...now, rule: null, set: null };
    },
    restart: (facing) => start(facing, true),
    press: () => {},
    set: () => {},
  };
}

function framesOf({ clips }: Atlas, names: readonly string[]): Set<string> {
  return new Set(names.flatMap((name) => clipNamed(clips, name)?.steps.map(({ frame }) => frame) ?? []));
}
