/** What stands on the stage in a state, in names. */
import { ownTime, type Program, type State } from "../behave";
import { type Clip, type FrameRef, findFrame, frameName, type Project } from "../model";

export interface ShownNow {
  readonly rule: string | null;
  readonly clip: string | null;
  readonly mirror: boolean;
  /** The frame's name; null when nothing is to be drawn. */
  readonly frame: string | null;
  readonly step: number;
  readonly ended: boolean;
  readonly visible: boolean;
}

/** The frame that a state shows, as a reference: null when nothing is to be drawn. */
export function frameShown({ clips }: Pick<Project, "clips">, state: State): FrameRef | null {
  const { current } = state;
  if (!current) return null;
  const { step, visible } = current.cast.timeline.shownAt(ownTime(state, current));
  return visible ? (clipOf(clips, current.cast.clip)?.steps[step]?.frame ?? null) : null;
}

export function shownIn(project: Project, program: Program, state: State): ShownNow {
  const { current } = state;
  if (!current) return { rule: null, clip: null, mirror: false, frame: null, step: 0, ended: false, visible: false };
  const { clip, mirror, timeline } = current.cast;
  const { step, ended, visible } = timeline.shownAt(ownTime(state, current));
  const ref = frameShown(project, state);
  const found = ref && findFrame(project, ref);
  return {
    rule: program.rules[current.rule]?.name ?? null,
    clip,
    mirror,
    frame: found ? frameName(found.source, found.frame) : null,
    step,
    ended,
    visible,
  };
}

function clipOf(clips: readonly Clip[], name: string): Clip | undefined {
  return clips.find((each) => each.name === name);
}
