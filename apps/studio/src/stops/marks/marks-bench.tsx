"use client";

import { boxesIn, outlinesIn, pointPath } from "@caravan/core/marks";
import { byShape, type Clip, findFrame, type Outline, type Project, type Source } from "@caravan/core/model";
import dynamic from "next/dynamic";
import { useMemo, useState } from "react";
import { outlinesOn } from "../../preview/marks-scene";
import { playedFrame } from "../../preview/playing";
import { chooseStep, useShownStep } from "../../preview/shown-step";
import { StepStrip } from "../../preview/step-strip";
import { useProject } from "../../project/open-project";
import { useSeenArt } from "../../project/seen-art";
import { useTracing } from "../../project/seen-outlines";
import { chosenMark, useView } from "../../project/view";
import { Choice } from "../../ui/choice";
import { useCountFrom } from "../../ui/counting";
import { useKeys } from "../../ui/keys";
import { t } from "../../ui/words";
import { AlongClip, useLacking } from "./along-clip";
import { BoxTools } from "./box-tools";
import { MarkKeys } from "./mark-keys";
import { MarksCanvas } from "./marks-canvas";
import { OriginTools } from "./origin-tools";
import type { CornerAt } from "./outline-gesture";
import { OutlineTools } from "./outline-tools";
import { PointTools } from "./point-tools";
import { actionOf, framesInScope, type OriginScope } from "./scope";
import type { Spot } from "./set-marks";

const NONE: readonly Outline[] = [];

/** Charts are a large library that most visits do without. */
const DriftChart = dynamic(() => import("./drift-chart").then((part) => part.DriftChart), {
  ssr: false,
  loading: () => <div className="h-24 shrink-0" />,
});

const OutlineChart = dynamic(() => import("./outline-chart").then((part) => part.OutlineChart), {
  ssr: false,
  loading: () => <div className="h-24 shrink-0" />,
});

const SCOPE_WORDS: Record<OriginScope, string> = {
  frame: t("Frame"),
  clip: t("Clip"),
  action: t("Action"),
  source: t("Source"),
  all: t("All"),
};

/** The frame of one step, enlarged, with its neighbours as ghosts; beside it the tools of the selected mark; below it all steps. */
export function MarksBench({ clip, source }: { clip: Clip; source: Source | null }) {
  const project = useProject((each) => each);
  const kind = useView((view) => chosenMark(project, view));
  const countFrom = useCountFrom();
  const [wanted, setScope] = useState<OriginScope>(source ? "frame" : "clip");
  const [chosenBox, chooseBox] = useState(0);
  const [chosenCorner, chooseCorner] = useState<CornerAt | null>(null);
  const seen = useSeenArt((art) => art.outlines);
  const step = useShownStep(clip);
  const scopes = scopesFor(project, clip, source);
  const scope = scopes.includes(wanted) ? wanted : (scopes[1] as OriginScope);
  const inScope = useMemo(() => framesInScope(project, scope, clip, step), [project, scope, clip, step]);
  const ref = clip.steps[step]?.frame;
  const frame = useMemo(() => (ref ? playedFrame(project, ref) : null), [project, ref]);
  const ghosts = useMemo(() => neighbours(project, clip, step), [project, clip, step]);
  const by = (direction: 1 | -1) => chooseStep(clip, (step + direction + clip.steps.length) % clip.steps.length);
  useKeys(
    t("Steps at Marks"),
    [
      { keys: ".", repeats: true, label: t("The next step’s frame"), run: () => by(1) },
      { keys: ",", repeats: true, label: t("The previous step’s frame"), run: () => by(-1) },
    ],
    { scope: "surface" },
  );
  const boxes = kind ? boxesIn(frame?.marks, kind.name) : [];
  const box = Math.min(chosenBox, Math.max(0, boxes.length - 1));
  const outlines = useMemo(() => (frame && kind?.shape === "outline" ? outlinesOn(frame, kind.name, seen) : []), [frame, kind, seen]);
  // Outlines waiting to be traced again cannot be edited in their old form.
  const isPending = useTracing(({ stale }) => stale === "all" || (ref !== undefined && stale.has(ref)));
  const isSettled = !isPending || (kind !== null && outlinesIn(frame?.marks, kind.name) !== undefined);
  const corner = isSettled && chosenCorner && outlines[chosenCorner.outline]?.[chosenCorner.corner] ? chosenCorner : null;
  const lacking = useLacking(kind, clip);
  const path = useMemo(
    () => (kind?.shape === "point" && !source ? pointPath(project, clip, kind.name) : null),
    [project, clip, kind, source],
  );
  const spot: Spot | null = ref && kind ? { ref, inScope, name: kind.name } : null;
  return (
    <>
      <header className="flex flex-wrap items-baseline gap-x-2">
        <h2 className="text-title font-bold">{clip.name}</h2>
        <span className="text-muted">
          {t("step {step} of {count}", { step: step + countFrom, count: clip.steps.length })}
          {frame && `: ${frame.name}`}
        </span>
      </header>
      {frame && ref ? (
        <div className="flex min-h-0 grow gap-3">
          <MarkKeys
            inScope={inScope}
            spot={spot}
            kind={kind}
            frame={frame}
            box={box}
            outlines={isSettled ? outlines : NONE}
            corner={corner}
            onCorner={chooseCorner}
          />
          <div className="relative min-h-40 min-w-0 grow overflow-hidden rounded-box border border-line">
            <MarksCanvas
              frame={frame}
              ghosts={ghosts}
              kind={kind}
              path={path}
              spot={spot}
              inScope={inScope}
              box={box}
              onBox={chooseBox}
              corner={corner}
              onCorner={chooseCorner}
              isSettled={isSettled}
            />
          </div>
          {!kind && <OriginTools inScope={inScope} point={frame.origin} size={frame.size} own={hasOwn(project, ref)} />}
          {kind && spot && (
            <div className="scrolls flex shrink-0 flex-col gap-2.5">
              {byShape(kind, {
                box: () => <BoxTools spot={spot} frame={frame} boxes={boxes} box={box} onBox={chooseBox} />,
                point: () => <PointTools spot={spot} frame={frame} />,
                outline: (each) => (
                  <OutlineTools
                    kind={each}
                    spot={spot}
                    frame={frame}
                    clip={source ? null : clip}
                    outlines={outlines}
                    corner={corner}
                    isSettled={isSettled}
                  />
                ),
              })}
              {!source && <AlongClip kind={kind} clip={clip} />}
            </div>
          )}
        </div>
      ) : (
        <p className="grow p-4 text-muted">{t("This step’s frame is missing, so there is nothing to mark.")}</p>
      )}
      {!source &&
        (kind?.shape === "outline" ? <OutlineChart clip={clip} step={step} kind={kind} /> : <DriftChart clip={clip} step={step} />)}
      <div data-region="scope" tabIndex={-1} className="flex flex-wrap items-center gap-3">
        <span className="text-muted">{t("It is set for the")}</span>
        <Choice label={t("Set for")} value={scope} options={scopes.map((each) => [each, SCOPE_WORDS[each]] as const)} onChange={setScope} />
        <span className="text-muted">
          {inScope.frames.length === 1
            ? t("1 frame of {name}", { name: inScope.name })
            : t("{count} frames of {name}", { name: inScope.name, count: inScope.frames.length })}
        </span>
      </div>
      <StepStrip
        clip={clip}
        at={[step]}
        onChoose={(next) => chooseStep(clip, next)}
        {...(lacking && kind
          ? {
              under: (each: number) =>
                lacking(each) && (
                  <span className="pointer-events-none relative -mt-4.5 block w-12 truncate bg-raised text-small leading-4.5 text-brick">
                    {t("no {name}", { name: kind.name })}
                  </span>
                ),
            }
          : {})}
      />
    </>
  );
}

/** A source's frames are of no clip, and a clip need not be of an action. */
function scopesFor(project: Project, clip: Clip, source: Source | null): OriginScope[] {
  if (source) return ["frame", "source", "all"];
  return ["frame", "clip", ...(actionOf(project, clip) ? (["action"] as const) : []), "source", "all"];
}

/** The frames before and after, where they are others. */
function neighbours(project: Project, clip: Clip, step: number) {
  return [step - 1, step + 1].flatMap((k) => {
    const other = clip.steps[(k + clip.steps.length) % clip.steps.length];
    const played = other && other.frame !== clip.steps[step]?.frame ? playedFrame(project, other.frame) : null;
    return played ? [played] : [];
  });
}

function hasOwn(project: Project, ref: Clip["steps"][number]["frame"]): boolean {
  return findFrame(project, ref)?.frame.origin !== undefined;
}
