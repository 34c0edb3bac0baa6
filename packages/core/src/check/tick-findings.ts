/** Findings about steps too short for ticks: they begin and end on the same tick of the game's clock. */

import { setDelivery, setStepDurations } from "../edit";
import { type Clip, counted, type Delivery, type Micros, msFromMicros, type Project, tickAt } from "../model";
import { t } from "../words";
import { type Finding, whereOfDelivery } from "./finding";

/** Rates that game clocks run at, in ticks a second. */
const RATES = [20, 24, 25, 30, 50, 60, 75, 90, 100, 120, 144, 240, 480, 960, 1000];

/** One per clip with such steps, for deliveries with times in ticks. Cost: O(steps). */
export function tickFindings(
  project: Project,
  { data: { times, ticks, ticksPerSecond }, kind, choice }: Delivery,
  index: number,
): Finding[] {
  if (!(times || ticks) || kind === "films") return [];
  const names = new Set(choice.names);
  const frames = new Set(choice.frames);
  return project.clips.flatMap((clip): Finding[] => {
    if (choice.of === "clips" && choice.pattern === "" && !names.has(clip.name)) return [];
    if (choice.of === "frames" && !clip.steps.every(({ frame }) => frames.has(frame))) return [];
    const lost = stepsWithoutTick(clip, ticksPerSecond);
    if (lost.length === 0) return [];
    const tick = Math.ceil(1_000_000 / ticksPerSecond);
    const shortest = Math.min(...clip.steps.map(({ duration }) => duration));
    const rate = RATES.find((each) => each > ticksPerSecond && stepsWithoutTick(clip, each).length === 0);
    const atLeastOne = {
      label: t("Give each at least one tick, {tick} ms", { tick: msFromMicros(tick) }),
      apply: (current: Project) => setStepDurations(current, clip.name, shorterThan(clip, tick), tick),
    };
    const longer = {
      label: t("Make the clip {tick} times as long", { tick: (tick / shortest).toFixed(1) }),
      apply: (current: Project) => stretchedBy(current, clip, tick / shortest),
    };
    const faster =
      rate === undefined
        ? []
        : [
            {
              label: t("Count {rate} ticks a second", { rate }),
              apply: (current: Project) => setDelivery(current, index, { data: { ticksPerSecond: rate } }),
            },
          ];
    return [
      {
        code: "no-ticks",
        severity: "warning",
        where: t('clip "{name}"', { name: clip.name }),
        message:
          lost.length === 1
            ? t(
                "At {ticksPerSecond} ticks a second {steps} no tick of its own in the times of {whereOfDelivery}: a game that counts in ticks never shows it.",
                {
                  ticksPerSecond,
                  steps: counted(lost.length, "of its steps has", "of its steps have"),
                  whereOfDelivery: whereOfDelivery(project, index),
                },
              )
            : t(
                "At {ticksPerSecond} ticks a second {steps} no tick of their own in the times of {whereOfDelivery}: a game that counts in ticks never shows them.",
                {
                  ticksPerSecond,
                  steps: counted(lost.length, "of its steps has", "of its steps have"),
                  whereOfDelivery: whereOfDelivery(project, index),
                },
              ),
        place: { stop: "clips", clip: clip.name, steps: lost },
        delivery: index,
        mend: atLeastOne,
        otherMends: [longer, ...faster],
      },
    ];
  });
}

/** As the table counts: a step begins at the tick nearest to its true time. */
function stepsWithoutTick({ steps }: Clip, ticksPerSecond: number): number[] {
  let micros = 0;
  return steps.flatMap(({ duration }, k) => {
    const from = tickAt(micros, ticksPerSecond);
    micros += duration;
    return tickAt(micros, ticksPerSecond) === from ? [k] : [];
  });
}

function shorterThan({ steps }: Clip, least: Micros): number[] {
  return steps.flatMap(({ duration }, k) => (duration < least ? [k] : []));
}

function stretchedBy(project: Project, { name, steps }: Clip, factor: number): Project {
  return steps.reduce((next, { duration }, k) => setStepDurations(next, name, [k], Math.ceil(duration * factor)), project);
}
