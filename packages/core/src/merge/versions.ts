/** The three versions of a project that a merge compares. */
import type { Project, Source } from "../model";

export interface Versions {
  /** Where both sides come from. */
  readonly base: Project;
  readonly ours: Project;
  readonly theirs: Project;
}

export function sourcesById({ sources }: Project): Map<string, Source> {
  return new Map(sources.map((source) => [source.id as string, source]));
}
