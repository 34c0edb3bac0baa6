/** Findings about stages: a figure that moves at a different speed from its feet. */
import { setStage } from "../edit";
import type { Project, Stage } from "../model";
import { walkingClip, walkKey, worstSlide } from "../stage";
import { t } from "../words";
import type { SeenArt } from "./art-findings";
import type { Finding } from "./finding";

/** A slide of this much per step is visible, in px. */
const SEEN = 1;
/** If planted feet slide by more than this even at the best speed, they were not recognised well enough to report anything. */
const SURE = 2;

/** Of walks whose pixels were looked at. Cost: O(steps) a stage. */
export function stageFindings(project: Project, { walks }: SeenArt): Finding[] {
  return (project.stages ?? []).flatMap((stage) => slidingFeet(project, stage, walks));
}

function slidingFeet(project: Project, stage: Stage, walks: SeenArt["walks"]): Finding[] {
  const walking = walkingClip(project, stage);
  const walk = walking && walks.get(walkKey(project, walking));
  if (!walking || !walk?.steady || walk.steady.worst > SURE) return [];
  const steady = Math.abs(walk.steady.speed);
  const { speed } = stage.movement;
  const worst = worstSlide(walk.feet, speed * Math.sign(walk.steady.speed));
  if (worst <= Math.max(SEEN, walk.steady.worst)) return [];
  return [
    {
      code: "feet-slide",
      severity: "warning",
      where: t('stage "{name}"', { name: stage.name }),
      message: t("Planted feet of {name} slide by up to {px} a step at {speed} px/s; at {steady} px/s by {less}.", {
        name: walking.clip.name,
        px: px(worst),
        speed,
        steady,
        less: px(walk.steady.worst),
      }),
      place: { stop: "rehearse", behaviour: stage.behaviour, stage: stage.name },
      mend: {
        label: t("Walk at {steady} px/s", { steady }),
        apply: (current) => setStage(current, stage.name, { movement: { ...stage.movement, speed: steady } }),
      },
    },
  ];
}

const px = (value: number): string => t("{length} px", { length: Number(value.toFixed(1)) });
