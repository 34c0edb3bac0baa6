/** Finds the walks of a project's stages, for checking their feet. */
import { type Drawn, frameLook, type Stock } from "../art";
import { type Clip, type Facing, findFrame, originOf, type PlacedFrame, type Project, type Stage } from "../model";
import { type Feet, feetOf, footFrame, steadySpeed } from "./feet";

export interface Walk {
  readonly feet: Feet;
  /** In px per second, positive along +x; null if no foot ever moves back. */
  readonly steady: { readonly speed: number; readonly worst: number } | null;
}

/** A clip that walks, with the frames of its steps. */
export interface WalkingClip {
  readonly clip: Clip;
  readonly placed: readonly PlacedFrame[];
}

const SIDEWAYS: readonly Facing[] = ["e", "w"];

/**
 * What a stage's behaviour plays sideways when the rule's speed input is fed. Null without such a rule, or with a missing frame in its
 * clip.
 */
export function walkingClip(project: Project, stage: Stage): WalkingClip | null {
  const behaviour = project.behaviours?.find(({ name }) => name === stage.behaviour);
  const rule = behaviour?.rules.find(
    ({ off, when }) => !off && when.some((each) => "input" in each && each.input === stage.feeds.speed && "above" in each),
  );
  const action = project.actions.find(({ name }) => (name as string) === rule?.play);
  const petal = SIDEWAYS.map((facing) => action?.facings[facing]).find((each) => each);
  const clip = project.clips.find(({ name }) => (name as string) === (petal?.clip ?? rule?.play));
  const placed = clip?.steps.flatMap(({ frame }) => findFrame(project, frame) ?? []) ?? [];
  return clip && placed.length > 0 && placed.length === clip.steps.length ? { clip, placed } : null;
}

/** Everything that a walk's feet depend on, as a text: cached results are valid while it stays the same. */
export function walkKey(stock: Stock, { clip, placed }: WalkingClip): string {
  return JSON.stringify(
    placed.map(({ source, frame }, step) => [
      frameLook(stock, source, frame).key,
      source.scale,
      frame.rect,
      frame.turned,
      frame.inset,
      originOf(source, frame),
      clip.steps[step]?.duration,
    ]),
  );
}

/** The feet of a walk, from the drawings of its steps. Cost: about 1,200 speeds × steps. */
export function walkOf({ clip, placed }: WalkingClip, drawn: readonly Drawn[]): Walk {
  const feet = feetOf(
    drawn.map((each, step) => {
      const { source, frame } = placed[step] as PlacedFrame;
      return footFrame(each, originOf(source, frame), clip.steps[step]?.duration ?? 0);
    }),
  );
  return { feet, steady: steadySpeed(feet) };
}
