"use client";

import { halves, pointIn } from "@caravan/core/marks";
import { RotateCw } from "lucide-react";
import type { PlayedFrame } from "../../preview/playing";
import { Button, IconButton } from "../../ui/button";
import { sayUnlessDone } from "../../ui/notices";
import { FieldBox, NumberField } from "../../ui/number-field";
import { fromOrigin } from "./box-tools";
import { HalfField } from "./origin-tools";
import { aimPoint, dropMarks, giveToAll, placePoint, pointTo, type Spot } from "./set-marks";

/** The point in numbers, and what can be done with it. */
export function PointTools({ spot, frame }: { spot: Spot; frame: PlayedFrame }) {
  const point = pointIn(frame.marks, spot.name);
  const { inScope } = spot;
  const several = inScope.frames.length > 1;
  return (
    <section aria-label="Points" className="flex w-64 shrink-0 flex-col gap-2.5">
      {point ? (
        <>
          <div className="flex flex-wrap items-center gap-1.5">
            <FieldBox label="x">
              <HalfField label="Point x" value={point.x} onChange={(x) => placePoint(spot, { x, y: point.y }, "point x")} />
            </FieldBox>
            <FieldBox label="y">
              <HalfField label="Point y" value={point.y} onChange={(y) => placePoint(spot, { x: point.x, y }, "point y")} />
            </FieldBox>
            <span className="text-small text-muted">px</span>
          </div>
          <AngleFields spot={spot} angle={point.angle} />
          <p className="text-small text-muted">
            From the origin <span className="number">{fromOrigin(point.x - frame.origin.x, point.y - frame.origin.y)}</span> px
          </p>
        </>
      ) : (
        <p className="text-muted">
          This frame has no {spot.name}. Click where it is{several ? `; all ${inScope.frames.length} frames of ${inScope.name} get it` : ""}
          .
        </p>
      )}
      <div className="flex flex-wrap gap-1.5">
        {!point && <Button onClick={() => pointTo(spot, frame.origin)}>At the origin</Button>}
        <Button disabled={!point || !several} onClick={() => giveToAll(spot)}>
          Same on all
        </Button>
        <Button disabled={!point} onClick={() => dropMarks(spot)}>
          Take it off
        </Button>
      </div>
    </section>
  );
}

/** Which way the point points, by which parts that hang on it are turned. */
function AngleFields({ spot, angle }: { spot: Spot; angle: number | undefined }) {
  if (angle === undefined)
    return (
      <Button look="quiet" className="self-start" onClick={() => sayUnlessDone(aimPoint(spot, 0))}>
        Give it an angle
      </Button>
    );
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5">
        <FieldBox label="angle">
          <NumberField
            label="Angle of the point"
            value={angle}
            least={-360}
            most={360}
            decimals={1}
            unit="°"
            onChange={(next) => aimPoint(spot, halves(next))}
          />
        </FieldBox>
        <IconButton label="A quarter turn, clockwise" onClick={() => sayUnlessDone(aimPoint(spot, angle + 90))}>
          <RotateCw size={14} />
        </IconButton>
        <Button look="quiet" onClick={() => sayUnlessDone(aimPoint(spot, null))}>
          No angle
        </Button>
      </div>
      <p className="text-small text-muted">
        Clockwise from the right. What hangs here is turned by it
        {angle % 90 === 0 ? "." : ": in the game as it is, here by the nearest quarter, so that its pixels stay whole."}
      </p>
    </>
  );
}
