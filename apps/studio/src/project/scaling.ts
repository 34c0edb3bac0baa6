/** Scales sources so that trying out several scales loses nothing: each is computed from what was there before the first. */
import { scaledTogether, setSourceScale } from "@caravan/core/edit";
import type { CaravanError, Project, SourceId } from "@caravan/core/model";
import { currentProject, edit, editInGesture } from "./open-project";

interface Tried {
  readonly id: SourceId;
  readonly from: Project;
  readonly after: Project;
}

let tried: Tried | null = null;

/** Changes of one `gesture` become one entry of undo. Returns the error if it cannot be made; then nothing has changed. */
export function scaleSource(id: SourceId, scale: number, gesture?: string): CaravanError | null {
  const project = currentProject();
  const from = tried?.id === id && isUntouched(tried, project) ? tried.from : project;
  const error = gesture === undefined ? edit(setSourceScale, id, scale, from) : editInGesture(gesture, setSourceScale, id, scale, from);
  if (!error) tried = { id, from, after: currentProject() };
  return error;
}

/** Whether what was scaled is as the last try left it: edits replace what they change. */
function isUntouched({ id, after }: Tried, project: Project): boolean {
  const [were, are] = [scaledTogether(after, id), scaledTogether(project, id)];
  return were.length === are.length && were.every((source, k) => source === are[k]);
}
