/** Decides what the player plays at each stop, from the document and the current selection. Pure, and tested. */

import { nearestPresent } from "@caravan/core/facing";
import { facingOfClip } from "@caravan/core/marks";
import {
  type Action,
  type ActionName,
  type Clip,
  type Facing,
  type Frame,
  type FrameRef,
  facingsPresent,
  findFrame,
  frameName,
  frameRef,
  isOfPieces,
  keptRefs,
  type Micros,
  originOf,
  PLAIN_LOOP,
  type Project,
  type Source,
  sheetOf,
  USUAL_STEP,
  type Ways,
} from "@caravan/core/model";
import { chosenAction, chosenClip, chosenSource, pickedFrames, rowRefs, type View } from "../project/view";
import { nameAnd, t } from "../ui/words";
import { type Still, stillOf } from "./draw-frame";
import { type Hanging, hangingOn } from "./hanging";
import type { PlayedFrame } from "./played-frame";
import { chosenReel } from "./reel";

export type { PlayedFrame } from "./played-frame";

export interface PlayedStep {
  readonly duration: Micros;
  /** Null for a frame that is dropped or no longer cut. */
  readonly frame: PlayedFrame | null;
  readonly events?: readonly string[];
}

export interface Playing {
  /** Playback restarts when this changes, and continues otherwise. */
  readonly key: string;
  readonly title: string;
  /** What is playing if it is not a clip. */
  readonly note: string | null;
  readonly steps: readonly PlayedStep[];
  readonly rules: Pick<Clip, "playback" | "times" | "loopFrom" | "after" | "doubleEnds">;
  /** Set when it is a whole clip, whose timeline it then shares. */
  readonly clip?: Clip;
  /** Drawn mirrored left to right about the origin. */
  readonly mirror?: boolean;
  /** Where it looks, for what hangs on it. */
  readonly facing?: Facing;
  /** What hangs on it. */
  readonly hanging?: Hanging;
  /** Set when an action is played, which can be turned. */
  readonly turning?: Turning;
}

/** An action in one facing. */
export interface Turning {
  readonly action: ActionName;
  readonly ways: Ways;
  /** The requested facing, and the one shown, since that may be missing. */
  readonly wanted: Facing;
  readonly shown: Facing;
  /** Everything it can play, so that the stage has room for every facing. */
  readonly poses: readonly Playing[];
}

/** Playback state outside the document and the view: an action's facing, and whether only the selected steps play. */
export interface PlayWish {
  readonly facing: Facing;
  readonly onlyChosen: boolean;
}

/** At Sources: the first row of the chosen source. */
export function playingAtSources(project: Project, view: View): Playing | null {
  const source = chosenSource(project, view);
  return source && ofSource(project, source);
}

/** At Frames: the row under the pointer, or the picked frames, or the first row. */
export function playingAtFrames(project: Project, view: View): Playing | null {
  const source = chosenSource(project, view);
  if (!source) return null;
  if (view.hoverRow !== null) {
    const refs = rowRefs(source, view.hoverRow);
    if (refs.length > 0)
      return ofRefs(
        project,
        `row ${view.hoverRow} of ${source.id}`,
        t("row {row} of {name}", { row: view.hoverRow, name: source.name }),
        refs,
      );
  }
  const picked = pickedFrames(project, view);
  // On the bench a click opens a frame, and its clip plays.
  const onBench = isOfPieces(source) && picked.length === 1 ? ofFrameOnBench(project, source, view) : null;
  if (onBench) return onBench;
  if (picked.length > 0)
    return ofRefs(
      project,
      "picked",
      picked.length === 1 ? t("1 picked frame") : t("{count} picked frames", { count: picked.length }),
      picked,
    );
  return (isOfPieces(source) && ofFrameOnBench(project, source, view)) || ofSource(project, source);
}

/** The clip with the frame at the cursor, so that it moves with every change. */
function ofFrameOnBench(project: Project, source: Source, { cursor }: View): Playing | null {
  const frame = cursor ?? (source.frames[0] ? frameRef(source, source.frames[0]) : null);
  const clip = project.clips.find(({ steps }) => steps.some((step) => step.frame === frame));
  return clip ? playingOfClip(project, clip) : null;
}

/** At Clips: the selected action in its facing, or the selected clip, or its selected steps only. */
export function playingAtClips(project: Project, view: View, wish: PlayWish): Playing | null {
  const action = chosenAction(project, view);
  if (action) return ofAction(project, action, wish.facing);
  return playingAtShip(project, view, wish);
}

/** At Marks: the clip or source that is stepped through. */
export function playingAtMarks(project: Project, view: View): Playing | null {
  const reel = chosenReel(project, view);
  if (!reel?.source) return reel && playingOfClip(project, reel.clip);
  return ofRefs(project, `all of ${reel.source.id}`, reel.source.name, keptRefs(reel.source));
}

/** At Ship: the chosen clip. */
export function playingAtShip(project: Project, view: View, wish: PlayWish): Playing | null {
  const clip = chosenClip(project, view);
  return clip && (wish.onlyChosen ? onlyChosen(project, clip, view.steps) : playingOfClip(project, clip));
}

/** The selected steps in a loop, or the whole clip. */
function onlyChosen(project: Project, clip: Clip, chosen: readonly number[]): Playing | null {
  const whole = playingOfClip(project, clip);
  const steps = chosen.flatMap((k) => whole?.steps[k] ?? []);
  if (!whole || steps.length === 0 || steps.length === whole.steps.length) return whole;
  const note = steps.length === 1 ? t("only 1 step") : t("only {count} steps", { count: steps.length });
  return { key: `${whole.key} ${chosen.join()}`, title: whole.title, note, steps, rules: PLAIN_LOOP };
}

const actionsSeen = new WeakMap<Action, { readonly project: Project; readonly poses: ReadonlyMap<Facing, Playing> }>();

/** An action in a facing, or its fallback. Its key is the same in all facings: turning keeps the phase. */
function ofAction(project: Project, action: Action, wanted: Facing): Playing | null {
  const { name, ways } = action;
  const poses = posesOf(project, action);
  const shown = nearestPresent(wanted, [...poses.keys()]);
  const pose = shown === null ? undefined : poses.get(shown);
  if (!pose || shown === null) return null;
  const { title, mirror } = pose;
  const note = nameAnd(title, mirror && t("mirrored"));
  return { ...pose, key: `action ${name}`, title: name, note, turning: { action: name, ways, wanted, shown, poses: [...poses.values()] } };
}

function posesOf(project: Project, action: Action): ReadonlyMap<Facing, Playing> {
  const seen = actionsSeen.get(action);
  if (seen && seen.project.clips === project.clips && seen.project.sources === project.sources && samePartsIn(seen.project, project))
    return seen.poses;
  const poses = new Map<Facing, Playing>();
  for (const facing of facingsPresent(action)) {
    const petal = action.facings[facing];
    const clip = petal && project.clips.find((each) => each.name === petal.clip);
    const playing = clip && playingOfClip(project, clip);
    if (playing) poses.set(facing, { ...playing, facing, ...(petal.mirror ? { mirror: true } : {}) });
  }
  actionsSeen.set(action, { project, poses });
  return poses;
}

/** Clips with thousands of steps are requested at every change; neither they nor sources change in place. */
const clipsSeen = new WeakMap<Clip, { readonly project: Project; readonly playing: Playing }>();

/** Whether what hangs on clips is the same in both. */
function samePartsIn(a: Project, b: Project): boolean {
  return a.parts === b.parts && (a.parts === undefined || (a.clips === b.clips && a.actions === b.actions));
}

/** A clip for playing; null without steps. */
export function playingOfClip(project: Project, clip: Clip): Playing | null {
  if (clip.steps.length === 0) return null;
  const seen = clipsSeen.get(clip);
  const before = seen?.project;
  if (seen && before?.sources === project.sources && before.palettes === project.palettes && samePartsIn(before, project))
    return seen.playing;
  const steps = clip.steps.map(({ frame, duration, events }) => ({
    duration,
    frame: playedFrame(project, frame),
    ...(events ? { events } : {}),
  }));
  const hanging = hangingOn(project, clip, (ref) => playedFrame(project, ref));
  const playing: Playing = {
    ...{ key: `clip ${clip.name}`, title: clip.name, note: null, steps, rules: clip, clip },
    ...(hanging ? { hanging, facing: facingOfClip(project, clip) } : {}),
  };
  clipsSeen.set(clip, { project, playing });
  return playing;
}

/** The frames of the row that plays at Frames while none are picked: the one under the pointer, or the first. */
export function rowThatPlays(project: Project, view: View): readonly FrameRef[] {
  const source = chosenSource(project, view);
  if (!source) return [];
  const hovered = view.hoverRow === null ? [] : rowRefs(source, view.hoverRow);
  return hovered.length > 0 ? hovered : rowRefs(source, firstRowOf(project, source));
}

function firstRowOf(project: Project, source: Source): number {
  const [first] = keptRefs(source);
  return first ? (findFrame(project, first)?.frame.row ?? 0) : 0;
}

/** The first row of a cut sheet, or the whole picture. */
function ofSource(project: Project, source: Source): Playing | null {
  const firstRow = firstRowOf(project, source);
  const refs = rowRefs(source, firstRow);
  if (refs.length > 0)
    return ofRefs(project, `row ${firstRow} of ${source.id}`, t("row {row} of {name}", { row: firstRow, name: source.name }), refs);
  if (source.pictures.length === 0) return null;
  const { width: w, height: h } = sheetOf(source);
  const { name } = source;
  const whole = stillOf(project, source, { rect: { x: 0, y: 0, w, h } });
  const frame = { name, ...whole, origin: { x: whole.size.w / 2, y: whole.size.h } };
  return { key: `whole ${source.id}`, title: name, note: t("not cut yet"), steps: [{ duration: USUAL_STEP, frame }], rules: PLAIN_LOOP };
}

function ofRefs(project: Project, key: string, title: string, refs: readonly FrameRef[]): Playing {
  const steps = refs.map((ref) => ({ duration: USUAL_STEP, frame: playedFrame(project, ref) }));
  return { key, title, note: t("not a clip yet"), steps, rules: PLAIN_LOOP };
}

/** Sources and frames never change in place; a frame that plays again keeps cached results such as its ghosts. */
const played = new WeakMap<Frame, { readonly source: Source; readonly as: PlayedFrame }>();

function sameLayers(a: Pick<Still, "layers">, b: Pick<Still, "layers">): boolean {
  return (
    a.layers.length === b.layers.length && a.layers.every(({ look, blend }, k) => look === b.layers[k]?.look && blend === b.layers[k].blend)
  );
}

export function playedFrame(project: Project, ref: FrameRef): PlayedFrame | null {
  const found = findFrame(project, ref);
  if (!found || found.frame.dropped) return null;
  const { source, frame } = found;
  const known = played.get(frame);
  if (known?.source === source && sameLayers(known.as, stillOf(project, source, frame))) return known.as;
  const as = {
    name: frameName(source, frame),
    ref,
    ...stillOf(project, source, frame),
    origin: originOf(source, frame),
    marks: frame.marks,
  };
  played.set(frame, { source, as });
  return as;
}
