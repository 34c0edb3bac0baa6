/** Lists the frames that Marks steps through: those of a clip, or all frames of a source, some of which may be in no clip. */
import { type Clip, type ClipName, keptRefs, PLAIN_LOOP, type Project, type Source, USUAL_STEP } from "@caravan/core/model";
import { chosenClip, type View } from "../project/view";

/** `source` is null for a clip, which then is the project's own. A source's frames are shown as steps of the usual length. */
export interface Reel {
  readonly clip: Clip;
  readonly source: Source | null;
}

const known = new WeakMap<Source, Reel>();

/** The source selected at Marks if it still exists and is cut, otherwise the selected clip, otherwise the first cut source. */
export function chosenReel(project: Project, view: Pick<View, "clipName" | "reelSource">): Reel | null {
  const isCut = (each: Source) => keptRefs(each).length > 0;
  const source = project.sources.find(({ id }) => id === view.reelSource);
  if (source && isCut(source)) return reelOf(source);
  const clip = chosenClip(project, view);
  if (clip) return { clip, source: null };
  const first = project.sources.find(isCut);
  return first ? reelOf(first) : null;
}

/** Sources do not change in place: the same one gives the same reel. */
function reelOf(source: Source): Reel {
  const seen = known.get(source);
  if (seen) return seen;
  const steps = keptRefs(source).map((frame) => ({ frame, duration: USUAL_STEP }));
  const reel = { clip: { name: source.name as string as ClipName, steps, ...PLAIN_LOOP }, source };
  known.set(source, reel);
  return reel;
}
