"use client";

import type { Clip } from "@caravan/core/model";
import { useEffect, useMemo, useState } from "react";
import { looksOfStill } from "../../../preview/draw-frame";
import { useHiddenLayers } from "../../../preview/hidden-layers";
import { usePlayer } from "../../../preview/player-state";
import { type PlayedFrame, playedFrame } from "../../../preview/playing";
import { chooseStep } from "../../../preview/shown-step";
import { StepStrip } from "../../../preview/step-strip";
import { useProject } from "../../../project/open-project";
import { loadPictures, usePictures } from "../../../project/pictures";
import { useView } from "../../../project/view";
import { Button } from "../../../ui/button";
import { useCountFrom } from "../../../ui/counting";
import { useKeys } from "../../../ui/keys";
import { FieldBox, NumberField } from "../../../ui/number-field";
import { Tick } from "../../../ui/tick";
import { t } from "../../../ui/words";
import { dropChosen } from "../clip-keys";
import { type Compared, compareFrames } from "./compare-frames";
import { FlickCanvas } from "./flick-canvas";

/** Alternates two neighbouring steps in one place, to see which foot slips. The step shown is the selected one. */
export function FlickBench({ clip }: { clip: Clip }) {
  const project = useProject((each) => each);
  const chosen = useView((view) => view.steps[0] ?? 0);
  const [pairAt, setPairAt] = useState(chosen);
  const [auto, setAuto] = useState(false);
  const [pace, setPace] = useState(400);
  const [marked, setMarked] = useState(true);
  const held = usePlayer((state) => state.held);
  const countFrom = useCountFrom();
  const count = clip.steps.length;
  const first = Math.min(pairAt, count - 1);
  const second = (first + 1) % Math.max(1, count);
  const shownStep = chosen === second ? second : first;
  const frames = useMemo(() => clip.steps.map(({ frame }) => playedFrame(project, frame)), [project, clip]);
  useEffect(() => loadPictures(frames.flatMap((frame) => (frame ? looksOfStill(frame) : []))), [frames]);
  const feet = useFeet(frames);
  const usualFeet = useMemo(() => mostUsual(feet), [feet]);
  const hidden = useHiddenLayers((state) => state.hidden);
  const [a, b] = [frames[first] ?? null, frames[second] ?? null];
  const entries = usePictures((state) => state.entries);
  // biome-ignore lint/correctness/useExhaustiveDependencies: compared again when a picture has come
  const compared = useMemo(() => (a && b ? compareFrames(a, b, held) : null), [a, b, held, entries, hidden]);

  const pair = (step: number) => {
    setPairAt(step);
    chooseStep(clip, step);
  };
  const flip = () => chooseStep(clip, shownStep === first ? second : first);
  const by = (direction: 1 | -1) => pair((first + direction + count) % count);
  useKeys(
    t("Flick"),
    [
      { keys: "x", label: t("Flick to the other frame"), run: flip },
      { keys: "ArrowRight", repeats: true, label: t("Next pair of steps"), run: () => by(1) },
      { keys: "ArrowLeft", repeats: true, label: t("Previous pair of steps"), run: () => by(-1) },
      { keys: "Shift+x", label: t("Flick by itself, or stop"), run: () => setAuto(!auto) },
    ],
    { scope: "surface" },
  );
  useEffect(() => {
    if (!auto || count < 2) return;
    const timer = setInterval(() => useView.setState(({ steps }) => ({ steps: [steps[0] === second ? first : second] })), pace);
    return () => clearInterval(timer);
  }, [auto, pace, first, second, count]);

  if (count < 2) return <p className="p-4 text-muted">{t("Flick needs two steps.")}</p>;
  const shown = frames[shownStep];
  return (
    <div className="flex min-h-0 grow flex-col gap-2.5">
      <div className="relative min-h-40 grow overflow-hidden rounded-box border border-line">
        {shown ? (
          <FlickCanvas
            shown={shown}
            both={[a, b].filter((each): each is PlayedFrame => each !== null)}
            compared={compared}
            marked={marked}
          />
        ) : (
          <p className="p-4 text-brick">{t("The frame of step {step} is missing.", { step: shownStep + countFrom })}</p>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <Button look="now" onClick={flip} hint="X" aria-label={t("Flick")}>
          {t("Step {step}, flick to {other}", {
            step: shownStep + countFrom,
            other: (shownStep === first ? second : first) + countFrom,
          })}
        </Button>
        <Tick label={t("by itself")} checked={auto} onChange={setAuto} />
        <FieldBox label={t("every")}>
          <NumberField
            label={t("Milliseconds between flicks")}
            value={pace}
            least={50}
            most={5000}
            step={50}
            unit="ms"
            onChange={(next) => void setPace(next)}
          />
        </FieldBox>
        <Tick label={t("mark what differs")} checked={marked} onChange={setMarked} />
        <span className="grow" />
        <Button onClick={() => dropChosen(clip)} hint="Del">
          {t("Drop step {step}", { step: shownStep + countFrom })}
        </Button>
      </div>
      <p className="text-muted" aria-live="polite" data-testid="flick-told">
        {compared ? toldOf(compared, first + countFrom, second + countFrom) : t("Reading the pictures …")}
      </p>
      <StepStrip clip={clip} at={[first, second]} onChoose={pair} under={(step) => <Feet value={feet[step] ?? null} usual={usualFeet} />} />
    </div>
  );
}

function toldOf({ count, feet }: Compared, a: number, b: number): string {
  const pixels =
    count === 1
      ? t("{count} pixel differs between step {a} and step {b}.", { count, a, b })
      : t("{count} pixels differ between step {a} and step {b}.", { count, a, b });
  const words = (value: number | null) =>
    value === null
      ? t("nothing drawn")
      : value === 0
        ? t("on the ground")
        : value > 0
          ? t("{value} px under it", { value })
          : t("{number} px above it", { number: -value });
  return t("{pixels} Lowest pixel: {feet}, then {then}.", { pixels, feet: words(feet[0]), then: words(feet[1]) });
}

/** How far the lowest pixel of each step is from the ground line. */
function useFeet(frames: readonly (PlayedFrame | null)[]): (number | null)[] {
  const held = usePlayer((state) => state.held);
  const entries = usePictures((state) => state.entries);
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at again when a picture has come
  return useMemo(
    () => frames.slice(0, MOST_FEET).map((frame) => (frame && compareFrames(frame, frame, held)?.feet[0]) ?? null),
    [frames, held, entries],
  );
}

/** The number of steps whose feet are analysed: more would take too long at every change. */
const MOST_FEET = 400;

function mostUsual(values: readonly (number | null)[]): number | null {
  const counts = new Map<number, number>();
  for (const value of values) if (value !== null) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

/** Highlighted if the feet differ from most steps. */
function Feet({ value, usual }: { value: number | null; usual: number | null }) {
  return (
    <span
      className={`number block text-small ${value === usual ? "text-muted" : "font-semibold text-brick"}`}
      title={t("Lowest pixel from the ground line, in pixels")}
    >
      {value === null ? "–" : value > 0 ? `+${value}` : value}
    </span>
  );
}
