/**
 * The current stop, selection and picks: kept apart from the document, and never saved with it.
 *
 * An edit or undo may remove what is selected, so screens use the functions below, which return only what exists.
 */
import type { Place } from "@caravan/core/check";
import {
  type Action,
  type ActionName,
  type Clip,
  type ClipName,
  type FrameRef,
  findFrame,
  type MarkKind,
  type MarkName,
  type Project,
  type Source,
  type SourceId,
  type Stage,
  type StageName,
} from "@caravan/core/model";
import { create } from "zustand";

export const STOPS = ["sources", "frames", "clips", "marks", "rehearse", "ship"] as const;
export type Stop = (typeof STOPS)[number];

/** Ways in which a person cuts a sheet; metadata and series bring their own. */
export type Way = "cells" | "regions" | "outlines" | "hand";

/** What the surface at Clips is for: the steps in time, two frames in turn, clips side by side, or their times as a chart. */
export const BENCHES = ["ribbons", "flick", "compare", "rhythm"] as const;
export type Bench = (typeof BENCHES)[number];

export interface View {
  readonly stop: Stop;
  readonly sourceId: SourceId | null;
  readonly clipName: ClipName | null;
  /** Clips selected together with the chosen one, to be changed at once; empty for that one alone. */
  readonly clipNames: readonly ClipName[];
  /** The action that is worked on at Clips instead of a clip. */
  readonly actionName: ActionName | null;
  readonly bench: Bench;
  /** Frames in the order in which they were picked. */
  readonly picked: readonly FrameRef[];
  /** The frame that keys act on. */
  readonly cursor: FrameRef | null;
  /** The row of cells under the pointer. */
  readonly hoverRow: number | null;
  /** Chosen steps of the chosen clip, by index, ascending. */
  readonly steps: readonly number[];
  /** True right after a clip or a kind of marks was made: its name waits to be typed. */
  readonly naming: boolean;
  /** The way of cutting that was chosen for the chosen source, null for the one it is cut by. */
  readonly way: Way | null;
  /** Which region of a sheet of several grids is worked on, by index. */
  readonly region: number;
  /** Which kind of boxes or points is worked on at Marks; null for the origin. */
  readonly markName: MarkName | null;
  /** The source whose frames Marks steps through instead of a clip's. */
  readonly reelSource: SourceId | null;
  /** The stage that is rehearsed on, and the rule that is worked on there. */
  readonly stageName: StageName | null;
  readonly ruleName: string | null;
  /** Which delivery is worked on at Ship, by index. */
  readonly delivery: number;
}

export const START: View = {
  stop: "frames",
  sourceId: null,
  clipName: null,
  clipNames: [],
  actionName: null,
  bench: "ribbons",
  picked: [],
  cursor: null,
  hoverRow: null,
  steps: [],
  naming: false,
  way: null,
  region: 0,
  markName: null,
  reelSource: null,
  stageName: null,
  ruleName: null,
  delivery: 0,
};

export const useView = create<View>(() => START);

/** Restores the user's place in a project or, for the first time, the stop where work begins. Nothing else is carried over. */
export function beginAt(
  project: Project,
  place: { readonly stop: string; readonly source: string | null; readonly clip: string | null } | undefined,
): void {
  const stop = STOPS.find((each) => each === place?.stop) ?? (project.sources.length > 0 ? "frames" : "sources");
  useView.setState({
    ...START,
    stop,
    sourceId: (place?.source ?? null) as SourceId | null,
    clipName: (place?.clip ?? null) as ClipName | null,
  });
}

export function go(stop: Stop): void {
  useView.setState({ stop, hoverRow: null, ...(stop === "clips" || stop === "marks" ? {} : { naming: false }) });
}

export function chooseSource(sourceId: SourceId | string): void {
  useView.setState({ sourceId: sourceId as SourceId, hoverRow: null, cursor: null, way: null, region: 0 });
}

export function chooseClip(clipName: ClipName): void {
  const { clipName: before, clipNames, actionName, reelSource } = useView.getState();
  if (before !== clipName) useView.setState({ clipName, steps: [] });
  if (clipNames.length > 0) useView.setState({ clipNames: [] });
  if (actionName !== null) useView.setState({ actionName: null });
  if (reelSource !== null) useView.setState({ reelSource: null, steps: [] });
}

/**
 * Adds a clip to the selection or removes it; with `run`, selects all from the current one to it among those `listed`, so that no filtered
 * clip is selected.
 */
export function chooseClipToo(project: Project, name: ClipName, run: boolean, listed: readonly ClipName[]): void {
  const view = useView.getState();
  const now = chosenClip(project, view)?.name;
  if (now === undefined || view.actionName !== null) {
    chooseClip(name);
    return;
  }
  const all = project.clips.map((clip) => clip.name);
  if (run) {
    const [from, to] = [Math.max(0, listed.indexOf(now)), listed.indexOf(name)].sort((a, b) => a - b) as [number, number];
    const between = listed.slice(from, to + 1);
    // The chosen clip may be hidden itself: then the first of the run is chosen.
    if (!between.includes(now)) useView.setState({ clipName: between[0] ?? name, steps: [] });
    useView.setState({ clipNames: between });
    return;
  }
  const selected = new Set(view.clipNames.length > 0 ? view.clipNames : [now]);
  if (selected.has(name)) selected.delete(name);
  else selected.add(name);
  const left = all.filter((each) => selected.has(each));
  const [first] = left;
  if (first !== undefined && !selected.has(now)) useView.setState({ clipName: first, steps: [] });
  useView.setState({ clipNames: left });
}

/** The clips that are selected together and are still there, in their order; fewer than two are none. */
export function clipsTogether(project: Project, { clipNames, actionName }: Pick<View, "clipNames" | "actionName">): readonly Clip[] {
  if (clipNames.length < 2 || actionName !== null) return NONE_TOGETHER;
  const selected = new Set(clipNames);
  const clips = project.clips.filter((clip) => selected.has(clip.name));
  return clips.length < 2 ? NONE_TOGETHER : clips;
}

const NONE_TOGETHER: readonly Clip[] = [];

/** Opens this clip at Marks, even if a source was shown there before. */
export function goToMarks(clipName: ClipName): void {
  chooseClip(clipName);
  go("marks");
}

/** Opens all frames of a source at Marks. */
export function chooseReelSource(reelSource: SourceId): void {
  useView.setState({ reelSource, steps: [] });
}

export function chooseAction(actionName: ActionName): void {
  useView.setState({ actionName, steps: [] });
}

/** Opens the place of a finding, and selects its subject. */
export function goToPlace(place: Place, project: Project): void {
  if ("action" in place) chooseAction(place.action);
  else if (place.stop === "marks") {
    chooseClip(place.clip);
    useView.setState({ steps: place.steps ?? [], markName: place.mark });
  } else if ("clip" in place) {
    chooseClip(place.clip);
    useView.setState({ steps: place.steps ?? [], bench: "ribbons" });
  } else if (place.stop === "frames") {
    const [source] = place.frame.split("/");
    useView.setState({ sourceId: source as SourceId, cursor: place.frame });
  } else if (place.stop === "ship") useView.setState({ delivery: place.delivery });
  else if (place.stop === "rehearse") chooseBehaviour(project.stages ?? [], place);
  else if (place.source) useView.setState({ sourceId: place.source });
  go(place.stop);
}

/** To the stage that is meant or the first of a behaviour, and one of its rules. */
function chooseBehaviour(stages: readonly Stage[], { behaviour, rule, stage: name }: Extract<Place, { stop: "rehearse" }>): void {
  const stage = stages.find((each) => (name === undefined ? each.behaviour === behaviour : each.name === name));
  useView.setState({ stageName: stage?.name ?? null, ruleName: rule ?? null });
}

/** The selected stage if it still exists, otherwise the first. */
export function chosenStage({ stages = [] }: Project, { stageName }: Pick<View, "stageName">): Stage | null {
  return stages.find(({ name }) => name === stageName) ?? stages[0] ?? null;
}

/** The selected source if it still exists, otherwise the first. */
export function chosenSource(project: Project, { sourceId }: Pick<View, "sourceId">): Source | null {
  return project.sources.find((source) => source.id === sourceId) ?? project.sources[0] ?? null;
}

/** The selected clip if it still exists, otherwise the first. */
export function chosenClip(project: Project, { clipName }: Pick<View, "clipName">): Clip | null {
  return project.clips.find((clip) => clip.name === clipName) ?? project.clips[0] ?? null;
}

/** The index of the selected delivery if it still exists, otherwise of the first. */
export function chosenDelivery(project: Project, { delivery }: Pick<View, "delivery">): number {
  return delivery < project.deliveries.length ? delivery : 0;
}

/** The chosen action if it is still there. */
export function chosenAction(project: Project, { actionName }: Pick<View, "actionName">): Action | null {
  return project.actions.find((action) => action.name === actionName) ?? null;
}

/** The chosen kind of marks if it is still there; null for the origin. */
export function chosenMark(project: Project, { markName }: Pick<View, "markName">): MarkKind | null {
  return project.marks.find(({ name }) => name === markName) ?? null;
}

/** Picked frames that are still there and not dropped, in picking order. */
export function pickedFrames(project: Project, { picked }: Pick<View, "picked">): FrameRef[] {
  return picked.filter((ref) => {
    const found = findFrame(project, ref);
    return found !== null && !found.frame.dropped;
  });
}

/** Picks or unpicks a frame. */
export function togglePick(ref: FrameRef): void {
  useView.setState(({ picked }) => ({
    picked: picked.includes(ref) ? picked.filter((each) => each !== ref) : [...picked, ref],
    cursor: ref,
  }));
}

/** Picks a run: unpicked frames of `order` from the last picked one to `ref`, in that direction. */
export function pickRun(order: readonly FrameRef[], ref: FrameRef): void {
  useView.setState(({ picked }) => {
    const to = order.indexOf(ref);
    const last = picked.at(-1);
    const from = last ? order.indexOf(last) : -1;
    if (to < 0) return {};
    if (from < 0) return { picked: [...picked, ref], cursor: ref };
    const run = from <= to ? order.slice(from, to + 1) : order.slice(to, from + 1).reverse();
    return { picked: [...picked, ...run.filter((each) => !picked.includes(each))], cursor: ref };
  });
}

/** Picks all of `refs`, in order; unpicks them if all were picked already. */
export function togglePicks(refs: readonly FrameRef[]): void {
  useView.setState(({ picked }) => {
    const has = new Set(picked);
    if (refs.length > 0 && refs.every((ref) => has.has(ref))) {
      const gone = new Set(refs);
      return { picked: picked.filter((ref) => !gone.has(ref)) };
    }
    return { picked: [...picked, ...refs.filter((ref) => !has.has(ref))], ...(refs[0] ? { cursor: refs[0] } : {}) };
  });
}

export function clearPicks(): void {
  useView.setState({ picked: [] });
}

/** Frames of one row of a source that are not dropped, from left to right. */
export function rowRefs(source: Source, row: number): FrameRef[] {
  return source.frames.filter((frame) => frame.row === row && !frame.dropped).map((frame) => `${source.id}/${frame.key}` as FrameRef);
}
