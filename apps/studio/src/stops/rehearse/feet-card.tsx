"use client";

import { setStage } from "@caravan/core/edit";
import type { Clip, Project, Stage } from "@caravan/core/model";
import { type Feet, slides, type Walk, walkingClip, walkKey, worstSlide } from "@caravan/core/stage";
import { useMemo } from "react";
import { act } from "../../project/act";
import { useSeenArt } from "../../project/seen-art";
import { Button } from "../../ui/button";
import { t } from "../../ui/words";
import { useSession } from "./session";

/** Shows how far planted feet slide at the stage's speed, and the speed at which they would not. */
export function FeetCard() {
  const setting = useSession((session) => session.setting);
  const walk = useWalk(setting?.project ?? null, setting?.stage ?? null);
  if (!walk || !setting) return null;
  const { stage } = setting;
  const { speed } = stage.movement;
  const wanted = Math.abs(walk.steady.speed);
  const way = Math.sign(walk.steady.speed);
  const worst = worstSlide(walk.feet, speed * way);
  const steady = speed === wanted;
  return (
    <section
      aria-label={t("Feet against ground")}
      className={`mt-5 rounded-box border border-l-4 border-line bg-surface p-2 ${steady ? "border-l-cactus" : "border-l-now"}`}
    >
      <h3 className="font-semibold">{steady ? t("Feet stay where they are") : t("Feet slide {px} a step", { px: px(worst) })}</h3>
      <p className="mb-1 text-small text-muted">
        {steady
          ? t("{name} at {speed} px/s. They slide {px} at most.", { name: walk.clip.name, speed, px: px(walk.steady.worst) })
          : t("{name} at {speed} px/s. At {wanted} px/s they would slide {px} at most.", {
              name: walk.clip.name,
              speed,
              wanted,
              px: px(walk.steady.worst),
            })}
      </p>
      <SlideChart feet={walk.feet} now={speed * way} steady={walk.steady.speed} />
      {!steady && (
        <Button className="mt-1 min-h-6" onClick={() => act(setStage, stage.name, { movement: { ...stage.movement, speed: wanted } })}>
          {t("Walk at {wanted} px/s", { wanted })}
        </Button>
      )}
    </section>
  );
}

const px = (value: number): string => `${Number(value.toFixed(1))} px`;

/** The slide of every step: now as bars, at the steady speed as a line of dots. */
function SlideChart({ feet, now, steady }: { feet: Feet; now: number; steady: number }) {
  const bars = slides(feet, now).map((each) => Math.abs(each ?? 0));
  const dots = slides(feet, steady).map((each) => Math.abs(each ?? 0));
  const most = Math.max(2, ...bars, ...dots);
  const wide = 160 / bars.length;
  const y = (value: number) => 30 - (value / most) * 26;
  const listed = bars.map((each, k) => t("step {number}: {px}", { number: k, px: px(each) })).join(", ");
  return (
    <svg viewBox="0 0 160 34" role="img" aria-label={t("Slide of each step now: {listed}", { listed })} className="h-9 w-full">
      <line x1="0" x2="160" y1="30.5" y2="30.5" className="stroke-line-strong" />
      <line x1="0" x2="160" y1={y(1)} y2={y(1)} strokeDasharray="2 3" className="stroke-line-strong" />
      {bars.map((each, k) => (
        <rect key={`bar ${k}`} x={k * wide + 2} width={Math.max(1, wide - 4)} y={y(each)} height={30 - y(each)} className="fill-lapis" />
      ))}
      {dots.map((each, k) => (
        <circle key={`dot ${k}`} cx={(k + 0.5) * wide} cy={y(each)} r="2" className="fill-now" />
      ))}
    </svg>
  );
}

/** What was seen of the feet that walk on this stage; null while their art is being read, or where they never go back. */
function useWalk(project: Project | null, stage: Stage | null): { clip: Clip; feet: Feet; steady: NonNullable<Walk["steady"]> } | null {
  const walking = useMemo(() => (project && stage ? walkingClip(project, stage) : null), [project, stage]);
  const walk = useSeenArt(({ walks }) => (project && walking ? walks.get(walkKey(project, walking)) : undefined));
  return walking && walk?.steady ? { clip: walking.clip, feet: walk.feet, steady: walk.steady } : null;
}
