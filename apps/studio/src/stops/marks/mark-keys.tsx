"use client";

import { PLACES, pointIn } from "@caravan/core/marks";
import { byShape, type MarkKind, type Outline } from "@caravan/core/model";
import type { PlayedFrame } from "../../preview/playing";
import { useKeys } from "../../ui/keys";
import { sayUnlessDone } from "../../ui/notices";
import { t } from "../../ui/words";
import { type CornerAt, cornerBeside, withCornerAt, withoutCorner } from "./outline-gesture";
import type { FramesInScope } from "./scope";
import { aimPoint, dropBox, dropMarks, giveOutlines, nudgeBox, pointTo, type Spot } from "./set-marks";
import { nudge, setToPlace } from "./set-origin";

interface Props {
  readonly inScope: FramesInScope;
  readonly spot: Spot | null;
  readonly kind: MarkKind | null;
  readonly frame: PlayedFrame;
  /** The chosen box of the kind, by index. */
  readonly box: number;
  /** The frame's outlines of the kind, and the chosen corner. */
  readonly outlines: readonly Outline[];
  readonly corner: CornerAt | null;
  readonly onCorner: (corner: CornerAt | null) => void;
}

const ARROWS = [
  ["Left", -1, 0],
  ["Right", 1, 0],
  ["Up", 0, -1],
  ["Down", 0, 1],
] as const;

/** The arrow keys move the selection: the origin, a box, a point or a corner. */
export function MarkKeys(props: Props) {
  const { kind } = props;
  if (kind === null) return <OriginKeys {...props} />;
  return byShape(kind, {
    box: () => <BoxKeys {...props} />,
    point: () => <PointKeys {...props} />,
    outline: () => <OutlineKeys {...props} />,
  });
}

function OriginKeys({ inScope }: Props) {
  useKeys(
    t("The origin"),
    [
      ...ARROWS.map(([way, x, y]) => ({
        keys: `Arrow${way}`,
        repeats: true,
        label: t("Origin one pixel {way}", { way: way.toLowerCase() }),
        run: () => nudge(inScope, { x, y }),
      })),
      ...ARROWS.map(([way, x, y]) => ({
        keys: `Alt+Arrow${way}`,
        repeats: true,
        label: t("Origin half a pixel {way}", { way: way.toLowerCase() }),
        run: () => nudge(inScope, { x: x / 2, y: y / 2 }),
      })),
      // Arranged like a number pad: 7 8 9 is the top row.
      ...PLACES.map((place, k) => ({
        keys: `Alt+${[7, 8, 9, 4, 5, 6, 1, 2, 3][k]}`,
        label: t("Origin at the {place}", { place }),
        run: () => setToPlace(inScope, place),
      })),
    ],
    { scope: "surface" },
  );
  return null;
}

function BoxKeys({ spot, box }: Props) {
  useKeys(
    t("Boxes"),
    [
      ...ARROWS.map(([way, x, y]) => ({
        keys: `Arrow${way}`,
        repeats: true,
        label: t("Box one pixel {way}", { way: way.toLowerCase() }),
        run: () => spot && nudgeBox(spot, box, { x, y }),
      })),
      ...ARROWS.map(([way, w, h]) => ({
        keys: `Shift+Arrow${way}`,
        repeats: true,
        label: { Left: t("Box narrower"), Right: t("Box wider"), Up: t("Box lower"), Down: t("Box higher") }[way],
        run: () => spot && nudgeBox(spot, box, { w, h }),
      })),
      { keys: "Delete Backspace", label: t("Remove the box"), run: () => spot && dropBox(spot, box) },
    ],
    { scope: "surface" },
  );
  return null;
}

function PointKeys({ spot, kind, frame }: Props) {
  const at = (kind && pointIn(frame.marks, kind.name)) ?? frame.origin;
  const move = (x: number, y: number) => spot && pointTo(spot, { x: at.x + x, y: at.y + y });
  const turn = (by: number) => {
    const point = kind && pointIn(frame.marks, kind.name);
    if (spot && point) sayUnlessDone(aimPoint(spot, point.angle === undefined ? 0 : (((point.angle + by) % 360) + 360) % 360));
  };
  useKeys(
    t("Points"),
    [
      ...ARROWS.map(([way, x, y]) => ({
        keys: `Arrow${way}`,
        repeats: true,
        label: t("Point one pixel {way}", { way: way.toLowerCase() }),
        run: () => move(x, y),
      })),
      ...ARROWS.map(([way, x, y]) => ({
        keys: `Alt+Arrow${way}`,
        repeats: true,
        label: t("Point half a pixel {way}", { way: way.toLowerCase() }),
        run: () => move(x / 2, y / 2),
      })),
      { keys: "a", repeats: true, label: t("Rotate the point by 90° clockwise"), run: () => turn(90) },
      { keys: "Shift+a", repeats: true, label: t("Rotate the point by 90° counter-clockwise"), run: () => turn(-90) },
      { keys: "Delete Backspace", label: t("Remove the point"), run: () => spot && dropMarks(spot) },
    ],
    { scope: "surface" },
  );
  return null;
}

function OutlineKeys({ spot, outlines, corner, onCorner }: Props) {
  const at = corner && outlines[corner.outline]?.[corner.corner];
  const move = (x: number, y: number) => {
    if (!spot || !corner || !at) return;
    const next = withCornerAt(outlines, { kind: "corner", ...corner }, { x: at.x + x, y: at.y + y });
    giveOutlines(spot, next.outlines, `nudge corner ${corner.outline} ${corner.corner}`);
  };
  useKeys(
    t("Outlines"),
    [
      ...ARROWS.map(([way, x, y]) => ({
        keys: `Arrow${way}`,
        repeats: true,
        label: t("Corner one pixel {way}", { way: way.toLowerCase() }),
        run: () => move(x, y),
      })),
      { keys: "c", repeats: true, label: t("Next corner"), run: () => onCorner(cornerBeside(outlines, corner, 1)) },
      { keys: "Shift+c", repeats: true, label: t("Previous corner"), run: () => onCorner(cornerBeside(outlines, corner, -1)) },
      {
        keys: "i",
        label: t("Insert a corner in the middle of the next edge"),
        run() {
          const next = corner && outlines[corner.outline]?.[(corner.corner + 1) % (outlines[corner.outline]?.length ?? 1)];
          if (!spot || !corner || !at || !next) return;
          const made = withCornerAt(outlines, { kind: "edge", ...corner }, { x: (at.x + next.x) / 2, y: (at.y + next.y) / 2 });
          giveOutlines(spot, made.outlines);
          onCorner(made.at);
        },
      },
      {
        keys: "Delete Backspace",
        label: t("Remove the corner"),
        run() {
          if (!spot || !corner || !at) return;
          giveOutlines(spot, withoutCorner(outlines, corner));
          onCorner(null);
        },
      },
    ],
    { scope: "surface" },
  );
  return null;
}
