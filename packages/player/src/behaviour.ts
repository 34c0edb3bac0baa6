/**
 * Runs a behaviour of a caravan-atlas file: the game passes inputs and time, and gets the frame to draw. Rules are evaluated by the
 * core's own interpreter, bundled into this package when it is built, so they mean what they meant at Rehearse.
 *
 * Exact and independent of the game's rate: what is given between two calls of `advance` belongs to the time reached so far.
 */
import {
  type Current,
  entriesUntil,
  type Given,
  ownTime,
  type Program,
  type Rules,
  type Run,
  runFromStart,
  runGiven,
  runUntil,
  type State,
} from "@caravan/core/behave";
import type { Atlas, AtlasClip, FacingName } from "./atlas";
import { checkAtlas, checkedMs, FACINGS, type Fired, fire, type Laid, lay, own, petalOf, shownAt, unknownName } from "./atlas-clips";
import { NOTHING, type Now } from "./now";

type Behaviours<A extends Atlas> = NonNullable<A["behaviours"]>;

/** The names of an atlas's behaviours, and of one's inputs and rules. */
export type BehaviourName<A extends Atlas> = keyof Behaviours<A> & string;
export type InputName<A extends Atlas, Name extends BehaviourName<A>> = keyof Behaviours<A>[Name]["inputs"] & string;
export type RuleName<A extends Atlas, Name extends BehaviourName<A>> = Behaviours<A>[Name]["rules"][number]["name"];

/** What to draw now, and the rule that chose it; null where none holds. */
export type BehaviourNow<A extends Atlas, Rule extends string = string> = Now<A> & { rule: Rule | null };

export interface Behaviour<A extends Atlas = Atlas, Name extends BehaviourName<A> = BehaviourName<A>> {
  /** A button goes down or up. Repeating its state does nothing. Throws for names that are not buttons. */
  press(name: InputName<A, Name>): void;
  release(name: InputName<A, Name>): void;
  /** Sets a switch or a number. Throws on other inputs and on values that do not fit. */
  set(name: InputName<A, Name>, value: boolean | number): void;
  /** The figure's direction: a facing, or degrees clockwise on the screen from 0° = e, rounded to the nearest facing. */
  face(facing: FacingName | number): void;
  /** Moves on by milliseconds since the last call; negative ones count as 0. Throws a RangeError on NaN and Infinity. */
  advance(ms: number): BehaviourNow<A, RuleName<A, Name>>;
  /** The rule that shows now; null where none holds. */
  readonly rule: RuleName<A, Name> | null;
}

/** How far beyond the middle between two facings a direction must turn before the figure does, in degrees: it does not jitter there. */
const DEAD_BAND = 6;

/**
 * Throws an Error for anything but an atlas file, for a version newer than this player, and for a behaviour that the atlas does not have.
 */
export function createBehaviour<A extends Atlas, Name extends BehaviourName<A>>(atlas: A, name: Name): Behaviour<A, Name> {
  checkAtlas(atlas);
  const found = own(atlas.behaviours, name);
  if (!found) throw unknownName("behaviour", name, Object.keys(atlas.behaviours ?? {}));
  const { program, laid } = programOf(atlas, {
    // The file's form; the types only say that it is read.
    inputs: Object.entries(found.inputs).map(([input, rest]) => ({ name: input, ...rest })) as Rules["inputs"],
    rules: found.rules as unknown as Rules["rules"],
  });
  let run: Run = runFromStart(program);
  let elapsed = 0;
  let facing: FacingName = "s";
  let fired: Fired = { events: [], values: [] };
  let told: State | null = null;
  const tell = (current: Current, until: number) => {
    const found = laid(current.cast.clip);
    if (found.hasEvents) for (const { step } of entriesUntil(current, until, told)) fire(fired, found, step);
  };
  const onPast = ({ left, now }: Run) => {
    for (const each of left) tell(each, now.at - 1);
  };
  const give = (given: Given) => {
    run = runGiven(program, run, [given]);
  };
  const checked = (input: string, value?: boolean | number): string => {
    const { kind } = program.inputs.find((each) => each.name === input) ?? {};
    if (!kind) throw unknownName("input", input, Object.keys(found.inputs));
    const given = value === undefined ? "button" : value === !!value ? "switch" : Number.isFinite(value) && "number";
    if (kind !== given) throw new RangeError(`"${input}" is a ${kind}; it takes no ${value ?? "press"}.`);
    return input;
  };
  const rule = () => (run.now.current && (program.rules[run.now.current.rule]?.name as RuleName<A, Name>)) ?? null;

  return {
    press: (input) => give({ press: checked(input) }),
    release: (input) => give({ release: checked(input) }),
    set: (input, value) => give({ set: { [checked(input, value)]: value } }),
    face(wanted) {
      const next = typeof wanted === "number" ? facingNear(wanted, facing) : wanted;
      if (!FACINGS.includes(next)) throw new RangeError(`face takes a facing or degrees, not ${wanted}.`);
      facing = next;
      give({ face: facing });
    },
    advance(ms) {
      elapsed += Math.max(0, checkedMs(ms)) * 1000;
      run = runUntil(program, run, Math.round(elapsed), onPast);
      const { now } = run;
      const { current } = now;
      onPast(run);
      if (current) tell(current, now.at);
      told = now;
      const passed = fired;
      fired = { events: [], values: [] };
      const shown = current
        ? { ...shownAt(laid(current.cast.clip), ownTime(now, current)), clip: current.cast.clip, mirror: current.cast.mirror }
        : NOTHING;
      return { ...shown, ...passed, rule: rule() } as BehaviourNow<A, RuleName<A, Name>>;
    },
    get rule() {
      return rule();
    },
  };
}

function programOf(atlas: Atlas, rules: Rules): { program: Program; laid: (clip: string) => Laid } {
  const clips = new Map<string, Laid>();
  const casts = new Map<string, ReturnType<Program["cast"]>>();
  const laid = (clip: string): Laid => {
    const known = clips.get(clip) ?? lay(own(atlas.clips, clip) as AtlasClip);
    clips.set(clip, known);
    return known;
  };
  const cast: Program["cast"] = (play, facing) => {
    const petal = petalOf(atlas, play, facing);
    if (!petal) return null;
    // The same cast for the same clip: turning to what shows already is no turn.
    const key = `${petal.mirror} ${petal.clip}`;
    const known = casts.get(key) ?? { ...petal, timeline: laid(petal.clip).timeline };
    casts.set(key, known);
    return known;
  };
  return { program: { ...rules, cast }, laid };
}

/** The facing nearest to a direction; the one of before as long as the direction is hardly nearer to another. */
function facingNear(degrees: number, before: FacingName): FacingName {
  const apart = Math.abs(((((degrees - FACINGS.indexOf(before) * 45) % 360) + 540) % 360) - 180);
  return apart <= 22.5 + DEAD_BAND ? before : (FACINGS[((Math.round(degrees / 45) % 8) + 8) % 8] as FacingName);
}
