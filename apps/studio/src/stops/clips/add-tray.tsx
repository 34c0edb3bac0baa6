"use client";

import { parseRanges } from "@caravan/core/clip";
import { addClip, nameForClip } from "@caravan/core/edit";
import { type Clip, type FrameRef, frameRef, type Source, whyOf } from "@caravan/core/model";
import { useFrameNumber } from "../../preview/frame-number";
import { FrameStrip } from "../../preview/frame-strip";
import { currentProject, edit, useProject } from "../../project/open-project";
import { chooseClip, chooseSource, chosenSource, pickedFrames, useView } from "../../project/view";
import { Button } from "../../ui/button";
import { FIELDS } from "../../ui/fields-by-key";
import { say } from "../../ui/notices";
import { FieldBox } from "../../ui/number-field";
import { Select } from "../../ui/select";
import { TextField } from "../../ui/text-field";
import { t } from "../../ui/words";
import { addPicked, addRefs } from "./clip-keys";

/** A sheet's frames, to drag into the ribbon, or to pick and add with Enter. */
export function AddTray({ clip }: { clip: Clip }) {
  const project = useProject((each) => each);
  const sourceId = useView((view) => view.sourceId);
  const picks = useView((view) => view.picked);
  const first = clip.steps[0]?.frame.split("/")[0];
  const source = chosenSource(project, { sourceId: sourceId ?? ((first ?? null) as typeof sourceId) });
  if (!source) return null;
  const count = pickedFrames(project, { picked: picks }).length;
  return (
    <section
      data-region="tray"
      tabIndex={-1}
      aria-label={t("Tray")}
      className="shrink-0 rounded-box border border-line bg-surface px-2.5 pt-2 pb-1"
    >
      <header className="mb-1.5 flex min-h-6 flex-wrap items-center justify-between gap-x-3 gap-y-1.5">
        <span className="flex shrink-0 items-center gap-2 font-semibold whitespace-nowrap text-muted">
          {t("Frames of")}
          <Select
            label={t("Frames of")}
            value={source.id}
            options={project.sources.map((each) => [each.id, each.name] as const)}
            onChange={chooseSource}
          />
        </span>
        <RangeFields clip={clip} source={source} />
        {count > 0 ? (
          <Button className="min-h-6" onClick={() => addPicked(clip)} hint="Enter">
            {t("Add {count} to {name}", { count, name: clip.name })}
          </Button>
        ) : (
          <span className="truncate text-muted">{t("drag, or pick and Enter")}</span>
        )}
      </header>
      <FrameStrip source={source} />
    </section>
  );
}

/** Frames by the numbers that they show, as many as one likes: `3-9, 12, 9-3`; into this clip, or as a clip of their own. */
function RangeFields({ clip, source }: { clip: Clip; source: Source }) {
  const numberOf = useFrameNumber(source);
  const kept = source.frames.filter((frame) => !frame.dropped);
  if (kept.length === 0) return null;
  const byNumber = new Map(kept.map((frame) => [numberOf(frame), frameRef(source, frame)]));
  const [least, most] = [Math.min(...byNumber.keys()), Math.max(...byNumber.keys())];
  const some = `${least}-${Math.min(least + 3, most)}, …`;
  const take = (use: (refs: FrameRef[]) => string | undefined) => (text: string) => {
    try {
      const numbers = parseRanges(text, least, most);
      const missing = [...new Set(numbers.filter((number) => !byNumber.has(number)))];
      const refs = numbers.flatMap((number) => byNumber.get(number) ?? []);
      if (refs.length === 0)
        return missing.length > 0
          ? t("There is no frame {number}.", { number: missing[0] ?? "" })
          : t("Write numbers such as {some}", { some });
      const problem = use(refs);
      if (!problem && missing.length > 0)
        say({
          tone: "plain",
          text:
            missing.length > 8
              ? t("Skipped (empty, dropped or missing): {missing}, ….", { missing: missing.slice(0, 8).join(", ") })
              : t("Skipped (empty, dropped or missing): {missing}.", { missing: missing.slice(0, 8).join(", ") }),
        });
      return problem;
    } catch (error) {
      return whyOf(error);
    }
  };
  return (
    <>
      <FieldBox label={t("add numbers")}>
        <TextField
          id={FIELDS.moreFrames}
          label={t("Frames by number")}
          value=""
          onChange={take((refs) => addRefs(clip, refs))}
          placeholder={some}
        />
      </FieldBox>
      <FieldBox label={t("new clip of")}>
        <TextField
          id={FIELDS.clipOfFrames}
          label={t("New clip of frames by number")}
          value=""
          onChange={take(newClip)}
          placeholder={some}
        />
      </FieldBox>
    </>
  );
}

/** Makes a clip and lets its name be typed. */
function newClip(refs: readonly FrameRef[]): string | undefined {
  const name = nameForClip(currentProject(), refs);
  const error = edit(addClip, refs);
  if (error) return error.message;
  chooseClip(name);
  useView.setState({ naming: true, bench: "ribbons" });
  return undefined;
}
