/**
 * Ties long-running work, such as cutting along outlines, to the document that was open when it began. It never changes any other
 * document.
 */

import { frameLook, looksOf } from "@caravan/core/art";
import type { Edit } from "@caravan/core/edit";
import { CaravanError, findFrame, frameRef, type PlacedFrame, type Project, type Source, scaleOf } from "@caravan/core/model";
import { t } from "../ui/words";
import { apply, currentProject, edit, useOpenProject } from "./open-project";

/** A hold on the open document. Take it before the first await. */
export interface Begun {
  readonly id: string | null;
  /** The document as it was. */
  readonly project: Project;
  /** Aborted when another document is opened: jobs that get it are ended. */
  readonly signal: AbortSignal;
  /** Throws `other-project` if another document is open now. */
  still(): void;
  /** Throws `other-project`, or `changed-meanwhile` if this source's art is no longer what was looked at. */
  stillHas(source: Source): void;
  /** Throws `other-project`, or `changed-meanwhile` if one of these frames no longer shows what it showed. */
  stillShows(frames: readonly PlacedFrame[]): void;
  /** As the open project's `edit` and `apply`; refused in words if another document is open. */
  edit<Args extends unknown[]>(change: Edit<Args>, ...args: Args): CaravanError | null;
  apply(change: (project: Project) => Project, label: (project: Project) => string): CaravanError | null;
}

let switching = new AbortController();

useOpenProject.subscribe((open, before) => {
  if (open.id === before.id) return;
  switching.abort();
  switching = new AbortController();
});

export function begin(): Begun {
  const { id, project } = useOpenProject.getState();
  const isOther = () => useOpenProject.getState().id !== id;
  return {
    id,
    project,
    signal: switching.signal,
    still: () => {
      if (isOther()) throw otherProject(project);
    },
    stillHas: (source) => {
      if (isOther()) throw otherProject(project);
      const now = currentProject().sources.find(({ id: each }) => each === source.id);
      if (now && !sameLooks(now, source)) throw changedMeanwhile(source);
    },
    stillShows: (frames) => {
      if (isOther()) throw otherProject(project);
      const now = currentProject();
      for (const placed of frames) {
        const found = findFrame(now, frameRef(placed.source, placed.frame));
        if (!found || shownBy(now, found) !== shownBy(project, placed)) throw changedMeanwhile(placed.source);
      }
    },
    edit: (change, ...args) => (isOther() ? otherProject(project) : edit(change, ...args)),
    apply: (change, label) => (isOther() ? otherProject(project) : apply(change, label)),
  };
}

function sameLooks(a: Source, b: Source): boolean {
  const [those, these] = [looksOf(a), looksOf(b)];
  return those.length === these.length && those.every((look, k) => look === these[k]);
}

/** What a frame shows, as text: its picture, and the part of it. */
function shownBy(project: Project, { source, frame }: PlacedFrame): string {
  const { rect, turned, size, inset } = frame;
  return `${frameLook(project, source, frame).key} ${JSON.stringify([rect, turned, size, inset, scaleOf(source)])}`;
}

function changedMeanwhile({ name }: Source): CaravanError {
  return new CaravanError(
    "changed-meanwhile",
    name,
    t("Its art changed while this was being computed."),
    t("Nothing was done. Do it again."),
  );
}

function otherProject({ name }: Project): CaravanError {
  return new CaravanError(
    "other-project",
    name,
    t("Another project was opened before this was done, so it was cancelled."),
    t("Nothing was changed. Open it and do it again."),
  );
}
