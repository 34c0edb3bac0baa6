"use client";

import { type Behaviour, behaviourNamed, type Project, type Stage } from "@caravan/core/model";
import { useProject } from "../../project/open-project";
import { PlaceFindings } from "../../project/place-findings";
import { chosenStage, useView } from "../../project/view";
import { t } from "../../ui/words";
import { InputsDetail } from "./inputs-detail";
import { KeysDetail } from "./keys-detail";
import { OnStageDetail } from "./on-stage-detail";
import { RulesDetail } from "./rules-detail";
import { StageDetail } from "./stage-detail";

/** Shows the rules in plain words, their inputs, and the stage they are rehearsed on. */
export function Details() {
  const project = useProject((each) => each);
  const stage = useView((view) => chosenStage(project, view));
  if (!stage) return null;
  const behaviour = behaviourOf(project, stage);
  return (
    <>
      {behaviour && <RulesDetail behaviour={behaviour} />}
      {behaviour && (
        <PlaceFindings
          label={t("Findings on this behaviour")}
          at={(place) => place.stop === "rehearse" && !place.stage && place.behaviour === behaviour.name}
        />
      )}
      {behaviour && <InputsDetail behaviour={behaviour} stage={stage} />}
      <KeysDetail stage={stage} behaviour={behaviour} />
      <StageDetail stage={stage} />
      <OnStageDetail stage={stage} />
    </>
  );
}

function behaviourOf(project: Project, stage: Stage): Behaviour | null {
  return project.behaviours?.some(({ name }) => name === stage.behaviour) ? behaviourNamed(project, stage.behaviour) : null;
}
