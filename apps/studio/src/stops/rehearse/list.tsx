"use client";

import { addStage, removeBehaviour, removeDrive, removeStage, setStage } from "@caravan/core/edit";
import type { Behaviour, BehaviourName, Drive, Project, Stage, StageName } from "@caravan/core/model";
import { stageFor } from "@caravan/core/stage";
import { act } from "../../project/act";
import { currentProject, useProject } from "../../project/open-project";
import { chosenStage, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { ListHeading, RowList, rowAt } from "../../ui/row-list";
import { type Menu, WithMenu } from "../../ui/with-menu";
import { t } from "../../ui/words";
import { FeetCard } from "./feet-card";
import { proposeAnother } from "./propose";
import { playKept, runKept } from "./recording";
import { useSession } from "./session";
import { giveKeysBack } from "./stage-view";

/** Lists behaviours, the stages they are rehearsed on, and the kept drives. */
export function List() {
  const project = useProject((each) => each);
  const stage = useView((view) => chosenStage(project, view));
  const { behaviours = [], stages = [], drives = [] } = project;
  const playing = useSession((session) => session.drive?.name ?? null);
  const own = drives.filter((each) => each.behaviour === stage?.behaviour);
  return (
    // biome-ignore lint/a11y: what is clicked are the buttons in it; here they only give the keys back
    <div onClick={giveKeysBack}>
      <ListHeading title={t("Behaviours")} count={behaviours.length} />
      <WithMenu label={t("Behaviour menu")} menuOf={(target) => behaviourMenu(rowAt(target))}>
        <div>
          <RowList
            label={t("Behaviours")}
            rows={behaviours.map(({ name, rules }) => ({ id: name, name, fact: `${rules.length}` }))}
            chosen={stage?.behaviour ?? null}
            onChoose={(name) => chooseBehaviourRow(name as BehaviourName)}
          />
        </div>
      </WithMenu>
      <div className="mt-2 mb-4 px-1.5">
        <Button onClick={proposeAnother}>{t("New behaviour …")}</Button>
      </div>
      <ListHeading title={t("Stages")} count={stages.length} />
      <WithMenu label={t("Stage menu")} menuOf={(target) => stageMenu(rowAt(target))}>
        <div>
          <RowList
            label={t("Stages")}
            rows={stages.map(({ name, view }) => ({ id: name, name, fact: view === "side" ? t("side") : t("from above") }))}
            chosen={stage?.name ?? null}
            onChoose={(name) => useView.setState({ stageName: name as StageName, ruleName: null })}
          />
        </div>
      </WithMenu>
      {stage && (
        <div className="mt-2 mb-4 px-1.5">
          <Button onClick={() => newStage(stage)}>{t("New stage")}</Button>
        </div>
      )}
      {own.length > 0 && (
        <>
          <ListHeading title={t("Drives")} count={own.length} />
          <WithMenu label={t("Drive menu")} menuOf={(target) => driveMenu(own, rowAt(target))}>
            <div>
              <RowList
                label={t("Drives")}
                rows={own.map(({ name, length }) => ({ id: name, name, fact: `${Number((length / 1000).toFixed(1))} s` }))}
                chosen={playing}
                onChoose={(name) => {
                  const drive = own.find((each) => each.name === name);
                  if (drive) openDrive(drive);
                }}
              />
            </div>
          </WithMenu>
        </>
      )}
      {stage && <FeetCard />}
    </div>
  );
}

function chooseBehaviourRow(name: BehaviourName): void {
  const project = currentProject();
  const stage = project.stages?.find(({ behaviour }) => behaviour === name);
  if (stage) useView.setState({ stageName: stage.name, ruleName: null });
  else {
    const behaviour = project.behaviours?.find((each) => each.name === name);
    if (behaviour) stageOf(project, behaviour);
  }
}

/** A stage for a behaviour that has none, such as one whose stage was removed. */
function stageOf(project: Project, behaviour: Behaviour): void {
  const made = stageFor(project, behaviour.rules.at(-1)?.play ?? null, "side");
  const feeds = behaviour.inputs.some(({ name, kind }) => name === "speed" && kind === "number") ? { speed: "speed" } : {};
  if (act(addStage, { ...made, name: t("{name} road", { name: behaviour.name }) as StageName, behaviour: behaviour.name, feeds }))
    useView.setState({ stageName: currentProject().stages?.at(-1)?.name ?? null });
}

/** Another stage for the same behaviour, with the same keys and movement, and nothing on it. */
function newStage(like: Stage): void {
  const empty = { platforms: [], zones: [], effects: [], extras: [], hits: [] };
  if (act(addStage, { ...like, ...empty })) useView.setState({ stageName: currentProject().stages?.at(-1)?.name ?? null });
}

function openDrive(drive: Drive): void {
  if (currentProject().stages?.some(({ name }) => name === drive.stage)) {
    useView.setState({ stageName: drive.stage });
    // The scene follows the view; the drive is played on it.
    setTimeout(() => runKept(drive));
  } else runKept(drive);
}

function behaviourMenu(name: string | undefined): Menu | null {
  if (name === undefined) return null;
  return [{ label: t("Remove the behaviour"), run: () => act(removeBehaviour, name as BehaviourName) }];
}

function stageMenu(name: string | undefined): Menu | null {
  if (name === undefined) return null;
  const stage = name as StageName;
  return [
    { label: t("Camera follows"), run: () => act(setStage, stage, { camera: "follows" }) },
    { label: t("Camera fixed"), run: () => act(setStage, stage, { camera: "fixed" }) },
    null,
    { label: t("Remove the stage"), run: () => act(removeStage, stage) },
  ];
}

function driveMenu(drives: readonly Drive[], name: string | undefined): Menu | null {
  const drive = drives.find((each) => each.name === name);
  if (!drive) return null;
  return [
    { label: t("Play it"), run: () => playKept(drive) },
    { label: t("Rename"), run: () => renameDrive(drive) },
    null,
    { label: t("Remove the drive"), run: () => act(removeDrive, drive.name) },
  ];
}

function renameDrive(drive: Drive): void {
  openDrive(drive);
  setTimeout(() => document.getElementById("drive-name")?.focus());
}
