"use client";

import { type ClipRulesChange, reverseSteps, setClipRules } from "@caravan/core/edit";
import type { Clip } from "@caravan/core/model";
import { act } from "../../project/act";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { useCountFrom } from "../../ui/counting";
import { FieldBox, NumberField } from "../../ui/number-field";
import { Select } from "../../ui/select";
import { Tick } from "../../ui/tick";
import { t } from "../../ui/words";

/** How the clip continues after its last step. */
export function RuleFields({ clip }: { clip: Clip }) {
  const set = (change: ClipRulesChange) => act(setClipRules, clip.name, change);
  const countFrom = useCountFrom();
  const ends = clip.playback === "once" || clip.times > 0;
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Choice
        label={t("Looping")}
        value={clip.playback}
        options={[
          ["once", t("Once")],
          ["loop", t("Loop")],
          ["pingpong", t("Ping-pong")],
        ]}
        onChange={(playback) => set({ playback })}
      />
      {clip.playback !== "once" && (
        <FieldBox label={t("loops")}>
          <NumberField label={t("Loops, 0 for forever")} value={clip.times} most={1_000_000} onChange={(times) => void set({ times })} />
          <span className="text-small text-muted">{clip.times === 0 ? t("forever") : clip.times === 1 ? t("time") : t("times")}</span>
        </FieldBox>
      )}
      {clip.playback !== "once" && clip.steps.length > 1 && (
        <FieldBox label={t("loop from step")}>
          <NumberField
            label={t("First step of each later loop")}
            value={clip.loopFrom + countFrom}
            least={countFrom}
            most={clip.steps.length - 1 + countFrom}
            onChange={(step) => void set({ loopFrom: step - countFrom })}
          />
        </FieldBox>
      )}
      {clip.playback === "pingpong" && (
        <Tick label={t("show both ends twice")} checked={clip.doubleEnds} onChange={(doubleEnds) => set({ doubleEnds })} />
      )}
      {ends && (
        <span className="inline-flex min-h-8 items-center gap-1.5 rounded-box border border-line bg-raised px-2">
          <span className="text-small text-muted">{t("then")}</span>
          <Select
            label={t("then")}
            value={clip.after}
            options={[
              ["hold", t("hold last")],
              ["first", t("show first")],
              ["hide", t("hide")],
            ]}
            onChange={(after) => set({ after })}
          />
        </span>
      )}
      <Button className="ml-auto" onClick={() => act(reverseSteps, clip.name)} hint="V">
        {t("Reverse")}
      </Button>
    </div>
  );
}
