/** Prepares a project's behaviour for running. */
import type { Cast, Program, Rules } from "../behave";
import { nearestPresent } from "../facing";
import { type Clip, FACINGS, type Facing, facingsPresent, type Project } from "../model";
import { type Timeline, timelineOf } from "../playback";

/** What of a project a behaviour can show. */
export type Shows = Pick<Project, "clips" | "actions">;

const timelines = new WeakMap<Clip, Timeline>();

/** Clips are never changed in place, and those with thousands of steps are requested repeatedly. */
function timelineOfClip(clip: Clip): Timeline {
  let timeline = timelines.get(clip);
  if (!timeline) {
    timeline = timelineOf(clip);
    timelines.set(clip, timeline);
  }
  return timeline;
}

/** The program of a behaviour. Rules that play what the project does not have, or clips without steps, never start. */
export function programOf({ clips, actions }: Shows, { inputs, rules }: Rules): Program {
  const known = new Map<string, Cast | null>();
  const clipCast = (name: string, mirror: boolean): Cast | null => {
    const clip = clips.find((each) => each.name === name);
    return clip && clip.steps.length > 0 ? { clip: name, mirror, timeline: timelineOfClip(clip) } : null;
  };
  const made = (play: string, facing: Facing): Cast | null => {
    const action = actions.find((each) => (each.name as string) === play);
    if (!action) return clipCast(play, false);
    const shown = nearestPresent(facing, facingsPresent(action));
    const petal = shown && action.facings[shown];
    return petal ? clipCast(petal.clip, petal.mirror === true) : null;
  };
  // One cast for one clip, however many facings show it: turning to the same clip is no change.
  const same = new Map<string, Cast>();
  const cast = (play: string, facing: Facing): Cast | null => {
    const key = `${FACINGS.indexOf(facing)} ${play}`;
    let found = known.get(key);
    if (found === undefined) {
      found = made(play, facing);
      if (found) {
        const id = `${found.mirror} ${found.clip}`;
        found = same.get(id) ?? found;
        same.set(id, found);
      }
      known.set(key, found);
    }
    return found;
  };
  return { inputs, rules, cast };
}

/** Whether a name plays anything: an action with at least one clip that has steps, or such a clip. */
export function plays({ clips, actions }: Shows, play: string): boolean {
  const action = actions.find((each) => (each.name as string) === play);
  const names: string[] = action ? Object.values(action.facings).map(({ clip }) => clip) : [play];
  return clips.some(({ name, steps }) => steps.length > 0 && names.includes(name));
}
