"use client";

import {
  addToSteps,
  holdUntil,
  removeFrameEverywhere,
  reverseSomeSteps,
  scaleSteps,
  setEventValue,
  setStepEvents,
  spreadOverSteps,
} from "@caravan/core/edit";
import { type Clip, clipsByFrame, sameValue, textOfValue, valueIn } from "@caravan/core/model";
import { useMemo } from "react";
import { act } from "../../project/act";
import { edit, editInGesture, useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { FieldBox, NumberField } from "../../ui/number-field";
import { TextField } from "../../ui/text-field";
import { t } from "../../ui/words";
import { withValue } from "../../user-data/data-detail";
import { dropChosen } from "./clip-keys";
import { MsField } from "./ms-field";
import { totalOf } from "./pace-words";
import { copySteps, duplicateChosen, pasteCopied, splitAt, useCopiedSteps } from "./step-acts";

/** Tools for the selected steps: their total duration, copies, order, and dropping them. */
export function StepTools({ clip, steps }: { clip: Clip; steps: readonly number[] }) {
  const { name } = clip;
  const copied = useCopiedSteps((state) => state.steps.length);
  const together = steps.reduce((sum, step) => sum + (clip.steps[step]?.duration ?? 0), 0);
  const gesture = `steps ${name} ${steps.join()}`;
  return (
    <>
      <div className="mt-2 flex flex-wrap items-center gap-1.5">
        {steps.length > 1 && (
          <MsField
            word={t("together")}
            label={t("Milliseconds in total")}
            value={together}
            onChange={(total) => editInGesture(gesture, spreadOverSteps, name, steps, total)?.message}
          />
        )}
        <MsField
          word={t("add")}
          label={t("Milliseconds to add")}
          value={0}
          least={-3_600_000}
          step={5}
          onChange={(by) => editInGesture(gesture, addToSteps, name, steps, by)?.message}
        />
        {steps.length === 1 && (
          <MsField
            word={t("hold, so that the clip lasts")}
            label={t("Milliseconds of the clip with this step held")}
            value={totalOf(clip)}
            onChange={(total) => editInGesture(gesture, holdUntil, name, steps[0] as number, total)?.message}
          />
        )}
        <FieldBox label={t("scale to")}>
          <NumberField
            label={t("Percent")}
            value={100}
            least={0.1}
            most={100_000}
            step={10}
            decimals={1}
            unit="%"
            onChange={(percent) => editInGesture(gesture, scaleSteps, name, steps, percent / 100)?.message}
          />
        </FieldBox>
      </div>
      <div className="mt-2 flex flex-wrap gap-1.5">
        <FieldBox label={t("fires")}>
          <TextField
            label={t("Events")}
            value={eventsOf(clip, steps)}
            placeholder={t("no event")}
            onChange={(text) => edit(setStepEvents, name, steps, namesIn(text))?.message}
          />
        </FieldBox>
        {firedBy(clip, steps).map((event) => (
          <EventValue key={event} clip={clip} steps={steps} event={event} />
        ))}
      </div>
      <div className="mt-2 flex flex-wrap gap-1.5">
        <Button onClick={() => dropChosen(clip)} hint="Del">
          {t("Drop from {name}", { name })}
        </Button>
        <DropEverywhere clip={clip} steps={steps} />
        <Button onClick={() => duplicateChosen(clip, steps)}>{t("Duplicate")}</Button>
        {steps.length > 1 && <Button onClick={() => act(reverseSomeSteps, name, steps)}>{t("Reverse them")}</Button>}
        <Button onClick={() => splitAt(clip, steps)} hint="S">
          {t("Split here")}
        </Button>
        <Button onClick={() => copySteps(clip, steps)}>{t("Copy")}</Button>
        {copied > 0 && <Button onClick={() => pasteCopied(clip, steps)}>{t("Paste {copied} after", { copied })}</Button>}
      </div>
    </>
  );
}

/** The events of the first chosen step, as they are typed. */
function eventsOf(clip: Clip, steps: readonly number[]): string {
  return (clip.steps[steps[0] as number]?.events ?? []).join(", ");
}

function namesIn(text: string): string[] {
  return text.split(",").filter((name) => name.trim() !== "");
}

/** All events that chosen steps fire. */
function firedBy(clip: Clip, steps: readonly number[]): string[] {
  return [...new Set(steps.flatMap((step) => clip.steps[step]?.events ?? []))];
}

/** What an event carries on those of the chosen steps that fire it; left empty, nothing. */
function EventValue({ clip, steps, event }: { clip: Clip; steps: readonly number[]; event: string }) {
  const values = steps.flatMap((step) => {
    const { events, eventValues } = clip.steps[step] ?? {};
    return events?.includes(event) ? [valueIn(eventValues, event)] : [];
  });
  const [first] = values;
  const same = values.every((value) => sameValue(value, first));
  const set = (text: string) =>
    text.trim() === ""
      ? edit(setEventValue, clip.name, steps, event, undefined)?.message
      : withValue(text, (value) => edit(setEventValue, clip.name, steps, event, value)?.message);
  return (
    <FieldBox label={t("{event} carries", { event })}>
      <TextField
        label={t("Value of {event}", { event })}
        value={same && first !== undefined ? textOfValue(first) || "true" : ""}
        placeholder={same ? t("nothing") : t("mixed")}
        onChange={set}
        className="number max-w-40"
      />
    </FieldBox>
  );
}

/** For one step whose frame is used elsewhere: where, and dropping it everywhere. */
function DropEverywhere({ clip, steps }: { clip: Clip; steps: readonly number[] }) {
  const project = useProject((each) => each);
  const frame = steps.length === 1 ? clip.steps[steps[0] as number]?.frame : undefined;
  const uses = useMemo(() => (frame ? (clipsByFrame(project).get(frame) ?? []) : []), [project, frame]);
  if (!frame || uses.length < 2) return null;
  return (
    <Button onClick={() => act(removeFrameEverywhere, frame)} title={t("Used in {uses}", { uses: uses.join(", ") })}>
      {t("Drop from all {count} clips", { count: uses.length })}
    </Button>
  );
}
