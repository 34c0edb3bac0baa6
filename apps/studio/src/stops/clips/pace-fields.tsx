"use client";

import { paceOf } from "@caravan/core/clip";
import { setClipFps, setClipTotal } from "@caravan/core/edit";
import type { Clip } from "@caravan/core/model";
import { timelineOfClip } from "../../preview/timelines";
import { editInGesture } from "../../project/open-project";
import { FIELDS } from "../../ui/fields-by-key";
import { FieldBox, NumberField } from "../../ui/number-field";
import { t } from "../../ui/words";
import { secondsInWords } from "./pace-words";

/** The three ways to express a clip's speed, all shown, each editable. Steps keep their proportions. */
export function PaceFields({ clip }: { clip: Clip }) {
  const pace = paceOf(clip.steps.map((step) => step.duration));
  if (!pace) return null;
  const gesture = `pace ${clip.name}`;
  const { name, steps } = clip;
  const total = (micros: number) => editInGesture(gesture, setClipTotal, name, micros)?.message;
  const round = timelineOfClip(clip)?.laterPass ?? 0;
  return (
    <div className="flex flex-wrap items-center gap-1.5">
      <FieldBox label={pace.even ? "" : t("mean")}>
        <NumberField
          id={FIELDS.fps}
          label={t("Frames per second")}
          value={pace.fps}
          least={0.001}
          most={1_000_000}
          decimals={3}
          unit="fps"
          onChange={(fps) => editInGesture(gesture, setClipFps, name, fps)?.message}
        />
      </FieldBox>
      <span aria-hidden>=</span>
      <FieldBox label={pace.even ? "" : t("mean")}>
        <NumberField
          label={t("Milliseconds a step")}
          value={pace.perStep / 1000}
          least={0.001}
          most={3_600_000}
          step={5}
          decimals={3}
          unit="ms a step"
          onChange={(ms) => total(ms * 1000 * steps.length)}
        />
      </FieldBox>
      <span aria-hidden>=</span>
      <FieldBox label="">
        <NumberField
          label={t("Seconds in all")}
          value={pace.total / 1_000_000}
          least={0.000001}
          most={3600 * steps.length}
          step={0.05}
          decimals={6}
          unit={clip.playback === "pingpong" ? t("s one way") : clip.playback === "once" ? t("s in all") : t("s a loop")}
          onChange={(seconds) => total(seconds * 1_000_000)}
        />
      </FieldBox>
      {clip.playback === "pingpong" && <span className="text-muted">{t("{seconds} a loop", { seconds: secondsInWords(round) })}</span>}
    </div>
  );
}
