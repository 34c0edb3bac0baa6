"use client";

import { halves, pointIn } from "@caravan/core/marks";
import { RotateCw } from "lucide-react";
import type { PlayedFrame } from "../../preview/playing";
import { Button, IconButton } from "../../ui/button";
import { sayUnlessDone } from "../../ui/notices";
import { FieldBox, NumberField } from "../../ui/number-field";
import { t } from "../../ui/words";
import { fromOrigin } from "./box-tools";
import { HalfField } from "./origin-tools";
import { aimPoint, dropMarks, giveToAll, placePoint, pointTo, type Spot } from "./set-marks";

/** Shows the point in numbers, with tools for it. */
export function PointTools({ spot, frame }: { spot: Spot; frame: PlayedFrame }) {
  const point = pointIn(frame.marks, spot.name);
  const { inScope } = spot;
  const several = inScope.frames.length > 1;
  return (
    <section aria-label={t("Points")} className="flex w-64 shrink-0 flex-col gap-2.5">
      {point ? (
        <>
          <div className="flex flex-wrap items-center gap-1.5">
            <FieldBox label="x">
              <HalfField label={t("Point x")} value={point.x} onChange={(x) => placePoint(spot, { x, y: point.y }, "point x")} />
            </FieldBox>
            <FieldBox label="y">
              <HalfField label={t("Point y")} value={point.y} onChange={(y) => placePoint(spot, { x: point.x, y }, "point y")} />
            </FieldBox>
            <span className="text-small text-muted">{t("px")}</span>
          </div>
          <AngleFields spot={spot} angle={point.angle} />
          <p className="text-small text-muted">
            {t("From the origin")} <span className="number">{fromOrigin(point.x - frame.origin.x, point.y - frame.origin.y)}</span>{" "}
            {t("px")}
          </p>
        </>
      ) : (
        <p className="text-muted">
          {several
            ? t("This frame has no {spot}. Click where it is; all {count} frames of {place} get it.", {
                spot: spot.name,
                count: inScope.frames.length,
                place: inScope.name,
              })
            : t("This frame has no {name}. Click where it is.", { name: spot.name })}
        </p>
      )}
      <div className="flex flex-wrap gap-1.5">
        {!point && <Button onClick={() => pointTo(spot, frame.origin)}>{t("At the origin")}</Button>}
        <Button disabled={!point || !several} onClick={() => giveToAll(spot)}>
          {t("Same on all")}
        </Button>
        <Button disabled={!point} onClick={() => dropMarks(spot)}>
          {t("Remove point")}
        </Button>
      </div>
    </section>
  );
}

/** The point's direction, by which attached parts are rotated. */
function AngleFields({ spot, angle }: { spot: Spot; angle: number | undefined }) {
  if (angle === undefined)
    return (
      <Button look="quiet" className="self-start" onClick={() => sayUnlessDone(aimPoint(spot, 0))}>
        {t("Give it an angle")}
      </Button>
    );
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5">
        <FieldBox label={t("angle")}>
          <NumberField
            label={t("Angle of the point")}
            value={angle}
            least={-360}
            most={360}
            decimals={1}
            unit="°"
            onChange={(next) => aimPoint(spot, halves(next))}
          />
        </FieldBox>
        <IconButton label={t("Rotate by 90° clockwise")} onClick={() => sayUnlessDone(aimPoint(spot, angle + 90))}>
          <RotateCw size={14} />
        </IconButton>
        <Button look="quiet" onClick={() => sayUnlessDone(aimPoint(spot, null))}>
          {t("No angle")}
        </Button>
      </div>
      <p className="text-small text-muted">
        {angle % 90 === 0
          ? t("Clockwise from the right. Parts attached here rotate with it.")
          : t(
              "Clockwise from the right. Parts attached here rotate with it: exactly in the game, here to the nearest 90°, so that their pixels stay whole.",
            )}
      </p>
    </>
  );
}
