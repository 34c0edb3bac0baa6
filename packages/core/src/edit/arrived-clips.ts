/** Clips as files describe them, and how they become a project's. */
import {
  type Clip,
  type ClipName,
  checkedDuration,
  clipNamed,
  clipRules,
  type FrameRef,
  fittedName,
  freeName,
  type Micros,
  PLAIN_LOOP,
  type Project,
  type Step,
} from "../model";
import { withSteps } from "./clips";
import { nameFromFile } from "./name-from-file";

export interface ArrivedClip {
  readonly name: string;
  /** The key that actions of the same drop use for it; unique within the drop. */
  readonly ref?: string;
  /** `place` is the step's index in the whole clip, if that spans several pictures. */
  readonly steps: readonly {
    readonly frame: number;
    readonly duration: Micros;
    readonly place?: number;
    /** What happens at it, in the file's words. */
    readonly events?: readonly string[];
  }[];
  /** The metadata file that described it. Clips with the same name and file on several pictures are one. */
  readonly file?: string;
  readonly playback: Clip["playback"];
  readonly times: number;
}

/** Frames by their index in a file; null for those that the source does not have. */
export type Refs = readonly (FrameRef | null | undefined)[];

/** What became of the clips of this drop. */
export interface ArrivedClips {
  /** Clips that may continue on another picture, by file and name: their names here, and the indexes of their steps. */
  readonly begun: Map<string, { readonly name: ClipName; readonly places: readonly number[] }>;
  /** What they are called here, by their refs; also those that were here before, of a file that comes again. */
  readonly named: Map<string, ClipName>;
  /** The names of all clips, where only arriving ones are added meanwhile: there may be thousands. */
  readonly taken?: Set<string>;
}

export function noArrivedClips(): ArrivedClips {
  return { begun: new Map(), named: new Map() };
}

/** The project with a clip of a file. `refs` are the frames of the source, by their index in the file. */
export function withArrivedClip(project: Project, refs: Refs, clip: ArrivedClip, { begun, named, taken }: ArrivedClips): Project {
  const { name, ref, playback, file } = clip;
  const shown = stepsOf(clip, refs);
  if (shown.length === 0) return project;
  const key = file === undefined ? undefined : JSON.stringify([file, name]);
  const before = key === undefined ? undefined : begun.get(key);
  if (key !== undefined && before) {
    const clip = clipNamed(project, before.name);
    const all = [...clip.steps.map((step, k) => ({ step, place: before.places[k] as number })), ...shown].sort((a, b) => a.place - b.place);
    begun.set(key, { name: before.name, places: all.map(({ place }) => place) });
    return withSteps(
      project,
      before.name,
      all.map(({ step }) => step),
    );
  }
  const free = freeName(nameFromFile(name), taken ?? new Set(project.clips.map((each) => each.name))) as ClipName;
  taken?.add(free);
  if (key !== undefined) begun.set(key, { name: free, places: shown.map(({ place }) => place) });
  if (ref !== undefined) named.set(ref, free);
  const made: Clip = {
    ...PLAIN_LOOP,
    name: free,
    steps: shown.map(({ step }) => step),
    playback,
    times: timesOf(clip),
  };
  return { ...project, clips: [...project.clips, made] };
}

/** The steps of a clip that show frames of the source, each with its place in the whole clip. */
export function stepsOf({ name, steps }: ArrivedClip, refs: Refs): { place: number; step: Step }[] {
  return steps.flatMap(({ frame, duration, place = 0, events = [] }) => {
    const found = refs[frame];
    return found ? [{ place, step: { frame: found, duration: checkedDuration(duration, name), ...fittedEvents(events) } }] : [];
  });
}

/** How often a clip plays, as a project can have it: more times than it can count are forever. */
export function timesOf({ playback, times }: Pick<ArrivedClip, "playback" | "times">): number {
  return playback === "once" || !clipRules.times.safeParse(times).success ? 0 : times;
}

/** Events that can be names; the others are left out. */
function fittedEvents(events: readonly string[]): Pick<Step, "events"> {
  const fit = [...new Set(events.flatMap((event) => fittedName(event, 60) ?? []))];
  return fit.length > 0 ? { events: fit } : {};
}
