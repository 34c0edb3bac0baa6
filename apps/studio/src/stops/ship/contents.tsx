"use client";

import { matches } from "@caravan/core/delivery-plan";
import { type Delivery, type FrameRef, findFrame, frameName, type Project } from "@caravan/core/model";
import { useRef, useState } from "react";
import { FramePicture } from "../../preview/frame-picture";
import { currentProject, useProject } from "../../project/open-project";
import { pickedFrames, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { Detail } from "../../ui/detail";
import { useInSight } from "../../ui/in-sight";
import { TextField } from "../../ui/text-field";
import { Tick } from "../../ui/tick";
import { listInWords, t } from "../../ui/words";
import { useDelivery } from "./chosen-delivery";

type Of = Delivery["choice"]["of"];

/** Which clips, actions or frames go out, and what frames are called. */
export function WhatGoes() {
  const { delivery, set } = useDelivery();
  const { choice } = delivery;
  /** Everything is ticked at first, to be unticked as needed. */
  const choose = (of: Of) => {
    const project = currentProject();
    if (of === "frames") {
      const picked = pickedFrames(project, useView.getState());
      set({ choice: { of, frames: picked.length > 0 ? picked : (choice.frames ?? []) } });
    } else set({ choice: { of, names: of === "all" ? [] : namesOf(project, of) } });
  };
  return (
    <Detail title={t("Contents")}>
      <Choice
        label={t("Contents")}
        value={choice.of}
        options={[
          ["all", t("All")],
          ["clips", t("Clips")],
          ["actions", t("Actions")],
          ["frames", t("Picked frames")],
        ]}
        onChange={choose}
      />
      {(choice.of === "clips" || choice.of === "actions") && <Named of={choice.of} />}
      {choice.of === "frames" && <Picked />}
      <div className="mt-2 flex items-center gap-1.5">
        <span className="text-small text-muted">{t("frame names")}</span>
        <TextField
          label={t("Pattern for frame names")}
          value={delivery.frameNames}
          onChange={(frameNames) => set({ frameNames: frameNames.trim() || "{name}" })}
          className="number border-line"
        />
      </div>
      <p className="mt-1 text-small text-muted">
        {t("{gaps}; {wide} has three digits", { gaps: "{name} {source} {row} {column} {clip} {step} {n}", wide: "{n:3}" })}
      </p>
    </Detail>
  );
}

function namesOf({ clips, actions }: Pick<Project, "clips" | "actions">, of: "clips" | "actions"): string[] {
  return (of === "actions" ? actions : clips).map(({ name }) => name);
}

/** By names that are ticked and by patterns; what patterns match is listed and counted. */
function Named({ of }: { of: "clips" | "actions" }) {
  const { delivery, set } = useDelivery();
  const { names, pattern } = delivery.choice;
  const clips = useProject((project) => project.clips);
  const actions = useProject((project) => project.actions);
  const all = namesOf({ clips, actions }, of);
  const matched = all.filter((name) => matches(pattern, name));
  const [ticked, alike] = [new Set(names), new Set(matched)];
  const goes = all.filter((name) => ticked.has(name) || alike.has(name)).length;
  return (
    <>
      <div className="mt-2 flex items-center gap-1.5">
        <span className="text-small text-muted">{t("names like")}</span>
        <TextField
          label={t("Names like")}
          value={pattern}
          placeholder={t("walk_*, idle_*")}
          onChange={(next) => set({ choice: { pattern: next.trim() } })}
          className="border-line"
        />
      </div>
      {pattern !== "" && (
        <p aria-live="polite" className="mt-1 text-small text-muted">
          {matched.length === 0
            ? t("Matches none of the {count} {of}.", { count: all.length, of })
            : t("Matches {count}: {listed}.", { count: matched.length, listed: listInWords(matched, MOST_LISTED) })}
        </p>
      )}
      <div className="mt-1.5 flex items-center gap-1.5">
        <span className="grow text-small text-muted">{t("{goes} of {count} {of} included", { goes, count: all.length, of })}</span>
        <Button look="quiet" className="min-h-6" onClick={() => set({ choice: { names: all } })}>
          {t("Tick all")}
        </Button>
        <Button look="quiet" className="min-h-6" onClick={() => set({ choice: { names: [] } })}>
          {t("Tick none")}
        </Button>
      </div>
      <NameTicks
        label={t("Chosen {of}", { of })}
        all={all}
        ticked={ticked}
        alike={alike}
        onTick={(name, on) => set({ choice: { names: on ? [...names, name] : names.filter((each) => each !== name) } })}
      />
    </>
  );
}

/** How high a tick is, in CSS pixels. */
const TICK = 28;

/** Every name with a tick; of thousands only those in sight are drawn. */
function NameTicks({
  label,
  all,
  ticked,
  alike,
  onTick,
}: {
  label: string;
  all: readonly string[];
  ticked: ReadonlySet<string>;
  /** Those that the pattern matches. */
  alike: ReadonlySet<string>;
  onTick: (name: string, on: boolean) => void;
}) {
  const list = useRef<HTMLDivElement>(null);
  const [focused, setFocused] = useState(-1);
  const { shown, measure } = useInSight({ count: all.length, height: TICK, kept: [focused], list, scroller: () => list.current });
  return (
    // A fieldset that scrolls itself goes back to its top when its content changes.
    <fieldset
      aria-label={label}
      onFocus={({ target }) => setFocused(Number(target.closest<HTMLElement>("[data-index]")?.dataset.index ?? -1))}
      onBlur={() => setFocused(-1)}
      className="mt-1 min-w-0"
    >
      <div ref={list} className="max-h-40 overflow-y-auto">
        {shown.map((each) => {
          if (!("index" in each)) return <div key={`before ${each.before}`} aria-hidden style={{ height: each.room }} />;
          const name = all[each.index] as string;
          return (
            <span key={name} ref={measure} data-index={each.index} className="flex items-center justify-between gap-2">
              <Tick label={name} checked={ticked.has(name)} onChange={(on) => onTick(name, on)} />
              {alike.has(name) && <span className="pr-1 text-small text-muted">{t("matches")}</span>}
            </span>
          );
        })}
      </div>
    </fieldset>
  );
}

const MOST_LISTED = 12;

const MOST_SHOWN = 40;
const NO_FRAMES: readonly FrameRef[] = [];

/** Single frames: those picked at Frames, added with one press. */
function Picked() {
  const { delivery, set } = useDelivery();
  const chosen = delivery.choice.frames ?? NO_FRAMES;
  const project = useProject((each) => each);
  const picked = useView((view) => view.picked.length);
  const found = chosen.flatMap((ref) => findFrame(project, ref) ?? []);
  const take = () => set({ choice: { frames: pickedFrames(currentProject(), useView.getState()) } });
  return (
    <>
      <p className="mt-2">
        {chosen.length === 0
          ? t("No frames are chosen yet.")
          : chosen.length === 1
            ? t("1 frame is chosen.")
            : t("{count} frames are chosen.", { count: chosen.length })}
      </p>
      <ul aria-label={t("Chosen frames")} className="my-1 flex max-h-24 flex-wrap gap-0.5 overflow-y-auto">
        {found.slice(0, MOST_SHOWN).map(({ source, frame }) => (
          <li key={`${source.id} ${frame.key}`} title={frameName(source, frame)} className="check rounded-sm">
            <FramePicture source={source} frame={frame} size={32} className="block" />
          </li>
        ))}
      </ul>
      {found.length > MOST_SHOWN && <p className="text-small text-muted">{t("and {count} more", { count: found.length - MOST_SHOWN })}</p>}
      <Button disabled={picked === 0} onClick={take}>
        {picked === 0 ? t("Pick frames at Frames first") : t("Use the {picked} picked frames", { picked })}
      </Button>
      <p className="mt-1 text-small text-muted">{t("Clips that use only these frames are included.")}</p>
    </>
  );
}
