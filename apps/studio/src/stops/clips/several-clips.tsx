"use client";

import { paceOf } from "@caravan/core/clip";
import { copyEvents, moveClips, removeClips, renameClips, setFpsOfClips, setRulesOfClips } from "@caravan/core/edit";
import type { Clip } from "@caravan/core/model";
import { useState } from "react";
import { act } from "../../project/act";
import { currentProject, editInGesture } from "../../project/open-project";
import { useView } from "../../project/view";
import { AS_TYPED } from "../../ui/as-typed";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { Detail } from "../../ui/detail";
import { chordInWords } from "../../ui/keys";
import { FieldBox, NumberField } from "../../ui/number-field";
import { t } from "../../ui/words";
import { DataDetail } from "../../user-data/data-detail";

/** Edits all selected clips at once; each change is one undo step. */
export function SeveralClips({ clips }: { clips: readonly Clip[] }) {
  const names = clips.map(({ name }) => name);
  return (
    <>
      <Detail
        part="selected clips"
        title={t("{count} clips selected", { count: clips.length })}
        aside={t("{chord}+click adds one", { chord: chordInWords("Mod") })}
      >
        <div className="flex flex-col items-start gap-2">
          <TogetherFields clips={clips} what={t("the selected clips")} />
          <NamesField clips={clips} />
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => act(moveClips, names, -1)}>{t("Move up")}</Button>
            <Button onClick={() => act(moveClips, names, 1)}>{t("Move down")}</Button>
            <Button once onClick={() => act(removeClips, names)}>
              {t("Remove {count}", { count: clips.length })}
            </Button>
          </div>
        </div>
      </Detail>
      <DataDetail on={{ clips: names }} things={clips} what={t("the {count} clips", { count: clips.length })} />
    </>
  );
}

/** Speed, looping and events of several clips. `from` is the one whose events the others may be given; absent for the first that has some. */
export function TogetherFields({ clips, what, from }: { clips: readonly Clip[]; what: string; from?: Clip | undefined }) {
  const names = clips.map(({ name }) => name);
  const paces = clips.flatMap(({ steps }) => paceOf(steps.map(({ duration }) => duration))?.fps ?? []);
  const [fps] = paces;
  const samePace = paces.every((each) => each === fps);
  const playback = clips.every((clip) => clip.playback === clips[0]?.playback) ? clips[0]?.playback : undefined;
  const model = from && hasEvents(from) ? from : clips.find(hasEvents);
  const others = model ? clips.filter((clip) => eventsOf(clip) !== eventsOf(model)).map(({ name }) => name) : [];
  return (
    <>
      {fps !== undefined && (
        <FieldBox label={samePace ? t("speed") : t("speed: mixed, first")}>
          <NumberField
            label={t("Frames per second of {what}", { what })}
            value={fps}
            least={0.001}
            most={1_000_000}
            decimals={3}
            unit="fps"
            onChange={(next) => editInGesture(`pace of ${names.join()}`, setFpsOfClips, names, next)?.message}
          />
        </FieldBox>
      )}
      <Choice
        label={t("Looping of {what}", { what })}
        value={playback ?? "mixed"}
        options={[
          ["once", t("Once")],
          ["loop", t("Loop")],
          ["pingpong", t("Ping-pong")],
        ]}
        onChange={(next) => next !== "mixed" && act(setRulesOfClips, names, { playback: next })}
      />
      {model && others.length > 0 && (
        <Button className="max-w-full whitespace-normal! text-left" onClick={() => act(copyEvents, model.name, others)}>
          {t("Events as in {name}", { name: model.name })}
        </Button>
      )}
    </>
  );
}

/** As one text, to be compared. */
function eventsOf({ steps }: Clip): string {
  return JSON.stringify(steps.map(({ events = [], eventValues = [] }) => [events, eventValues]));
}

function hasEvents({ steps }: Clip): boolean {
  return steps.some(({ events }) => events !== undefined && events.length > 0);
}

/** Renames the selected clips by a pattern; they stay selected under their new names. */
function NamesField({ clips }: { clips: readonly Clip[] }) {
  const [pattern, setPattern] = useState("{name}");
  const rename = () => {
    const before = currentProject().clips;
    const places = clips.map((clip) => before.indexOf(clip));
    if (
      !act(
        renameClips,
        clips.map(({ name }) => name),
        pattern,
        1,
      )
    )
      return;
    const after = places.flatMap((k) => currentProject().clips[k]?.name ?? []);
    useView.setState({ clipNames: after, clipName: after[0] ?? null });
    setPattern("{name}");
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      <FieldBox label={t("names")}>
        <input
          aria-label={t("Pattern for the names of the selected clips")}
          value={pattern}
          size={Math.max(10, pattern.length + 1)}
          onChange={(event) => setPattern(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && rename()}
          className="min-h-7 bg-transparent"
          {...AS_TYPED}
        />
      </FieldBox>
      <Button disabled={pattern === "{name}" || pattern.trim() === ""} onClick={rename}>
        {t("Rename")}
      </Button>
      <span className="text-small text-muted">{t("{name} is a clip's own name, {n} counts from 1", { name: "{name}", n: "{n}" })}</span>
    </div>
  );
}
