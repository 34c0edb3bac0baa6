/** Finds a clip as it was before its last change, by walking the history back. */
import type { Clip, ClipName, Project } from "@caravan/core/model";
import { type History, undone } from "./history";

/** How many entries to look back. */
const MOST_STEPS = 60;

export interface EarlierClip {
  readonly project: Project;
  readonly clip: Clip;
  /** The edit that it was changed by. */
  readonly label: string;
}

/** Null if nothing that is remembered changed the clip or the frames that it shows. */
export function earlierClip(history: History, project: Project, name: ClipName): EarlierClip | null {
  const now = project.clips.find((clip) => clip.name === name);
  if (!now) return null;
  const shows = new Set(now.steps.map(({ frame }) => frame.slice(0, frame.indexOf("/"))));
  let step = undone(history, project);
  for (let k = 0; step && k < MOST_STEPS; k++) {
    const { project: before, label } = step;
    const clip = before.clips.find((each) => each.name === name);
    if (!clip) return null;
    const drawnOtherwise = before.sources.some(
      (source) => shows.has(source.id) && source !== project.sources.find(({ id }) => id === source.id),
    );
    if (clip !== now || drawnOtherwise) return { project: before, clip, label };
    step = undone(step.history, before);
  }
  return null;
}
