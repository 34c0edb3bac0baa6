/**
 * What is wrong or risky in the open project, looked for once for all who show it, a moment after the last change: an edge that
 * is being dragged changes the document sixty times a second.
 */
import { type Finding, findingsOf, NOTHING_SEEN, type SeenArt } from "@caravan/core/check";
import type { ClipName, Project } from "@caravan/core/model";
import { create } from "zustand";
import { useOpenProject } from "./open-project";
import { useSeenArt } from "./seen-art";
import "./seen-outlines";
import "./seen-walks";

const REST = 120; // ms

interface Found {
  readonly of: Project | null;
  readonly seen: SeenArt;
  readonly findings: readonly Finding[];
}

const useFound = create<Found>(() => ({ of: null, seen: NOTHING_SEEN, findings: [] }));

export function useFindings(): readonly Finding[] {
  return useFound(({ findings }) => findings);
}

function look(): void {
  const { project } = useOpenProject.getState();
  const seen = useSeenArt.getState();
  const before = useFound.getState();
  if (before.of !== project || before.seen !== seen) useFound.setState({ of: project, seen, findings: findingsOf(project, seen, edited) });
}

/** The clip whose steps were changed last. */
let edited: ClipName | null = null;

/** The only clip that another state of the project has with other steps; null if there is none, or several. */
function editedClip(before: Project, after: Project): ClipName | null {
  if (before.clips === after.clips) return null;
  const steps = new Map(before.clips.map((clip) => [clip.name, clip.steps]));
  const changed = after.clips.filter((clip) => steps.has(clip.name) && steps.get(clip.name) !== clip.steps);
  return changed.length === 1 ? (changed[0]?.name ?? null) : null;
}

let resting: ReturnType<typeof setTimeout> | undefined;

useOpenProject.subscribe(({ id, project }, before) => {
  if (project === before.project) return;
  edited = id === before.id ? (editedClip(before.project, project) ?? edited) : null;
  clearTimeout(resting);
  // Another project's findings must not stand even for a moment.
  if (id !== before.id) look();
  else resting = setTimeout(look, REST);
});

useSeenArt.subscribe(() => {
  clearTimeout(resting);
  resting = setTimeout(look, REST);
});
