/** The open project: this tab's single source of truth. Screens read it and change it only through `edit`, `undo` and `redo`. */

import type { Edit } from "@caravan/core/edit";
import { CaravanError, checkDocument, emptyProject, type Project } from "@caravan/core/model";
import { create } from "zustand";
import { heldSince } from "../ui/held-pointer";
import { t } from "../ui/words";
import { type History, NO_HISTORY, redone, remembered, type Step, undone } from "./history";
import { noteReport } from "./reports";

/** The document's state relative to storage. */
export type Saving =
  | { readonly kind: "saved"; readonly at: number }
  | { readonly kind: "pending" }
  | { readonly kind: "failed"; readonly full: boolean; readonly reason: string };

export interface OpenProject {
  /** Null until a project is open. */
  readonly id: string | null;
  readonly project: Project;
  readonly history: History;
  /** Whether this is the demo as it came, never edited. */
  readonly demo: boolean;
  /** A reader looks on: another tab has the project. */
  readonly access: "owner" | "reader";
  readonly saving: Saving;
}

export const useOpenProject = create<OpenProject>(() => ({
  id: null,
  project: emptyProject("…"),
  history: NO_HISTORY,
  demo: false,
  access: "owner",
  saving: { kind: "saved", at: 0 },
}));

/** Selects from the open document; components that use it are drawn again only when what they selected changes. */
export function useProject<Part>(select: (project: Project) => Part): Part {
  return useOpenProject((open) => select(open.project));
}

export function currentProject(): Project {
  return useOpenProject.getState().project;
}

/** Makes a change as one entry of undo. Returns the error if it cannot be made; then nothing has changed. */
export function edit<Args extends unknown[]>(change: Edit<Args>, ...args: Args): CaravanError | null {
  return apply(
    (project) => change(project, ...args),
    (project) => change.label(project, ...args),
  );
}

/** As `edit`; changes of one gesture that follow each other quickly become one entry of undo. */
export function editInGesture<Args extends unknown[]>(gesture: string, change: Edit<Args>, ...args: Args): CaravanError | null {
  return apply(
    (project) => change(project, ...args),
    (project) => change.label(project, ...args),
    gesture,
  );
}

/** Makes a change that is not one of the named edits but made of them, such as a finding's mending. */
export function apply(change: (project: Project) => Project, label: (project: Project) => string, gesture?: string): CaravanError | null {
  const { project, history, access } = useOpenProject.getState();
  if (access === "reader")
    return new CaravanError(
      "read-only",
      project.name,
      t("It is open in another tab, so it cannot be changed here."),
      t("Choose “Work here instead” first."),
    );
  try {
    const next = change(project);
    if (next === project) return null;
    const unsound = whyUnsound(next, label(project), project);
    if (unsound) return unsound;
    useOpenProject.setState({
      project: next,
      history: remembered(history, label(project), project, next, gestureTime(history), gesture),
      demo: false,
      saving: { kind: "pending" },
    });
    return null;
  } catch (error) {
    if (error instanceof CaravanError) return error;
    throw error;
  }
}

/** The time of an edit as gestures count it: resting with the pointer held down is no pause. */
function gestureTime({ entries, cursor }: History): number {
  const last = entries[cursor - 1]?.at;
  const held = heldSince();
  return held !== null && last !== undefined && last >= held ? last : performance.now();
}

/**
 * Why a document could not be opened again, or null. Every change passes the opening checks first: an invalid document is never open and so
 * never stored. A failure is our bug, so a report is kept for the user to save.
 */
function whyUnsound(next: Project, label: string, before: Project): CaravanError | null {
  try {
    checkDocument(next, next.name);
    return null;
  } catch (cause) {
    if (!(cause instanceof CaravanError)) throw cause;
    noteReport({ what: label, why: cause.what, before, after: next });
    return new CaravanError(
      "internal",
      capitalised(label),
      t("Internal error: this would leave a project that cannot be opened again, so it was not done. {what}", { what: cause.what }),
      t("Nothing is lost. Please save the report and send it to us."),
      { cause },
    );
  }
}

/** Undoes the last entry; returns its label, null if there is none or this tab only looks on. */
export function undo(): string | null {
  return move(undone);
}

export function redo(): string | null {
  return move(redone);
}

function move(step: (history: History, project: Project) => Step | null): string | null {
  const { project, history, access } = useOpenProject.getState();
  const taken = access === "owner" ? step(history, project) : null;
  if (!taken || whyUnsound(taken.project, taken.label, project)) return null;
  useOpenProject.setState({ project: taken.project, history: taken.history, demo: false, saving: { kind: "pending" } });
  return taken.label;
}

/** "Drop 2 frames": a label as the undo button shows it. */
function capitalised(label: string): string {
  return label.charAt(0).toUpperCase() + label.slice(1);
}
