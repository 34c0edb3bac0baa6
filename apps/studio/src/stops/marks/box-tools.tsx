"use client";

import type { Box } from "@caravan/core/model";
import type { PlayedFrame } from "../../preview/playing";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { inBackground } from "../../ui/in-background";
import { FieldBox, NumberField } from "../../ui/number-field";
import { withParts } from "../../ui/rich-words";
import { t } from "../../ui/words";
import { alterBox, boxAroundDrawn, drawBox, dropBox, giveToAll, type Spot } from "./set-marks";

interface Props {
  readonly spot: Spot;
  readonly frame: PlayedFrame;
  /** The frame's boxes of the kind, and which of them is chosen. */
  readonly boxes: readonly Box[];
  readonly box: number;
  readonly onBox: (index: number) => void;
}

/** The chosen box in numbers, and what can be done with it. */
export function BoxTools({ spot, frame, boxes, box, onBox }: Props) {
  const chosen = boxes[box];
  const { inScope } = spot;
  const several = inScope.frames.length > 1;
  return (
    <section aria-label={t("Boxes")} className="flex w-64 shrink-0 flex-col gap-2.5">
      {boxes.length > 1 && (
        <Choice
          label={t("Which box")}
          value={String(box)}
          options={boxes.map((_, k) => [String(k), t("Box {number}", { number: k + 1 })] as const)}
          onChange={(next) => onBox(Number(next))}
        />
      )}
      {chosen ? (
        <BoxNumbers spot={spot} frame={frame} index={box} box={chosen} />
      ) : (
        <p className="text-muted">
          {several
            ? t("This frame has no {spot}. Drag on it to draw a box; all {count} frames of {place} get it.", {
                spot: spot.name,
                count: inScope.frames.length,
                place: inScope.name,
              })
            : t("This frame has no {name}. Drag on it to draw a box.", { name: spot.name })}
        </p>
      )}
      <div className="flex flex-wrap gap-1.5">
        <Button onClick={() => drawBox(spot, middleOf(frame)) && onBox(boxes.length)}>
          {chosen ? t("Another box") : t("Box in the middle")}
        </Button>
        <Button onClick={() => inBackground(boxAroundDrawn(spot))}>{t("Around the drawing")}</Button>
        <Button disabled={!chosen || !several} onClick={() => giveToAll(spot)}>
          {t("Same on all")}
        </Button>
        <Button disabled={!chosen} onClick={() => dropBox(spot, box)}>
          {t("Remove box")}
        </Button>
      </div>
    </section>
  );
}

const SIDES = [
  ["x", "x"],
  ["y", "y"],
  ["w", t("width")],
  ["h", t("height")],
] as const;

function BoxNumbers({ spot, frame, index, box }: { spot: Spot; frame: PlayedFrame; index: number; box: Box }) {
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5">
        {SIDES.map(([side, word]) => (
          <FieldBox key={side} label={word}>
            <NumberField
              label={t("Box {word}", { word })}
              value={box[side]}
              least={side === "w" || side === "h" ? 1 : -32_768}
              most={32_768}
              onChange={(value) => alterBox(spot, index, { [side]: value - box[side] }, `box ${side}`)}
            />
          </FieldBox>
        ))}
      </div>
      <p className="text-small text-muted">
        {withParts("From the origin {from} to {to} px", {
          from: <span className="number">{fromOrigin(box.x - frame.origin.x, box.y - frame.origin.y)}</span>,
          to: <span className="number">{fromOrigin(box.x + box.w - frame.origin.x, box.y + box.h - frame.origin.y)}</span>,
        })}
      </p>
    </>
  );
}

/** With a true minus sign. */
export function fromOrigin(x: number, y: number): string {
  return `${x}, ${y}`.replaceAll("-", "−");
}

/** A box of half the frame's sides around its middle, to begin from without a pointer. */
function middleOf({ size: { w, h } }: PlayedFrame): Box {
  const side = (length: number) => Math.max(1, Math.floor(length / 2));
  return { x: Math.floor((w - side(w)) / 2), y: Math.floor((h - side(h)) / 2), w: side(w), h: side(h) };
}
