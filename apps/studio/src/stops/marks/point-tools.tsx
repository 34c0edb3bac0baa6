"use client";

import { pointIn } from "@caravan/core/marks";
import type { PlayedFrame } from "../../preview/playing";
import { Button } from "../../ui/button";
import { FieldBox } from "../../ui/number-field";
import { fromOrigin } from "./box-tools";
import { HalfField } from "./origin-tools";
import { dropMarks, giveToAll, placePoint, pointTo, type Spot } from "./set-marks";

/** The point in numbers, and what can be done with it. */
export function PointTools({ spot, frame }: { spot: Spot; frame: PlayedFrame }) {
  const point = pointIn(frame.marks, spot.name);
  const { inScope } = spot;
  const several = inScope.frames.length > 1;
  return (
    <section aria-label="Points" className="flex w-64 shrink-0 flex-col gap-2.5 overflow-y-auto">
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
