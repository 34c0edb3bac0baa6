"use client";

import { type Clip, findFrame, frameName, type PlacedFrame } from "@caravan/core/model";
import { memo, type ReactNode, useCallback, useRef } from "react";
import { useProject } from "../project/open-project";
import { useCountFrom } from "../ui/counting";
import { t } from "../ui/words";
import { FramePicture } from "./frame-picture";

/** The number of steps shown on either side of the current one. */
const AROUND = 60;

/** The steps of a clip as a row of pictures, for selecting the current one. A word may appear under each. */
export function StepStrip({
  clip,
  at,
  onChoose,
  under,
}: {
  clip: Clip;
  at: readonly number[];
  onChoose: (step: number) => void;
  under?: (step: number) => ReactNode;
}) {
  const project = useProject((each) => each);
  const countFrom = useCountFrom();
  const latest = useRef(onChoose);
  latest.current = onChoose;
  const choose = useCallback((step: number) => latest.current(step), []);
  const from = Math.max(0, (at[0] ?? 0) - AROUND);
  const shown = clip.steps.slice(from, from + 2 * AROUND);
  return (
    <ol aria-label={t("Steps to look at")} className="flex shrink-0 gap-1 overflow-x-auto pb-1">
      {shown.map((each, n) => {
        const step = from + n;
        const found = findFrame(project, each.frame);
        return (
          <li key={step} className="text-center">
            <StepPicture step={step} found={found} isAt={at.includes(step)} countFrom={countFrom} onChoose={choose} />
            {under?.(step)}
          </li>
        );
      })}
    </ol>
  );
}

interface Shown {
  readonly step: number;
  readonly found: PlacedFrame | null;
  readonly isAt: boolean;
  readonly countFrom: number;
  readonly onChoose: (step: number) => void;
}

/** Renders again only when its picture, its name or its selection changes: frames change with every nudge of their marks. */
const StepPicture = memo(function StepPicture({ step, found, isAt, countFrom, onChoose }: Shown) {
  const name = found ? frameName(found.source, found.frame) : t("missing frame");
  return (
    <button
      type="button"
      data-chooses
      aria-pressed={isAt}
      aria-label={t("Look at step {step}: {name}", { step: step + countFrom, name })}
      title={name}
      onClick={() => onChoose(step)}
      className={`check block rounded-box border-2 ${isAt ? "border-now" : "border-transparent"}`}
    >
      {found ? (
        <FramePicture source={found.source} frame={found.frame} size={44} className="block" />
      ) : (
        <span className="block size-11 text-small text-brick">{t("missing")}</span>
      )}
    </button>
  );
}, looksTheSame);

function looksTheSame(a: Shown, b: Shown): boolean {
  if (a.step !== b.step || a.isAt !== b.isAt || a.countFrom !== b.countFrom || a.onChoose !== b.onChoose) return false;
  if (!a.found || !b.found) return a.found === b.found;
  const [one, other] = [a.found, b.found];
  return (
    one.source.pictures === other.source.pictures &&
    one.source.layers === other.source.layers &&
    one.source.clearing === other.source.clearing &&
    one.frame.picture === other.frame.picture &&
    one.frame.rect === other.frame.rect &&
    one.frame.size === other.frame.size &&
    one.frame.inset === other.frame.inset &&
    one.frame.turned === other.frame.turned &&
    frameName(one.source, one.frame) === frameName(other.source, other.frame)
  );
}
