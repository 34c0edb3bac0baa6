/**
 * Searches the open project for findings, once for all views, shortly after the last change: dragging an edge changes the document sixty
 * times a second.
 */
import { type Finding, NOTHING_SEEN, type SeenArt } from "@caravan/core/check";
import type { ClipName, Project } from "@caravan/core/model";
import { create } from "zustand";
import { inBackground } from "../ui/in-background";
import { useOpenProject } from "./open-project";
import { useSeenArt } from "./seen-art";

const REST = 120; // ms

interface Found {
  readonly of: Project | null;
  readonly seen: SeenArt;
  readonly findings: readonly Finding[] | null;
}

const useFound = create<Found>(() => ({ of: null, seen: NOTHING_SEEN, findings: null }));

/** Null until they were looked for the first time. */
export function useFindings(): readonly Finding[] | null {
  return useFound(({ findings }) => findings);
}

let lookingFor: typeof import("./looking").lookingFor | null = null;
let coming: Promise<void> | null = null;

/** Loads the code of the checks, and runs them. */
export function startLooking(): void {
  coming ??= import("./looking").then(
    (looking) => {
      lookingFor = looking.lookingFor;
      look();
    },
    (error: unknown) => {
      coming = null;
      throw error;
    },
  );
  inBackground(coming);
}

/** The longest time for which the search blocks the page. */
const AT_ONCE = 6; // ms

/** Incremented with every search, so that an outdated one ends. */
let looks = 0;

function look(): void {
  const mine = ++looks;
  if (!lookingFor) return;
  const { project } = useOpenProject.getState();
  const seen = useSeenArt.getState();
  const before = useFound.getState();
  if (before.of === project && before.seen === seen) return;
  const looking = lookingFor(project, seen, edited);
  const goOn = () => {
    if (mine !== looks) return;
    const until = performance.now() + AT_ONCE;
    while (performance.now() < until) {
      const { done, value } = looking.next();
      if (done) return useFound.setState({ of: project, seen, findings: value });
    }
    // Keys and painting come first.
    setTimeout(goOn);
  };
  goOn();
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
  // Another project's findings must not show even for a moment.
  if (id !== before.id) {
    useFound.setState({ of: null, findings: null });
    look();
  } else resting = setTimeout(look, REST);
});

useSeenArt.subscribe(() => {
  clearTimeout(resting);
  resting = setTimeout(look, REST);
});
