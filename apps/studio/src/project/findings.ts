/**
 * What is wrong or risky in the open project, looked for once for all who show it, a moment after the last change: an edge that
 * is being dragged changes the document sixty times a second.
 */
import { type Finding, findingsOf } from "@caravan/core/check";
import type { Project } from "@caravan/core/model";
import { create } from "zustand";
import { useOpenProject } from "./open-project";

const REST = 120; // ms

const useFound = create<{ readonly of: Project | null; readonly findings: readonly Finding[] }>(() => ({ of: null, findings: [] }));

export function useFindings(): readonly Finding[] {
  return useFound(({ findings }) => findings);
}

function look(): void {
  const { project } = useOpenProject.getState();
  if (useFound.getState().of !== project) useFound.setState({ of: project, findings: findingsOf(project) });
}

let resting: ReturnType<typeof setTimeout> | undefined;

useOpenProject.subscribe(({ id, project }, before) => {
  if (project === before.project) return;
  clearTimeout(resting);
  // Another project's findings must not stand even for a moment.
  if (id !== before.id) look();
  else resting = setTimeout(look, REST);
});
