/**
 * Ties long-running work, such as cutting along outlines, to the document that was open when it began. It never changes any other
 * document.
 */

import { looksOf } from "@caravan/core/art";
import type { Edit } from "@caravan/core/edit";
import { CaravanError, type Project, type Source } from "@caravan/core/model";
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
      if (now && !sameLooks(now, source))
        throw new CaravanError(
          "changed-meanwhile",
          source.name,
          t("Its art changed while this was being computed."),
          t("Nothing was done. Do it again."),
        );
    },
    edit: (change, ...args) => (isOther() ? otherProject(project) : edit(change, ...args)),
    apply: (change, label) => (isOther() ? otherProject(project) : apply(change, label)),
  };
}

function sameLooks(a: Source, b: Source): boolean {
  const [those, these] = [looksOf(a), looksOf(b)];
  return those.length === these.length && those.every((look, k) => look === these[k]);
}

function otherProject({ name }: Project): CaravanError {
  return new CaravanError(
    "other-project",
    name,
    t("Another project was opened before this was done, so it was cancelled."),
    t("Nothing was changed. Open it and do it again."),
  );
}
