"use client";

import { setStage } from "@caravan/core/edit";
import { type Clip, type Facing, findFrame, originOf, type Project, type Stage } from "@caravan/core/model";
import { type Feet, feetOf, footFrame, slides, steadySpeed, worstSlide } from "@caravan/core/stage";
import { useEffect, useState } from "react";
import { act } from "../../project/act";
import { drawnFrames } from "../../project/drawn-frames";
import { Button } from "../../ui/button";
import { useSession } from "./session";

interface Walk {
  readonly clip: Clip;
  readonly feet: Feet;
  /** Above 0 where it goes along +x. */
  readonly steady: { readonly speed: number; readonly worst: number };
}

/** Feet against ground: how far planted feet slide at the stage's speed, and the speed at which they would not. */
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
      aria-label="Feet against ground"
      className={`mt-5 rounded-box border border-l-4 border-line bg-surface p-2 ${steady ? "border-l-cactus" : "border-l-now"}`}
    >
      <h3 className="font-semibold">{steady ? "Feet stay where they are" : `Feet slide ${px(worst)} a step`}</h3>
      <p className="mb-1 text-small text-muted">
        {walk.clip.name} at {speed} px/s.
        {steady ? ` They slide ${px(walk.steady.worst)} at most.` : ` At ${wanted} px/s they would slide ${px(walk.steady.worst)} at most.`}
      </p>
      <SlideChart feet={walk.feet} now={speed * way} steady={walk.steady.speed} />
      {!steady && (
        <Button className="mt-1 min-h-6" onClick={() => act(setStage, stage.name, { movement: { ...stage.movement, speed: wanted } })}>
          Walk at {wanted} px/s
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
  const listed = bars.map((each, k) => `step ${k}: ${px(each)}`).join(", ");
  return (
    <svg viewBox="0 0 160 34" role="img" aria-label={`Slide of each step now: ${listed}`} className="h-9 w-full">
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

/** The clip that walks to the side, and its feet; null while its art is being read, or where it has no feet that go back. */
function useWalk(project: Project | null, stage: Stage | null): Walk | null {
  const [walk, setWalk] = useState<Walk | null>(null);
  const clip = project && stage ? walkOf(project, stage) : null;
  useEffect(() => {
    if (!project || !clip) {
      setWalk(null);
      return;
    }
    let wanted = true;
    const placed = clip.steps.flatMap(({ frame }) => findFrame(project, frame) ?? []);
    if (placed.length !== clip.steps.length) return;
    drawnFrames(placed)
      .then((drawn) => {
        const frames = drawn.map((each, k) => {
          const { source, frame } = placed[k] as (typeof placed)[number];
          return footFrame(each, originOf(source, frame), clip.steps[k]?.duration ?? 0);
        });
        const feet = feetOf(frames);
        const steady = steadySpeed(feet);
        if (wanted) setWalk(steady ? { clip, feet, steady } : null);
      })
      // Art that cannot be read is reported where it is shown.
      .catch(() => wanted && setWalk(null));
    return () => {
      wanted = false;
    };
  }, [clip, project]);
  return walk && walk.clip === clip ? walk : null;
}

/** What the rule plays to the side that asks for the speed that the stage feeds. */
function walkOf(project: Project, stage: Stage): Clip | null {
  const behaviour = project.behaviours?.find(({ name }) => name === stage.behaviour);
  const rule = behaviour?.rules.find(
    ({ off, when }) => !off && when.some((each) => "input" in each && each.input === stage.feeds.speed && "above" in each),
  );
  const action = project.actions.find(({ name }) => (name as string) === rule?.play);
  const sideways: readonly Facing[] = ["e", "w"];
  const petal = sideways.map((facing) => action?.facings[facing]).find((each) => each);
  return project.clips.find(({ name }) => (name as string) === (petal?.clip ?? rule?.play) && name) ?? null;
}
