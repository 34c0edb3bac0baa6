"use client";

import { setTrace, steadyOutline } from "@caravan/core/edit";
import { outlineFacts, outlinesIn } from "@caravan/core/marks";
import {
  type Clip,
  counted,
  FURTHEST_OUTLINE,
  findFrame,
  LEAST_ISLAND,
  type Outline,
  type OutlineKind,
  STEADY_WAYS,
  type SteadyWay,
  type Trace,
} from "@caravan/core/model";
import type { PlayedFrame } from "../../preview/playing";
import { act } from "../../project/act";
import { editInGesture, useProject } from "../../project/open-project";
import { Button } from "../../ui/button";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Select } from "../../ui/select";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";
import { fromOrigin } from "./box-tools";
import { type CornerAt, withCornerAt } from "./outline-gesture";
import { actionOf } from "./scope";
import { giveOutlines, placeCorner, type Spot, traceAgain } from "./set-marks";

interface Props {
  readonly kind: OutlineKind;
  readonly spot: Spot;
  readonly frame: PlayedFrame;
  /** Null where a source is gone through. */
  readonly clip: Clip | null;
  readonly outlines: readonly Outline[];
  readonly corner: CornerAt | null;
  readonly isSettled: boolean;
}

/** How the outline is traced, and what came of it on the shown frame. */
export function OutlineTools({ kind, spot, frame, clip, outlines, corner, isSettled }: Props) {
  const placed = findFrame(
    useProject((project) => project),
    spot.ref,
  );
  const facts = placed && outlineFacts(placed, outlines);
  const isOwn = outlinesIn(frame.marks, kind.name) !== undefined;
  const at = corner && outlines[corner.outline]?.[corner.corner];
  return (
    <section aria-label={t("Outlines")} className="flex w-64 shrink-0 flex-col gap-2.5">
      <p className="text-small text-muted" role="status">
        {facts
          ? t("{polygons}, {corners}, {width} × {height} px, {area} px²", {
              polygons: counted(outlines.length, "polygon"),
              corners: counted(facts.corners, "corner"),
              width: facts.width,
              height: facts.height,
              area: facts.area,
            })
          : t("No {name} on this frame.", { name: kind.name })}{" "}
        {!isSettled
          ? t("Being traced …")
          : isOwn
            ? t("Your own corners.")
            : kind.trace
              ? t("Traced.")
              : t("Drag on the frame to draw one.")}
      </p>
      {at && corner && (
        <div className="flex flex-wrap items-center gap-1.5">
          {(["x", "y"] as const).map((side) => (
            <FieldBox key={side} label={t("corner {side}", { side })}>
              <NumberField
                label={t("Corner {side}", { side })}
                value={at[side]}
                least={-32_768}
                most={32_768}
                onChange={(value) =>
                  placeCorner(
                    spot,
                    withCornerAt(outlines, { kind: "corner", ...corner }, { ...at, [side]: value }).outlines,
                    `corner ${side}`,
                  )
                }
              />
            </FieldBox>
          ))}
          <span className="text-small text-muted">
            {t("from the origin {place}", { place: fromOrigin(at.x - frame.origin.x, at.y - frame.origin.y) })}
          </span>
        </div>
      )}
      <div className="flex flex-wrap gap-1.5">
        {isOwn && kind.trace && <Button onClick={() => traceAgain(spot)}>{t("Trace it again")}</Button>}
        <Button disabled={outlines.length === 0} onClick={() => giveOutlines(spot, [])}>
          {t("Remove outline")}
        </Button>
        {spot.inScope.frames.length > 1 && (
          <Button disabled={outlines.length === 0} onClick={() => giveOutlines(spot, outlines)}>
            {t("Same on all")}
          </Button>
        )}
      </div>
      {kind.trace ? (
        <TraceFields kind={kind} trace={kind.trace} clip={clip} />
      ) : (
        <Button onClick={() => act(setTrace, kind.name, {})}>{t("Trace the drawing")}</Button>
      )}
    </section>
  );
}

function TraceFields({ kind: { name }, trace, clip }: { kind: OutlineKind; trace: Trace; clip: Clip | null }) {
  const set = (change: Partial<Trace>, gesture: string) => editInGesture(`trace ${gesture}`, setTrace, name, change)?.message;
  const dents = trace.convex ? "around" : trace.parts ? "parts" : "follow";
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5">
        <FieldBox label={t("within")}>
          <NumberField
            label={t("Line within")}
            unit="px"
            value={trace.withinPx}
            least={0}
            most={FURTHEST_OUTLINE}
            step={0.5}
            decimals={2}
            onChange={(withinPx) => set({ withinPx }, "within")}
          />
        </FieldBox>
        <FieldBox label={t("corners")}>
          <NumberField
            label={t("Corners at most")}
            value={trace.corners}
            least={3}
            most={65_536}
            onChange={(corners) => set({ corners }, "corners")}
          />
        </FieldBox>
        <FieldBox label={t("alpha")}>
          <NumberField label={t("Alpha from")} value={trace.alpha} least={1} most={255} onChange={(alpha) => set({ alpha }, "alpha")} />
        </FieldBox>
        <FieldBox label={t("grow by")}>
          <NumberField
            label={t("Grow by")}
            unit="px"
            value={trace.growPx ?? 0}
            least={-FURTHEST_OUTLINE}
            most={FURTHEST_OUTLINE}
            onChange={(growPx) => set({ growPx: growPx === 0 ? undefined : growPx }, "grow")}
          />
        </FieldBox>
        <FieldBox label={t("islands from")}>
          <NumberField
            label={t("Islands from")}
            unit="px"
            value={trace.leastPx ?? LEAST_ISLAND}
            least={1}
            most={1_000_000}
            onChange={(leastPx) => set({ leastPx: leastPx === LEAST_ISLAND ? undefined : leastPx }, "least")}
          />
        </FieldBox>
      </div>
      <Select
        label={t("Dents")}
        className="max-w-full"
        value={dents}
        options={[
          ["follow", t("with its dents")],
          ["around", t("without dents")],
          ["parts", t("in parts without dents")],
        ]}
        onChange={(next) => act(setTrace, name, { convex: next === "around", parts: next === "parts" ? true : undefined })}
      />
      <Tick
        label={t("Straight bottom on the ground")}
        checked={trace.flat === true}
        onChange={(flat) => act(setTrace, name, { flat: flat ? true : undefined })}
      />
      {clip && <SteadyField name={name} trace={trace} clip={clip} />}
      <Button onClick={() => act(setTrace, name, null)}>{t("By hand only")}</Button>
    </>
  );
}

const STEADY_WORDS: Readonly<Record<SteadyWay, string>> = {
  median: t("what half of the frames cover"),
  union: t("what any frame covers"),
  shared: t("what all frames cover"),
};

/** One outline for the whole clip, or for the action that shows it. */
function SteadyField({ name, trace, clip }: { name: OutlineKind["name"]; trace: Trace; clip: Clip }) {
  const action = useProject((project) => actionOf(project, clip)?.name ?? null);
  const steady = trace.steady ?? [];
  const subjects = [clip.name as string, ...(action === null || action === (clip.name as string) ? [] : [action as string])];
  return (
    <>
      {subjects.map((of) => (
        <div key={of} className="flex flex-col gap-0.5">
          <span className="text-small text-muted">{t("one for all of {of}", { of })}</span>
          <Select
            label={t("One outline for all of {of}", { of })}
            className="max-w-full"
            value={steady.find((each) => each.of === of)?.by ?? "own"}
            options={[["own", t("no, each frame has its own")] as const, ...STEADY_WAYS.map((by) => [by, STEADY_WORDS[by]] as const)]}
            onChange={(by) => act(steadyOutline, name, of, by === "own" ? null : by)}
          />
        </div>
      ))}
    </>
  );
}
