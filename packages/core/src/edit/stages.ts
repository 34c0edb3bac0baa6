/** Edits stages, where behaviours are rehearsed, and saved rehearsals. */

import type { Behaviour } from "../model";
import { CaravanError, checkedName, Drive, driveNamed, freeName, type Project, Stage, type StageName, stageNamed } from "../model";
import { withNamesBecome } from "../references";
import { inLanguage, t } from "../words";
import { addBehaviour } from "./behaviours";
import { edit } from "./edit";

/** Adds a stage under its name, or one like it that is free. Throws `bad-name`. */
export const addStage = edit(
  (_project, stage: Stage) => t("make the stage {name}", { name: stage.name }),
  (project, stage): Project => {
    const { stages = [] } = project;
    const name = freeName(checkedName(stage.name, t("stage name")), new Set(stages.map((each) => each.name as string))) as StageName;
    return { ...project, stages: [...stages, fitStage({ ...stage, name })] };
  },
);

/** A behaviour and the stage on which it is rehearsed, at once. */
export const addRehearsal = edit(
  (_project, behaviour: Behaviour, _stage: Stage) => t("make the behaviour {name} and its stage", { name: behaviour.name }),
  (project, behaviour, stage): Project => {
    const made = addBehaviour(project, behaviour);
    const name = made.behaviours?.at(-1)?.name ?? behaviour.name;
    return addStage(made, { ...stage, behaviour: name });
  },
);

export type StageChange = Partial<Omit<Stage, "name">>;

const WORDS: Readonly<Record<keyof StageChange, string>> = {
  view: "the view",
  behaviour: "the behaviour",
  size: "the size",
  world: "the size of the world",
  ground: "the ground line",
  start: "where the figure starts",
  camera: "the camera",
  backdrop: "the backdrop",
  movement: "the movement",
  body: "the boxes that collide",
  feeds: "what the movement tells",
  keys: "the keys",
  platforms: "the platforms",
  zones: "the zones",
  effects: "the effects",
  extras: "the others",
  hits: "what counts as a hit",
};

/** Throws `bad-number` for what does not fit. */
export const setStage = edit(
  (_project, name: StageName, change: StageChange) =>
    t("change {what} of {name}", { what: inLanguage(WORDS[(Object.keys(change)[0] ?? "size") as keyof StageChange]), name }),
  (project, name, change): Project => {
    const before = stageNamed(project, name);
    const after = { ...before, ...change };
    if (JSON.stringify(after) === JSON.stringify(before)) return project;
    const stage = fitStage(after);
    return { ...project, stages: (project.stages ?? []).map((each) => (each === before ? stage : each)) };
  },
);

/** Throws `bad-name` or `name-taken`. */
export const renameStage = edit(
  (_project, from: StageName, to: string) => t("rename {from} to {to}", { from, to: to.trim() }),
  (project, from, to) => {
    stageNamed(project, from);
    const name = checkedName(to, t("stage name")) as StageName;
    if (name !== from && project.stages?.some((each) => each.name === name))
      throw new CaravanError("name-taken", `"${name}"`, t("There is already a stage of this name."), t("Type another name."));
    return withNamesBecome(project, { stage: (each) => (each === from ? name : each) });
  },
);

export const removeStage = edit(
  (_project, name: StageName) => t("remove the stage {name}", { name }),
  (project, name): Project => {
    const stage = stageNamed(project, name);
    return { ...project, stages: (project.stages ?? []).filter((each) => each !== stage) };
  },
);

/** Keeps a rehearsal under its name, or one like it that is free. Throws `bad-name`. */
export const keepDrive = edit(
  (_project, drive: Drive) => t("keep the drive {name}", { name: drive.name }),
  (project, drive): Project => {
    const { drives = [] } = project;
    const name = freeName(checkedName(drive.name, t("drive name")), new Set(drives.map((each) => each.name)));
    return { ...project, drives: [...drives, Drive.parse({ ...drive, name })] };
  },
);

/** Changes a kept rehearsal: its name, its kept range, or the account that it is compared with. Throws `bad-name` or `name-taken`. */
export const setDrive = edit(
  (_project, name: string, change: Partial<Drive>) =>
    change.name !== undefined
      ? t("rename {from} to {to}", { from: name, to: change.name.trim() })
      : change.keys
        ? t("trim {name}", { name })
        : t("accept what {name} shows now", { name }),
  (project, name, change): Project => {
    const before = driveNamed(project, name);
    const wanted = change.name === undefined ? name : checkedName(change.name, t("drive name"));
    if (wanted !== name && project.drives?.some((each) => each.name === wanted))
      throw new CaravanError("name-taken", `"${wanted}"`, t("There is already a drive of this name."), t("Type another name."));
    const drive = Drive.parse({ ...before, ...change, name: wanted });
    if (JSON.stringify(drive) === JSON.stringify(before)) return project;
    return { ...project, drives: (project.drives ?? []).map((each) => (each === before ? drive : each)) };
  },
);

export const removeDrive = edit(
  (_project, name: string) => t("remove the drive {name}", { name }),
  (project, name): Project => {
    const drive = driveNamed(project, name);
    return { ...project, drives: (project.drives ?? []).filter((each) => each !== drive) };
  },
);

function fitStage(stage: Stage): Stage {
  const parsed = Stage.safeParse(stage);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0];
  throw new CaravanError(
    "bad-number",
    t('stage "{name}", {path}', { name: stage.name, path: issue?.path.join(" ") ?? "" }),
    t("This does not fit: {message}.", { message: issue?.message ?? "" }),
    t("The earlier value was kept."),
  );
}
