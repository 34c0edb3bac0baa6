/** Makes a document again from the list of its changes, for when a part of it cannot be read. */
import { checkDocument, emptyProject, type Project } from "@caravan/core/model";
import { applyChanges } from "@caravan/core/undo";
import type { History } from "./history";
import type { StoredPart, StoredProject } from "./storage";
import { agrees } from "./stored-document";

/**
 * Null unless the whole list is there, goes back to an empty project, both ways, and leads to what is stored: the other parts to the letter,
 * and as many sources and clips as the project's row counts. A project that began as a file or as the demo does not begin empty: applied to
 * nothing, its list may lead somewhere, but not back.
 */
export function rebuilt(row: StoredProject, stored: readonly StoredPart[], { first, entries, cursor }: History): Project | null {
  // Entries that could not be read are missing at the end.
  if (first !== 0 || cursor !== row.cursor) return null;
  const begun = emptyProject(row.name);
  const applied = entries.slice(0, cursor);
  try {
    const project = applied.reduce<unknown>((made, { forth }) => applyChanges(made, forth), begun) as Project;
    checkDocument(project, row.name);
    const unmade = applied.reduceRight<unknown>((made, { back }) => applyChanges(made, back), project) as Project;
    // Its first name is in no other place than the change that ended it.
    const isBegun = JSON.stringify({ ...unmade, name: begun.name }) === JSON.stringify(begun);
    const counts = project.sources.length === row.sources && project.clips.length === row.clips;
    return isBegun && counts && agrees(stored, project) ? project : null;
  } catch {
    // The changes are of something else, or damaged themselves.
    return null;
  }
}
