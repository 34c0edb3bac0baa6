/** What of a project goes out. */
import { CaravanError, type Choice, type FrameRef, type Project } from "../model";
import { matches } from "./wildcard";

/** The project with only the clips and actions that are chosen, and the frames that these show; null stands for all frames. */
export interface Chosen {
  readonly project: Project;
  readonly frames: ReadonlySet<FrameRef> | null;
}

/** Throws `nothing-picked` if a choice matches nothing. */
export function chosenOf(project: Project, choice: Choice): Chosen {
  if (choice.of === "all") return { project, frames: null };
  const wanted = (name: string) => choice.names.includes(name) || (choice.pattern !== "" && matches(choice.pattern, name));
  const named = new Set(
    choice.of === "clips"
      ? project.clips.filter(({ name }) => wanted(name)).map(({ name }) => name)
      : project.actions.filter(({ name }) => wanted(name)).flatMap(({ facings }) => Object.values(facings).map(({ clip }) => clip)),
  );
  const clips = project.clips.filter(({ name }) => named.has(name));
  const actions = project.actions.filter(({ name, facings }) =>
    choice.of === "actions" ? wanted(name) : Object.values(facings).every(({ clip }) => named.has(clip)),
  );
  if (clips.length === 0)
    throw new CaravanError(
      "nothing-picked",
      choice.of,
      `No ${choice.of === "clips" ? "clip" : "action"} of this project is chosen${choice.pattern ? ` and none matches ${choice.pattern}` : ""}.`,
      "Choose some at What goes, or deliver everything.",
    );
  return { project: { ...project, clips, actions }, frames: new Set(clips.flatMap(({ steps }) => steps.map(({ frame }) => frame))) };
}
