"use client";

import { type Clip, findFrame, frameName } from "@caravan/core/model";
import type { ReactNode } from "react";
import { useProject } from "../project/open-project";
import { useCountFrom } from "../ui/counting";
import { FramePicture } from "./frame-picture";

/** So many steps are shown on either side of the one at hand. */
const AROUND = 60;

/** The steps of a clip as a row of pictures, to choose the one that is worked on. A word may stand under each. */
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
  const from = Math.max(0, (at[0] ?? 0) - AROUND);
  const shown = clip.steps.slice(from, from + 2 * AROUND);
  return (
    <ol aria-label="Steps to look at" className="flex shrink-0 gap-1 overflow-x-auto pb-1">
      {shown.map((each, n) => {
        const step = from + n;
        const found = findFrame(project, each.frame);
        const name = found ? frameName(found.source, found.frame) : "missing frame";
        return (
          <li key={step} className="text-center">
            <button
              type="button"
              data-chooses
              aria-pressed={at.includes(step)}
              aria-label={`Look at step ${step + countFrom}: ${name}`}
              title={name}
              onClick={() => onChoose(step)}
              className={`check block rounded-box border-2 ${at.includes(step) ? "border-now" : "border-transparent"}`}
            >
              {found ? (
                <FramePicture source={found.source} frame={found.frame} size={44} className="block" />
              ) : (
                <span className="block size-11 text-small text-brick">missing</span>
              )}
            </button>
            {under?.(step)}
          </li>
        );
      })}
    </ol>
  );
}
