/**
 * What the player plays: worked out from the document and from where the person is, at every stop. Pure, and tested.
 */
import { USUAL_STEP } from "@caravan/core/edit";
import {
  type Clip,
  type FramePoint,
  type FrameRef,
  findFrame,
  frameName,
  keptRefs,
  lookOf,
  type Micros,
  originOf,
  PLAIN_LOOP,
  type Project,
  type Source,
  sheetOf,
} from "@caravan/core/model";
import { chosenClip, chosenSource, pickedFrames, rowRefs, type View } from "../project/view";
import { type Still, stillOf } from "./draw-frame";

/** A frame as the player draws it. */
export interface PlayedFrame extends Still {
  readonly name: string;
  readonly origin: FramePoint;
}

export interface PlayedStep {
  readonly duration: Micros;
  /** Null for a frame that is dropped or no longer cut. */
  readonly frame: PlayedFrame | null;
  readonly events?: readonly string[];
}

export interface Playing {
  /** Playing starts over when this changes, and goes on when it does not. */
  readonly key: string;
  readonly title: string;
  /** What is being played when it is no clip. */
  readonly note: string | null;
  readonly steps: readonly PlayedStep[];
  readonly rules: Pick<Clip, "playback" | "times" | "loopFrom" | "after" | "doubleEnds">;
}

/** Null when there is nothing to play yet. */
export function playingOf(project: Project, view: View): Playing | null {
  switch (view.stop) {
    case "clips":
    case "ship": {
      const clip = chosenClip(project, view);
      return clip ? ofClip(project, clip) : null;
    }
    case "frames":
      return ofFrames(project, view);
    case "sources": {
      const source = chosenSource(project, view);
      return source && ofSource(project, source);
    }
  }
}

/** Clips of thousands of steps are asked for at every change of place; neither they nor sources change in place. */
const clipsSeen = new WeakMap<Clip, { readonly sources: Project["sources"]; readonly playing: Playing }>();

function ofClip(project: Project, clip: Clip): Playing | null {
  if (clip.steps.length === 0) return null;
  const seen = clipsSeen.get(clip);
  if (seen?.sources === project.sources) return seen.playing;
  const steps = clip.steps.map(({ frame, duration, events }) => ({
    duration,
    frame: playedFrame(project, frame),
    ...(events ? { events } : {}),
  }));
  const playing = { key: `clip ${clip.name}`, title: clip.name, note: null, steps, rules: clip };
  clipsSeen.set(clip, { sources: project.sources, playing });
  return playing;
}

function ofFrames(project: Project, view: View): Playing | null {
  const source = chosenSource(project, view);
  if (!source) return null;
  if (view.hoverRow !== null) {
    const refs = rowRefs(source, view.hoverRow);
    if (refs.length > 0) return ofRefs(project, `row ${view.hoverRow} of ${source.id}`, `row ${view.hoverRow} of ${source.name}`, refs);
  }
  const picked = pickedFrames(project, view);
  if (picked.length > 0) return ofRefs(project, "picked", `${picked.length} picked ${picked.length === 1 ? "frame" : "frames"}`, picked);
  return ofSource(project, source);
}

/** The first row of a sheet that is cut, else the whole picture. */
function ofSource(project: Project, source: Source): Playing | null {
  const kept = keptRefs(source);
  const firstRow = kept[0] ? (findFrame(project, kept[0])?.frame.row ?? 0) : 0;
  const refs = rowRefs(source, firstRow);
  if (refs.length > 0) return ofRefs(project, `row ${firstRow} of ${source.id}`, `row ${firstRow} of ${source.name}`, refs);
  const { width: w, height: h } = sheetOf(source);
  const { name } = source;
  const rect = { x: 0, y: 0, w, h };
  const look = lookOf(source, sheetOf(source));
  const frame = { name, look, rect, turned: false, size: { w, h }, inset: { x: 0, y: 0 }, origin: { x: w / 2, y: h } };
  return { key: `whole ${source.id}`, title: name, note: "not cut yet", steps: [{ duration: USUAL_STEP, frame }], rules: PLAIN_LOOP };
}

function ofRefs(project: Project, key: string, title: string, refs: readonly FrameRef[]): Playing {
  const steps = refs.map((ref) => ({ duration: USUAL_STEP, frame: playedFrame(project, ref) }));
  return { key, title, note: "not a clip yet", steps, rules: PLAIN_LOOP };
}

export function playedFrame(project: Project, ref: FrameRef): PlayedFrame | null {
  const found = findFrame(project, ref);
  if (!found || found.frame.dropped) return null;
  const { source, frame } = found;
  return { name: frameName(source, frame), ...stillOf(source, frame), origin: originOf(source, frame) };
}
