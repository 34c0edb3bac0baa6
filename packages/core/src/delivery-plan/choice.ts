/** What of a project goes out. */
import { hostClips } from "../marks";
import { bakesParts, CaravanError, type ClipName, type Delivery, type FrameRef, type Project } from "../model";
import { matches } from "./wildcard";

/** The project with only the clips and actions that are chosen, and the frames that these show; null stands for all frames. */
export interface Chosen {
  readonly project: Project;
  readonly frames: ReadonlySet<FrameRef> | null;
}

/** With the guests of parts whose hosts are chosen, unless parts are drawn in. Throws `nothing-picked` if a choice matches nothing. */
export function chosenOf(project: Project, { choice, ...how }: Pick<Delivery, "choice" | "kind" | "parts">): Chosen {
  if (choice.of === "all") return { project, frames: null };
  const wanted = (name: string) => choice.names.includes(name) || (choice.pattern !== "" && matches(choice.pattern, name));
  const named = new Set(
    choice.of === "clips"
      ? project.clips.filter(({ name }) => wanted(name)).map(({ name }) => name)
      : project.actions.filter(({ name }) => wanted(name)).flatMap(({ facings }) => Object.values(facings).map(({ clip }) => clip)),
  );
  const guests = bakesParts(how) ? new Set<string>() : withGuests(project, named);
  const clips = project.clips.filter(({ name }) => named.has(name));
  const actions = project.actions.filter(
    ({ name, facings }) =>
      guests.has(name) || (choice.of === "actions" ? wanted(name) : Object.values(facings).every(({ clip }) => named.has(clip))),
  );
  if (clips.length === 0)
    throw new CaravanError(
      "nothing-picked",
      choice.of,
      `No ${choice.of === "clips" ? "clip" : "action"} of this project is chosen${choice.pattern ? ` and none matches ${choice.pattern}` : ""}.`,
      "Choose some at What goes, or deliver everything.",
    );
  const { parts = [], ...rest } = project;
  const plays = new Set<string>([...clips, ...actions].map(({ name }) => name));
  // Those of which something is missing in the whole project stay, to be told.
  const kept = parts.filter(
    ({ host, guest }) =>
      hostClips(project, host).some(({ name }) => named.has(name)) && (plays.has(guest) || hostClips(project, guest).length === 0),
  );
  const chosen: Project = { ...rest, ...(kept.length > 0 ? { parts: kept } : {}), clips, actions };
  return { project: chosen, frames: new Set(clips.flatMap(({ steps }) => steps.map(({ frame }) => frame))) };
}

/** Adds the clips of guests to the clips that go out, until no more come; returns the names of guests. */
function withGuests(project: Project, named: Set<ClipName>): Set<string> {
  const guests = new Set<string>();
  for (let before = -1; before !== guests.size; ) {
    before = guests.size;
    for (const { host, guest } of project.parts ?? []) {
      if (guests.has(guest) || !hostClips(project, host).some(({ name }) => named.has(name))) continue;
      guests.add(guest);
      for (const { name } of hostClips(project, guest)) named.add(name);
    }
  }
  return guests;
}
