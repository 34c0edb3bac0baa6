/** Edits actions: one movement in several facings, each showing a clip or a mirrored clip. */
import { mirrorOf } from "../facing";
import {
  type Action,
  type ActionName,
  actionNamed,
  CaravanError,
  checkedName,
  clipNamed,
  counted,
  FACINGS_OF,
  type Facing,
  type Petal,
  type Project,
  type Ways,
} from "../model";
import { withRenamedAction } from "../references";
import { t } from "../words";
import { edit } from "./edit";

/** Adds an action without clips. Throws `bad-name` or `name-taken`. */
export const addAction = edit(
  (_project, name: string, _ways: Ways) => t("make the action {name}", { name: name.trim() }),
  (project, name, ways) => ({ ...project, actions: [...project.actions, { name: newActionName(project, name), ways, facings: {} }] }),
);

/** Throws `bad-name` or `name-taken`. */
export const renameAction = edit(
  (_project, from: ActionName, to: string) => t("rename {from} to {to}", { from, to: to.trim() }),
  (project, from, to) => {
    const action = actionNamed(project, from);
    if (to.trim() === from) return project;
    const name = newActionName(project, to);
    return withRenamedAction(withAction(project, from, { ...action, name }), from, name);
  },
);

/** Removes an action; its clips stay. */
export const removeAction = edit(
  (_project, name: ActionName) => t("remove the action {name}", { name }),
  (project, name) => {
    const action = actionNamed(project, name);
    return { ...project, actions: project.actions.filter((each) => each !== action) };
  },
);

/** Gives an action another rose. Facings that the new one lacks are let go; their clips stay. */
export const setWays = edit(
  (_project, name: ActionName, ways: Ways) => t("set {name} to {facings}", { name, facings: counted(ways, "facing") }),
  (project, name, ways) => {
    const action = actionNamed(project, name);
    if (action.ways === ways) return project;
    return withAction(project, name, { ...action, ways, facings: ordered(ways, action.facings) });
  },
);

/** What an action plays in a facing; null leaves the facing missing. Throws `bad-call` for a facing that is not on its rose. */
export const setPetal = edit(
  (_project, name: ActionName, facing: Facing, petal: Petal | null) =>
    petal
      ? petal.mirror
        ? t("set {name} {facing} to the mirror of {clip}", { name, facing, clip: petal.clip })
        : t("set {name} {facing} to {clip}", { name, facing, clip: petal.clip })
      : t("clear {name} {facing}", { name, facing }),
  (project, name, facing, petal) => {
    const action = actionNamed(project, name);
    if (!FACINGS_OF[action.ways].includes(facing))
      throw new CaravanError(
        "bad-call",
        t('action "{name}"', { name }),
        t("It has {facings}, and {facing} is not one of them.", { facings: counted(action.ways, "facing"), facing }),
        t("Give it more facings."),
      );
    const before = action.facings[facing];
    if (before?.clip === petal?.clip && before?.mirror === petal?.mirror) return project;
    if (petal) clipNamed(project, petal.clip);
    const { [facing]: _gone, ...others } = action.facings;
    return withAction(project, name, { ...action, facings: ordered(action.ways, petal ? { ...others, [facing]: petal } : others) });
  },
);

/** Fills missing facings with mirrors of those across, as far as these have clips of their own. */
export const mirrorMissing = edit(
  (_project, name: ActionName) => t("mirror the missing facings of {name}", { name }),
  (project, name) => {
    const action = actionNamed(project, name);
    const facings = { ...action.facings };
    for (const facing of FACINGS_OF[action.ways]) {
      const across = action.facings[mirrorOf(facing)];
      if (!facings[facing] && across && !across.mirror && mirrorOf(facing) !== facing)
        facings[facing] = { clip: across.clip, mirror: true };
    }
    if (Object.keys(facings).length === Object.keys(action.facings).length) return project;
    return withAction(project, name, { ...action, facings: ordered(action.ways, facings) });
  },
);

/** Facings of a rose in its own order, so that equal actions are written equally. */
export function ordered(ways: Ways, facings: Action["facings"]): Action["facings"] {
  return Object.fromEntries(FACINGS_OF[ways].flatMap((facing) => (facings[facing] ? [[facing, facings[facing]]] : [])));
}

export function withAction(project: Project, name: ActionName, action: Action): Project {
  return { ...project, actions: project.actions.map((each) => (each.name === name ? action : each)) };
}

export function newActionName(project: Project, wanted: string): ActionName {
  const name = checkedName(wanted, t("action name")) as ActionName;
  if (project.actions.some((action) => action.name === name))
    throw new CaravanError(
      "name-taken",
      t('action "{name}"', { name }),
      t("There is already an action of this name."),
      t("Choose another name."),
    );
  return name;
}
