"use client";

import { areEven } from "@caravan/core/clip";
import { evenOut, setStepDurations } from "@caravan/core/edit";
import { type Clip, findFrame, frameName } from "@caravan/core/model";
import { usePlayer } from "../../preview/player-state";
import { sizeFacts } from "../../preview/size-facts";
import { act } from "../../project/act";
import { editInGesture, useProject } from "../../project/open-project";
import { chosenAction, chosenClip, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { CountFrom, useCountFrom } from "../../ui/counting";
import { Detail, Facts } from "../../ui/detail";
import { Tick } from "../../ui/tick";
import { chosenSteps } from "./chosen-steps";
import { ClipFindings } from "./clip-findings";
import { ClipTools } from "./clip-tools";
import { MsField } from "./ms-field";
import { ActionDetails } from "./rose/action-details";
import { StepTools } from "./step-tools";

/** The chosen steps: their time, and taking them out. */
export function Details() {
  const project = useProject((each) => each);
  const clip = useView((view) => chosenClip(project, view));
  const picked = useView((view) => view.steps);
  const action = useView((view) => chosenAction(project, view));
  if (action) return <ActionDetails action={action} />;
  if (!clip || clip.steps.length === 0) return null;
  const steps = chosenSteps(clip, picked);
  return (
    <>
      {steps.length > 0 ? (
        <StepsDetail clip={clip} steps={steps} />
      ) : (
        <Detail title="Steps">
          <p className="text-muted">
            Choose steps on the ribbon to set their time or drop them. Without a choice, the time is set for all.
          </p>
          <StepTime clip={clip} steps={clip.steps.map((_, k) => k)} />
        </Detail>
      )}
      <ClipFindings clip={clip} />
      <ClipTools clip={clip} />
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
    <Detail title={steps.length === 1 ? `Step ${(steps[0] as number) + countFrom}` : `${steps.length} steps`} aside={<CountFrom />}>
      {steps.length === 1 && found && (
        <Facts facts={[["frame", frameName(found.source, found.frame)], ...sizeFacts(found.source, found.frame, project.deliveries)]} />
      )}
      <StepTime clip={clip} steps={steps} />
      <Tick
        label={`play only ${steps.length === 1 ? "this step" : "these steps"}`}
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
        word={same ? "each" : "mixed, first"}
        label="Milliseconds of the chosen steps"
        value={first}
        onChange={(each) => editInGesture(`step time ${clip.name} ${steps.join()}`, setStepDurations, clip.name, steps, each)?.message}
      />
      {!same && steps.length === clip.steps.length && <Button onClick={() => act(evenOut, clip.name)}>Even out</Button>}
    </div>
  );
}
