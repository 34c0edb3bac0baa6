/** Names what shows on the stage in a given state. */
import { ownTime, type Program, type State } from "../behave";
import { type Clip, findFrame, frameName, type Project } from "../model";

interface ShownNow {
  readonly rule: string | null;
  readonly clip: string | null;
  readonly mirror: boolean;
  /** The frame's name; null when nothing is to be drawn. */
  readonly frame: string | null;
  readonly step: number;
  readonly ended: boolean;
  readonly visible: boolean;
}

export function shownIn(project: Project, program: Program, state: State): ShownNow {
  const { current } = state;
  if (!current) return { rule: null, clip: null, mirror: false, frame: null, step: 0, ended: false, visible: false };
  const { clip, mirror, timeline } = current.cast;
  const { step, ended, visible } = timeline.shownAt(ownTime(state, current));
  const ref = visible ? clipOf(project.clips, clip)?.steps[step]?.frame : undefined;
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
