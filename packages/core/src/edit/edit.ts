import type { Project } from "../model";

/**
 * Describes a change to a project: a pure function `(project, …args) → project` with a label for undo.
 *
 * The old project stays valid; unchanged parts are shared; an edit that changes nothing returns the object it was given.
 */
export interface Edit<Args extends unknown[]> {
  (project: Project, ...args: Args): Project;
  /** Its label for undo, as in "Undo: drop 2 frames", given the project before the change. */
  label(project: Project, ...args: Args): string;
}

/** Joins a change to its label. */
export function edit<Args extends unknown[]>(
  label: (project: Project, ...args: Args) => string,
  change: (project: Project, ...args: Args) => Project,
): Edit<Args> {
  return Object.assign((project: Project, ...args: Args) => change(project, ...args), { label });
}
