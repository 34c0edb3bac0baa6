/** Selects what a delivery takes from a project. */
import { hostClips } from "../marks";
import { bakesParts, CaravanError, type ClipName, type Delivery, type FrameRef, keptRefs, type Project } from "../model";
import { t } from "../words";
import { matches } from "./wildcard";

/** The project with only the chosen clips and actions and their frames; null stands for all frames. */
export interface Chosen {
  readonly project: Project;
  readonly frames: ReadonlySet<FrameRef> | null;
}

/** With the guests of parts whose hosts are chosen, unless parts are drawn in. Throws `nothing-picked` if a choice matches nothing. */
export function chosenOf(project: Project, { choice, ...how }: Pick<Delivery, "choice" | "kind" | "parts">): Chosen {
  if (choice.of === "all") return { project, frames: null };
  if (choice.of === "frames") return ofFrames(project, choice.frames ?? []);
  const listed = new Set(choice.names);
  const wanted = (name: string) => listed.has(name) || matches(choice.pattern, name);
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
      choice.of === "clips"
        ? choice.pattern
          ? t("No clip of this project is chosen and none matches {pattern}.", { pattern: choice.pattern })
          : t("No clip of this project is chosen.")
        : choice.pattern
          ? t("No action of this project is chosen and none matches {pattern}.", { pattern: choice.pattern })
          : t("No action of this project is chosen."),
      t("Choose some under Contents, or deliver everything."),
    );
  const { parts = [], ...rest } = project;
  const plays = new Set<string>([...clips, ...actions].map(({ name }) => name));
  // Clips with missing frames in the whole project stay, to be reported.
  const kept = parts.filter(
    ({ host, guest }) =>
      hostClips(project, host).some(({ name }) => named.has(name)) && (plays.has(guest) || hostClips(project, guest).length === 0),
  );
  const chosen: Project = { ...rest, ...(kept.length > 0 ? { parts: kept } : {}), clips, actions };
  return { project: chosen, frames: new Set(clips.flatMap(({ steps }) => steps.map(({ frame }) => frame))) };
}

/** Single frames, with the clips that show no others and the actions that show no other clips. */
function ofFrames(project: Project, chosen: readonly FrameRef[]): Chosen {
  const kept = new Set(project.sources.flatMap(keptRefs));
  const frames = new Set(chosen.filter((ref) => kept.has(ref)));
  if (frames.size === 0)
    throw new CaravanError(
      "nothing-picked",
      t("frames"),
      t("None of the chosen frames exists."),
      t("Pick frames at Frames and choose them under Contents, or deliver everything."),
    );
  const clips = project.clips.filter(({ steps }) => steps.length > 0 && steps.every(({ frame }) => frames.has(frame)));
  const named = new Set<string>(clips.map(({ name }) => name));
  const actions = project.actions.filter(({ facings }) => {
    const petals = Object.values(facings);
    return petals.length > 0 && petals.every(({ clip }) => named.has(clip));
  });
  const plays = new Set<string>([...named, ...actions.map(({ name }) => name)]);
  const { parts = [], ...rest } = project;
  const fastened = parts.filter(({ host, guest }) => plays.has(host) && plays.has(guest));
  return { project: { ...rest, ...(fastened.length > 0 ? { parts: fastened } : {}), clips, actions }, frames };
}

/** Adds the clips of guests to the delivered clips until no more are added; returns the names of guests. */
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
