"use client";

import { clipsAlike } from "@caravan/core/edit";
import type { Clip } from "@caravan/core/model";
import { Palette, Plus, X } from "lucide-react";
import { useEffect, useMemo } from "react";
import { SPEEDS } from "../../../preview/player-state";
import { playingOfClip } from "../../../preview/playing";
import { earlierClip } from "../../../project/earlier";
import { useOpenProject, useProject } from "../../../project/open-project";
import { Button, IconButton } from "../../../ui/button";
import { Choice } from "../../../ui/choice";
import { Select } from "../../../ui/select";
import { Tick } from "../../../ui/tick";
import { t } from "../../../ui/words";
import { CompareStage, type ShownLane } from "./compare-stage";
import { firstLanes, type Lane, MOST_LANES, useComparison } from "./lanes";

/** Compares up to four clips, side by side or overlaid, in step by time or by phase; also a clip with its earlier state. */
export function CompareBench({ clip }: { clip: Clip }) {
  const project = useProject((each) => each);
  const history = useOpenProject((state) => state.history);
  const { lanes, inStep, overlaid } = useComparison();
  const { clips } = project;
  const names = clips.map(({ name }) => name);
  // Lanes of removed clips disappear; a comparison without lanes begins with the selected clip.
  const known = lanes.filter((lane) => names.includes(lane.clip));
  useEffect(() => {
    if (known.length === 0) useComparison.setState({ lanes: firstLanes(names, clip.name) });
    else if (known.length < lanes.length) useComparison.setState({ lanes: known });
  }, [known, lanes, names, clip.name]);
  const shown = useMemo(
    () =>
      lanes.flatMap((lane): ShownLane[] => {
        const now = clips.find(({ name }) => name === lane.clip);
        if (!now) return [];
        const before = lane.earlier ? earlierClip(history, project, lane.clip) : null;
        const playing = before ? playingOfClip(before.project, before.clip) : playingOfClip(project, now);
        return playing
          ? [{ lane, playing, note: lane.earlier ? (before ? t("before: {label}", { label: before.label }) : t("never changed")) : null }]
          : [];
      }),
    [lanes, clips, project, history],
  );
  const alike = useMemo(() => clipsAlike(project, clip), [project, clip]);
  const change = (at: number, next: Partial<Lane>) =>
    useComparison.setState({ lanes: lanes.map((lane, k) => (k === at ? { ...lane, ...next } : lane)) });
  return (
    <div className="flex min-h-0 grow flex-col gap-2.5">
      <div className="relative min-h-40 grow overflow-hidden rounded-box border border-line">
        <CompareStage lanes={shown} inStep={inStep} overlaid={overlaid} />
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <Choice
          label={t("Layout")}
          value={overlaid ? "over" : "beside"}
          options={[
            ["beside", t("Side by side")],
            ["over", t("Overlaid")],
          ]}
          onChange={(next) => useComparison.setState({ overlaid: next === "over" })}
        />
        <Choice
          label={t("In step by")}
          value={inStep}
          options={[
            ["time", t("By time")],
            ["phase", t("By phase")],
          ]}
          onChange={(next) => useComparison.setState({ inStep: next })}
        />
        <span className="grow" />
        {alike.length > 1 && (
          <Button
            title={alike.join(", ")}
            onClick={() =>
              useComparison.setState({ lanes: alike.slice(0, MOST_LANES).map((each) => ({ clip: each, speed: 1, earlier: false })) })
            }
          >
            <Palette size={14} aria-hidden />{" "}
            {alike.length > MOST_LANES
              ? t("{name} in {most} of {count} colours", { name: clip.name, count: alike.length, most: MOST_LANES })
              : t("{name} in {count} colours", { name: clip.name, count: alike.length })}
          </Button>
        )}
        <Button
          disabled={lanes.length >= MOST_LANES}
          onClick={() => useComparison.setState({ lanes: [...lanes, { clip: clip.name, speed: 1, earlier: false }] })}
        >
          <Plus size={14} aria-hidden /> {t("Add {name}", { name: clip.name })}
        </Button>
      </div>
      <ol aria-label={t("Compared clips")} className="flex flex-col gap-1.5">
        {lanes.map((lane, k) => (
          <li key={k} className="flex flex-wrap items-center gap-2">
            <span className="number w-4 text-muted">{k + 1}</span>
            <Select
              label={t("Clip {number}", { number: k + 1 })}
              className="max-w-48"
              value={lane.clip}
              options={names.map((name) => [name, name] as const)}
              onChange={(clip) => change(k, { clip })}
            />
            <span className="flex items-center gap-1.5 text-muted">
              {t("speed")}
              <Select
                label={t("Speed of clip {number}", { number: k + 1 })}
                className="number"
                value={lane.speed}
                disabled={inStep === "phase"}
                options={SPEEDS.map((each) => [each, `${each}×`] as const)}
                onChange={(speed) => change(k, { speed })}
              />
            </span>
            <Tick label={t("as before its last edit")} checked={lane.earlier} onChange={(earlier) => change(k, { earlier })} />
            <span className="truncate text-small text-muted">{lane.earlier && shown.find((each) => each.lane === lane)?.note}</span>
            <span className="grow" />
            <IconButton
              once
              label={t("Remove clip {number}", { number: k + 1 })}
              look="quiet"
              disabled={lanes.length === 1}
              onClick={() => useComparison.setState({ lanes: lanes.filter((_, n) => n !== k) })}
            >
              <X size={14} />
            </IconButton>
          </li>
        ))}
      </ol>
    </div>
  );
}
