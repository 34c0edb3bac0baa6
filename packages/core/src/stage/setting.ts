/** Prepares a project's stage for rehearsing. */
import type { Program } from "../behave";
import type { Clip, Project, Stage } from "../model";
import { programOf } from "../rehearse";

/** What does not change while it is rehearsed. */
export interface Setting {
  readonly project: Project;
  readonly stage: Stage;
  readonly program: Program;
  /** The project's clips by name, and those with events: queried at every step. */
  readonly clips: ReadonlyMap<string, Clip>;
  readonly loud: ReadonlySet<string>;
}

/** Null if the stage's behaviour is not in the project. */
export function settingOf(project: Project, stage: Stage): Setting | null {
  const behaviour = project.behaviours?.find(({ name }) => name === stage.behaviour);
  if (!behaviour) return null;
  const clips = new Map<string, Clip>(project.clips.map((clip) => [clip.name, clip]));
  const loud = new Set<string>(project.clips.filter(({ steps }) => steps.some(({ events }) => events?.length)).map(({ name }) => name));
  return { project, stage, program: programOf(project, behaviour), clips, loud };
}
