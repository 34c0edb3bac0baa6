import type { Project, Source } from "../model";

/** Returns the project with this source replacing the one with its id. */
export function withSource(project: Project, source: Source): Project {
  return { ...project, sources: project.sources.map((each) => (each.id === source.id ? source : each)) };
}
