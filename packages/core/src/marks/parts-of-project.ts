/** Indexes a document for looking up parts: frames by ref. */
import { nearestPresent } from "../facing";
import {
  type Clip,
  type Facing,
  type FrameRef,
  findFrame,
  type MarkName,
  type MarkPoint,
  originOf,
  type PlacedFrame,
  type Project,
} from "../model";
import type { PartsWorld } from "../parts";
import { type Timeline, timelineOf } from "../playback";
import { pointIn } from "./frame-marks";

type Shows = Pick<Project, "sources" | "clips" | "actions" | "parts">;

const worlds = new WeakMap<Shows, PartsWorld>();

/** One index per document, with cached answers. Dropped frames are never drawn, and guests rotate by 90° only. */
export function partsOfProject(project: Shows): PartsWorld {
  const known = worlds.get(project) ?? worldOf(project);
  worlds.set(project, known);
  return known;
}

function worldOf(project: Shows): PartsWorld {
  const clips = new Map<string, Clip>(project.clips.map((clip) => [clip.name, clip]));
  const timelines = new Map<string, Timeline>();
  const frames = new Map<string, PlacedFrame | null>();
  const placed = (ref: string): PlacedFrame | null => {
    let found = frames.get(ref);
    if (found === undefined) {
      found = findFrame(project, ref as FrameRef) ?? null;
      if (found?.frame.dropped) found = null;
      frames.set(ref, found);
    }
    return found;
  };
  const actionOf = (name: string) => project.actions.find((each) => each.name === name);
  return {
    parts: project.parts ?? [],
    quarters: true,
    shows: (action, clip) => Object.values(actionOf(action)?.facings ?? {}).some((petal) => petal.clip === clip),
    cast(play, facing, mirror) {
      const action = actionOf(play);
      if (!action) return clips.get(play)?.steps.length ? { clip: play, mirror } : null;
      const present = (Object.keys(action.facings) as Facing[]).filter((each) => clips.get(action.facings[each]?.clip ?? "")?.steps.length);
      const nearest = nearestPresent(facing, present);
      const petal = nearest && action.facings[nearest];
      return petal ? { clip: petal.clip, mirror: petal.mirror === true } : null;
    },
    timeline(name) {
      let timeline = timelines.get(name);
      if (!timeline) {
        timeline = timelineOf(clips.get(name) as Clip);
        timelines.set(name, timeline);
      }
      return timeline;
    },
    step(name, index) {
      const step = clips.get(name)?.steps[index];
      return step && placed(step.frame) ? step : undefined;
    },
    point: (ref, name): MarkPoint | null => pointIn(placed(ref)?.frame.marks, name as MarkName) ?? null,
    origin(ref) {
      const found = placed(ref);
      return found ? originOf(found.source, found.frame) : { x: 0, y: 0 };
    },
  };
}

/** The facing of a clip that plays by itself: one that shows it unmirrored, otherwise any that shows it. */
export function facingOfClip({ actions }: Pick<Project, "actions">, { name }: Pick<Clip, "name">): Facing {
  const petals = actions.flatMap(({ facings }) => Object.entries(facings)).filter(([, { clip }]) => clip === name);
  return ((petals.find(([, { mirror }]) => !mirror) ?? petals[0])?.[0] as Facing | undefined) ?? "s";
}

/** Clips on which a part is drawn: that of its host's name, and those of the action of that name. */
export function hostClips({ clips, actions }: Pick<Project, "clips" | "actions">, host: string): Clip[] {
  const action = actions.find(({ name }) => name === host);
  const shown = new Set<string>([host, ...Object.values(action?.facings ?? {}).map(({ clip }) => clip)]);
  return clips.filter(({ name }) => shown.has(name));
}
