import type { Project, Source } from "../model";

/** The project with this source in the place of the one with its id. */
export function withSource(project: Project, source: Source): Project {
  return { ...project, sources: project.sources.map((each) => (each.id === source.id ? source : each)) };
}
