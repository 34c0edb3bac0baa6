"use client";

import { areEven } from "@caravan/core/clip";
import { evenOut, setDurationsInTurn, setStepDurations } from "@caravan/core/edit";
import { type Clip, findFrame, frameName, msFromMicros } from "@caravan/core/model";
import { usePlayer } from "../../preview/player-state";
import { sizeFacts } from "../../preview/size-facts";
import { act } from "../../project/act";
import { edit, editInGesture, useProject } from "../../project/open-project";
import { chosenAction, chosenClip, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { CountFrom, useCountFrom } from "../../ui/counting";
import { Detail, Facts } from "../../ui/detail";
import { FIELDS } from "../../ui/fields-by-key";
import { FieldBox } from "../../ui/number-field";
import { TextField } from "../../ui/text-field";
import { Tick } from "../../ui/tick";
import { typedNumbers } from "../../ui/typed-number";
import { t } from "../../ui/words";
import { DataDetail } from "../../user-data/data-detail";
import { chosenSteps } from "./chosen-steps";
import { ClipFindings } from "./clip-findings";
import { ClipTools } from "./clip-tools";
import { MsField } from "./ms-field";
import { ActionDetails } from "./rose/action-details";
import { useClipsTogether } from "./selected-clips";
import { SeveralClips } from "./several-clips";
import { StepTools } from "./step-tools";

/** The selected steps: their durations, and dropping them. */
export function Details() {
  const project = useProject((each) => each);
  const clip = useView((view) => chosenClip(project, view));
  const picked = useView((view) => view.steps);
  const action = useView((view) => chosenAction(project, view));
  const together = useClipsTogether(project);
  if (action) return <ActionDetails action={action} />;
  if (together.length > 0) return <SeveralClips clips={together} />;
  if (!clip || clip.steps.length === 0) return null;
  const steps = chosenSteps(clip, picked);
  return (
    <>
      {steps.length > 0 ? (
        <StepsDetail clip={clip} steps={steps} />
      ) : (
        <Detail title={t("Steps")}>
          <p className="text-muted">
            {t("Select steps on the ribbon to set their duration or drop them. With none selected, it is set for all.")}
          </p>
          <StepTime clip={clip} steps={clip.steps.map((_, k) => k)} />
        </Detail>
      )}
      <ClipFindings clip={clip} />
      <ClipTools clip={clip} />
      <DataDetail key={clip.name} on={{ clips: [clip.name] }} things={[clip]} what={clip.name} />
    </>
  );
}

function StepsDetail({ clip, steps }: { clip: Clip; steps: readonly number[] }) {
  const project = useProject((each) => each);
  const first = clip.steps[steps[0] as number];
  const found = first && findFrame(project, first.frame);
  const countFrom = useCountFrom();
  const onlyChosen = usePlayer((state) => state.onlyChosen);
  return (
    <Detail
      part="chosen steps"
      title={
        steps.length === 1 ? t("Step {step}", { step: (steps[0] as number) + countFrom }) : t("{count} steps", { count: steps.length })
      }
      aside={<CountFrom />}
    >
      {steps.length === 1 && found && (
        <Facts facts={[[t("frame"), frameName(found.source, found.frame)], ...sizeFacts(found.source, found.frame, project.deliveries)]} />
      )}
      <StepTime clip={clip} steps={steps} />
      <Tick
        label={steps.length === 1 ? t("play only this step") : t("play only these steps")}
        checked={onlyChosen}
        onChange={(next) => usePlayer.setState({ onlyChosen: next })}
      />
      <StepTools clip={clip} steps={steps} />
    </Detail>
  );
}

function StepTime({ clip, steps }: { clip: Clip; steps: readonly number[] }) {
  const durations = steps.map((step) => clip.steps[step]?.duration ?? 0);
  const first = durations[0] ?? 0;
  const same = areEven(durations);
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      <MsField
        word={same ? t("each") : t("mixed, first")}
        id={FIELDS.stepTimes}
        label={t("Milliseconds of the selected steps")}
        value={first}
        onChange={(each) => editInGesture(`step time ${clip.name} ${steps.join()}`, setStepDurations, clip.name, steps, each)?.message}
      />
      {steps.length > 1 && <DurationsField clip={clip} steps={steps} />}
      {!same && steps.length === clip.steps.length && <Button onClick={() => act(evenOut, clip.name)}>{t("Even out")}</Button>}
    </div>
  );
}

/** The steps' durations, editable as a list; a shorter list repeats. */
function DurationsField({ clip, steps }: { clip: Clip; steps: readonly number[] }) {
  const shown = steps.slice(0, MOST_LISTED).map((step) => msFromMicros(clip.steps[step]?.duration ?? 0));
  const set = (text: string): string | undefined => {
    const durations = typedNumbers(text.replace("…", ""));
    if (!durations) return t("Type decimals with a point, such as 33.3 33.3.");
    if (durations.length === 0 || !durations.every((ms) => ms > 0)) return t("Type milliseconds such as 150 150 400.");
    return edit(
      setDurationsInTurn,
      clip.name,
      steps,
      durations.map((ms) => Math.round(ms * 1000)),
    )?.message;
  };
  return (
    <FieldBox label={t("durations")}>
      <TextField
        key={`${clip.name} ${steps.join()}`}
        label={t("Durations one by one, in milliseconds")}
        value={`${shown.join(" ")}${steps.length > MOST_LISTED ? " …" : ""}`}
        onChange={set}
        className="max-w-52"
      />
    </FieldBox>
  );
}

/** Durations written out; of more steps the first are. */
const MOST_LISTED = 16;
