/** Rotates an action's facings: every clip moves to the next one. For orders that were read from the wrong start. */
import { facingOfName, turnedBy, withFacingInName } from "../facing";
import { type Action, type ActionName, actionNamed, CaravanError, type Clip, type ClipName, FACINGS_OF, type Facing } from "../model";
import { withClipsBecome } from "../references";
import { mirrorMissing, ordered, withAction } from "./actions";
import { edit } from "./edit";

/**
 * Gives each clip of an action the next facing of its rose, clockwise (1) or the other way (-1). Clips that have their facing in their names are
 * renamed with it; mirrored facings are mirrored anew from what lies across then. Throws `name-taken` if a clip that is not of the action has
 * such a name.
 */
export const turnAction = edit(
  (_project, name: ActionName, by: 1 | -1) => `turn ${name} ${by > 0 ? "clockwise" : "counter-clockwise"}`,
  (project, name, by) => {
    const action = actionNamed(project, name);
    const own = FACINGS_OF[action.ways].flatMap((facing) => {
      const petal = action.facings[facing];
      return petal && !petal.mirror ? [{ clip: petal.clip, from: facing, to: turnedBy(facing, action.ways, by) }] : [];
    });
    if (own.length === 0 || action.ways === 1) return project;
    const names = new Map<ClipName, ClipName>();
    for (const { clip, from, to } of own) {
      // A clip that stands at two facings is called by the first.
      if (names.has(clip) || facingOfName(clip).facing !== from) continue;
      names.set(clip, withFacingInName(clip, to) as ClipName);
    }
    refuseTakenNames(
      project.clips.filter((clip) => !names.has(clip.name)),
      names,
    );
    const clips = project.clips.map((clip): Clip => ({ ...clip, name: names.get(clip.name) ?? clip.name }));
    const renamed = withClipsBecome({ ...project, clips }, new Map([...names].map(([from, to]) => [from, [to]])));
    const facings: Partial<Record<Facing, { clip: ClipName }>> = {};
    for (const { clip, to } of own) facings[to] = { clip: names.get(clip) ?? clip };
    const turned: Action = { ...action, facings: ordered(action.ways, facings) };
    const next = withAction(renamed, name, turned);
    const mirrors = Object.values(action.facings).some(({ mirror }) => mirror);
    return mirrors ? mirrorMissing(next, name) : next;
  },
);

function refuseTakenNames(others: readonly Clip[], names: ReadonlyMap<ClipName, ClipName>): void {
  const taken = new Set<string>(others.map(({ name }) => name));
  for (const name of names.values()) {
    if (taken.has(name))
      throw new CaravanError("name-taken", `clip "${name}"`, "Turned so, two clips would have this name.", "Rename one of them first.");
    taken.add(name);
  }
}
