/** Proposes a first behaviour and stage from the roles of a character's actions. */
import {
  type Behaviour,
  type BehaviourName,
  findFrame,
  frameSize,
  freeName,
  type Input,
  type Project,
  type Rule,
  type Stage,
  type StageName,
} from "../model";
import { t } from "../words";
import { playables, type Roles } from "./roles";

/** Keys for acts, in the order in which they are given out: near the left hand, while the right one holds the arrows. */
const ACT_KEYS = ["Space", "KeyF", "KeyD", "KeyS"];

const ARROWS: Stage["keys"] = [
  { code: "ArrowLeft", go: "left" },
  { code: "ArrowRight", go: "right" },
  { code: "ArrowUp", go: "up" },
  { code: "ArrowDown", go: "down" },
];

/** Slower than this is standing, in px a second. */
const STANDS = 4;
/** How long a press waits while something else is kept, in ms: about as early as a hand presses. */
const PATIENCE = 120;

export interface Proposal {
  readonly behaviour: Behaviour;
  readonly stage: Stage;
}

/** The behaviour made from the roles: acts above moving, moving above standing. Names come from what plays. */
export function proposed(project: Project, roles: Roles, name: string): Proposal {
  const inputs: Input[] = [];
  const rules: Rule[] = [];
  const { stand, move, jump, fall, acts } = roles;
  const taken = new Set<string>();
  const ruleName = (wanted: string): string => {
    const name = freeName(wanted, taken, " ");
    taken.add(name);
    return name;
  };
  // An act may have the name of a stage input.
  const inputName = (wanted: string) => freeName(wanted, new Set(acts), " ");
  for (const act of acts) {
    inputs.push({ name: act, kind: "button", bufferMs: PATIENCE });
    rules.push({ name: ruleName(act), when: [{ input: act, is: "pressed" }], play: act, keep: "whole", turns: false });
  }
  const view = project.actions.some(({ name: each, ways, facings }) => (each as string) === move && ways >= 4 && (facings.n || facings.s))
    ? "above"
    : "side";
  const [speed, rise, air] = [inputName("speed"), inputName("rise"), inputName("air")];
  const feeds: Stage["feeds"] = { speed, ...(view === "side" && (jump || fall) ? { rise, air } : {}) };
  if (feeds.air) {
    inputs.push({ name: air, kind: "switch" }, { name: rise, kind: "number" });
    if (fall)
      rules.push({
        name: ruleName(fall),
        when: [
          { input: air, is: true },
          { input: rise, below: 0 },
        ],
        play: fall,
      });
    if (jump) rules.push({ name: ruleName(jump), when: [{ input: air, is: true }], play: jump });
  }
  inputs.push({ name: speed, kind: "number" });
  if (move) rules.push({ name: ruleName(move), when: [{ input: speed, above: STANDS }], play: move, phase: "carry" });
  if (stand ?? move) rules.push({ name: ruleName(stand ?? "stand"), when: [], play: (stand ?? move) as string });
  const behaviour: Behaviour = { name: name as BehaviourName, inputs, rules };
  const keys = [...ARROWS, ...acts.map((input, k) => ({ code: ACT_KEYS[k] ?? `Digit${k}`, input }))];
  return {
    behaviour,
    stage: {
      ...stageFor(project, move ?? stand, view),
      name: t("{name} road", { name }) as StageName,
      behaviour: behaviour.name,
      feeds,
      keys,
    },
  };
}

/** The height of what plays, in px: its first frame. */
function heightOf(project: Project, name: string | null): number {
  const ref = playables(project).find((each) => each.name === name)?.clips[0]?.steps[0]?.frame;
  const found = ref && findFrame(project, ref);
  return found ? frameSize(found.source, found.frame).h : 32;
}

/** An empty stage of a usual size, with the speeds of a walker as tall as what walks. */
export function stageFor(project: Project, walker: string | null, view: Stage["view"]): Stage {
  const tall = heightOf(project, walker);
  const size = { w: 320, h: 180 };
  return {
    name: "road" as StageName,
    view,
    behaviour: "" as BehaviourName,
    size,
    world: view === "side" ? { w: 640, h: 180 } : { w: 640, h: 360 },
    ground: view === "side" ? 150 : 80,
    start: { x: 160, y: view === "side" ? 150 : 170, facing: view === "side" ? "e" : "s" },
    camera: "follows",
    backdrop: "land",
    movement: { speed: tall, start: tall * 8, stop: tall * 10, jump: Math.round(tall * 0.9), gravity: 900 },
    body: null,
    feeds: {},
    keys: ARROWS,
    platforms: [],
    zones: [],
    effects: [],
    extras: [],
    hits: [],
  };
}
