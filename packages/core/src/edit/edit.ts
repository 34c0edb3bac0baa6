import type { Project } from "../model";

/**
 * A change to a project: a pure function `(project, …args) → project` that also knows what to call itself.
 *
 * The old project stays valid; untouched parts are shared; an edit that changes nothing returns the very object it was given.
 */
export interface Edit<Args extends unknown[]> {
  (project: Project, ...args: Args): Project;
  /** What undo calls it, as in "Undo: drop 2 frames"; told of the project before the change. */
  label(project: Project, ...args: Args): string;
}

/** Joins a change to its label. */
export function edit<Args extends unknown[]>(
  label: (project: Project, ...args: Args) => string,
  change: (project: Project, ...args: Args) => Project,
): Edit<Args> {
  return Object.assign((project: Project, ...args: Args) => change(project, ...args), { label });
}
