/** Rotates an action's facings: every clip moves to the next one. Corrects orders that started at the wrong facing. */
import { facingOfName, turnedBy, withFacingInName } from "../facing";
import { type Action, type ActionName, actionNamed, CaravanError, type Clip, type ClipName, FACINGS_OF, type Facing } from "../model";
import { withClipsBecome } from "../references";
import { t } from "../words";
import { mirrorMissing, ordered, withAction } from "./actions";
import { edit } from "./edit";

/**
 * Moves each clip of an action to the next facing of its rose, clockwise (1) or counter-clockwise (-1). Clips with their facing in their
 * names are renamed; mirrored facings are mirrored again from the new opposite side. Throws `name-taken` if a clip outside the action has
 * such a name.
 */
export const turnAction = edit(
  (_project, name: ActionName, by: 1 | -1) =>
    by > 0 ? t("turn {name} clockwise", { name }) : t("turn {name} counter-clockwise", { name }),
  (project, name, by) => {
    const action = actionNamed(project, name);
    const own = FACINGS_OF[action.ways].flatMap((facing) => {
      const petal = action.facings[facing];
      return petal && !petal.mirror ? [{ clip: petal.clip, from: facing, to: turnedBy(facing, action.ways, by) }] : [];
    });
    if (own.length === 0 || action.ways === 1) return project;
    const names = new Map<ClipName, ClipName>();
    for (const { clip, from, to } of own) {
      // A clip used at two facings is named after the first.
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
      throw new CaravanError(
        "name-taken",
        t('clip "{name}"', { name }),
        t("After this turn, two clips would have this name."),
        t("Rename one of them first."),
      );
    taken.add(name);
  }
}
