import type { Project, SourceId } from "../model";
import { sourcesNamed } from "../references";

/** Returns an id that no source has and nothing refers to, so that a removed source never comes back as another one. */
export function freeSourceId(project: Project): SourceId {
  const ids = [...project.sources.map(({ id }) => id), ...sourcesNamed(project).map(({ source }) => source)];
  return `s${ids.reduce((most, id) => Math.max(most, Number(id.slice(1))), 0) + 1}` as SourceId;
}
