"use client";

import { PLACES, pointIn } from "@caravan/core/marks";
import { byShape, type MarkKind } from "@caravan/core/model";
import type { PlayedFrame } from "../../preview/playing";
import { useKeys } from "../../ui/keys";
import type { FramesInScope } from "./scope";
import { dropBox, dropMarks, nudgeBox, pointTo, type Spot } from "./set-marks";
import { nudge, setToPlace } from "./set-origin";

interface Props {
  readonly inScope: FramesInScope;
  readonly spot: Spot | null;
  readonly kind: MarkKind | null;
  readonly frame: PlayedFrame;
  /** The chosen box of the kind, by index. */
  readonly box: number;
}

const ARROWS = [
  ["Left", -1, 0],
  ["Right", 1, 0],
  ["Up", 0, -1],
  ["Down", 0, 1],
] as const;

/** The arrow keys move what is chosen: the origin, a box or a point. */
export function MarkKeys(props: Props) {
  const { kind } = props;
  if (kind === null) return <OriginKeys {...props} />;
  return byShape(kind, { box: () => <BoxKeys {...props} />, point: () => <PointKeys {...props} /> });
}

function OriginKeys({ inScope }: Props) {
  useKeys(
    "The origin",
    [
      ...ARROWS.map(([way, x, y]) => ({
        keys: `Arrow${way}`,
        repeats: true,
        label: `Origin one pixel ${way.toLowerCase()}`,
        run: () => nudge(inScope, { x, y }),
      })),
      ...ARROWS.map(([way, x, y]) => ({
        keys: `Alt+Arrow${way}`,
        repeats: true,
        label: `Origin half a pixel ${way.toLowerCase()}`,
        run: () => nudge(inScope, { x: x / 2, y: y / 2 }),
      })),
      // Laid out as on a number pad: 7 8 9 is the top row.
      ...PLACES.map((place, k) => ({
        keys: `Alt+${[7, 8, 9, 4, 5, 6, 1, 2, 3][k]}`,
        label: `Origin at the ${place}`,
        run: () => setToPlace(inScope, place),
      })),
    ],
    { scope: "surface" },
  );
  return null;
}

function BoxKeys({ spot, box }: Props) {
  useKeys(
    "Boxes",
    [
      ...ARROWS.map(([way, x, y]) => ({
        keys: `Arrow${way}`,
        repeats: true,
        label: `Box one pixel ${way.toLowerCase()}`,
        run: () => spot && nudgeBox(spot, box, { x, y }),
      })),
      ...ARROWS.map(([way, w, h]) => ({
        keys: `Shift+Arrow${way}`,
        repeats: true,
        label: { Left: "Box narrower", Right: "Box wider", Up: "Box lower", Down: "Box higher" }[way],
        run: () => spot && nudgeBox(spot, box, { w, h }),
      })),
      { keys: "Delete Backspace", label: "Take the box off", run: () => spot && dropBox(spot, box) },
    ],
    { scope: "surface" },
  );
  return null;
}

function PointKeys({ spot, kind, frame }: Props) {
  const at = (kind && pointIn(frame.marks, kind.name)) ?? frame.origin;
  const move = (x: number, y: number) => spot && pointTo(spot, { x: at.x + x, y: at.y + y });
  useKeys(
    "Points",
    [
      ...ARROWS.map(([way, x, y]) => ({
        keys: `Arrow${way}`,
        repeats: true,
        label: `Point one pixel ${way.toLowerCase()}`,
        run: () => move(x, y),
      })),
      ...ARROWS.map(([way, x, y]) => ({
        keys: `Alt+Arrow${way}`,
        repeats: true,
        label: `Point half a pixel ${way.toLowerCase()}`,
        run: () => move(x / 2, y / 2),
      })),
      { keys: "Delete Backspace", label: "Take the point off", run: () => spot && dropMarks(spot) },
    ],
    { scope: "surface" },
  );
  return null;
}
