"use client";

import { sheetLook } from "@caravan/core/art";
import { type Frame, type Source, sheetOf } from "@caravan/core/model";
import { useState } from "react";
import { type Picture, usePicture } from "../project/pictures";
import { Choice } from "../ui/choice";
import { useBeat } from "../ui/ticking";
import { t } from "../ui/words";

const ROOM = { w: 640, h: 260 }; // px
/** Each sheet is shown for so many beats. */
const BEATS = 8;

/** Alternates between a sheet's old and new art in one place, with the frames of each on top: the eye sees what moved. */
export function AlternatingSheets({ before, after }: { before: Source; after: Source }) {
  const [held, setHeld] = useState<"both" | "before" | "after">("both");
  const beat = useBeat(held === "both");
  const showsNew = held === "both" ? Math.floor(beat / BEATS) % 2 === 1 : held === "after";
  const source = showsNew ? after : before;
  const picture = usePicture(sheetLook(source));
  // Both are loaded from the start, so that the first change does not flicker.
  usePicture(sheetLook(showsNew ? before : after));
  const [a, b] = [sheetOf(before), sheetOf(after)];
  const whole = { w: Math.max(a.width, b.width), h: Math.max(a.height, b.height) };
  const fit = Math.min(ROOM.w / whole.w, ROOM.h / whole.h);
  const scale = fit >= 1 ? Math.min(4, Math.floor(fit)) : fit;
  const size = { width: Math.round(whole.w * scale), height: Math.round(whole.h * scale) };
  return (
    <section aria-label={t("The sheet before and after")} className="flex flex-col items-start gap-1.5">
      <div className="check relative overflow-hidden rounded-box" style={size}>
        <canvas
          ref={(canvas) => paint(canvas, picture, source.frames, size, scale)}
          className="text-lapis"
          role="img"
          aria-label={showsNew ? t("The new art") : t("The old art")}
        />
      </div>
      <div className="flex items-center gap-3">
        <Choice
          label={t("Which art is shown")}
          value={held}
          options={[
            ["both", t("Alternating")],
            ["before", t("Before")],
            ["after", t("Now")],
          ]}
          onChange={setHeld}
        />
        <span className="font-semibold">{showsNew ? t("Shown: the new art") : t("Shown: the old art")}</span>
      </div>
    </section>
  );
}

function paint(
  canvas: HTMLCanvasElement | null,
  picture: Picture | undefined,
  frames: readonly Frame[],
  { width, height }: { width: number; height: number },
  scale: number,
): void {
  const context = canvas?.getContext("2d");
  if (!context) return;
  const density = Math.max(1, Math.round(devicePixelRatio));
  context.canvas.width = width * density;
  context.canvas.height = height * density;
  context.canvas.style.width = `${width}px`;
  context.canvas.style.height = `${height}px`;
  if (!picture) return;
  context.scale(density * scale, density * scale);
  context.imageSmoothingEnabled = scale < 1;
  const { bitmap, overview } = picture;
  context.drawImage(scale < 1 && overview ? overview.bitmap : bitmap, 0, 0, bitmap.width, bitmap.height);
  context.lineWidth = 1 / scale;
  context.strokeStyle = getComputedStyle(context.canvas).color;
  for (const { rect, dropped } of frames) if (!dropped) context.strokeRect(rect.x + 0.5 / scale, rect.y + 0.5 / scale, rect.w, rect.h);
}
