"use client";

import { setStepPart } from "@caravan/core/edit";
import { type Clip, ownOf, type Part, type StepPart } from "@caravan/core/model";
import { act } from "../../project/act";
import { useCountFrom } from "../../ui/counting";
import { t } from "../../ui/words";

/** How a part is drawn at a step. */
type Drawn = "over" | "under" | "hidden";

const WORDS: Record<Drawn, string> = { over: t("over"), under: t("under"), hidden: t("hidden") };
/** A bar: high, low, or absent. */
const BARS: Record<Drawn, string> = { over: "self-start h-2", under: "self-end h-2", hidden: "self-center h-px opacity-50" };

function drawnAt(part: Part, told: StepPart | undefined): Drawn {
  if (told?.hidden) return "hidden";
  return (told?.front ?? part.front) ? "over" : "under";
}

/** The steps of a host, each showing whether the part is over it, under it or hidden there; a press cycles. */
export function PartSteps({ part, clip }: { part: Part; clip: Clip }) {
  const countFrom = useCountFrom();
  const usual: Drawn = part.front ? "over" : "under";
  const other: Drawn = part.front ? "under" : "over";
  const next: Record<Drawn, StepPart | null> = { [usual]: { front: !part.front }, [other]: { hidden: true }, hidden: null } as Record<
    Drawn,
    StepPart | null
  >;
  return (
    <fieldset
      aria-label={t("{part} on the steps of {clip}", { part: part.name, clip: clip.name })}
      className="mt-1.5 flex flex-wrap gap-0.5"
    >
      {clip.steps.map(({ parts }, step) => {
        const drawn = drawnAt(part, ownOf(parts, part.name));
        return (
          <button
            key={step}
            type="button"
            aria-label={t("Step {step}: {words}", { step: step + countFrom, words: WORDS[drawn] })}
            title={t("Step {step}: {name} is {words}", { step: step + countFrom, name: part.name, words: WORDS[drawn] })}
            onClick={() => act(setStepPart, clip.name, [step], part.name, next[drawn])}
            className={`flex h-7 w-6 flex-col items-center rounded-sm border pointer-coarse:h-10 pointer-coarse:w-9 ${drawn === usual ? "border-line" : "border-lapis bg-lapis-soft"}`}
          >
            <span className="number text-small leading-3.5">{step + countFrom}</span>
            <span className="flex grow">
              <span aria-hidden className={`w-3.5 rounded-full bg-current ${BARS[drawn]}`} />
            </span>
          </button>
        );
      })}
    </fieldset>
  );
}
